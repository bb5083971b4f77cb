import { type Correction, sideDifference, zeroCorrection } from '../tdc/equal-heights';
import { equalHeights } from '../crank/slider-crank';
import type { WheelRing } from '../crank/wheel';
import { type TdcSide, ZERO_METHODS, type ZeroMethodName } from '../tdc/zero-methods';
import type { ZeroUncertainty } from '../tdc/zero-uncertainty';
import type { Problem } from '../problem';
import { crankDeg, wrap180 } from '../units/angle';
import type { BodyOf, Described } from '../record/entry';
import type { Build } from '../record/fold';
import type { Zero } from '../record/parts';
import { type WidthTrouble, widthTrouble } from './zero-heights';
import {
  type PassFinding,
  type PassResult,
  crankOf,
  findStage,
  judgeStage,
  proofLimitOf,
  ringOf,
  ringsOf,
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

/** What there is to say of it: the sentence is made in the Report. */
export type ZeroSays =
  | { readonly code: 'begin' }
  | { readonly code: 'disturbed'; readonly what: BodyOf<'zero.disturbed'>['what'] }
  | { readonly code: 'trouble'; readonly problem: Problem }
  /** The next reading; `figure` of the indicator, mm. `proves`: the first since the wheel was set. */
  | { readonly code: 'read'; readonly side: TdcSide; readonly figure: number | null; readonly proves: boolean }
  | { readonly code: 'set' }
  | { readonly code: 'proved' }
  | { readonly code: 'rough' }
  /** How far the sides of the proof differ, crank degrees. */
  | { readonly code: 'not-proved'; readonly difference: number; readonly limit: number };

/** How many passes were taken together, and from the least to the greatest, crank degrees. */
export interface PassRepeats {
  readonly count: number;
  readonly range: number;
}

export type ZeroRemark =
  /** `difference` of the two sides; `at` true TDC on the ring, crank degrees. */
  | {
      readonly of: 'proof';
      readonly difference: number;
      readonly limit: number;
      readonly at: number;
      readonly repeats: PassRepeats | null;
    }
  | {
      readonly of: 'search';
      /** How far before TDC the indicator stops; null for a method with two readings. */
      readonly stopsBefore: number | null;
      /** Are stroke and rod known? */
      readonly crankKnown: boolean;
      /** How far below the top the piston stood, mm. */
      readonly drop: number | null;
      /** What a pin offset makes of the middle, taken off already, crank degrees. */
      readonly offsetShift: number;
      readonly repeats: PassRepeats | null;
    };

export interface ZeroFinding {
  readonly method: ZeroMethodName | null;
  readonly ring: WheelRing;
  /** All that can be read now, `ring` the first. */
  readonly rings: readonly WheelRing[];
  readonly state: ZeroState;
  readonly says: ZeroSays;
  readonly step: ZeroStep;
  readonly passes: readonly PassFinding[];
  readonly correction: Correction | null;
  /** The pass that the correction speaks of. */
  readonly result: PassResult | null;
  readonly uncertainty: ZeroUncertainty | null;
  readonly remark: ZeroRemark | null;
  /** What the widths of the passes show to be wrong, or null. */
  readonly widths: WidthTrouble | null;
}

const NOT_BEGUN = {
  method: null,
  state: 'none',
  says: { code: 'begin' },
  step: { does: 'begin' },
  passes: [],
  correction: null,
  result: null,
  uncertainty: null,
  remark: null,
  widths: null,
} as const;

/** Where the search for true TDC stands, and what to do with the hands next. */
export function deriveZero(build: Build): ZeroFinding {
  const { zero } = build;
  const described = build.description.body;
  if (!zero) return { ...NOT_BEGUN, ring: described.wheel, rings: ringsOf(described) };
  const here = findStage(zero.current, zero, described);
  const earlier = zero.stages
    .filter((stage) => stage !== zero.current)
    .flatMap((stage) => findStage(stage, zero, described));
  const passes = [...earlier, ...here];
  const standing: ZeroFinding = {
    ...NOT_BEGUN,
    method: zero.begun.method,
    ring: ringOf(zero, described),
    rings: zero.begun.ring ? [zero.begun.ring] : ringsOf(described),
    state: zero.current.id === null ? 'open' : 'set',
    passes,
    widths: widthTrouble(passes, zero, described),
  };
  const disturbed = zero.current.id === null ? undefined : build.disturbed.get(zero.current.id);
  if (disturbed) return { ...standing, state: 'void', says: { code: 'disturbed', what: disturbed.body.what } };
  return (
    waitingPass(standing, zero) ??
    untilFound(standing, here, zero) ??
    (zero.current.id === null ? foundTdc : proofOf)(standing, here, zero, described)
  );
}

/** One side of a pass is read, the other is not. */
function waitingPass(standing: ZeroFinding, { begun, current }: Zero): ZeroFinding | null {
  if (ZERO_METHODS[begun.method].readings !== 'pair') return null;
  const waiting = current.passes.find(
    (pass) =>
      pass.before.length + pass.after.length === 1 &&
      // The closing check is one contact by itself.
      ![...pass.before, ...pass.after].some(({ body }) => body.closing),
  );
  if (!waiting) return null;
  const side = waiting.before.length === 0 ? 'before' : 'after';
  const figure = [...waiting.before, ...waiting.after][0]?.body.indicator ?? null;
  return {
    ...standing,
    says: { code: 'read', side, figure, proves: false },
    step: { does: 'read', side, pass: waiting.id, setting: current.id, figure },
  };
}

/** No pass is whole yet. */
function untilFound(standing: ZeroFinding, here: readonly PassFinding[], { current }: Zero): ZeroFinding | null {
  if (here.some(({ result }) => result)) return null;
  const troubled = here.find(({ problem }) => problem)?.problem;
  return {
    ...standing,
    says: troubled
      ? { code: 'trouble', problem: troubled }
      : { code: 'read', side: 'before', figure: null, proves: current.id !== null },
    step: { does: 'read', side: 'before', pass: null, setting: current.id, figure: null },
  };
}

/** TDC is known; the wheel is not set to it yet. */
function foundTdc(standing: ZeroFinding, here: readonly PassFinding[], zero: Zero, described: Described): ZeroFinding {
  return {
    ...standing,
    ...correctionOf(meanResult(here), here, zero, described),
    uncertainty: uncertaintyOf(here, zero, described),
    state: 'found',
    says: { code: 'set' },
  };
}

/** The wheel is set: are both sides equal now? */
function proofOf(standing: ZeroFinding, here: readonly PassFinding[], zero: Zero, described: Described): ZeroFinding {
  const limit = proofLimitOf(zero, described);
  const judged = judgeStage(here, zero, described);
  const uncertainty = judged?.uncertainty ?? uncertaintyOf(here, zero, described);
  const whole = here.filter(({ result }) => result);
  if (judged?.equal)
    return {
      ...standing,
      state: judged.fine ? 'proved' : 'rough',
      says: { code: judged.fine ? 'proved' : 'rough' },
      result: whole.at(-1)?.result ?? null,
      uncertainty,
      remark: {
        of: 'proof',
        difference: 2 * Math.abs(judged.offset),
        limit,
        at: judged.offset,
        repeats: repeatsOf(here),
      },
      step: { does: 'nothing' },
    };
  const speaking = here.filter(({ proves }) => proves === false).at(-1) ?? whole.at(-1);
  const result = speaking?.result ?? whole.at(-1)?.result;
  if (!result) throw new Error('a proof has a whole pass');
  return {
    ...standing,
    ...correctionOf(result, here, zero, described),
    uncertainty,
    state: 'failed',
    says: { code: 'not-proved', difference: sideDifference(asTdc(result)), limit },
  };
}

/** What to do to the wheel, and what it rests on. */
function correctionOf(result: PassResult, here: readonly PassFinding[], zero: Zero, described: Described) {
  const { method } = zero.begun;
  return {
    result,
    correction: zeroCorrection(asTdc(result), ringOf(zero, described), described.engine.rotation, {
      heldWhere: ZERO_METHODS[method].held,
      firstMark: zero.current.id === null,
    }),
    remark: foundRemark(here, result, method, described),
    step: { does: 'set', after: zero.current.id },
  } as const;
}

const asTdc = ({ arc, half, tdc, offsetShift }: PassResult) => ({
  arc: crankDeg(arc),
  half: crankDeg(half),
  tdc: crankDeg(tdc),
  offsetShift: crankDeg(offsetShift),
});

/** Repeated passes are averaged, about the last one: they may lie either side of ±180. */
function meanResult(passes: readonly PassFinding[]): PassResult {
  const last = passes.flatMap(({ result }) => result ?? []).at(-1);
  if (!last) throw new Error('TDC is found by a whole pass');
  const tdcs = tdcsOf(passes);
  if (tdcs.length < 2) return last;
  const away = tdcs.reduce((sum, each) => sum + wrap180(each - last.tdc), 0) / tdcs.length;
  return { ...last, tdc: wrap180(last.tdc + away) };
}

function repeatsOf(passes: readonly PassFinding[]): PassRepeats | null {
  const tdcs = tdcsOf(passes);
  const [first] = tdcs;
  if (first === undefined || tdcs.length < 2) return null;
  const away = tdcs.map((each) => wrap180(each - first));
  return { count: tdcs.length, range: Math.max(...away) - Math.min(...away) };
}

function foundRemark(
  passes: readonly PassFinding[],
  result: PassResult,
  method: ZeroMethodName,
  described: Described,
): ZeroRemark {
  const crank = crankOf(described);
  const single = ZERO_METHODS[method].readings === 'single';
  return {
    of: 'search',
    stopsBefore: single && !ZERO_METHODS[method].bringsTolerance ? -result.offsetShift : null,
    crankKnown: crank !== null,
    drop: single || !crank ? null : equalHeights(crank, result.half).drop,
    offsetShift: single || !crank ? 0 : Math.abs(result.offsetShift),
    repeats: repeatsOf(passes),
  };
}
