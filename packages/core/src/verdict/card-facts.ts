import {
  ADVERTISED_HEIGHT,
  type CamCard,
  type TimingLine,
  VALVES,
  type Valve,
  closesAt,
  eventCentre,
  noseAt,
  opensAt,
} from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import type { Lobe } from '../cam/lobe';
import { lineKey } from '../cam/timing-line';
import { rimDegrees } from '../crank/rim';
import type { CardFact, CentreMeans, GuessedLobe } from './observations';

/** A common lobe, where the card says next to nothing. From memory. */
const COMMON: Omit<Lobe, 'nose'> = { peak: 8.5, half: 150, power: 2.1, lean: 0 };
const USUAL_NOSE: Readonly<Record<Valve, number>> = { intake: 108, exhaust: -112 };
/** An advertised duration says nothing of its height: 0.004 to 0.006 in is about this much. Crank degrees, from memory. */
const HEIGHT_UNSTATED = 2.5;
/** Flywheels are marked to about this, mm: an eighth of an inch. From memory. */
const RIM_STEP = 3.175;
/** A lobe is ground to within this of its lift, and cards print thousandths of an inch. mm, from memory. */
const LIFT = 0.03;

/** Standard uncertainty of a printed figure: anywhere within half of its last step. `roundingOf(107)` is 0.29; `roundingOf(107.5)` is 0.14. */
export function roundingOf(printed: number): number {
  const step = Number.isInteger(printed) ? 1 : Number.isInteger(printed * 2) ? 0.5 : 0.1;
  return step / Math.sqrt(12);
}

/** A printed centreline further from the middle of its own events than this was found another way, crank degrees: three events' roundings. */
const CLEARLY_APART = 0.9;

/** What a printed centreline is the middle of: as the card says, else as its own figures tell. */
function meansOf(card: CamCard, valve: Valve, isDoubtful: boolean, stands: (name: string) => boolean): CentreMeans {
  if (isDoubtful) return 'nose';
  if (card.centrelineMeans !== undefined) return card.centrelineMeans;
  const { centreline = 0, timing = [] } = card[valve] ?? {};
  const lines = timing.filter(
    (line) => line.height !== null && stands(`opens@${lineKey(line)}`) && stands(`closes@${lineKey(line)}`),
  );
  const centres = lines.flatMap(({ opens, closes }) =>
    opens === undefined || closes === undefined ? [] : [eventCentre(valve, opens, closes)],
  );
  if (centres.length === 0) return 'unsaid';
  return centres.some((each) => Math.abs(each - centreline) <= CLEARLY_APART) ? 'as-events' : 'nose';
}

/**
 * Height above the base circle of the lobe that a line of a card speaks of, mm; null where it cannot be told.
 * @param through how many mm at the valve are one at the lobe; null where it is not known.
 * @param lash at the valve, mm.
 */
function heightAtLobe({ at, height }: TimingLine, through: number | null, lash: number): number | null {
  if (height === null) return at === 'lobe' ? ADVERTISED_HEIGHT : null;
  if (at !== 'valve') return height;
  return through === null ? null : (height + lash) / through;
}

/** The lobe that the weighing begins with, its nose where the card has it. */
function lobeToBegin(valve: Valve, { curve, lobeLift: peak, centreline }: CompletedCard[Valve]): Lobe {
  const nose = centreline === null ? USUAL_NOSE[valve] : noseAt(valve, centreline);
  if (!curve) return { ...COMMON, peak: peak ?? COMMON.peak, nose };
  return centreline === null ? { ...curve, nose } : curve;
}

/**
 * What a card says for the weighing: each printed figure once, none that stands in a contradiction which no lean explains, none that only repeats others.
 * @param ratios of the engine itself, where they are known: lift at the valve goes by them.
 */
export function factsOfCard(
  card: CamCard,
  completed: CompletedCard,
  ratios: Readonly<Record<Valve, number>> | null,
): { readonly facts: CardFact[]; readonly lobes: Readonly<Record<Valve, GuessedLobe>> } {
  const figuresOf = (all: CompletedCard['contradictions']) => new Set(all.flatMap(({ figures }) => figures));
  const disputed = figuresOf(completed.contradictions.filter(({ lean }) => lean === undefined));
  const doubtful = figuresOf(completed.contradictions.filter(({ lean }) => lean !== undefined));
  const facts: CardFact[] = [];
  const lobeOf = (valve: Valve): GuessedLobe => {
    const printed = card[valve] ?? {};
    const { curve, shape, ratio } = completed[valve];
    const lash = printed.lashHot ?? printed.lashCold ?? 0;
    const stands = (name: string): boolean => !disputed.has(`${valve}.${name}`);
    const doubt = (name: string): { readonly doubtful?: true } =>
      doubtful.has(`${valve}.${name}`) ? { doubtful: true } : {};
    // Where nothing is said of the lobe, the motion of the valve stands for it: both are then told at the valve.
    const through = ratio ?? ratios?.[valve] ?? (printed.lobeLift === undefined ? 1 : null);
    if (printed.centreline !== undefined && stands('centreline'))
      facts.push({
        of: 'centre',
        valve,
        value: noseAt(valve, printed.centreline),
        standard: roundingOf(printed.centreline),
        means: meansOf(card, valve, doubtful.has(`${valve}.centreline`), stands),
        ...doubt('centreline'),
      });
    const peak = completed[valve].lobeLift;
    if (peak !== null) facts.push({ of: 'peak', valve, value: peak, standard: LIFT });
    for (const line of printed.timing ?? []) {
      const { opens, closes, duration } = line;
      const height = heightAtLobe(line, through, lash);
      if (height === null || height >= (peak ?? Infinity)) continue;
      const add = (of: 'opening' | 'closing' | 'duration', value: number, figure: number, name: string): void => {
        if (!stands(`${name}@${lineKey(line)}`)) return;
        const unstated = line.height === null ? HEIGHT_UNSTATED : 0;
        const rounding = card.rim === undefined ? roundingOf(figure) : rimDegrees(RIM_STEP, card.rim) / Math.sqrt(12);
        facts.push({
          of,
          valve,
          height,
          value,
          standard: Math.hypot(rounding, unstated),
          ...doubt(`${name}@${lineKey(line)}`),
        });
      };
      if (opens !== undefined) add('opening', opensAt(valve, opens), opens, 'opens');
      if (closes !== undefined) add('closing', closesAt(valve, closes), closes, 'closes');
      // Events and the duration between them are one fact told twice.
      if (duration !== undefined && (opens === undefined || closes === undefined))
        add('duration', duration, duration, 'duration');
    }
    return {
      lobe: lobeToBegin(valve, completed[valve]),
      shape: curve ? (shape ?? 'usual') : 'common',
      ratio: ratios?.[valve] ?? ratio ?? 1,
      lash,
      catalogue: printed.liftAtTdc ?? [],
    };
  };
  const lobes = { intake: lobeOf('intake'), exhaust: lobeOf('exhaust') };
  const placed = (valve: Valve): boolean => facts.some((fact) => fact.of === 'centre' && fact.valve === valve);
  const { lobeSeparation, groundInAdvance } = card;
  // With both centrelines printed, LSA and ground-in advance only repeat them.
  if (!VALVES.every(placed)) {
    if (lobeSeparation !== undefined && !disputed.has('lobeSeparation'))
      facts.push({ of: 'separation', value: lobeSeparation, standard: roundingOf(lobeSeparation) });
    if (groundInAdvance !== undefined && !disputed.has('groundInAdvance') && !placed('intake'))
      facts.push({ of: 'ground-in', value: groundInAdvance, standard: roundingOf(groundInAdvance) });
  }
  return { facts, lobes };
}
