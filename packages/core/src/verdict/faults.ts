import {
  type Hypothesis,
  at,
  bleeding,
  elsewhere,
  entriesOf,
  inOtherUnits,
  liftsInOtherUnits,
  instead,
  isFlank,
  misprinted,
  misread,
  onWheel,
  otherValve,
  roundsOf,
  runsOf,
  shift,
  somewhere,
  together,
  wearing,
} from './hypotheses';
import type { Evidence } from './observations';

export const FAULT_NAMES = [
  'wrong-side',
  'dead-centre',
  'ring-backwards',
  'misread',
  'flanks-exchanged',
  'wheel-slipped',
  'tdc-not-proved',
  'tooth-out',
  'backwards',
  'valves-exchanged',
  'at-valve',
  'bleed-down',
  'sticking',
  'card-figure',
  'wrong-cam',
  'worn-lobe',
  'lsa-off',
  'other-tdc',
  'units',
  'cam-degrees',
  'stray',
] as const;
export type FaultName = (typeof FAULT_NAMES)[number];

export interface Fault {
  /** What may have happened, to stand after "most likely". */
  readonly words: string;
  /** What tells whether it did. */
  readonly check: string;
  /** It could explain any odd reading, so it is named after everything definite. */
  readonly vague?: boolean;
  /** Its formula is a likeness: how it acts differs from engine to engine, and shows where it acts strongly. */
  readonly rough?: boolean;
  /** How much less often it happens on this engine than the usual ones, as a difference of χ². From memory. */
  readonly rare?: (evidence: Evidence) => number;
  readonly hypotheses: (evidence: Evidence) => Hypothesis[];
}

/** Everything on the wheel, crank degrees: one tooth of common sprockets is 14 to 24. */
const ALIKE = 20;
/** Numbers stand on a wheel every so many degrees: which of two is the next one is the usual slip of the eye. Common practice, no source. */
const TEN = 10;
/** How far a wheel slips that is not tight, crank degrees. From memory. */
const SLIPS = 10;
/** Slack of a chain or a belt that is read turning back: about 3 crank degrees. Common practice, no source. */
const SLACK = { mean: -3, standard: 1.5 } as const;
/** How much later a lifter that sticks comes down, crank degrees; how much is worn off a nose, mm; lobes ground apart, crank degrees. From memory. */
const STICKS = 15;
const WORN = 0.4;
const APART = 5;
/** How far a reading is out that does not belong: crank degrees, and mm for a lift. */
const STRAYS = { flank: 15, lift: 1 } as const;
/** How far an angle of the card is out that was misprinted or typed wrong, crank degrees. From memory. */
const MISPRINTED = 8;
/** As good as no lift, mm. */
const NO_LIFT = 0.15;

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
  'ring-backwards': {
    words: 'the wheel was counted from its 90 mark instead of from the dead centre',
    check: 'Go back to that reading and see which way the numbers grow there.',
    hypotheses: (evidence) =>
      evidence.quadrants
        ? together(evidence).map((set) => misread(set, (ring) => 2 * (ring - 90 * Math.floor(ring / 90)) - 90))
        : [],
  },
  misread: {
    words: 'a reading is ten degrees out: taken from the wrong number of the wheel',
    check: 'Go back to that reading and count from the number next to the pointer.',
    // Any of the readings may be it, either way: none of them is likely.
    rare: () => 5,
    hypotheses: (evidence) =>
      evidence.observations.filter(isFlank).flatMap((each) => [TEN, -TEN].map((by) => misread([each], () => by))),
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
    words: 'a reading was taken turning backwards, so that the slack in the timing drive is in it',
    check: 'Back up well past and take that reading again, coming the way the engine runs.',
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
    rough: true,
    rare: ({ lifter }) => (lifter === 'hydraulic' ? 0 : 4),
    check:
      'Hold the valve half open and watch the indicator: a lifter that bleeds lets it sink. Make it solid, or read at the lobe.',
    hypotheses: (evidence) =>
      evidence.lifter === null || evidence.lifter === 'hydraulic'
        ? somewhere(evidence).flatMap((valves) => bleeding(evidence, valves))
        : [],
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
  'card-figure': {
    words: 'a figure of the card is wrong: misprinted, or typed wrong',
    check: 'Compare what is entered at Card with the card itself. If the card prints it so, leave that figure out.',
    rare: () => 3,
    // A lift that is not the card's is that of another cam, or of a worn one: whoever reads that looks at the card by himself.
    hypotheses: ({ card }) => card.flatMap((fact) => (fact.of === 'peak' ? [] : [misprinted(fact, MISPRINTED)])),
  },
  'wrong-cam': {
    words: 'this is not the cam of the card',
    // Lifters that bleed make every lobe look short and low; they are met far more often than a cam in the wrong box.
    rare: ({ lifter }) => (lifter === 'hydraulic' ? 8 : 3),
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
    rare: () => 2,
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
    hypotheses: (evidence) => [
      ...[...new Set(evidence.observations.map(({ view }) => view))].flatMap((view) => inOtherUnits(evidence, view)),
      ...liftsInOtherUnits(evidence),
    ],
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
