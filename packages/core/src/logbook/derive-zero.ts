import {
  type Correction,
  PROOF_LIMIT,
  holdsExchanged,
  provesZero,
  sideDifference,
  solveTdc,
  zeroCorrection,
} from '../crank/equal-heights';
import { type SliderCrank, equalHeights } from '../crank/slider-crank';
import { type WheelReading, type WheelRing, formatReading, readingAt, ringPosition } from '../crank/wheel';
import { type TdcSide, ZERO_METHODS, type ZeroMethodName } from '../crank/zero-methods';
import {
  type ReadOn,
  USUAL_CRANK,
  USUAL_RESOLUTION,
  type ZeroUncertainty,
  firstStopBias,
  zeroUncertainty,
} from '../crank/zero-uncertainty';
import type { Problem } from '../problem';
import { crankDeg, wrap180 } from '../units/angle';
import { computedDegrees, wheelDegrees } from '../units/degrees';
import { formatComputedLength, formatLength } from '../units/length';
import type { Described, EntryOf } from './entry';
import type { Build, Pass, Stage, Zero } from './fold';

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

/** A reading as recorded, and its ring position, crank degrees. */
export interface TdcReading {
  readonly entry: string;
  readonly side: TdcSide;
  readonly shows: string;
  readonly at: number;
  readonly wheel: WheelReading;
  /** What the indicator showed, mm, where the method goes by one. */
  readonly indicator: number | null;
}

/** TDC as one pass finds it, crank degrees. `arc` and `half` are 0 where a single reading finds it. */
export interface PassResult {
  readonly arc: number;
  readonly half: number;
  readonly tdc: number;
  readonly offsetShift: number;
}

export interface PassFinding {
  readonly id: string;
  readonly setting: string | null;
  readonly result: PassResult | null;
  readonly problem: Problem | null;
  /** Would the pair hold if its two readings were exchanged? */
  readonly exchanged: boolean;
  /** Are both sides equal within the limit? null before the wheel was set, or while the pass is incomplete. */
  readonly proves: boolean | null;
  readonly readings: readonly TdcReading[];
}

/** How a position of the wheel stands: proved or not, and the ring position of true TDC there, crank degrees. */
export interface SettingFinding {
  readonly proved: boolean;
  readonly offset: number;
  readonly disturbed: boolean;
}

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
}

/** Beyond this half-width of 95 % no zero is good enough to set a cam by, crank degrees. Common practice, no source. */
const COARSEST = 1;
const USUAL_WHEEL_RADIUS = 115;
const USUAL_GRADUATION = 1;
/** Finest step that is read off a tape, mm: half a millimetre, a sixty-fourth of an inch. From memory. */
const TAPE_STEP = { in: 25.4 / 64, mm: 0.5 } as const;

/** The crank train where stroke and rod are known. */
export function crankOf({ engine }: Described): SliderCrank | null {
  const { stroke, rod, pinOffset } = engine;
  return stroke === undefined || rod === undefined ? null : { stroke, rod, pinOffset: pinOffset ?? 0 };
}

/** Resolution of the indicator, mm: as described, else a usual one. */
export const resolutionOf = ({ instruments, units }: Described): number =>
  instruments?.resolution ?? USUAL_RESOLUTION[units];

function readOnOf({ instruments }: Described, ring: WheelRing): ReadOn {
  if (ring.ring === 'rim') return { on: 'rim', round: ring.round, tapeStep: TAPE_STEP[ring.unit] };
  return {
    on: 'wheel',
    radius: (instruments?.wheelDiameter ?? 2 * USUAL_WHEEL_RADIUS) / 2,
    graduation: instruments?.graduation ?? USUAL_GRADUATION,
    pointerGap: instruments?.pointerGap,
  };
}

const ringOf = (zero: Zero, described: Described): WheelRing => zero.begun.ring ?? described.wheel;

function findPass(pass: Pass, setting: string | null, method: ZeroMethodName, described: Described): PassFinding {
  const readings = [...pass.before, ...pass.after].map(({ id, body }): TdcReading => ({
    entry: id,
    side: body.side,
    shows: formatReading(body.wheel),
    at: ringPosition(body.wheel),
    wheel: body.wheel,
    indicator: body.indicator ?? null,
  }));
  const base = { id: pass.id, setting, readings, result: null, problem: null, exchanged: false, proves: null };
  const trouble = (message: string, remedy: string): PassFinding => ({ ...base, problem: { message, remedy } });
  const { label, figure, readings: count } = ZERO_METHODS[method];
  const twice = pass.before.length > 1 ? label.before : pass.after.length > 1 ? label.after : null;
  if (twice !== null)
    return trouble(`The reading ${twice} was recorded twice in one pass.`, 'Undo the one that is wrong.');
  const crank = crankOf(described);
  const [before] = pass.before;
  const [after] = pass.after;
  const judged = (result: PassResult): PassFinding => ({
    ...base,
    result,
    proves: setting === null ? null : provesZero({ tdc: crankDeg(result.tdc) }, PROOF_LIMIT),
  });
  if (count === 'single') {
    if (!before) return base;
    const bias = firstStopBias(crank ?? USUAL_CRANK, resolutionOf(described));
    return judged({ arc: 0, half: 0, tdc: wrap180(ringPosition(before.body.wheel) + bias), offsetShift: -bias });
  }
  if (!before || !after) return base;
  if (figure !== null) {
    const [one, other] = [before.body.indicator, after.body.indicator];
    if (one === undefined || other === undefined)
      return trouble('The indicator’s figure is missing.', 'Undo the pass and read both sides at one figure.');
    if (one !== other)
      return trouble('The two sides were read at different figures.', 'Undo one of them and read it at the same one.');
    if (crank && method === 'equal-drop' && one >= crank.stroke)
      return trouble(
        `A drop of ${formatLength(one, described.units)} is not less than the whole stroke.`,
        'Undo the pass and read it at a smaller drop, or correct the stroke.',
      );
  }
  const pair = { before: ringPosition(before.body.wheel), after: ringPosition(after.body.wheel) };
  const solved = solveTdc(pair, crank);
  if (!solved.ok) return { ...base, problem: solved.problem, exchanged: holdsExchanged(pair) };
  const { arc, half, tdc, offsetShift } = solved;
  return judged({ arc, half, tdc, offsetShift });
}

const findStage = (stage: Stage, zero: Zero, described: Described): PassFinding[] =>
  stage.passes.map((pass) => findPass(pass, stage.id, zero.begun.method, described));

const tdcsOf = (passes: readonly PassFinding[]): number[] => passes.flatMap(({ result }) => result?.tdc ?? []);

function uncertaintyOf(passes: readonly PassFinding[], zero: Zero, described: Described): ZeroUncertainty | null {
  const good = passes.filter((pass) => pass.result);
  if (good.length === 0) return null;
  return zeroUncertainty({
    method: zero.begun.method,
    half: good.reduce((sum, pass) => sum + (pass.result?.half ?? 0), 0) / good.length,
    engine: crankOf(described),
    readOn: readOnOf(described, ringOf(zero, described)),
    resolution: resolutionOf(described),
    passes: tdcsOf(good),
  });
}

/** A wheel position is proved when a pass proves it, none speaks against it, the method is fine enough, and nobody disturbed it. */
function judgeStage(passes: readonly PassFinding[], zero: Zero, described: Described) {
  const judged = passes.filter((pass) => pass.proves !== null);
  if (judged.length === 0) return null;
  const tdcs = tdcsOf(judged);
  const equal = judged.every((pass) => pass.proves);
  const uncertainty = uncertaintyOf(judged, zero, described);
  return {
    equal,
    offset: tdcs.reduce((sum, each) => sum + each, 0) / tdcs.length,
    fine: (uncertainty?.expanded ?? Infinity) <= COARSEST,
    uncertainty,
  };
}

/** Every wheel position of the logbook by the id of its `zero.set` entry, for the readings that lean on it. */
export function findSettings(build: Build): ReadonlyMap<string, SettingFinding> {
  const described = build.description.body;
  const found = new Map<string, SettingFinding>();
  for (const zero of build.zeros)
    for (const stage of zero.stages) {
      if (stage.id === null) continue;
      const judged = judgeStage(findStage(stage, zero, described), zero, described);
      found.set(stage.id, {
        proved: judged !== null && judged.equal && judged.fine,
        offset: judged?.offset ?? 0,
        disturbed: build.disturbed.has(stage.id),
      });
    }
  return found;
}

/** The words of a method with the figure put in. */
export function turnWords(method: ZeroMethodName, side: TdcSide, figure: string): string {
  return ZERO_METHODS[method].turn[side].replace('{figure}', figure);
}

/** Where the search for true TDC stands, and what to do with the hands next. */
export function deriveZero(build: Build): ZeroFinding {
  const { zero } = build;
  const described = build.description.body;
  if (!zero)
    return {
      method: null,
      ring: described.wheel,
      state: 'none',
      sentence: 'Say how the engine stands, and take the method that fits.',
      step: { does: 'begin' },
      passes: [],
      correction: null,
      result: null,
      uncertainty: null,
      remark: null,
    };
  const { method } = zero.begun;
  const table = ZERO_METHODS[method];
  const ring = ringOf(zero, described);
  const read = ring.ring === 'rim' ? 'Measure along the rim.' : 'Read the wheel.';
  const figureWords = (mm: number | null): string => (mm === null ? 'the figure' : formatLength(mm, described.units));
  const earlier = zero.stages
    .filter((stage) => stage !== zero.current)
    .flatMap((stage) => findStage(stage, zero, described));
  const here = findStage(zero.current, zero, described);
  const setting = zero.current.id;
  const passes = [...earlier, ...here];
  const judged = judgeStage(here, zero, described);
  const uncertainty = judged?.uncertainty ?? uncertaintyOf(here, zero, described);
  const shared = { method, ring, passes, correction: null, result: null, uncertainty: null, remark: null };

  const disturbed = setting === null ? undefined : build.disturbed.get(setting);
  if (disturbed)
    return {
      ...shared,
      state: 'void',
      sentence: `The zero is void: ${DISTURBED[disturbed.body.what]} Find TDC again before you read on.`,
      step: { does: 'begin' },
    };

  const waiting =
    table.readings === 'pair' && zero.current.passes.find((pass) => pass.before.length + pass.after.length === 1);
  if (waiting) {
    const side = waiting.before.length === 0 ? 'before' : 'after';
    const figure = [...waiting.before, ...waiting.after][0]?.body.indicator ?? null;
    return {
      ...shared,
      state: setting === null ? 'open' : 'set',
      sentence:
        ring.ring === 'rim' && setting === null
          ? `${table.turn[side]} Make a second mark at the pointer; measure from the first.`
          : `${turnWords(method, side, figureWords(figure))} ${read}`,
      step: { does: 'read', side, pass: waiting.id, setting, figure },
    };
  }

  const next: ZeroStep = { does: 'read', side: 'before', pass: null, setting, figure: null };
  const last = here.filter((pass) => pass.result).at(-1);
  const troubled = here.find((pass) => pass.problem)?.problem;
  const firstWords =
    ring.ring === 'rim' && setting === null
      ? `${table.turn.before} Make a mark on the rim at the pointer: record 0.`
      : `${turnWords(method, 'before', 'the figure')} ${read}`;
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
      remark: provedRemark(here, judged.offset, ring),
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
        : `Not proved: the sides differ by ${computedDegrees(sideDifference(asTdc(result)))}, the limit is ${wheelDegrees(PROOF_LIMIT)}. ${first}`,
    remark: foundRemark(here, result, method, described),
    step: { does: 'set', after: setting },
  };
}

const DISTURBED = {
  wheel: 'the wheel was disturbed.',
  pointer: 'the pointer was disturbed.',
  fixing: 'what they are fixed to was disturbed.',
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

function provedRemark(passes: readonly PassFinding[], offset: number, ring: WheelRing): string {
  const difference = 2 * Math.abs(offset);
  const repeats = repeatWords(passes);
  if (difference < 0.005) return `The two sides read the same.${repeats}`;
  return `The sides differ by ${computedDegrees(difference, 2)}, limit ${wheelDegrees(PROOF_LIMIT)}. At true TDC the pointer reads ${formatReading(readingAt(ring, offset))}; every reading is corrected by that.${repeats}`;
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

/** A reading of the cam and the zero that it really counts from. */
export function zeroOfReading(
  reading: EntryOf<'reading.taken'>,
  build: Build,
  settings: ReadonlyMap<string, SettingFinding>,
): { readonly proved: boolean; readonly offset: number; readonly rebasedBy: number | null } | null {
  const { setting } = reading.body;
  const own = setting === null ? undefined : settings.get(setting);
  if (!own || setting === null) return null;
  const rebasing = build.rebased.get(reading.id)?.body;
  if (rebasing?.from === setting) {
    const target = settings.get(rebasing.to);
    return {
      proved: (target?.proved ?? false) && !(target?.disturbed ?? true),
      offset: own.offset + rebasing.by,
      rebasedBy: rebasing.by,
    };
  }
  const stands = !own.disturbed || (build.disturbed.get(setting)?.body.keeps.includes(reading.id) ?? false);
  return { proved: own.proved && stands, offset: own.offset, rebasedBy: null };
}
