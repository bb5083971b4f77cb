import { VALVES, type Valve } from '../cam/card';
import { flanksAt } from '../cam/lobe';
import { type Predicted, flankOf } from './cam-model';
import type { Evidence, FlankObservation, Observation } from './observations';

export const FAULT_NAMES = [
  'wrong-side',
  'dead-centre',
  'flanks-exchanged',
  'wheel-slipped',
  'tdc-not-proved',
  'tooth-out',
  'backwards',
  'valves-exchanged',
  'at-valve',
  'bleed-down',
  'sticking',
  'wrong-cam',
  'worn-lobe',
  'lsa-off',
  'other-tdc',
  'units',
  'cam-degrees',
  'stray',
] as const;
export type FaultName = (typeof FAULT_NAMES)[number];

/** What a fault adds to what is observed: x times `moves`, where x is believed to be about `mean`. */
export interface Moved {
  readonly moves: (observation: Observation, predicted: Predicted) => number;
  readonly mean: number;
  /** 0 where it is known exactly. */
  readonly standard: number;
  /** Which way x must come out: a lifter loses lift and gains none. */
  readonly sign?: 1 | -1;
}

/** One way in which a fault could have made the readings: it moved them, or something else was observed than was written down. */
export interface Hypothesis {
  /** The observations that it speaks of, by their entries. */
  readonly concerns: readonly string[];
  readonly makes: Moved | { readonly evidence: Evidence; readonly loose?: boolean };
}

export interface Fault {
  /** What may have happened, to stand after "most likely". */
  readonly words: string;
  /** What tells whether it did. */
  readonly check: string;
  /** It could explain any odd reading, so it is named after everything definite. */
  readonly vague?: boolean;
  /** How much less often it happens on this engine than the usual ones, as a difference of χ². From memory. */
  readonly rare?: (evidence: Evidence) => number;
  readonly hypotheses: (evidence: Evidence) => Hypothesis[];
}

const entriesOf = (all: readonly Observation[]): string[] => [...new Set(all.map(({ entry }) => entry))];
const roundsOf = (all: readonly Observation[]): string[] => [...new Set(all.map(({ round }) => round))];
const isFlank = (each: Observation): each is FlankObservation => each.kind === 'flank' && each.standard === null;
const otherValve = (valve: Valve): Valve => (valve === 'intake' ? 'exhaust' : 'intake');

/** Something else was observed. `change` gives null for what was not observed at all. */
function instead(
  evidence: Evidence,
  concerns: readonly Observation[],
  change: (each: Observation) => Observation | null,
): Hypothesis {
  const chosen = new Set(concerns);
  const observations = evidence.observations.flatMap((each) => (chosen.has(each) ? (change(each) ?? []) : each));
  return { concerns: entriesOf(concerns), makes: { evidence: { ...evidence, observations } } };
}

/** Some of the readings of the wheel were read as something else. `by`: how much that added, from the ring position as read. */
function misread(which: readonly Observation[], by: (ring: number) => number): Hypothesis {
  const chosen = new Set(which);
  return {
    concerns: entriesOf(which),
    makes: { mean: 1, standard: 0, moves: (each) => (isFlank(each) && chosen.has(each) ? by(each.ring) : 0) },
  };
}

/** Everything of these was shifted alike. */
function shift(mean: number, standard: number, concerns: readonly Observation[], sign?: 1 | -1): Hypothesis {
  const chosen = new Set(concerns);
  const moves: Moved['moves'] = (each) => (chosen.has(each) && each.kind !== 'peak-lift' ? 1 : 0);
  return {
    concerns: entriesOf(concerns),
    makes: sign ? { mean, standard, moves, sign } : { mean, standard, moves },
  };
}

/** Readings that somebody may have got wrong together: each alone, each round, each flank, each valve, all. */
function together(evidence: Evidence): (readonly FlankObservation[])[] {
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
function somewhere(evidence: Evidence): (readonly Valve[])[] {
  const seen = VALVES.filter((valve) => evidence.observations.some((each) => each.valve === valve));
  return seen.length > 1 ? [...seen.map((valve) => [valve]), seen] : [seen];
}

const at = (evidence: Evidence, valves: readonly Valve[]): Observation[] =>
  evidence.observations.filter(({ valve }) => valves.includes(valve));

/** Rounds that were taken one after the other: what is written to the wrong lobe is mostly more than one of them. */
function runsOf({ observations }: Evidence): Observation[][] {
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

const onWheel = (evidence: Evidence): Observation[] =>
  evidence.observations.filter((each) => each.kind !== 'peak-lift');

/** Everything on the wheel, crank degrees: one tooth of common sprockets is 14 to 24. */
const ALIKE = 20;
/** How far a wheel slips that is not tight, crank degrees. From memory. */
const SLIPS = 10;
/** Slack of a chain or a belt that is read turning back: about 3 crank degrees. Common practice, no source. */
const SLACK = { mean: -3, standard: 1.5 } as const;
/** What a lifter loses that bleeds: 0.004 mm for each crank degree is half a millimetre by the nose. From memory. */
const BLEEDS = { mean: 0.004, standard: 0.004 } as const;
/** How much later a lifter that sticks comes down, crank degrees; how much is worn off a nose, mm; lobes ground apart, crank degrees. From memory. */
const STICKS = 15;
const WORN = 0.4;
const APART = 5;
/** How far a reading is out that does not belong: crank degrees, and mm for a lift. */
const STRAYS = { flank: 15, lift: 1 } as const;
/** Ratios of common rockers, where nobody has said one. */
const RATIOS = [1.5, 1.6, 1.7];
/** As good as no lift, mm. */
const NO_LIFT = 0.15;
/** Figures that are taken for one another when an indicator reads in the other unit, mm: 0.050 in and 1 mm; 0.050 in and 0.050 mm. */
const MISTAKEN: readonly (readonly [number, readonly number[]])[] = [
  [1.27, [1, 0.05]],
  [1, [1.27]],
  [0.05, [1.27]],
];

/** What one mm of lift lost for each degree since the lifter left its seat does to a reading. */
function bleeding(evidence: Evidence, valves: readonly Valve[]): Moved['moves'] {
  return (each, { byFigure }) => {
    if (!valves.includes(each.valve)) return 0;
    const { lobe } = evidence.lobes[each.valve];
    const seat = flanksAt(lobe, 0)?.opening ?? lobe.nose - lobe.half;
    if (each.kind === 'peak-lift') return seat - lobe.nose;
    if (each.kind === 'tdc-lift') return Math.min(0, seat);
    const height = each.from === 'base' ? each.figure : lobe.peak - each.figure;
    const stands = flankOf(lobe, each.flank, height).angle;
    // A drop is counted from a peak that has bled already.
    return each.from === 'base' ? byFigure * (stands - seat) : -byFigure * (stands - lobe.nose);
  };
}

/** What one mm off the nose does: less lift, and drops counted from further down. The flanks stay as they were. */
function wearing(valves: readonly Valve[]): Moved['moves'] {
  return (each, { byFigure }) => {
    if (!valves.includes(each.valve)) return 0;
    if (each.kind === 'peak-lift') return -1;
    return each.kind === 'flank' && each.from === 'peak' ? byFigure : 0;
  };
}

/** Lifts read at the valve and taken for the lobe's, or the other way round, through each ratio that it may have been. */
function elsewhere(evidence: Evidence, valves: readonly Valve[]): Hypothesis[] {
  const known = [...new Set(valves.map((valve) => evidence.lobes[valve].ratio))].filter((ratio) => ratio !== 1);
  return (known.length > 0 ? known : RATIOS).map((ratio) => {
    const lobes = { ...evidence.lobes };
    for (const valve of valves) lobes[valve] = { ...lobes[valve], ratio };
    return instead({ ...evidence, lobes }, at(evidence, valves), (each) => ({ ...each, atValve: !each.atValve }));
  });
}

/** The figures of one view in the other unit. */
function inOtherUnits(evidence: Evidence, view: string): Hypothesis[] {
  const members = evidence.observations.filter((each) => each.view === view);
  const [first] = members;
  if (first?.kind === 'flank')
    return (MISTAKEN.find(([figure]) => Math.abs(figure - first.figure) < 1e-6)?.[1] ?? []).map((figure) =>
      instead(evidence, members, (each) =>
        each.kind === 'flank' ? { ...each, figure, view: `${view} as ${figure}` } : each,
      ),
    );
  if (first?.kind === 'peak-lift')
    return [25.4, 1 / 25.4].map((factor) =>
      instead(evidence, members, (each) => (each.kind === 'peak-lift' ? { ...each, lift: each.lift * factor } : each)),
    );
  return [];
}

/**
 * What goes wrong when a cam is measured, each with what it does to the readings and with the check that tells. That these are the usual ones is common
 * practice, no source.
 */
export const FAULTS: Readonly<Record<FaultName, Fault>> = {
  'wrong-side': {
    words: 'the wheel was read on its wrong side',
    check: 'Go back to that reading and look on which side of TDC the pointer stands.',
    hypotheses: (evidence) => together(evidence).map((set) => misread(set, (ring) => 2 * ring)),
  },
  'dead-centre': {
    words: 'the wheel was read from the other dead centre',
    check: 'Go back to that reading and look whether the pointer stands near TDC or near BDC.',
    hypotheses: (evidence) =>
      evidence.quadrants
        ? together(evidence).flatMap((set) => [misread(set, () => 180), misread(set, (ring) => 2 * ring - 180)])
        : [],
  },
  'flanks-exchanged': {
    words: 'the readings before and after peak were exchanged',
    check: 'Read that pair again, the opening side first, turning the way the engine runs.',
    hypotheses: (evidence) => {
      const flanks = evidence.observations.filter(isFlank);
      return roundsOf(flanks).map((round) =>
        instead(
          evidence,
          flanks.filter((each) => each.round === round),
          (each) =>
            each.kind === 'flank' ? { ...each, flank: each.flank === 'opening' ? 'closing' : 'opening' } : each,
        ),
      );
    },
  },
  'wheel-slipped': {
    words: 'the wheel or the pointer moved between the readings',
    check:
      'Turn to 0 and see whether the stop contacts are still equal. If not, find TDC again and repeat what was read.',
    hypotheses: (evidence) =>
      onWheel(evidence).flatMap((first, place, all) =>
        place > 0 && evidence.observations.indexOf(first) >= evidence.settled
          ? [shift(0, SLIPS, all.slice(place))]
          : [],
      ),
  },
  'tdc-not-proved': {
    words: 'TDC was not where the wheel says, from the first reading on',
    rare: () => 1,
    check: 'Turn to 0 and see whether the stop contacts are still equal.',
    hypotheses: (evidence) => (evidence.settled > 0 ? [] : [shift(0, ALIKE, onWheel(evidence))]),
  },
  'tooth-out': {
    words: 'the timing set is a tooth out',
    check: 'Bring the timing marks of the set to each other and count the teeth or links between them.',
    hypotheses: (evidence) =>
      evidence.cams === 'single'
        ? [shift(0, ALIKE, onWheel(evidence))]
        : somewhere(evidence).map((valves) => shift(0, ALIKE, at(evidence, valves))),
  },
  backwards: {
    words: 'a reading was taken turning backwards, so that the slack of the drive is in it',
    check: 'Back up well past and take it again, coming the way the engine runs.',
    rare: () => 2,
    hypotheses: (evidence) => {
      const sets = together(evidence);
      const all = evidence.observations.filter(isFlank).length;
      return sets.filter((set) => set.length < all).map((set) => shift(SLACK.mean, SLACK.standard, set, -1));
    },
  },
  'valves-exchanged': {
    words: 'intake and exhaust were exchanged',
    check: 'Follow the port of that valve: is it the one that you wrote down?',
    hypotheses: (evidence) =>
      runsOf(evidence).map((run) =>
        instead(evidence, run, (each) => ({
          ...each,
          valve: otherValve(each.valve),
          view: `${each.view} exchanged`,
        })),
      ),
  },
  'at-valve': {
    words: 'the lift was read at the valve and taken for the lobe’s, or the other way round',
    check: 'Look where the indicator sits: on the lifter, or behind the rocker?',
    hypotheses: (evidence) => somewhere(evidence).flatMap((valves) => elsewhere(evidence, valves)),
  },
  'bleed-down': {
    words: 'a hydraulic lifter bleeds down',
    rare: ({ lifter }) => (lifter === 'hydraulic' ? 0 : 4),
    check:
      'Hold the valve half open and watch the indicator: a lifter that bleeds lets it sink. Make it solid, or read at the lobe.',
    hypotheses: (evidence) =>
      (evidence.lifter === null || evidence.lifter === 'hydraulic' ? somewhere(evidence) : []).map((valves) => ({
        concerns: entriesOf(at(evidence, valves)),
        makes: { ...BLEEDS, moves: bleeding(evidence, valves), sign: 1 },
      })),
  },
  sticking: {
    words: 'a lifter sticks and does not follow its lobe down',
    rare: ({ lifter }) => (lifter === 'roller' ? 0 : 4),
    check:
      'Turn past the nose and push the lifter by hand: if it drops, it had stuck. Read the opening side only, or give it a light spring.',
    hypotheses: (evidence) =>
      somewhere(evidence).map((valves) =>
        shift(
          STICKS,
          STICKS,
          at(evidence, valves).filter((each) => each.kind === 'flank' && each.flank === 'closing'),
          1,
        ),
      ),
  },
  'wrong-cam': {
    words: 'this is not the cam of the card',
    rare: () => 2,
    check: 'Compare the number stamped on the cam with the card, and measure the lift of both lobes.',
    hypotheses: (evidence) => [{ concerns: [], makes: { evidence, loose: true } }],
  },
  'worn-lobe': {
    words: 'a lobe is worn',
    check: 'Measure the lift of that lobe on the other cylinders, with the indicator in line with the lifter.',
    hypotheses: (evidence) =>
      somewhere(evidence).map((valves) => ({
        concerns: entriesOf(at(evidence, valves)),
        makes: { mean: WORN, standard: WORN, moves: wearing(valves), sign: 1 },
      })),
  },
  'lsa-off': {
    words: 'the lobes are ground closer together or further apart than the card says',
    rare: () => 3,
    check: 'Measure both centrelines again without touching the wheel; if they repeat, the cam is ground so.',
    hypotheses: (evidence) =>
      evidence.cams === 'single' && somewhere(evidence).length > 1 ? [shift(0, APART, at(evidence, ['exhaust']))] : [],
  },
  'other-tdc': {
    words: 'the crank stood at firing TDC instead of overlap TDC',
    check: 'Look at the valves of cylinder 1: at overlap TDC both are off their seats, rocking.',
    hypotheses: (evidence) => {
      const flat = evidence.observations.filter((each) => each.kind === 'tdc-lift' && each.lift < NO_LIFT);
      return flat.length === 0 ? [] : [instead(evidence, flat, () => null)];
    },
  },
  units: {
    words: 'inches and millimetres were mixed',
    check: 'Look which unit the indicator reads in, and at which figure it stood.',
    hypotheses: (evidence) =>
      [...new Set(evidence.observations.map(({ view }) => view))].flatMap((view) => inOtherUnits(evidence, view)),
  },
  'cam-degrees': {
    words: 'cam degrees were taken for crank degrees',
    check: 'See what the wheel is fixed to: two turns of the crank are one of the cam.',
    hypotheses: (evidence) => [misread(evidence.observations, (ring) => -ring)],
  },
  stray: {
    words: 'one reading does not belong with the others',
    check: 'Read that one again.',
    vague: true,
    hypotheses: (evidence) =>
      evidence.observations.map((each) => ({
        concerns: [each.entry],
        makes: {
          mean: 0,
          standard: each.kind === 'flank' ? STRAYS.flank : STRAYS.lift,
          moves: (other) => (other === each ? 1 : 0),
        },
      })),
  },
};
