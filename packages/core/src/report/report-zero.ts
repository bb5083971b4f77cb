import { formatReading, readingAt, type WheelRing } from '../crank/wheel';
import { type TdcSide, ZERO_METHODS, type ZeroMethodName, turnWords } from '../tdc/zero-methods';
import { computedDegrees, wheelDegrees } from '../units/degrees';
import { type LengthUnit, formatComputedLength, formatLength } from '../units/length';
import type { PassRepeats, ZeroFinding, ZeroRemark, ZeroSays } from '../findings/derive-zero';
import type { ClosingFinding } from '../findings/closing-check';
import { findRebase } from '../findings/derive-rebase';
import type { SettingFinding } from '../findings/readings/zero-passes';
import type { WidthTrouble } from '../findings/zero-heights';
import type { Build } from '../record/fold';
import type { Report } from './report-schema';

/** The search for TDC as the Report has it. */
export function reportZero(
  build: Build,
  zero: ZeroFinding,
  settings: ReadonlyMap<string, SettingFinding>,
): Report['zero'] {
  const { units } = build.description.body;
  return {
    id: build.zero?.id ?? null,
    method: zero.method,
    ring: zero.ring,
    rings: [...zero.rings],
    setting: build.zero?.current.id ?? null,
    state: zero.state,
    sentence: sentenceOf(zero, build),
    step: zero.step,
    correction: zero.correction && { ...zero.correction, ways: [...zero.correction.ways] },
    uncertainty: zero.uncertainty && { ...zero.uncertainty, budget: [...zero.uncertainty.budget] },
    remark: zero.remark && remarkWords(zero.remark, zero.ring, units),
    odd: zero.widths && zero.method && widthWords(zero.widths, zero.method, units),
    result: zero.result,
    passes: zero.passes.map((pass) => ({ ...pass, readings: [...pass.readings] })),
    rebase: findRebase(build, zero, settings),
  };
}

function sentenceOf(zero: ZeroFinding, build: Build): string {
  const { says, method } = zero;
  if (method === null || says.code === 'begin') return 'Say how the engine is set up, and choose the method that fits.';
  const way = zero.correction?.ways[0]?.text ?? 'Leave the wheel as it is, and prove it with a second pass.';
  const good = zero.uncertainty?.words ?? '';
  switch (says.code) {
    case 'disturbed':
      return `TDC is no longer valid: ${DISTURBED[says.what]} Find TDC again before you read on.`;
    case 'trouble':
      return says.problem.remedy;
    case 'read':
      return readWords(says, zero.ring, method, build);
    case 'set':
      return way;
    case 'proved':
      return `TDC is proved, ${good}. Take the ${ZERO_METHODS[method].tool} out before you turn the crank over.`;
    case 'rough':
      return `Both sides agree, but only ${good}: a check, no zero to set a cam by. Find it with a hard stop or an indicator.`;
    case 'not-proved':
      return `Not proved: the sides differ by ${computedDegrees(says.difference)}, the limit is ${wheelDegrees(says.limit)}. ${way}`;
  }
}

const DISTURBED = {
  wheel: 'the wheel was disturbed.',
  pointer: 'the pointer was disturbed.',
  fixing: 'what they are fixed to was disturbed.',
  'with-drive': 'wheel or pointer was touched when the cam was moved.',
} as const;

/** What the hands do for the next reading. On a rim without a mark the first mark is made, and the second measured from it. */
function readWords(
  { side, figure, proves }: Extract<ZeroSays, { code: 'read' }>,
  ring: WheelRing,
  method: ZeroMethodName,
  build: Build,
): string {
  const { units } = build.description.body;
  const oneWay = build.asItStands?.body.oneWay ?? false;
  const words = figure === null ? null : formatLength(figure, units);
  const half = build.zero?.current.passes.some(({ before, after }) => before.length + after.length === 1) ?? false;
  if (ring.ring === 'rim' && build.zero?.current.id === null)
    return markWords(turnWords(method, side, words, oneWay), half);
  return turnAndRead(method, ring, side, words, proves, oneWay);
}

/** A rim has no numbers: the first mark is made where the pointer stands, the second is measured from it. */
const markWords = (turning: string, second: boolean): string =>
  second
    ? `${turning} Make a second mark at the pointer; measure from the first.`
    : `${turning} Make a mark on the rim at the pointer: record 0.`;

/** "Turn it …, until it stops. Read the wheel." */
function turnAndRead(
  method: ZeroMethodName,
  ring: WheelRing,
  side: TdcSide,
  figure: string | null,
  proves: boolean,
  oneWay: boolean,
): string {
  const read = ring.ring === 'rim' ? 'Measure along the rim.' : 'Read the wheel.';
  return `${proves ? 'Now prove it. ' : ''}${turnWords(method, side, figure, oneWay)} ${read}`;
}

/**
 * What the hands do next at Zero, for the side that the builder has turned to and the figure that he has chosen: neither is in the logbook yet.
 * @param figure of the indicator, in words; null where the method has none, or none is chosen.
 */
export function readingSentence(
  { method, ring, state, step, sentence, setting, passes }: Report['zero'],
  side: TdcSide,
  figure: string | null,
  oneWay: boolean,
): string {
  if (method === null) return sentence;
  if (ring.ring === 'rim' && setting === null)
    return markWords(
      turnWords(method, side, figure, oneWay),
      passes.some(({ readings }) => readings.length === 1),
    );
  const proves = state === 'set' && step.does === 'read' && step.pass === null && step.side === side;
  return turnAndRead(method, ring, side, figure, proves, oneWay);
}

function remarkWords(remark: ZeroRemark, ring: WheelRing, units: LengthUnit): string | null {
  const parts = remark.of === 'proof' ? proofWords(remark, ring) : searchWords(remark, units);
  if (remark.repeats) parts.push(repeatWords(remark.repeats));
  return parts.length > 0 ? parts.join(' ') : null;
}

const repeatWords = ({ count, range }: PassRepeats): string =>
  `The mean of ${count} passes, ${computedDegrees(range, 2)} from the least to the greatest.`;

function proofWords({ difference, limit, at }: Extract<ZeroRemark, { of: 'proof' }>, ring: WheelRing): string[] {
  if (difference < 0.005) return ['The two sides read the same.'];
  return [
    `The sides differ by ${computedDegrees(difference, 2)}, limit ${wheelDegrees(limit)}.`,
    `At true TDC the pointer reads ${formatReading(readingAt(ring, at))}; every reading is corrected by that.`,
  ];
}

function searchWords(
  { stopsBefore, crankKnown, drop, offsetShift }: Extract<ZeroRemark, { of: 'search' }>,
  units: LengthUnit,
): string[] {
  const parts: string[] = [];
  if (stopsBefore !== null) {
    const stops = `The indicator stops ${computedDegrees(stopsBefore, 2)} before TDC on average, corrected here`;
    parts.push(
      crankKnown ? `${stops}.` : `${stops}; stroke and rod are not known, so those of a usual engine were taken.`,
    );
  }
  if (drop !== null) parts.push(`The piston stood ${formatComputedLength(drop, units)} below the top.`);
  if (offsetShift > 0)
    parts.push(`The pin offset shifts the middle by ${computedDegrees(offsetShift, 3)}, taken off already.`);
  return parts;
}

/** What is wrong with how wide the passes are. */
function widthWords(trouble: WidthTrouble, method: ZeroMethodName, units: LengthUnit): string {
  if (trouble.of === 'drop')
    return `With this stroke and rod a drop of ${formatLength(trouble.figure, units)} is ${computedDegrees(trouble.expected)} wide; this pass is ${computedDegrees(trouble.found)}. Check the figure of the indicator, its zero at the top, the stroke and the rod.`;
  const { tool } = ZERO_METHODS[method];
  const where = trouble.figure === null ? `at one ${tool}` : `at ${formatLength(trouble.figure, units)}`;
  return `Two passes ${where} were ${computedDegrees(trouble.first)} and ${computedDegrees(trouble.second)} wide: they were not at one height. The ${tool} moved, the indicator slipped, or the piston rocked: read both sides once more.`;
}

/** The closing check as the Report has it. */
export function reportClosing({ method, ...closing }: ClosingFinding, units: LengthUnit): Report['read']['closing'] {
  return { ...closing, sentence: method === null ? '' : closingWords(method, closing, units) };
}

function closingWords(
  method: ZeroMethodName,
  { state, figure, by }: Omit<ClosingFinding, 'method'>,
  units: LengthUnit,
): string {
  switch (state) {
    case 'none':
      return '';
    case 'due':
      return `Closing check. The wheel as it is, the ${ZERO_METHODS[method].tool} back in. ${turnWords(method, 'before', figure === null ? null : formatLength(figure, units))}`;
    case 'same':
      return 'The contact came again where it was: nothing has moved since TDC.';
    case 'moved':
      return `The contact came ${computedDegrees(Math.abs(by ?? 0))} from where it was: the wheel or the pointer has moved since TDC was proved.`;
  }
}
