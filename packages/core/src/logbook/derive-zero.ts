import {
  type Correction,
  PROOF_LIMIT,
  type StopResult,
  provesZero,
  sideDifference,
  solveStop,
  stopCorrection,
} from '../crank/positive-stop';
import { pistonDrop } from '../crank/slider-crank';
import { formatReading, readingAt, ringPosition } from '../crank/wheel';
import type { Problem } from '../problem';
import { computedDegrees, wheelDegrees } from '../units/degrees';
import { formatComputedLength } from '../units/length';
import type { Described } from './entry';
import type { Pass, Stage, Zero } from './fold';

/**
 * none: nobody has looked for TDC. open: contacts are missing. found: TDC is known, the wheel is not set to it yet.
 * set: the wheel was set, the proof is missing. proved. failed: a proof did not come out equal on both sides.
 */
export type ZeroState = 'none' | 'open' | 'found' | 'set' | 'proved' | 'failed';

/** What comes next at the engine. A contact joins the pass that lacks it, or opens a new one (`pass` null). */
export type ZeroStep =
  | {
      readonly does: 'contact';
      readonly turning: 'forward' | 'backward';
      readonly pass: string | null;
      readonly setting: string | null;
    }
  | { readonly does: 'set'; readonly after: string | null }
  | { readonly does: 'nothing' };

/** A contact as recorded, and its ring position, crank degrees. */
export interface ContactFinding {
  readonly entry: string;
  readonly turning: 'forward' | 'backward';
  readonly shows: string;
  readonly at: number;
}

export interface PassFinding {
  readonly id: string;
  readonly setting: string | null;
  readonly result: StopResult | null;
  readonly problem: Problem | null;
  /** Does it prove the zero? null before the wheel was set, or while the pass is incomplete. */
  readonly proves: boolean | null;
  readonly contacts: readonly ContactFinding[];
}

/** How a position of the wheel stands: proved or not, and the ring position of true TDC there, crank degrees. */
export interface SettingFinding {
  readonly proved: boolean;
  readonly offset: number;
}

export interface ZeroFinding {
  readonly state: ZeroState;
  readonly sentence: string;
  readonly step: ZeroStep;
  readonly passes: readonly PassFinding[];
  readonly correction: Correction | null;
  /** The pass that the correction and the sentence speak of. */
  readonly result: StopResult | null;
  readonly remark: string | null;
}

const NOT_BEGUN: ZeroFinding = {
  state: 'none',
  sentence: 'Put the stop in. Turn it the way it runs, gently, until the piston meets the stop. Read the wheel.',
  step: { does: 'contact', turning: 'forward', pass: null, setting: null },
  passes: [],
  correction: null,
  result: null,
  remark: null,
};

function findPass(pass: Pass, setting: string | null): PassFinding {
  const contacts = [...pass.forward, ...pass.backward].map(({ id, body }): ContactFinding => ({
    entry: id,
    turning: body.turning,
    shows: formatReading(body.wheel),
    at: ringPosition(body.wheel),
  }));
  const base = { id: pass.id, setting, contacts, result: null, problem: null, proves: null };
  const twice = pass.forward.length > 1 ? 'forward' : pass.backward.length > 1 ? 'back' : null;
  if (twice)
    return {
      ...base,
      problem: {
        message: `The contact turning ${twice} was recorded twice in one pass.`,
        remedy: 'Undo the one that is wrong.',
      },
    };
  const [forward] = pass.forward;
  const [backward] = pass.backward;
  if (!forward || !backward) return base;
  const solved = solveStop({
    forward: ringPosition(forward.body.wheel),
    backward: ringPosition(backward.body.wheel),
  });
  if (!solved.ok) return { ...base, problem: solved.problem };
  return { ...base, result: solved, proves: setting === null ? null : provesZero(solved, PROOF_LIMIT) };
}

const findStage = (stage: Stage): PassFinding[] => stage.passes.map((pass) => findPass(pass, stage.id));

/** A wheel position is proved when at least one pass proves it and none speaks against it. */
function judgeStage(passes: readonly PassFinding[]): SettingFinding | null {
  const judged = passes.filter((pass) => pass.proves !== null);
  if (judged.length === 0) return null;
  const offset = judged.reduce((sum, pass) => sum + (pass.result?.tdc ?? 0), 0) / judged.length;
  return { proved: judged.every((pass) => pass.proves), offset };
}

/** Every wheel position of the logbook by the id of its `zero.set` entry, for the readings that lean on it. */
export function findSettings(zeros: readonly Zero[]): ReadonlyMap<string, SettingFinding> {
  const found = new Map<string, SettingFinding>();
  for (const stage of zeros.flatMap((zero) => zero.stages))
    if (stage.id !== null) found.set(stage.id, judgeStage(findStage(stage)) ?? { proved: false, offset: 0 });
  return found;
}

/** Where the search for true TDC stands, and what to do with the hands next. */
export function deriveZero(zero: Zero | null, described: Described): ZeroFinding {
  if (!zero) return NOT_BEGUN;
  const earlier = zero.stages.filter((stage) => stage !== zero.current).flatMap(findStage);
  const here = findStage(zero.current);
  const setting = zero.current.id;
  const passes = [...earlier, ...here];
  const shared = { passes, correction: null, result: null, remark: null };

  const waiting = zero.current.passes.find((pass) => pass.forward.length + pass.backward.length === 1);
  if (waiting) {
    const turning = waiting.forward.length === 0 ? 'forward' : 'backward';
    return {
      ...shared,
      state: setting === null ? 'open' : 'set',
      sentence:
        turning === 'backward'
          ? 'Turn it backwards, gently, until the piston meets the stop again. Read the wheel.'
          : 'Now the way it runs, gently, until the piston meets the stop again. Read the wheel.',
      step: { does: 'contact', turning, pass: waiting.id, setting },
    };
  }

  const contact: ZeroStep = { does: 'contact', turning: 'forward', pass: null, setting };
  const last = here.filter((pass) => pass.result).at(-1);
  const troubled = here.find((pass) => pass.problem)?.problem;
  if (!last?.result) {
    if (troubled)
      return { ...shared, state: setting === null ? 'open' : 'set', sentence: troubled.remedy, step: contact };
    if (setting === null) return { ...NOT_BEGUN, passes };
    return {
      ...shared,
      state: 'set',
      sentence: 'Now prove it. Turn it the way it runs, gently, to the stop. Read the wheel.',
      step: contact,
    };
  }

  if (setting !== null && judgeStage(here)?.proved)
    return {
      ...shared,
      state: 'proved',
      result: last.result,
      sentence: 'TDC is proved. Take the stop out before you turn the crank over.',
      remark: provedRemark(last.result, described),
      step: { does: 'nothing' },
    };

  const speaking = setting === null ? last : (here.filter((pass) => pass.proves === false).at(-1) ?? last);
  const result = speaking.result ?? last.result;
  const correction = stopCorrection(result, described.wheel, described.engine.rotation);
  const first = correction.ways[0]?.text ?? 'Leave the wheel as it is, and prove it with a second pass.';
  return {
    ...shared,
    state: setting === null ? 'found' : 'failed',
    result,
    correction,
    sentence:
      setting === null
        ? first
        : `Not proved: the sides differ by ${computedDegrees(sideDifference(result))}, the limit is ${wheelDegrees(PROOF_LIMIT)}. ${first}`,
    remark: stopRemark(result, described),
    step: { does: 'set', after: setting },
  };
}

function provedRemark(result: StopResult, described: Described): string {
  if (sideDifference(result) === 0) return 'The stop contacts read the same on both sides.';
  return `The sides differ by ${wheelDegrees(sideDifference(result))}, limit ${wheelDegrees(PROOF_LIMIT)}. At true TDC the pointer reads ${formatReading(readingAt(described.wheel, result.tdc))}; every reading is corrected by that.`;
}

function stopRemark(result: StopResult, { engine, units }: Described): string | null {
  const { stroke, rod } = engine;
  if (stroke === undefined || rod === undefined) return null;
  return `The stop holds the piston ${formatComputedLength(pistonDrop({ stroke, rod }, result.half), units)} below the top.`;
}
