import type { Fact, CompletedLobe } from './completed-lobe';
import { decimal } from '../units/decimal';
import { wheelDegrees } from '../units/degrees';
import { type LengthUnit, formatComputedLength, formatLength } from '../units/length';
import { type CamCard, EVENT_NAMES, type LobeCard, VALVES, type Valve } from './card';
import type { FigureKey } from './contradictions';
import { lobeAt } from './lobe';
import { eventWords, heightWords, lineKey } from './timing-line';

/** A figure of the card: printed (`from` null), or worked out and from what. Degrees, mm or a plain ratio. */
export interface CardFigure {
  readonly key: FigureKey;
  readonly label: string;
  readonly value: number;
  readonly shows: string;
  readonly from: string | null;
  /** Stands in a contradiction, or rests on one. */
  readonly disputed: boolean;
}

const NAMES = { intake: 'intake', exhaust: 'exhaust' } as const;

/** Every figure of a card in the order of reading, printed or worked out, in words. */
export function figuresOf(
  card: CamCard,
  facts: ReadonlyMap<FigureKey, Fact>,
  disputed: ReadonlySet<FigureKey>,
  units: LengthUnit,
  lobes: Readonly<Record<Valve, CompletedLobe>>,
): CardFigure[] {
  const figures: CardFigure[] = [];
  const add = (key: FigureKey, label: string, show: (value: number) => string, printed?: number): void => {
    const fact = facts.get(key);
    const value = fact?.value ?? (disputed.has(key) ? printed : undefined);
    if (value === undefined) return;
    figures.push({ key, label, value, shows: show(value), from: fact?.from ?? null, disputed: disputed.has(key) });
  };
  const length = (mm: number): string => formatLength(Math.round(mm * 1e4) / 1e4, units);
  const plain = (value: number): string => decimal(value, 2);
  for (const valve of VALVES) {
    const lobe: LobeCard = card[valve] ?? {};
    const names = EVENT_NAMES[valve];
    add(`${valve}.lobeLift`, `Lobe lift, ${NAMES[valve]}`, length, lobe.lobeLift);
    add(`${valve}.ratio`, `Ratio, ${NAMES[valve]}`, plain, lobe.ratio);
    add(`${valve}.valveLift`, `Valve lift, ${NAMES[valve]}`, length, lobe.valveLift);
    for (const line of card[valve]?.timing ?? []) {
      const where = heightWords(line, units);
      const on = (name: string): FigureKey => `${valve}.${name}@${lineKey(line)}`;
      add(on('duration'), `Duration, ${NAMES[valve]}, ${where}`, wheelDegrees, line.duration);
      add(on('opens'), `${names.opens} ${where}`, (value) => eventWords(value, valve, 'opens'), line.opens);
      add(on('closes'), `${names.closes} ${where}`, (value) => eventWords(value, valve, 'closes'), line.closes);
    }
    add(
      `${valve}.centreline`,
      names.centreline,
      (value) => `${wheelDegrees(value)} ${valve === 'intake' ? 'ATDC' : 'BTDC'}`,
      lobe.centreline,
    );
    const { curve, shape, lobeLift } = lobes[valve];
    const atTdc = curve && lobes[valve].centreline !== null ? lobeAt(curve, 0).lift : null;
    if (atTdc !== null && shape === 'full' && lobeLift !== null)
      figures.push({
        key: `${valve}.liftAtTdc`,
        label: `Lift at TDC, ${NAMES[valve]}`,
        value: atTdc,
        shows: formatComputedLength(atTdc, units),
        from: 'a lobe fitted through the durations',
        disputed: false,
      });
  }
  add('lobeSeparation', 'LSA', (value) => `${wheelDegrees(value)} cam`, card.lobeSeparation);
  add('groundInAdvance', 'Ground-in advance', wheelDegrees, card.groundInAdvance);
  return figures;
}
