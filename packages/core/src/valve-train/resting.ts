import { type CrankDeg, crankDeg } from '../units/angle';
import { wrap720 } from '../cam/lobe';

/** Where a lobe lifts its valve: cycle angles, crank degrees, `closes` after `opens` the way it runs. */
export interface Seat {
  readonly opens: number;
  readonly closes: number;
  /** How much wider it is counted on either side, because nobody measured it here: crank degrees. */
  readonly slack: number;
}

/** So far from its ramp a valve shall stand while its lash is set, crank degrees. Common practice, no source. */
export const WANTED_CLEAR = 20;
/** Nearer than this it may be on its ramp already, crank degrees: its lash comes out wrong. Common practice, no source. */
export const LEAST_CLEAR = 10;

/**
 * Where a cylinder stands in its own cycle.
 * @param crank crank degrees past cylinder 1's firing TDC.
 * @param after how far after cylinder 1 this one fires, crank degrees.
 * @returns cycle angle, 0 at its overlap TDC.
 * @example cycleOf(120, 120) // −360: it fires
 */
export const cycleOf = (crank: number, after: number): CrankDeg => wrap720(crank - after - 360);

/**
 * How far a valve stands from its ramp: 0 where the lobe begins to lift it, negative on the lobe. Crank degrees.
 * @param at cycle angle of its own cylinder.
 * @example clearOfRamp({ opens: -30, closes: 240, slack: 0 }, -360) // 120: the closing side is nearer
 */
export function clearOfRamp({ opens, closes, slack }: Seat, at: number): CrankDeg {
  const half = (closes - opens) / 2 + slack;
  return crankDeg(Math.abs(wrap720(at - (opens + closes) / 2)) - half);
}

/**
 * The stretch of the crank over which a valve rests.
 * @param after how far after cylinder 1 its cylinder fires.
 * @param margin how far from the ramp it shall stand.
 * @returns crank degrees past cylinder 1's firing TDC where it begins, in [0, 720), and how long it is; null where no place is so far from the ramp.
 */
export function restOf(
  { opens, closes, slack }: Seat,
  after: number,
  margin: number,
): { readonly from: CrankDeg; readonly length: CrankDeg } | null {
  const length = 720 - (closes - opens) - 2 * (slack + margin);
  if (length < 0) return null;
  return { from: wrapCycle(closes + slack + margin + 360 + after), length: crankDeg(length) };
}

/** The same place of the crank in [0, 720). */
export const wrapCycle = (crank: number): CrankDeg => crankDeg(((crank % 720) + 720) % 720);
