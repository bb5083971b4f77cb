import { crankDeg, type CrankDeg } from '../units/angle';
import { type Millimetres, millimetres } from '../units/length';

/** Distances along the rim of a balancer or flywheel, millimetres, and the crank degrees that they stand for. */

/** Once round a rim of a given diameter, millimetres. `roundOf(203.2)` is 638.37 (an 8 in balancer). */
export const roundOf = (diameter: number): Millimetres => millimetres(Math.PI * diameter);

/**
 * Crank degrees of a distance along the rim.
 * @param distance along the rim, mm; @param round once round it, mm, more than 0.
 * @example rimDegrees(50.8, roundOf(203.2)) // 28.65: 2 in on an 8 in balancer; common practice says about 30, no source
 */
export const rimDegrees = (distance: number, round: number): CrankDeg => crankDeg((360 * distance) / round);

/** The inverse: millimetres along the rim for an angle. `rimDistance(10, roundOf(180))` is 15.71. */
export const rimDistance = (degrees: number, round: number): Millimetres => millimetres((degrees * round) / 360);

/** What is wrong with a rim, in a builder's words, or null. */
export function rimTrouble(round: number): string | null {
  if (!(round > 0)) return 'The diameter must be more than 0.';
  if (round < SMALLEST_ROUND || round > LARGEST_ROUND)
    return 'No balancer or flywheel is that size: diameters lie between 50 and 1000 mm, 2 and 40 in. Check the unit.';
  return null;
}
const SMALLEST_ROUND = 157;
const LARGEST_ROUND = 3142;

/** A mark of the engine's own, looked at while the piston stands at true TDC. */
export interface MarkCheck {
  /** How far the mark stands from the pointer along the rim, mm, and on which side as the engine runs. */
  readonly distance: number;
  readonly stands: 'before' | 'after';
  readonly round: number;
}

/**
 * The error of an existing TDC mark. A mark that stands after the pointer at true TDC has gone by already: it shows TDC too early.
 * @returns `error` in crank degrees, positive when the mark comes too early; by so much the ignition is more advanced than it reads.
 * @example markError({ distance: 3.142, stands: 'after', round: roundOf(180) }).error // 2.0
 * Source: common practice, no source.
 */
export function markError({ distance, stands, round }: MarkCheck): { readonly error: CrankDeg } {
  const size = rimDegrees(distance, round);
  return { error: crankDeg(stands === 'after' ? size : -size) };
}

/** Where the lines of a timing tape stand: millimetres from the TDC mark for every `step` degrees up to `upTo`. */
export const timingTape = (
  round: number,
  step = 10,
  upTo = 40,
): readonly { readonly degrees: number; readonly distance: Millimetres }[] =>
  Array.from({ length: Math.floor(upTo / step) }, (_, at) => ({
    degrees: (at + 1) * step,
    distance: rimDistance((at + 1) * step, round),
  }));
