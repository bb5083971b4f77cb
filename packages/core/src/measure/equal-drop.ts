import { type CrankDeg, crankDeg, forwardArc, forwardMidpoint, wrap180 } from '../units/angle';
import { computedDegrees } from '../units/degrees';
import { type Outcome, problem } from '../problem';

/**
 * Ring positions (crank degrees, see `wheel.ts`) at the same drop below peak lift:
 * `opening` on the way up to the nose, `closing` on the way down, both approached the way the engine runs.
 */
export interface DropPair {
  readonly opening: number;
  readonly closing: number;
}

/** A nose narrower or wider than this at any useful drop is no nose. Common practice, no source. */
const NARROWEST_NOSE = 5;
const WIDEST_NOSE = 240;

/**
 * Intake centreline by equal drop from peak: half-way along the arc that runs forward from the opening side to the closing side.
 * A zeroing error at peak cancels.
 * @param zero ring position of true TDC, crank degrees.
 * @returns `centreline` in crank degrees ATDC in [−180, 180) and the arc between the readings; or why the pair cannot be right.
 * @example intakeCentreline({ opening: 69, closing: 158.5 }, 0) // 113.75
 * Source: common practice, no source.
 */
export function intakeCentreline(
  { opening, closing }: DropPair,
  zero: number,
): Outcome<{ readonly centreline: CrankDeg; readonly arc: CrankDeg }> {
  const arc = forwardArc(opening, closing);
  if (arc < NARROWEST_NOSE)
    return problem(
      `Before and after peak are only ${computedDegrees(arc)} apart.`,
      'Read the second one over the nose, on the closing side, at the same drop.',
    );
  if (arc > WIDEST_NOSE)
    return problem(
      `From before peak to after peak is ${computedDegrees(arc)}: wider than any nose.`,
      'Most likely the two readings are exchanged, or one was read on the wrong side of the wheel. Read both again.',
    );
  return { ok: true, centreline: wrap180(forwardMidpoint(opening, closing) - zero), arc };
}

/** Mean of repeated centrelines and the distance from the least to the greatest, crank degrees. `null` without any. */
export function combineRepeats(
  centrelines: readonly number[],
): { readonly mean: CrankDeg; readonly spread: CrankDeg } | null {
  if (centrelines.length === 0) return null;
  const sum = centrelines.reduce((total, each) => total + each, 0);
  return {
    mean: crankDeg(sum / centrelines.length),
    spread: crankDeg(Math.max(...centrelines) - Math.min(...centrelines)),
  };
}
