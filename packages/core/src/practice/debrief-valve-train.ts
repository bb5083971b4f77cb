import type { Report } from '../report/report-schema';
import { PLAY_STEP } from '../simulation/play-world';
import { BLADE_STEP } from '../simulation/valve-lash';
import type { Stand } from '../simulation/whole-engine';
import { END_PLAY } from '../prepare/end-play';
import { formatComputedLength } from '../units/length';
import type { Scenario } from './scenario';
import { PRACTICE_LASH } from './valve-train-made';

/** What was true and what was found, and the marks for it. */
export interface TruthPart {
  readonly row: { readonly what: string; readonly truth: string; readonly found: string; readonly right: boolean };
  readonly mark: string;
  /** 0 to 1. */
  readonly got: number;
  readonly of: number;
}

/** An exercise of the valve train, at its end. */
interface ToldExercise {
  readonly judged: (stand: Stand, scenario: Scenario, report: Report) => readonly TruthPart[];
  /** What was true, told at the end. */
  readonly told: (scenario: Scenario) => string;
  /** Has what it asks been answered, one way or the other? */
  readonly isAnswered: (report: Report) => boolean;
}

export const VALVE_TRAIN_TOLD: Readonly<Record<'lash' | 'pushrod' | 'play', ToldExercise>> = {
  lash: {
    judged: (stand, scenario, report) => [lashSet(stand, scenario), secondRound(report)],
    told: lashTold,
    isAnswered: ({ lash }) => lash.job?.state === 'done',
  },
  pushrod: {
    judged: (_stand, scenario, report) => [ordered(scenario, report), fewTrials(report)],
    told: ({ engine: { rockers }, base: { units } }) =>
      `The arm stood square at mid-lift with ${formatComputedLength(rockers?.right ?? 0, units)}. Too short, its roller is still above the right angle at mid-lift and the pattern is wide and lies toward the pivot; too long, the same below it.`,
    isAnswered: ({ rockers }) => orderOf({ rockers }) !== null,
  },
  play: {
    judged: (stand, scenario, report) => [playCured(stand, scenario), playSaid(stand, scenario, report)],
    told: ({ engine: { endPlay }, base: { units } }) =>
      `The play was ${formatComputedLength(endPlay?.play ?? 0, units)}. Pulled hard, the cover gave ${formatComputedLength(endPlay?.flex ?? 0, units)} beside, which is no play: the needle does not come back to zero then.`,
    isAnswered: ({ prepare }) => prepare.endPlay?.state === 'inside',
  },
};

/** A lash within this of what is wanted is right, mm: between the blade that slides and the next but one. */
const SET_RIGHT = 2 * BLADE_STEP;

/** How many valves have the lash that is wanted, on their base circles. */
function lashSet({ lash }: Stand, { base }: Scenario): TruthPart {
  const gaps = Object.entries(lash?.gaps ?? {});
  const off = gaps.filter(([, gap]) => Math.abs(gap - PRACTICE_LASH) > SET_RIGHT);
  const right = gaps.length - off.length;
  return {
    row: {
      what: 'The valves, as you left them',
      truth:
        off.length === 0
          ? 'every one is right'
          : off.map(([name, gap]) => `cylinder ${name}: ${formatComputedLength(gap, base.units)}`).join('; '),
      found: `${right} of ${gaps.length} right`,
      right: off.length === 0,
    },
    mark: 'Valves set right',
    got: gaps.length === 0 ? 0 : right / gaps.length,
    of: 60,
  };
}

function secondRound({ lash }: Report): TruthPart {
  const again = lash.job?.state === 'done';
  return {
    row: {
      what: 'The second round',
      truth: 'every valve is looked at again after it was set',
      found: again ? 'done' : 'not done',
      right: again,
    },
    mark: 'The second round',
    got: again ? 1 : 0,
    of: 20,
  };
}

function lashTold({ engine, base }: Scenario): string {
  const loose = engine.lash?.loose;
  return loose
    ? `The ${loose.valve} of cylinder ${loose.cylinder} had been set on its ramp, and was ${formatComputedLength(loose.by, base.units)} loose on its base circle; the others were right.`
    : 'Every valve was off by some thousandths. One that is set while its lobe stands up is loose by that much afterwards.';
}

const intakeOf = ({ rockers }: Pick<Report, 'rockers'>) => rockers.valves.find(({ valve }) => valve === 'intake');
const orderOf = (report: Pick<Report, 'rockers'>) => intakeOf(report)?.order ?? null;

/** The pushrod to order: to the step that is nearest, or the next to it. */
function ordered({ engine: { rockers }, base: { units } }: Scenario, report: Report): TruthPart {
  const order = orderOf(report);
  const { right = 0, step = 1 } = rockers ?? {};
  const off = order ? Math.abs(order.length - right) / step : Infinity;
  const got = off <= 1 ? 1 : off <= 2 ? 0.5 : 0;
  return {
    row: {
      what: 'The intake pushrod',
      truth: `${formatComputedLength(right, units)} stands square`,
      found: order ? `${formatComputedLength(order.length, units)} to order` : 'not ordered',
      right: got === 1,
    },
    mark: 'The pushrod',
    got,
    of: 60,
  };
}

const ENOUGH = 3;

function fewTrials(report: Report): TruthPart {
  const count = intakeOf(report)?.trials.length ?? 0;
  const got = count === 0 ? 0 : count <= ENOUGH ? 1 : count <= 2 * ENOUGH ? 0.5 : 0;
  return {
    row: {
      what: 'Lengths tried',
      truth: `${ENOUGH} are enough`,
      found: String(count),
      right: got === 1,
    },
    mark: 'Few trials',
    got,
    of: 20,
  };
}

const WANTED = END_PLAY.button;
const isInside = (play: number): boolean => play >= WANTED.from - PLAY_STEP / 2 && play <= WANTED.to + PLAY_STEP / 2;

function playCured({ endPlay }: Stand, { base: { units } }: Scenario): TruthPart {
  const play = endPlay?.play ?? 0;
  return {
    row: {
      what: 'The play, as you left it',
      truth: formatComputedLength(play, units),
      found: isInside(play) ? 'inside' : 'outside',
      right: isInside(play),
    },
    mark: 'The play',
    got: isInside(play) ? 1 : 0,
    of: 50,
  };
}

/** The last play that was written down is the one that the cam has now. */
function playSaid({ endPlay }: Stand, { base: { units } }: Scenario, { prepare }: Report): TruthPart {
  const said = prepare.endPlay?.play ?? null;
  const right = said !== null && Math.abs(said - (endPlay?.play ?? 0)) <= 1.5 * PLAY_STEP;
  return {
    row: {
      what: 'The play, as you measured it last',
      truth: formatComputedLength(endPlay?.play ?? 0, units),
      found: said === null ? 'not measured' : formatComputedLength(said, units),
      right,
    },
    mark: 'Measured again',
    got: right ? 1 : 0,
    of: 30,
  };
}
