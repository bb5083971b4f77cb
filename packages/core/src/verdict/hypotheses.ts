import { MM_PER_INCH } from '../units/length';
import { VALVES, type Valve } from '../cam/card';
import { flanksAt } from '../cam/lobe';
import type { Predicted } from './cam-model';
import { flankOf } from './flank';
import type { Evidence, FlankObservation, Observation, PrintedAngle } from './observations';

/** What a fault adds to what is observed: x times `moves`, where x is believed to be about `mean`. */
export interface Moved {
  readonly moves: (observation: Observation, predicted: Predicted) => number;
  readonly mean: number;
  /** 0 where it is known exactly. */
  readonly standard: number;
  /** Which way x must come out: a lifter loses lift and gains none. */
  readonly sign?: 1 | -1;
  /** Is x an angle on the wheel, crank degrees? */
  readonly turns?: true;
  /** Or x stands in this figure of the card, and in no reading. */
  readonly prints?: PrintedAngle;
}

/** One way in which a fault could have made the readings: it moved them, or something else was observed than was written down. */
export interface Hypothesis {
  /** The observations that it speaks of, by their entries. */
  readonly concerns: readonly string[];
  readonly makes: Moved | { readonly evidence: Evidence; readonly loose?: boolean };
}

export const entriesOf = (all: readonly Observation[]): string[] => [...new Set(all.map(({ entry }) => entry))];
export const roundsOf = (all: readonly Observation[]): string[] => [...new Set(all.map(({ round }) => round))];
export const isFlank = (each: Observation): each is FlankObservation => each.kind === 'flank' && each.standard === null;
export const otherValve = (valve: Valve): Valve => (valve === 'intake' ? 'exhaust' : 'intake');

/** Something else was observed. `change` gives null for what was not observed at all. */
export function instead(
  evidence: Evidence,
  concerns: readonly Observation[],
  change: (each: Observation) => Observation | null,
): Hypothesis {
  const chosen = new Set(concerns);
  const observations = evidence.observations.flatMap((each) => (chosen.has(each) ? (change(each) ?? []) : each));
  return { concerns: entriesOf(concerns), makes: { evidence: { ...evidence, observations } } };
}

/** Some of the readings of the wheel were read as something else. `by`: how much that added, from the ring position as read. */
export function misread(which: readonly Observation[], by: (ring: number) => number): Hypothesis {
  const chosen = new Set(which);
  return {
    concerns: entriesOf(which),
    makes: { mean: 1, standard: 0, moves: (each) => (isFlank(each) && chosen.has(each) ? by(each.ring) : 0) },
  };
}

/** Everything of these was shifted alike. */
export function shift(mean: number, standard: number, concerns: readonly Observation[], sign?: 1 | -1): Hypothesis {
  const chosen = new Set(concerns);
  const moves: Moved['moves'] = (each) => (chosen.has(each) && each.kind !== 'peak-lift' ? 1 : 0);
  return {
    concerns: entriesOf(concerns),
    makes: { mean, standard, moves, turns: true, ...(sign ? { sign } : {}) },
  };
}

/** This angle of the card is not the lobe's, but anywhere about it: `standard` in crank degrees. */
export const misprinted = (prints: PrintedAngle, standard: number): Hypothesis => ({
  concerns: [],
  makes: { mean: 0, standard, moves: () => 0, prints },
});

/** Readings that somebody may have got wrong together: each alone, each round, each flank, each valve, all. */
export function together(evidence: Evidence): (readonly FlankObservation[])[] {
  const flanks = evidence.observations.filter(isFlank);
  const rounds = roundsOf(flanks).map((round) => flanks.filter((each) => each.round === round));
  const valves = VALVES.map((valve) => flanks.filter((each) => each.valve === valve));
  const sides = valves.flatMap((ofValve) =>
    (['opening', 'closing'] as const).map((flank) => ofValve.filter((each) => each.flank === flank)),
  );
  const known = new Set<string>();
  return [...flanks.map((each) => [each]), ...rounds, ...sides, ...valves, flanks].filter((set) => {
    const key = set.map(({ entry, flank }) => entry + flank).join();
    if (set.length === 0 || known.has(key)) return false;
    known.add(key);
    return true;
  });
}

/** Valves that a fault may be at: one, the other, both. */
export function somewhere(evidence: Evidence): (readonly Valve[])[] {
  const seen = VALVES.filter((valve) => evidence.observations.some((each) => each.valve === valve));
  return seen.length > 1 ? [...seen.map((valve) => [valve]), seen] : [seen];
}

export const at = (evidence: Evidence, valves: readonly Valve[]): Observation[] =>
  evidence.observations.filter(({ valve }) => valves.includes(valve));

/** Rounds that were taken one after the other: what is written to the wrong lobe is mostly more than one of them. */
export function runsOf({ observations }: Evidence): Observation[][] {
  const rounds = roundsOf(observations);
  const runs: Observation[][] = [];
  for (let from = 0; from < rounds.length; from += 1)
    for (let to = from + 1; to <= rounds.length; to += 1)
      if (rounds.length <= MOST_ROUNDS || to - from === 1 || to - from === rounds.length)
        runs.push(observations.filter(({ round }) => rounds.slice(from, to).includes(round)));
  return runs;
}
/** With more rounds than this only single ones, and all, are looked at. */
const MOST_ROUNDS = 8;

export const onWheel = (evidence: Evidence): Observation[] =>
  evidence.observations.filter((each) => each.kind !== 'peak-lift');

/** Ratios of common rockers, where nobody has said one. */
const RATIOS = [1.5, 1.6, 1.7];
/** Figures that are taken for one another when an indicator reads in the other unit, mm: 0.050 in and 1 mm; 0.050 in and 0.050 mm. */
const MISTAKEN: readonly (readonly [number, readonly number[]])[] = [
  [1.27, [1, 0.05]],
  [1, [1.27]],
  [0.05, [1.27]],
];

/** Lift that a lifter loses for each degree off its seat, mm: from hardly any to half of a lobe. From memory. */
const BLEEDS = [0.002, 0.004, 0.006, 0.009, 0.012] as const;
/** How far a rate may lie from the nearest of these. */
const BETWEEN_RATES = 0.0012;

/** A lifter that bleeds at each of the usual rates: what is lost by the closing flank moves it by far more than its slope says, so each rate is worked out whole. */
export const bleeding = (evidence: Evidence, valves: readonly Valve[]): Hypothesis[] =>
  (shows(evidence, valves) ? BLEEDS : []).map((rate) => ({
    concerns: entriesOf(at(evidence, valves)),
    makes: { mean: rate, standard: BETWEEN_RATES, moves: bledAt(evidence, valves, rate), sign: 1 },
  }));

/** Drops from a peak hardly show what is lost on the way: only heights, and lifts, above the base circle do. */
const shows = (evidence: Evidence, valves: readonly Valve[]): boolean =>
  valves.every((valve) =>
    evidence.observations.some(
      (each) => each.valve === valve && (each.kind === 'peak-lift' || (each.kind === 'flank' && each.from === 'base')),
    ),
  );

/** What each mm per degree of a bleeding lifter does to a reading, at a rate. */
function bledAt(evidence: Evidence, valves: readonly Valve[], rate: number): Moved['moves'] {
  return (each, { byFigure }) => {
    if (!valves.includes(each.valve)) return 0;
    const { lobe } = evidence.lobes[each.valve];
    const seat = flanksAt(lobe, 0)?.opening ?? lobe.nose - lobe.half;
    if (each.kind === 'peak-lift') return seat - lobe.nose;
    if (each.kind === 'tdc-lift') return Math.min(0, seat) * byFigure;
    // A drop is counted from a peak that has bled already.
    const from = each.from === 'base' ? each.figure : lobe.peak - rate * (lobe.nose - seat) - each.figure;
    const still = flankOf(lobe, each.flank, each.from === 'base' ? each.figure : lobe.peak - each.figure).angle;
    let stands = still;
    for (let again = 0; again < 10; again += 1)
      stands = flankOf(lobe, each.flank, from + rate * Math.max(0, stands - seat)).angle;
    return (stands - still) / rate;
  };
}

/** What one mm off the nose does: less lift, and drops counted from further down. The flanks stay as they were. */
export function wearing(valves: readonly Valve[]): Moved['moves'] {
  return (each, { byFigure }) => {
    if (!valves.includes(each.valve)) return 0;
    if (each.kind === 'peak-lift') return -1;
    return each.kind === 'flank' && each.from === 'peak' ? byFigure : 0;
  };
}

/** Lifts read at the valve and taken for the lobe's, or the other way round, through each ratio that it may have been. */
export function elsewhere(evidence: Evidence, valves: readonly Valve[]): Hypothesis[] {
  const known = [...new Set(valves.map((valve) => evidence.lobes[valve].ratio))].filter((ratio) => ratio !== 1);
  return (known.length > 0 ? known : RATIOS).map((ratio) => {
    const lobes = { ...evidence.lobes };
    for (const valve of valves) lobes[valve] = { ...lobes[valve], ratio };
    return instead({ ...evidence, lobes }, at(evidence, valves), (each) => ({ ...each, atValve: !each.atValve }));
  });
}

/** All lifts of the book in the other unit: an indicator that reads in it does so at both lobes. */
export function liftsInOtherUnits(evidence: Evidence): Hypothesis[] {
  const lifts = evidence.observations.filter(({ kind }) => kind === 'peak-lift' || kind === 'tdc-lift');
  return [MM_PER_INCH, 1 / MM_PER_INCH].map((factor) =>
    instead(evidence, lifts, (each) => (each.kind === 'flank' ? each : { ...each, lift: each.lift * factor })),
  );
}

/** The figures of one view in the other unit. */
export function inOtherUnits(evidence: Evidence, view: string): Hypothesis[] {
  const members = evidence.observations.filter((each) => each.view === view);
  const [first] = members;
  if (first?.kind === 'flank')
    return (MISTAKEN.find(([figure]) => Math.abs(figure - first.figure) < 1e-6)?.[1] ?? []).map((figure) =>
      instead(evidence, members, (each) =>
        each.kind === 'flank' ? { ...each, figure, view: `${view} as ${figure}` } : each,
      ),
    );
  if (first?.kind === 'peak-lift')
    return [MM_PER_INCH, 1 / MM_PER_INCH].map((factor) =>
      instead(evidence, members, (each) => (each.kind === 'peak-lift' ? { ...each, lift: each.lift * factor } : each)),
    );
  return [];
}
