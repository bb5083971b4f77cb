import { lateOrEarly } from '../report/place-words';
import type { Entry } from '../record/entry';
import type { Report } from '../report/report-schema';
import { wrap180 } from '../units/angle';
import { computedDegrees } from '../units/degrees';
import { formatComputedLength } from '../units/length';
import type { Stand } from '../simulation/whole-engine';
import { CAUSES, type Cause } from './causes';
import { VALVE_TRAIN_TOLD } from './debrief-valve-train';
import { EXERCISES, type ExerciseName, type Goal } from './exercises';
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
  readonly rows: readonly {
    readonly what: string;
    readonly truth: string;
    readonly found: string;
    readonly right: boolean;
  }[];
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

/**
 * What was true, what was found, and how each reading was taken.
 * @param report of the practice’s logbook.
 */
export function debrief(
  { exercise, scenario, entries, trail, stand, hints, answer }: Practised,
  report: Report,
): Debrief {
  const { goal, tdc, guided } = EXERCISES[exercise];
  const readings = judgeReadings(scenario, entries, trail);
  const rows: Debrief['rows'][number][] = [];
  const marks: Debrief['marks'][number][] = [];
  const mark = (what: string, got: number, of: number): void =>
    void marks.push({ what, got: Math.round(got * of), of });

  const found = report.zero.result;
  // Judged by where the wheel stood when TDC was read last: it may have slipped since.
  const read = entries.findLast(({ kind, id }) => kind === 'zero.reading' && id in trail);
  const mount = (read && trail[read.id]?.mount) ?? stand.mount;
  const tdcOff = found === null ? null : wrap180(found.tdc - mount);
  if (tdc === 'to-find') {
    const within = TDC_MARKS[scenario.engine.ring.ring === 'rim' ? 'tape' : 'wheel'];
    const right = tdcOff !== null && Math.abs(tdcOff) <= within[0] && report.zero.state === 'proved';
    rows.push({
      what: 'True TDC',
      truth: 'where the piston stands highest',
      found:
        tdcOff === null
          ? 'not found'
          : `${Math.abs(tdcOff) < 0.05 ? 'exactly there' : `${computedDegrees(Math.abs(tdcOff))} ${tdcOff > 0 ? 'after' : 'before'} it`}, ${report.zero.state === 'proved' ? 'proved' : 'not proved'}`,
      right,
    });
    if (goal !== 'free')
      mark(
        'TDC',
        tdcOff === null ? 0 : share(tdcOff, within) * (report.zero.state === 'proved' ? 1 : 0.5),
        goal === 'tdc' ? 80 : 20,
      );
  }
  if (goal === 'lash' || goal === 'pushrod' || goal === 'play') {
    for (const part of VALVE_TRAIN_TOLD[goal].judged(stand, scenario, report)) {
      rows.push(part.row);
      mark(part.mark, part.got, part.of);
    }
  } else if (goal === 'lobe') {
    const { row, got } = lobeFound(scenario, report);
    rows.push(row);
    mark('The worn lobe', got, 80);
  } else if (goal !== 'tdc') {
    const really = stand.advance.intake;
    const delta = report.verdict.delta;
    const off = delta === null ? null : delta - really;
    rows.push({
      what: goal === 'proof' ? 'The cam, as you left it' : 'The cam',
      truth: early(really),
      found: delta === null ? 'not measured' : early(delta),
      right: off !== null && Math.abs(off) <= CAM_MARKS[0],
    });
    const measured = off === null ? 0 : share(off, CAM_MARKS);
    const rest = tdc === 'to-find' ? 60 : 80;
    if (goal === 'cam') mark('The cam', measured, rest);
    if (goal === 'proof') {
      const inside = Math.abs(really) <= report.target.limit;
      const proved = report.proof.state === 'proved';
      rows.push({
        what: 'Moved into the limit',
        truth: inside ? 'inside' : `outside: ${early(really)}`,
        found: proved ? 'proved' : 'not proved',
        right: inside && proved,
      });
      mark('The cam', measured, rest / 2);
      mark('Moved and proved', (inside ? 0.5 : 0) + (inside && proved ? 0.5 : 0), rest / 2);
    }
    if (goal === 'cause') {
      const right = answer === scenario.cause;
      rows.push({
        what: 'What is wrong',
        truth: CAUSES[scenario.cause].words,
        found: answer === null ? 'not said' : CAUSES[answer].words,
        right,
      });
      mark('What is wrong', right ? 1 : 0, rest);
    }
  }
  if (goal === 'free') return { rows, told: '', readings, marks: [], score: null };
  const good = readings.filter(({ judgement }) => judgement === 'helped' || judgement === 'spoiled').length;
  mark('Readings taken well', readings.length === 0 ? 0 : good / readings.length, 20);
  const asked = guided ? 0 : Math.min(MOST_FOR_HINTS, hints * A_HINT);
  if (asked > 0) marks.push({ what: hints === 1 ? 'One hint' : `${hints} hints`, got: -asked, of: 0 });
  const score = Math.max(
    0,
    marks.reduce((sum, { got }) => sum + got, 0),
  );
  return { rows, told: toldOf(goal, scenario), readings, marks, score };
}

/** What was true, told at the end. */
function toldOf(goal: Goal, scenario: Scenario): string {
  if (goal === 'tdc') return tdcTold(scenario);
  if (goal === 'lash' || goal === 'pushrod' || goal === 'play') return VALVE_TRAIN_TOLD[goal].told(scenario);
  const worn = scenario.engine.others?.worn;
  return goal === 'lobe' && worn
    ? `The ${worn.valve} lobe of cylinder ${worn.cylinder} had lost ${formatComputedLength(worn.by, scenario.base.units)}; the others were alike.`
    : CAUSES[scenario.cause].told;
}

/** The lobes that were named, against the one that is worn: half for one that is only asked for again, or one of two. */
function lobeFound({ engine }: Scenario, { trials }: Report) {
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
    got: right ? 1 : hit ? 0.5 : 0,
  };
}

const tdcTold = ({ mount }: Scenario): string =>
  `At true TDC the wheel showed ${computedDegrees(Math.abs(mount))} ${mount > 0 ? 'after' : 'before'} when you met it.`;

/** May the builder be done? What the exercise asks has been answered, one way or the other. */
export function isAnswered(exercise: ExerciseName, report: Report, answer: Cause | null): boolean {
  switch (EXERCISES[exercise].goal) {
    case 'tdc':
      return report.zero.state === 'proved';
    case 'cam':
      return report.verdict.delta !== null;
    case 'proof':
      return report.proof.state === 'proved';
    case 'cause':
      return answer !== null;
    case 'lash':
    case 'pushrod':
    case 'play':
      return VALVE_TRAIN_TOLD[EXERCISES[exercise].goal].isAnswered(report);
    case 'lobe':
      return report.trials.some(({ everyLobe }) => everyLobe.some(({ differs }) => differs));
    case 'free':
      return true;
  }
}
