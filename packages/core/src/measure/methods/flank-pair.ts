import { type Valve, durationOf, opensAsPrinted } from '../../cam/card';
import { wrap720 } from '../../cam/lobe';
import { type CrankDeg, crankDeg, forwardArc, forwardMidpoint, wrap180 } from '../../units/angle';
import { computedDegrees } from '../../units/degrees';
import { type Outcome, problem } from '../../problem';

/**
 * Ring positions (crank degrees, see `wheel.ts`) at the same height of one lobe: `opening` on the way up to the nose, `closing` on the way
 * down, both approached the way the engine runs.
 */
export interface FlankPair {
  readonly opening: number;
  readonly closing: number;
}

/** A nose narrower or wider than this at any useful drop is no nose. Common practice, no source. */
const NARROWEST_NOSE = 5;
const WIDEST_NOSE = 240;
/** A lobe is not wider than this at any height. Common practice, no source. */
const WIDEST_LOBE = 359;

/**
 * Centreline by equal drop from peak: half-way along the arc that runs forward from the opening side to the closing side.
 * A zeroing error at peak cancels.
 * @param zero ring position of true TDC, crank degrees.
 * @returns `centreline` as it is printed (intake °ATDC, exhaust °BTDC) in [−180, 180) and the arc between the readings; or why the pair
 * cannot be right.
 * @example centreline('intake', { opening: 61, closing: 152 }, 0) // 106.5
 * @example centreline('exhaust', { opening: -158, closing: -71 }, 0) // 114.5
 * Source: common practice, no source.
 */
export function centreline(
  valve: Valve,
  { opening, closing }: FlankPair,
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
  const at = wrap180(forwardMidpoint(opening, closing) - zero);
  return { ok: true, centreline: valve === 'intake' ? at : wrap180(-at), arc };
}

export interface PairEvents {
  /** As printed: intake °BTDC and °ABDC, exhaust °BBDC and °ATDC; negative the other side. */
  readonly opens: CrankDeg;
  readonly closes: CrankDeg;
  readonly duration: CrankDeg;
  /** Half-way between them, as a centreline is printed. */
  readonly centre: CrankDeg;
}

/**
 * The events of a pair read at one height above the base circle. A zero error on the base circle cancels in the centre, not in the duration.
 * @example events('intake', { opening: -14, closing: 227 }, 0) // 14, 47, 241, 106.5
 * Source: common practice, no source.
 */
export function events(valve: Valve, { opening, closing }: FlankPair, zero: number): Outcome<{ events: PairEvents }> {
  const arc = forwardArc(opening, closing);
  if (arc < NARROWEST_NOSE || arc > WIDEST_LOBE)
    return problem(
      `From opening to closing is only ${computedDegrees(Math.min(arc, 360 - arc))}.`,
      'Read the closing over the nose, on the way down, at the same height.',
    );
  const opens = opensOnly(valve, opening, zero);
  const closes = crankDeg(arc - 180 - opens);
  return {
    ok: true,
    events: {
      opens,
      closes,
      duration: crankDeg(durationOf(opens, closes)),
      centre: crankDeg(valve === 'intake' ? (180 + closes - opens) / 2 : (180 + opens - closes) / 2),
    },
  };
}

/** Where a valve opens as it is printed, in [−180, 180). `opensOnly('exhaust', -237, 0)` is 57. */
export function opensOnly(valve: Valve, opening: number, zero: number): CrankDeg {
  return wrap180(opensAsPrinted(valve, wrap720(opening - zero)));
}
