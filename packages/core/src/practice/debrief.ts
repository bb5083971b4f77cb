import { lateOrEarly } from '../report/place-words';
import type { Entry } from '../record/entry';
import type { Report } from '../report/report-schema';
import { wrap180 } from '../units/angle';
import { computedDegrees } from '../units/degrees';
import { formatComputedLength } from '../units/length';
import type { Stand } from '../simulation/whole-engine';
import { CAUSES, type Cause, cardIsWrong } from './causes';
import { type TruthPart, VALVE_TRAIN_TOLD } from './debrief-valve-train';
import { EXERCISES, type ExerciseName } from './exercises';
import type { Goal } from './exercise';
import { type JudgedReading, judgeReadings } from './judge-reading';
import type { Scenario } from './scenario';

/** A practice, as far as it has come. Plain data. */
export interface Practised {
  readonly exercise: ExerciseName;
  readonly scenario: Scenario;
  readonly entries: readonly Entry[];
  readonly trail: Readonly<Record<string, Stand>>;
  readonly stand: Stand;
  readonly hints: number;
  /** What the builder says is wrong. */
  readonly answer: Cause | null;
}

export interface Debrief {
  /** What was true and what was found, side by side. */
  readonly rows: readonly TruthPart['row'][];
  readonly told: string;
  readonly readings: readonly JudgedReading[];
  readonly marks: readonly { readonly what: string; readonly got: number; readonly of: number }[];
  /** Of 100; null where nothing was asked. */
  readonly score: number | null;
}

/** Full marks within the first, none beyond the second, crank degrees. */
const TDC_MARKS = { wheel: [0.3, 2], tape: [0.75, 3] } as const;
const CAM_MARKS = [0.75, 4] as const;
const A_HINT = 5;
const MOST_FOR_HINTS = 20;

const share = (off: number, [full, none]: readonly [number, number]): number =>
  Math.max(0, Math.min(1, (none - Math.abs(off)) / (none - full)));

const early = (advance: number): string =>
  Math.abs(advance) < 0.05 ? 'on its card' : `${computedDegrees(Math.abs(advance))} ${lateOrEarly(advance)}`;

/** A practice at its end, as it is judged. */
interface Ended {
  readonly practised: Practised;
  readonly report: Report;
  /** How far the TDC that was found lies from true TDC, crank degrees; null: none was found. */
  readonly tdcOff: number | null;
  /** The marks that are left for what the exercise is about. */
  readonly rest: number;
}

/** What an exercise of a kind asks for. */
interface Asked {
  /** What it looks at beside TDC and the readings. */
  readonly judged: (ended: Ended) => readonly TruthPart[];
  /** What was true, told at the end. */
  readonly told: (scenario: Scenario) => string;
  /** Has it been answered, one way or the other? */
  readonly isAnswered: (report: Report, answer: Cause | null) => boolean;
}

const causeTold = ({ cause }: Scenario): string => CAUSES[cause].told;
const isMeasured = ({ verdict }: Report): boolean => verdict.delta !== null;

const ASKED: Readonly<Record<Goal, Asked>> = {
  tdc: { judged: () => [], told: tdcTold, isAnswered: ({ zero }) => zero.state === 'proved' },
  cam: { judged: (ended) => [camFound(ended, ended.rest)], told: causeTold, isAnswered: isMeasured },
  proof: {
    judged: (ended) => [camFound(ended, ended.rest / 2), movedInside(ended)],
    told: causeTold,
    isAnswered: ({ proof }) => proof.state === 'proved',
  },
  cause: {
    judged: (ended) => [
      ...(cardIsWrong(ended.practised.scenario.cause) ? [] : [camFound(ended, 0)]),
      causeFound(ended),
    ],
    told: causeTold,
    isAnswered: (_report, answer) => answer !== null,
  },
  lobe: {
    judged: ({ practised, report }) => [lobeFound(practised.scenario, report)],
    told: lobeTold,
    isAnswered: ({ trials }) => trials.some(({ everyLobe }) => everyLobe.some(({ differs }) => differs)),
  },
  lash: valveTrain('lash'),
  pushrod: valveTrain('pushrod'),
  play: valveTrain('play'),
  free: { judged: (ended) => [camFound(ended, 0)], told: () => '', isAnswered: () => true },
};

/**
 * What was true, what was found, and how each reading was taken.
 * @param report of the practice’s logbook.
 */
export function debrief(practised: Practised, report: Report): Debrief {
  const { exercise, scenario, entries, trail } = practised;
  const { goal, tdc } = EXERCISES[exercise];
  const readings = judgeReadings(scenario, entries, trail);
  const toFind = tdc === 'to-find';
  const ended = { practised, report, tdcOff: tdcOffOf(practised, report), rest: toFind ? 60 : 80 };
  const parts = [...(toFind ? [tdcFound(ended, goal)] : []), ...ASKED[goal].judged(ended)];
  const rows = parts.map(({ row }) => row);
  const told = ASKED[goal].told(scenario);
  if (goal === 'free') return { rows, told, readings, marks: [], score: null };
  const marks = [
    ...parts.filter(({ of }) => of > 0).map(({ mark, got, of }) => ({ what: mark, got: Math.round(got * of), of })),
    { what: 'Readings taken well', got: Math.round(20 * shareTakenWell(readings)), of: 20 },
    ...hintsAsked(practised),
  ];
  const score = Math.max(
    0,
    marks.reduce((sum, { got }) => sum + got, 0),
  );
  return { rows, told, readings, marks, score };
}

/** Judged by where the wheel stood when TDC was read last: it may have slipped since. */
function tdcOffOf({ entries, trail, stand }: Practised, { zero }: Report): number | null {
  const read = entries.findLast(({ kind, id }) => kind === 'zero.reading' && id in trail);
  const mount = (read && trail[read.id]?.mount) ?? stand.mount;
  return zero.result === null ? null : wrap180(zero.result.tdc - mount);
}

/** Half the marks for a TDC that was not proved. */
function tdcFound({ practised, report, tdcOff }: Ended, goal: Goal): TruthPart {
  const within = TDC_MARKS[practised.scenario.engine.ring.ring === 'rim' ? 'tape' : 'wheel'];
  const proved = report.zero.state === 'proved';
  return {
    row: {
      what: 'True TDC',
      truth: 'where the piston stands highest',
      found: tdcOff === null ? 'not found' : `${besideTdc(tdcOff)}, ${proved ? 'proved' : 'not proved'}`,
      right: tdcOff !== null && Math.abs(tdcOff) <= within[0] && proved,
    },
    mark: 'TDC',
    got: (tdcOff === null ? 0 : share(tdcOff, within)) * (proved ? 1 : 0.5),
    of: goal === 'tdc' ? 80 : 20,
  };
}

function besideTdc(off: number): string {
  if (Math.abs(off) < 0.05) return 'exactly there';
  return `${computedDegrees(Math.abs(off))} ${off > 0 ? 'after' : 'before'} it`;
}

function camFound({ practised: { exercise, stand }, report }: Ended, of: number): TruthPart {
  const really = stand.advance.intake;
  const { delta } = report.verdict;
  const off = delta === null ? null : delta - really;
  return {
    row: {
      what: EXERCISES[exercise].goal === 'proof' ? 'The cam, as you left it' : 'The cam',
      truth: early(really),
      found: delta === null ? 'not measured' : early(delta),
      right: off !== null && Math.abs(off) <= CAM_MARKS[0],
    },
    mark: 'The cam',
    got: off === null ? 0 : share(off, CAM_MARKS),
    of,
  };
}

function movedInside({ practised: { stand }, report, rest }: Ended): TruthPart {
  const really = stand.advance.intake;
  const inside = Math.abs(really) <= report.target.limit;
  const proved = report.proof.state === 'proved';
  return {
    row: {
      what: 'Moved into the limit',
      truth: inside ? 'inside' : `outside: ${early(really)}`,
      found: proved ? 'proved' : 'not proved',
      right: inside && proved,
    },
    mark: 'Moved and proved',
    got: (inside ? 0.5 : 0) + (inside && proved ? 0.5 : 0),
    of: rest / 2,
  };
}

function causeFound({ practised: { answer, scenario }, rest }: Ended): TruthPart {
  const right = answer === scenario.cause;
  return {
    row: {
      what: 'What is wrong',
      truth: CAUSES[scenario.cause].words,
      found: answer === null ? 'not said' : CAUSES[answer].words,
      right,
    },
    mark: 'What is wrong',
    got: right ? 1 : 0,
    of: rest,
  };
}

function valveTrain(goal: keyof typeof VALVE_TRAIN_TOLD): Asked {
  const { judged, told, isAnswered } = VALVE_TRAIN_TOLD[goal];
  return { judged: ({ practised, report }) => judged(practised.stand, practised.scenario, report), told, isAnswered };
}

function shareTakenWell(readings: readonly JudgedReading[]): number {
  const good = readings.filter(({ judgement }) => judgement === 'helped' || judgement === 'spoiled').length;
  return readings.length === 0 ? 0 : good / readings.length;
}

/** What hints cost; nothing where the exercise leads by the hand anyway. */
function hintsAsked({ exercise, hints }: Practised): Debrief['marks'] {
  const cost = EXERCISES[exercise].guided ? 0 : Math.min(MOST_FOR_HINTS, hints * A_HINT);
  return cost > 0 ? [{ what: hints === 1 ? 'One hint' : `${hints} hints`, got: -cost, of: 0 }] : [];
}

function lobeTold(scenario: Scenario): string {
  const { worn } = scenario.engine.others ?? {};
  if (!worn) return causeTold(scenario);
  return `The ${worn.valve} lobe of cylinder ${worn.cylinder} had lost ${formatComputedLength(worn.by, scenario.base.units)}; the others were alike.`;
}

/** The lobes that were named, against the one that is worn: half for one that is only asked for again, or one of two. */
function lobeFound({ engine }: Scenario, { trials }: Report): TruthPart {
  const worn = engine.others?.worn;
  const named = (trials.at(-1)?.everyLobe ?? []).flatMap(({ valve, rows }) =>
    rows.flatMap(({ cylinder, lift }) =>
      lift?.state === 'differs' || lift?.state === 'perhaps'
        ? [{ valve, cylinder, sure: lift.state === 'differs' }]
        : [],
    ),
  );
  const hit = named.find(({ valve, cylinder }) => valve === worn?.valve && cylinder === worn.cylinder);
  const right = hit?.sure === true && named.length === 1;
  return {
    row: {
      what: 'The worn lobe',
      truth: `cylinder ${worn?.cylinder ?? 1}, ${worn?.valve ?? 'intake'}`,
      found:
        named.length === 0
          ? 'none named'
          : named.map(({ valve, cylinder }) => `cylinder ${cylinder}, ${valve}`).join('; '),
      right,
    },
    mark: 'The worn lobe',
    got: right ? 1 : hit ? 0.5 : 0,
    of: 80,
  };
}

function tdcTold({ mount }: Scenario): string {
  return `At true TDC the wheel showed ${computedDegrees(Math.abs(mount))} ${mount > 0 ? 'after' : 'before'} when you met it.`;
}

/** May the builder be done? What the exercise asks has been answered, one way or the other. */
export const isAnswered = (exercise: ExerciseName, report: Report, answer: Cause | null): boolean =>
  ASKED[EXERCISES[exercise].goal].isAnswered(report, answer);
