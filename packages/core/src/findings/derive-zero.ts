import { type Correction, sideDifference, zeroCorrection } from '../tdc/equal-heights';
import { equalHeights } from '../crank/slider-crank';
import { type WheelRing, formatReading, readingAt } from '../crank/wheel';
import { type TdcSide, ZERO_METHODS, type ZeroMethodName, turnWords } from '../tdc/zero-methods';
import type { ZeroUncertainty } from '../tdc/zero-uncertainty';
import { crankDeg, wrap180 } from '../units/angle';
import { computedDegrees, wheelDegrees } from '../units/degrees';
import { formatComputedLength, formatLength } from '../units/length';
import type { Described } from '../record/entry';
import type { Build } from '../record/fold';
import { heightTrouble } from './zero-heights';
import {
  type PassFinding,
  type PassResult,
  crankOf,
  findStage,
  judgeStage,
  proofLimitOf,
  ringOf,
  tdcsOf,
  uncertaintyOf,
} from './readings/zero-passes';

/**
 * none: nobody has looked for TDC. open: readings are missing. found: TDC is known, the wheel is not set to it yet.
 * set: the wheel was set, the proof is missing. proved. rough: both sides agree, but the method is too coarse to set a cam by.
 * failed: a proof did not come out equal on both sides. void: wheel, pointer or fixing was disturbed.
 */
export type ZeroState = 'none' | 'open' | 'found' | 'set' | 'proved' | 'rough' | 'failed' | 'void';

/** What comes next at the engine. A reading joins the pass that lacks it, or opens a new one (`pass` null). */
export type ZeroStep =
  | { readonly does: 'begin' }
  | {
      readonly does: 'read';
      readonly side: TdcSide;
      readonly pass: string | null;
      readonly setting: string | null;
      /** What the indicator shall show, mm, once the first reading of a pass has fixed it. */
      readonly figure: number | null;
    }
  | { readonly does: 'set'; readonly after: string | null }
  | { readonly does: 'nothing' };

export interface ZeroFinding {
  readonly method: ZeroMethodName | null;
  readonly ring: WheelRing;
  readonly state: ZeroState;
  readonly sentence: string;
  readonly step: ZeroStep;
  readonly passes: readonly PassFinding[];
  readonly correction: Correction | null;
  /** The pass that the correction and the sentence speak of. */
  readonly result: PassResult | null;
  readonly uncertainty: ZeroUncertainty | null;
  readonly remark: string | null;
  /** What the widths of the passes show to be wrong, or null. */
  readonly odd: string | null;
}

/** What is read once the hands have stopped. */
export const readOff = (ring: WheelRing): string =>
  ring.ring === 'rim' ? 'Measure along the rim.' : 'Read the wheel.';

/** Where the search for true TDC stands, and what to do with the hands next. */
export function deriveZero(build: Build): ZeroFinding {
  const { zero } = build;
  const described = build.description.body;
  if (!zero)
    return {
      method: null,
      ring: described.wheel,
      state: 'none',
      sentence: 'Say how the engine is set up, and choose the method that fits.',
      step: { does: 'begin' },
      passes: [],
      correction: null,
      result: null,
      uncertainty: null,
      remark: null,
      odd: null,
    };
  const { method } = zero.begun;
  const table = ZERO_METHODS[method];
  const ring = ringOf(zero, described);
  const read = readOff(ring);
  const earlier = zero.stages
    .filter((stage) => stage !== zero.current)
    .flatMap((stage) => findStage(stage, zero, described));
  const here = findStage(zero.current, zero, described);
  const setting = zero.current.id;
  const passes = [...earlier, ...here];
  const judged = judgeStage(here, zero, described);
  const uncertainty = judged?.uncertainty ?? uncertaintyOf(here, zero, described);
  const odd = heightTrouble(passes, zero, described);
  const shared = { method, ring, passes, correction: null, result: null, uncertainty: null, remark: null, odd };

  const disturbed = setting === null ? undefined : build.disturbed.get(setting);
  if (disturbed)
    return {
      ...shared,
      state: 'void',
      sentence: `TDC is no longer valid: ${DISTURBED[disturbed.body.what]} Find TDC again before you read on.`,
      step: { does: 'begin' },
    };

  const waiting =
    table.readings === 'pair' &&
    zero.current.passes.find(
      (pass) =>
        pass.before.length + pass.after.length === 1 &&
        // The closing check is one contact by itself.
        ![...pass.before, ...pass.after].some(({ body }) => body.closing),
    );
  if (waiting) {
    const side = waiting.before.length === 0 ? 'before' : 'after';
    const figure = [...waiting.before, ...waiting.after][0]?.body.indicator ?? null;
    return {
      ...shared,
      state: setting === null ? 'open' : 'set',
      sentence:
        ring.ring === 'rim' && setting === null
          ? `${table.turn[side]} Make a second mark at the pointer; measure from the first.`
          : `${turnWords(method, side, figure === null ? null : formatLength(figure, described.units))} ${read}`,
      step: { does: 'read', side, pass: waiting.id, setting, figure },
    };
  }

  const next: ZeroStep = { does: 'read', side: 'before', pass: null, setting, figure: null };
  const last = here.filter((pass) => pass.result).at(-1);
  const troubled = here.find((pass) => pass.problem)?.problem;
  const firstWords =
    ring.ring === 'rim' && setting === null
      ? `${table.turn.before} Make a mark on the rim at the pointer: record 0.`
      : `${turnWords(method, 'before', null)} ${read}`;
  if (!last?.result) {
    if (troubled) return { ...shared, state: setting === null ? 'open' : 'set', sentence: troubled.remedy, step: next };
    return setting === null
      ? { ...shared, state: 'open', sentence: firstWords, step: next }
      : { ...shared, state: 'set', sentence: `Now prove it. ${firstWords}`, step: next };
  }

  if (setting !== null && judged?.equal)
    return {
      ...shared,
      state: judged.fine ? 'proved' : 'rough',
      result: last.result,
      uncertainty,
      sentence: judged.fine
        ? `TDC is proved, ${uncertainty?.words ?? ''}. Take the ${table.tool} out before you turn the crank over.`
        : `Both sides agree, but only ${uncertainty?.words ?? ''}: a check, no zero to set a cam by. Find it with a hard stop or an indicator.`,
      remark: provedRemark(here, judged.offset, ring, proofLimitOf(zero, described)),
      step: { does: 'nothing' },
    };

  const speaking = setting === null ? last : (here.filter((pass) => pass.proves === false).at(-1) ?? last);
  const result = setting === null ? meanResult(here, last.result) : (speaking.result ?? last.result);
  const correction = zeroCorrection(asTdc(result), ring, described.engine.rotation, {
    heldWhere: table.held,
    firstMark: setting === null,
  });
  const first = correction.ways[0]?.text ?? 'Leave the wheel as it is, and prove it with a second pass.';
  return {
    ...shared,
    state: setting === null ? 'found' : 'failed',
    result,
    correction,
    uncertainty,
    sentence:
      setting === null
        ? first
        : `Not proved: the sides differ by ${computedDegrees(sideDifference(asTdc(result)))}, the limit is ${wheelDegrees(proofLimitOf(zero, described))}. ${first}`,
    remark: foundRemark(here, result, method, described),
    step: { does: 'set', after: setting },
  };
}

const DISTURBED = {
  wheel: 'the wheel was disturbed.',
  pointer: 'the pointer was disturbed.',
  fixing: 'what they are fixed to was disturbed.',
  'with-drive': 'wheel or pointer was touched when the cam was moved.',
} as const;

const asTdc = ({ arc, half, tdc, offsetShift }: PassResult) => ({
  arc: crankDeg(arc),
  half: crankDeg(half),
  tdc: crankDeg(tdc),
  offsetShift: crankDeg(offsetShift),
});

/** Repeated passes are averaged, about the last one: they may lie either side of ±180. */
function meanResult(passes: readonly PassFinding[], last: PassResult): PassResult {
  const tdcs = tdcsOf(passes);
  if (tdcs.length < 2) return last;
  const away = tdcs.reduce((sum, each) => sum + wrap180(each - last.tdc), 0) / tdcs.length;
  return { ...last, tdc: wrap180(last.tdc + away) };
}

function provedRemark(passes: readonly PassFinding[], offset: number, ring: WheelRing, limit: number): string {
  const difference = 2 * Math.abs(offset);
  const repeats = repeatWords(passes);
  if (difference < 0.005) return `The two sides read the same.${repeats}`;
  return `The sides differ by ${computedDegrees(difference, 2)}, limit ${wheelDegrees(limit)}. At true TDC the pointer reads ${formatReading(readingAt(ring, offset))}; every reading is corrected by that.${repeats}`;
}

function repeatWords(passes: readonly PassFinding[]): string {
  const tdcs = tdcsOf(passes);
  const [first] = tdcs;
  if (first === undefined || tdcs.length < 2) return '';
  const away = tdcs.map((each) => wrap180(each - first));
  const range = Math.max(...away) - Math.min(...away);
  return ` The mean of ${tdcs.length} passes, ${computedDegrees(range, 2)} from the least to the greatest.`;
}

function foundRemark(
  passes: readonly PassFinding[],
  result: PassResult,
  method: ZeroMethodName,
  described: Described,
): string | null {
  const crank = crankOf(described);
  const parts: string[] = [];
  if (ZERO_METHODS[method].readings === 'single')
    parts.push(
      `The indicator stops ${computedDegrees(-result.offsetShift, 2)} before TDC on average, corrected here${crank ? '' : '; stroke and rod are not known, so those of a usual engine were taken'}.`,
    );
  else if (crank) {
    parts.push(
      `The piston stood ${formatComputedLength(equalHeights(crank, result.half).drop, described.units)} below the top.`,
    );
    if (Math.abs(result.offsetShift) > 0)
      parts.push(
        `The pin offset shifts the middle by ${computedDegrees(Math.abs(result.offsetShift), 3)}, taken off already.`,
      );
  }
  const repeats = repeatWords(passes);
  if (repeats) parts.push(repeats.trim());
  return parts.length > 0 ? parts.join(' ') : null;
}
