import { EVENT_NAMES } from '../cam/card';
import { READ_METHODS, type RulingMethod } from '../measure/read-methods';
import { computedDegrees } from '../units/degrees';
import { formatComputedLength, formatLength } from '../units/length';
import type { Suspect } from '../verdict/diagnose';
import { FAULTS } from '../verdict/faults';
import { squareOf } from '../statistics/least-squares';
import type { NextRound } from '../verdict/next-reading';
import type { Evidence } from '../verdict/observations';
import type { NamedFault } from '../verdict/verdict';
import type { Weighing } from '../verdict/weigh';
import type { Build } from '../record/fold';
import { readingLabel } from './readings/read-rounds';
import type { ViewContext } from './views/view';

/** A fault that is spoken of, with the readings that it concerns. */
export interface FaultFinding extends NamedFault {
  /** By how much it explains the readings better than "nothing is wrong": χ². */
  readonly better: number;
  readonly entries: readonly string[];
}

/** Each reading in words: "exhaust 0.050 in before peak". */
export function labelsOf({ trials, description }: Build): (entry: string) => string | null {
  const { units } = description.body;
  return (entry) => {
    for (const { rounds, traces } of trials) {
      for (const { readings } of rounds)
        for (const { id, body } of readings) {
          if (id !== entry) continue;
          const { shows } = body;
          const figure = shows.kind === 'below-peak' ? shows.drop : shows.kind === 'above-base' ? shows.lift : null;
          return `${body.valve} ${figure === null ? '' : `${formatLength(figure, units)} `}${readingLabel(body)}`;
        }
      const trace = traces.find(({ id }) => id === entry);
      if (trace) return `the ${trace.body.valve} trace`;
    }
    return null;
  };
}

/** A fault in words: what it was, at which readings, by how much. */
export function faultOf(
  { fault, better, concerns: entries, amount }: Suspect,
  { observations }: Evidence,
  label: (entry: string) => string | null,
  units: 'in' | 'mm',
): FaultFinding {
  const { words, check } = FAULTS[fault];
  const labels = entries.flatMap((entry) => label(entry) ?? []);
  const [first] = labels;
  const valves = new Set(observations.filter(({ entry }) => entries.includes(entry)).map(({ valve }) => valve));
  const size = computedDegrees(Math.abs(amount ?? 0));
  const [valve] = valves.size === 1 ? valves : [];
  const at =
    labels.length > 0 && labels.length <= 2
      ? ` (${labels.join(', ')})`
      : valve
        ? ` (${labels.length} of the ${valve})`
        : '';
  const said: Partial<Record<Suspect['fault'], string>> = {
    'wheel-slipped': `the wheel or the pointer moved by ${size}, before the reading “${first ?? ''}”`,
    'tdc-not-proved': `${words}, by ${size}`,
    'tooth-out': `${words}: ${size}`,
    'lsa-off': `the lobes are ground ${computedDegrees(Math.abs(amount ?? 0) / 2)} of the cam ${(amount ?? 0) > 0 ? 'closer together' : 'further apart'} than the card says`,
    'worn-lobe': `${valve ? `the ${valve} lobe is` : 'both lobes are'} worn by ${formatComputedLength(Math.abs(amount ?? 0), units)}`,
    'bleed-down': valve ? `the ${valve} lifter bleeds down` : 'both lifters bleed down',
    sticking: valve
      ? `the ${valve} lifter sticks and does not follow its lobe down`
      : 'both lifters stick and do not follow their lobes down',
  };
  return { fault, words: said[fault] ?? `${words}${at}`, check, better, entries };
}

/** The reading that fits worst with the rest. */
export function worstOf({ found, solved }: Weighing, label: (entry: string) => string | null): string | null {
  let [worst, most] = ['', 0];
  for (const { block, observations } of found) {
    const off = squareOf(block, solved.unknowns) / block.rows.length;
    const entry = observations[0]?.[0]?.entry;
    if (entry === undefined || off <= most) continue;
    most = off;
    worst = entry;
  }
  const words = label(worst);
  return words && `The reading “${words}”`;
}

/** A measurement with a smaller share than this is not counted among those that a verdict rests on. */
const WEIGHS = 0.02;

/** What a verdict rests on and what it was compared with, in words. */
export function basisOf(
  { wanted, card, build }: ViewContext,
  weights: ReadonlyMap<string, number>,
  rule: RulingMethod | null,
  cam: 'single' | 'intake' | 'exhaust',
): string {
  const valve = cam === 'exhaust' ? 'exhaust' : 'intake';
  const aim = wanted[valve];
  const count = [...weights.values()].filter((weight) => weight > WEIGHS).length;
  const against =
    aim === null || (cam === 'exhaust' && build.target?.body.exhaust === undefined)
      ? 'the card'
      : `${EVENT_NAMES[valve].centreline} ${Math.round(aim * 100) / 100}°`;
  const from =
    rule !== null
      ? `By the rule of the shop from ${READ_METHODS[rule].short}`
      : count <= 1
        ? 'From one measurement'
        : `From ${count} measurements (the more exact count more)`;
  const left =
    build.card && card.contradictions.length > 0 ? '; what the card contradicts itself about is left out' : '';
  return `${from}, against ${against}${left}`;
}

/** What to read next, and what for. */
export function nextWords({ view, method, valve, height, expanded }: NextRound, build: Build): string {
  const at = height === null ? null : formatLength(height, build.description.body.units);
  return `Read ${READ_METHODS[method].named(valve, at)} ${view === null ? 'too' : 'again'}: that would bring it to about ±${computedDegrees(expanded)}.`;
}
