import { type CrankDeg, crankDeg, forwardArc, forwardMidpoint, wrap180 } from '../units/angle';
import { computedDegrees, wheelDegrees } from '../units/degrees';
import { type Outcome, problem } from '../problem';
import { type WheelReading, type WheelRing, formatReading, readingAt } from './wheel';

/**
 * The two places where the stop holds the piston, as ring positions (crank degrees, see `wheel.ts`).
 * `forward`: contact made turning the way the engine runs. `backward`: contact made turning back.
 */
export interface StopContacts {
  readonly forward: number;
  readonly backward: number;
}

export interface StopResult {
  /** The arc that the piston could not cross, crank degrees. */
  readonly blockedArc: CrankDeg;
  /** Half of it: what each contact reads on a wheel that is right. */
  readonly half: CrankDeg;
  /** Ring position of true TDC in [−180, 180): positive means that the pointer reads after at true TDC. */
  readonly tdc: CrankDeg;
}

/** The only test of a pair of contacts is the length of its arc. Common practice, no source. */
const SHORTEST_ARC = 4;
const LONGEST_ARC = 170;
/** Keeps a difference of exactly the limit inside it, whatever the binary fractions. */
const ROUNDING = 1e-9;

/** Default limit between the two sides of a proof, crank degrees. Common practice, no source. */
export const PROOF_LIMIT = crankDeg(0.5);

/**
 * True TDC from a positive stop: half-way along the blocked arc, which runs the way the engine runs
 * from the forward contact to the backward one. It does not matter where on the wheel that lies.
 * @returns the result in crank degrees, or why the pair cannot be right.
 * @example solveStop({ forward: 350, backward: 15 }) // 10 before and 15 after: arc 25, half 12.5, tdc +2.5
 * @example solveStop({ forward: 200, backward: 274 }) // arc 74, half 37, tdc at 237 (that is −123)
 * Source: midpoint between equal piston heights, by symmetry of the slider-crank; limits common practice, no source.
 */
export function solveStop({ forward, backward }: StopContacts): Outcome<StopResult> {
  const blockedArc = forwardArc(forward, backward);
  if (blockedArc < SHORTEST_ARC)
    return problem(
      `The two contacts are only ${computedDegrees(blockedArc)} apart.`,
      'Lengthen the stop so that it meets the piston earlier, or read the second contact again.',
    );
  if (blockedArc > LONGEST_ARC)
    return problem(
      `From the contact turning forward to the contact turning back is ${computedDegrees(blockedArc)}: no stop blocks more than ${LONGEST_ARC}°.`,
      'Most likely the two contacts are exchanged. Undo them and read again: first the contact turning the way it runs, then the contact turning back.',
    );
  return {
    ok: true,
    blockedArc,
    half: crankDeg(blockedArc / 2),
    tdc: wrap180(forwardMidpoint(forward, backward)),
  };
}

/** How unequal the two contacts read from the wheel's own zero: twice the error of the zero, crank degrees, never negative. */
export const sideDifference = (result: StopResult): CrankDeg => crankDeg(Math.abs(2 * result.tdc));

/** Does a pass prove the zero: are the two sides equal within `limit` crank degrees? */
export const provesZero = (result: StopResult, limit: number): boolean => sideDifference(result) <= limit + ROUNDING;

export type Rotation = 'clockwise' | 'counter-clockwise';

export interface Correction {
  /** What the wheel says at true TDC, and so what is wrong. */
  readonly finding: string;
  /** What to do with the hands, the easiest way first. Empty when the wheel is already right. */
  readonly ways: readonly { readonly part: 'wheel' | 'pointer' | 'hold'; readonly text: string }[];
}

/**
 * The correction as an instruction. At true TDC the pointer reads +x: slip the wheel x against the running direction,
 * or move the pointer x with it, or hold the crank at the contact that stopped it turning back and set half the arc after.
 * @param rotation of the engine as seen from the wheel.
 * @example 10 before and 15 after, clockwise: "Slip the wheel 2½° counter-clockwise, against the way it runs."
 */
export function stopCorrection(result: StopResult, ring: WheelRing, rotation: Rotation): Correction {
  if (sideDifference(result) <= ROUNDING)
    return { finding: 'Both contacts read the same: the wheel shows true TDC at 0.', ways: [] };
  const atTdc = readingAt(ring, result.tdc);
  const size = wheelDegrees(roundToTenth(Math.abs(result.tdc)));
  const against = result.tdc > 0;
  const held = readingAt(ring, result.half);
  return {
    finding: `At true TDC the pointer reads ${formatReading(tidy(atTdc))}.`,
    ways: [
      { part: 'wheel', text: `Slip the wheel ${size} ${turnWords(rotation, !against)}.` },
      { part: 'pointer', text: `Or move the pointer ${size} ${turnWords(rotation, against)}.` },
      {
        part: 'hold',
        text: `Or hold the crank at the contact that stopped it turning back, and set the wheel to ${formatReading(tidy(held))} under the pointer.`,
      },
    ],
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
