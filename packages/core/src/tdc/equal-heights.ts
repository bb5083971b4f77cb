import type { Rotation } from '../crank/rotation';
import { type CrankDeg, type RingDeg, crankDeg, forwardArc, forwardMidpoint, wrap180 } from '../units/angle';
import { computedDegrees, wheelDegrees } from '../units/degrees';
import { formatComputedLength } from '../units/length';
import { type Outcome, problem } from '../problem';
import { type SliderCrank, equalHeights } from '../crank/slider-crank';
import { type WheelReading, type WheelRing, formatReading, readingAt } from '../crank/wheel';

/**
 * Where the piston stands at one and the same height, as ring positions (crank degrees, see `wheel.ts`).
 * `before`: on the way up as the engine runs, which is where a stop holds a crank turned forward. `after`: past the top.
 */
export interface HeightPair {
  readonly before: number;
  readonly after: number;
}

export interface TdcResult {
  /** From the one to the other over the top, crank degrees: for a stop, the arc that the piston could not cross. */
  readonly arc: CrankDeg;
  /** Half of it: what each side reads on a wheel that is right. */
  readonly half: CrankDeg;
  /** Ring position of true TDC in [−180, 180): positive means that the pointer reads after at true TDC. */
  readonly tdc: CrankDeg & RingDeg;
  /** By how much the middle of the pair lies after piston-highest because of the pin offset: taken off already. */
  readonly offsetShift: CrankDeg;
}

/** The only test of a pair is the length of its arc. Common practice, no source. */
const SHORTEST_ARC = 4;
const LONGEST_ARC = 170;
/** Keeps a difference of exactly the limit inside it, whatever the binary fractions. */
const ROUNDING = 1e-9;

/** Default limit between the two sides of a proof, crank degrees. Common practice, no source. */
export const PROOF_LIMIT = crankDeg(0.5);

/**
 * True TDC from two equal heights of the piston: half-way along the arc that runs the way the engine runs from the reading
 * before TDC to the one after it, less what a pin offset makes of it. It does not matter where on the wheel that lies.
 * @param engine the crank train where it is known; only its pin offset matters here.
 * @returns the result in crank degrees, or why the pair cannot be right.
 * @example solveTdc({ before: 342, after: 25 }) // 18 before and 25 after: arc 43, half 21.5, tdc +3.5
 * @example solveTdc({ before: 212, after: 278 }) // arc 66, half 33, tdc at 245 (that is −115)
 * Source: midpoint between equal piston heights, by symmetry of the slider-crank; limits common practice, no source.
 */
export function solveTdc({ before, after }: HeightPair, engine: SliderCrank | null = null): Outcome<TdcResult> {
  const arc = forwardArc(before, after);
  if (arc < SHORTEST_ARC)
    return problem(
      `The two readings are only ${computedDegrees(arc)} apart.`,
      'Meet the piston further from the top, or read the second one again.',
    );
  if (arc > LONGEST_ARC)
    return problem(
      `From the reading before TDC to the one after it is ${computedDegrees(arc)}: more than ${LONGEST_ARC}° is never right.`,
      'Most likely the two are exchanged. Exchange them, or undo them and read again: first on the way up, then past the top.',
    );
  const half = crankDeg(arc / 2);
  const offsetShift = engine?.pinOffset ? equalHeights(engine, half).middle : crankDeg(0);
  return { ok: true, arc, half, tdc: wrap180(forwardMidpoint(before, after) - offsetShift), offsetShift };
}

/** Would the pair hold if its two readings were exchanged? Then that is what happened, most likely. */
export const holdsExchanged = ({ before, after }: HeightPair): boolean =>
  !solveTdc({ before, after }).ok && solveTdc({ before: after, after: before }).ok;

/** Where the crank is held while the wheel is set by a stop. */
const HELD_BY_STOP = 'at the contact that stopped it turning back';

/** How unequal the two sides read from the wheel's own zero: twice the error of the zero, crank degrees, never negative. */
export const sideDifference = (result: Pick<TdcResult, 'tdc'>): CrankDeg => crankDeg(Math.abs(2 * result.tdc));

/**
 * Does a pass prove the zero: are the two sides equal within `limit` crank degrees? With a pin offset equal heights are not quite equal angles: sides that
 * read alike do prove it, and so do sides that differ by what the offset makes of them.
 */
export const provesZero = ({ tdc, offsetShift }: PassShift, limit: number): boolean =>
  Math.min(Math.abs(tdc), Math.abs(tdc + offsetShift)) * 2 <= limit + ROUNDING;

interface PassShift {
  readonly tdc: number;
  readonly offsetShift: number;
}

export interface Correction {
  /** What the wheel says at true TDC, and so what is wrong. */
  readonly finding: string;
  /** What to do with the hands, the easiest way first: one of them is enough. Empty when the wheel is already right. */
  readonly ways: readonly { readonly part: 'wheel' | 'pointer' | 'hold' | 'mark'; readonly text: string }[];
}

/**
 * The correction as an instruction. At true TDC the pointer reads +x: slip the wheel x against the running direction,
 * or move the pointer x with it, or hold the crank at the reading past the top and set half the arc after.
 * @param rotation of the engine as seen from the wheel; @param heldWhere in words, at which reading the crank can be held;
 * @param firstMark on a rim: no TDC mark has been made yet.
 * @example 18 before and 25 after, clockwise: "Slip the wheel 3½° counter-clockwise, against the way it runs."
 */
export function zeroCorrection(
  result: TdcResult,
  ring: WheelRing,
  rotation: Rotation,
  { heldWhere = HELD_BY_STOP, firstMark = false }: { readonly heldWhere?: string; readonly firstMark?: boolean } = {},
): Correction {
  if (ring.ring === 'rim') return markCorrection(result, ring, firstMark);
  if (sideDifference(result) <= ROUNDING)
    return { finding: 'Both sides read the same: the wheel shows true TDC at 0.', ways: [] };
  // Nobody slips a wheel by what no eye sees.
  if (roundToTenth(Math.abs(result.tdc)) === 0)
    return { finding: 'The wheel shows true TDC at 0, within a twentieth of a degree.', ways: [] };
  const atTdc = readingAt(ring, result.tdc);
  const size = wheelDegrees(roundToTenth(Math.abs(result.tdc)));
  const against = result.tdc > 0;
  const held = readingAt(ring, result.half + result.offsetShift);
  return {
    finding: `At true TDC the pointer reads ${formatReading(tidy(atTdc))}.`,
    ways: [
      { part: 'wheel', text: `Slip the wheel ${size} ${turnWords(rotation, !against)}.` },
      {
        part: 'pointer',
        text: `Move the pointer, or the window that it is read in, ${size} ${turnWords(rotation, against)}.`,
      },
      {
        part: 'hold',
        text: `Hold the crank ${heldWhere}, and set the wheel to ${formatReading(tidy(held))} under the pointer.`,
      },
    ],
  };
}

/** On a rim the mark itself is made, or made anew. What stands after the mark as the engine runs lies behind it on the rim. */
function markCorrection(result: TdcResult, ring: Extract<WheelRing, { ring: 'rim' }>, firstMark: boolean): Correction {
  const size = formatComputedLength((Math.abs(result.tdc) * ring.round) / 360, ring.unit);
  const way = result.tdc > 0 ? 'against the way it runs' : 'the way it runs';
  if (firstMark)
    return {
      finding: `The two marks are ${computedDegrees(result.arc)} apart.`,
      ways: [
        {
          part: 'mark',
          text: `Make the TDC mark half-way between the two: ${size} along the rim from the first, ${way}.`,
        },
      ],
    };
  return {
    finding: `At true TDC the mark stands ${size} from the pointer.`,
    ways: [{ part: 'mark', text: `Make the TDC mark anew, ${size} along the rim from the old one, ${way}.` }],
  };
}

/** "clockwise, the way it runs" */
function turnWords(rotation: Rotation, withRunning: boolean): string {
  if (withRunning) return `${rotation}, the way it runs`;
  const other: Rotation = rotation === 'clockwise' ? 'counter-clockwise' : 'clockwise';
  return `${other}, against the way it runs`;
}

const roundToTenth = (value: number): number =>
  Number.isInteger(value * 4) ? value : Math.round(value * 10 + ROUNDING) / 10;

const tidy = (reading: WheelReading): WheelReading => ({ ...reading, shows: roundToTenth(reading.shows) });
