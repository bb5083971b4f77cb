import { cylinderTrouble } from '../../crank/firing-order';
import { firingTdcs } from '../../crank/firing';
import { PROOF_LIMIT, holdsExchanged, provesZero, solveTdc } from '../../tdc/equal-heights';
import type { SliderCrank } from '../../crank/slider-crank';
import { type WheelReading, type WheelRing, formatReading, ringPosition } from '../../crank/wheel';
import { type TdcSide, ZERO_METHODS } from '../../tdc/zero-methods';
import {
  type ReadOn,
  USUAL_CRANK,
  USUAL_RESOLUTION,
  type ZeroUncertainty,
  firstStopBias,
  readableStep,
  zeroUncertainty,
} from '../../tdc/zero-uncertainty';
import type { ReadTo } from '../../crank/read-to';
import type { Problem } from '../../problem';
import { wrap180 } from '../../units/angle';
import { MM_PER_INCH, formatLength } from '../../units/length';
import type { Described, EntryOf } from '../../record/entry';
import type { Ground, Pass, Stage, Zero } from '../../record/parts';

/** A reading as recorded, and its ring position, crank degrees. */
export interface TdcReading {
  readonly entry: string;
  readonly side: TdcSide;
  readonly shows: string;
  readonly at: number;
  readonly wheel: WheelReading;
  /** What the indicator showed, mm, where the method goes by one. */
  readonly indicator: number | null;
  /** What it showed with the valve pushed down by its adjuster, mm. */
  readonly pushed: number | null;
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
  /** Standard uncertainty of TDC there, crank degrees. */
  readonly standard: number;
  /** Finest step that is read off its ring, crank degrees. */
  readonly step: number;
  /** The same as readings see it that lean on it: while it stands, and after it was disturbed. */
  readonly standing: ZeroOfReading;
  readonly fallen: ZeroOfReading;
}

/** How nearly the adjuster is brought back to its figure, mm: 0.001 in. Common practice, no source. */
export const PUSHED_AGREES = 0.0254;
/** Beyond this half-width of 95 % no zero is good enough to set a cam by, crank degrees. Common practice, no source. */
const COARSEST = 1;
/** What a zero is worth that nobody has proved, crank degrees. From memory. */
export const UNPROVED_TDC = 3;
const USUAL_WHEEL_RADIUS = 115;
const USUAL_GRADUATION = 1;
/** Finest step that is read off a tape, mm: half a millimetre, a sixty-fourth of an inch. From memory. */
const TAPE_STEP = { in: MM_PER_INCH / 64, mm: 0.5 } as const;

/** The crank train where stroke and rod are known. */
export function crankOf({ engine }: Described): SliderCrank | null {
  const { stroke, rod, pinOffset } = engine;
  return stroke === undefined || rod === undefined ? null : { stroke, rod, pinOffset: pinOffset ?? 0 };
}

/** Resolution of the indicator, mm: as described, else a usual one. */
export const resolutionOf = ({ instruments, units }: Described): number =>
  instruments?.resolution ?? USUAL_RESOLUTION[units];

function readOnOf({ instruments }: Described, ring: WheelRing, typed?: ReadTo): ReadOn {
  if (ring.ring === 'rim') return { on: 'rim', round: ring.round, tapeStep: typed?.tape ?? TAPE_STEP[ring.unit] };
  return {
    on: 'wheel',
    radius: (instruments?.wheelDiameter ?? 2 * USUAL_WHEEL_RADIUS) / 2,
    graduation: instruments?.graduation ?? USUAL_GRADUATION,
    pointerGap: instruments?.pointerGap,
    typed: typed?.wheel ?? undefined,
  };
}

/** Finest step that is read off the wheel of the description, crank degrees. */
export const wheelStepOf = (described: Described): number => readableStep(readOnOf(described, described.wheel));

/** The numbers that the wheel of the description carries, those first that are read unless others are chosen. */
export const ringsOf = ({ wheel, rings = [] }: Described): readonly WheelRing[] => [wheel, ...rings];

export const ringOf = (zero: Zero, described: Described): WheelRing => zero.begun.ring ?? described.wheel;

function findPass(pass: Pass, setting: string | null, zero: Zero, described: Described): PassFinding {
  const { method } = zero.begun;
  const readings = [...pass.before, ...pass.after].map(({ id, body }): TdcReading => ({
    entry: id,
    side: body.side,
    shows: formatReading(body.wheel),
    at: ringPosition(body.wheel),
    wheel: body.wheel,
    indicator: body.indicator ?? null,
    pushed: body.pushed ?? null,
  }));
  const base = { id: pass.id, setting, readings, result: null, problem: null, exchanged: false, proves: null };
  const trouble = (message: string, remedy: string): PassFinding => ({ ...base, problem: { message, remedy } });
  const nowhere = cylinderTrouble(zero.begun.cylinder, described.engine.cylinders);
  if (nowhere) return { ...base, problem: nowhere };
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
    proves: setting === null ? null : provesZero(result, proofLimitOf(zero, described)),
  });
  if (count === 'single') {
    if (!before) return base;
    // A pin is where its maker put it: it comes neither early nor late that anybody knew of.
    const bias = ZERO_METHODS[method].bringsTolerance
      ? 0
      : firstStopBias(crank ?? USUAL_CRANK, resolutionOf(described));
    return judged({ arc: 0, half: 0, tdc: wrap180(ringPosition(before.body.wheel) + bias), offsetShift: -bias });
  }
  if (!before || !after) return base;
  if (ZERO_METHODS[method].pushesValve) {
    const [one, other] = [before.body.pushed, after.body.pushed];
    if (one === undefined || other === undefined)
      return trouble(
        'What the indicator showed with the valve pushed down is missing.',
        'Undo the pass and note it on both sides.',
      );
    if (Math.abs(one - other) > PUSHED_AGREES)
      return trouble(
        `The valve was not pushed down alike: ${formatLength(one, described.units)} and ${formatLength(other, described.units)}.`,
        'Undo one side, come down with the adjuster to the figure of the other, and read it again.',
      );
  }
  if (figure !== null) {
    const [one, other] = [before.body.indicator, after.body.indicator];
    if (one === undefined || other === undefined)
      return trouble('The indicator’s figure is missing.', 'Undo the pass and read both sides at one figure.');
    if (one !== other)
      return trouble('The two sides were read at different figures.', 'Undo one of them and read it at the same one.');
    if (crank && figure.isDrop && one >= crank.stroke)
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

/** What the manual says of its pin, ± crank degrees; undefined for every other method. One that nobody gave is taken as a usual one. */
const toleranceOf = ({ begun }: Zero): number | undefined =>
  ZERO_METHODS[begun.method].bringsTolerance ? (begun.tolerance ?? USUAL_PIN) : undefined;
/** Common practice, no source. */
const USUAL_PIN = 1;

/** Finest step that is read off the ring of a zero, crank degrees. */
export const readStepOf = (zero: Zero, described: Described): number =>
  readableStep(readOnOf(described, ringOf(zero, described), zero.readTo));

/** How far the two sides of a proof may differ, crank degrees: nobody is held to less than the step that he reads to. */
export const proofLimitOf = (zero: Zero, described: Described): number =>
  Math.max(PROOF_LIMIT, readStepOf(zero, described));

export const findStage = (stage: Stage, zero: Zero, described: Described): PassFinding[] =>
  stage.passes.map((pass) => findPass(pass, stage.id, zero, described));

/** True TDC as each pass found it, crank degrees: about the first of them, since they may lie either side of ±180. */
export function tdcsOf(passes: readonly PassFinding[]): number[] {
  const tdcs = passes.flatMap(({ result }) => result?.tdc ?? []);
  const [first = 0] = tdcs;
  return tdcs.map((each) => first + wrap180(each - first));
}

export function uncertaintyOf(
  passes: readonly PassFinding[],
  zero: Zero,
  described: Described,
): ZeroUncertainty | null {
  const good = passes.filter((pass) => pass.result);
  if (good.length === 0) return null;
  return zeroUncertainty({
    method: zero.begun.method,
    half: good.reduce((sum, pass) => sum + (pass.result?.half ?? 0), 0) / good.length,
    engine: crankOf(described),
    readOn: readOnOf(described, ringOf(zero, described), zero.readTo),
    resolution: resolutionOf(described),
    passes: tdcsOf(good),
    tolerance: toleranceOf(zero),
  });
}

/** A wheel position is proved when a pass proves it, none speaks against it, the method is fine enough, and nobody disturbed it. */
export function judgeStage(passes: readonly PassFinding[], zero: Zero, described: Described) {
  const judged = passes.filter((pass) => pass.proves !== null);
  if (judged.length === 0) return null;
  const tdcs = tdcsOf(judged);
  const equal = judged.every((pass) => pass.proves);
  const uncertainty = uncertaintyOf(judged, zero, described);
  return {
    equal,
    offset: tdcs.reduce((sum, each) => sum + each, 0) / tdcs.length,
    // A maker's pin is taken as good as he says, by name.
    fine: (uncertainty?.expanded ?? Infinity) <= COARSEST || toleranceOf(zero) !== undefined,
    uncertainty,
  };
}

/** Every wheel position of the logbook by the id of its `zero.set` entry, for the readings that lean on it. */
export function findSettings(build: Ground): ReadonlyMap<string, SettingFinding> {
  const described = build.description.body;
  const found = new Map<string, SettingFinding>();
  for (const zero of build.zeros)
    for (const stage of zero.stages) {
      if (stage.id === null) continue;
      const judged = judgeStage(findStage(stage, zero, described), zero, described);
      const proved = judged !== null && judged.equal && judged.fine;
      const standing: ZeroOfReading = {
        proved,
        offset: judged?.offset ?? 0,
        turned: 0,
        rebasedBy: null,
        standard: judged?.uncertainty?.standard ?? UNPROVED_TDC,
        step: readStepOf(zero, described),
      };
      found.set(stage.id, {
        proved,
        offset: standing.offset,
        disturbed: build.disturbed.has(stage.id),
        standard: standing.standard,
        step: standing.step,
        standing,
        fallen: { ...standing, proved: false },
      });
    }
  return found;
}

export interface ZeroOfReading {
  readonly proved: boolean;
  readonly offset: number;
  /** How far after the cylinder that TDC was found at the one fires that was read, crank degrees: a second bank. */
  readonly turned: number;
  readonly rebasedBy: number | null;
  readonly standard: number;
  readonly step: number;
}

/** A reading of the cam and the zero that it really counts from. */
export function zeroOfReading(
  reading: EntryOf<'reading.taken' | 'trace.recorded'>,
  build: Ground,
  settings: ReadonlyMap<string, SettingFinding>,
): ZeroOfReading | null {
  const { setting } = reading.body;
  const own = setting === null ? undefined : settings.get(setting);
  if (!own || setting === null) return null;
  const rebasing = build.rebased.get(reading.id)?.body;
  if (rebasing?.from === setting) {
    // Once shown, how far the wheel had moved stays true, whatever happens to the new zero afterwards.
    return {
      proved: settings.get(rebasing.to)?.proved ?? false,
      offset: own.offset + rebasing.by,
      turned: turnedTo(reading, build),
      rebasedBy: rebasing.by,
      standard: Math.hypot(own.standard, settings.get(rebasing.to)?.standard ?? UNPROVED_TDC),
      step: own.step,
    };
  }
  const stands = !own.disturbed || (build.disturbed.get(setting)?.body.keeps.includes(reading.id) ?? false);
  const zero = stands ? own.standing : own.fallen;
  const turned = turnedTo(reading, build);
  return turned === 0 ? zero : { ...zero, turned };
}

/** From the cylinder that TDC was found at to the one that was read, crank degrees as the wheel shows them. */
function turnedTo({ body }: EntryOf<'reading.taken' | 'trace.recorded'>, { zeros, description }: Ground): number {
  const from = zeros.find(({ stages }) => stages.some(({ id }) => id === body.setting))?.begun.cylinder ?? 1;
  if (from === body.cylinder) return 0;
  const { engine } = description.body;
  const tdcs = firingTdcs({ order: engine.firingOrder, angles: engine.firingAngles });
  const after = (cylinder: number): number => tdcs.find((each) => each.cylinder === cylinder)?.after ?? 0;
  return wrap180(after(body.cylinder) - after(from));
}

/** Where the ring stands at the TDC of the cylinder that was read, as far as it is proved. */
export const offsetOf = (zero: ZeroOfReading | null): number =>
  zero === null ? 0 : (zero.proved ? zero.offset : 0) + zero.turned;
