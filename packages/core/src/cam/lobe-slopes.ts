import { type Lobe, flanksAt, lobeAt } from './lobe';
import type { TraceCurve } from './trace';

/** How steep the flanks are at a height, and how we know. */
export interface KnownSlopes {
  readonly opening: number;
  readonly closing: number;
  readonly from: 'the trace' | 'the card’s lobe' | 'a common lobe';
}

/** Lift and width of a common lobe, where neither trace nor card tells. From memory. */
const COMMON: Lobe = { peak: 8.5, nose: 0, half: 155, power: 3, lean: 0 };

/**
 * Slopes of both flanks at a height above the base circle, mm per crank degree, both positive: from the trace, else from the card's lobe, else
 * from a common one.
 * @param scale valve lift for each 1 of lobe, where the indicator sits on the valve; 1 at the lobe.
 * @example slopesAt(1.27, { trace: null, card: null, scale: 1 }) // 0.053 mm/° each, from a common lobe
 */
export function slopesAt(
  height: number,
  known: { readonly trace: TraceCurve | null; readonly card: Lobe | null; readonly scale: number },
): KnownSlopes {
  const traced = known.trace?.flanks(height);
  if (traced) return { opening: traced.opening.slope, closing: traced.closing.slope, from: 'the trace' };
  const lobe = known.card ?? COMMON;
  const flanks = flanksAt(lobe, Math.min(height / known.scale, 0.98 * lobe.peak)) ?? { opening: 0, closing: 0 };
  return {
    opening: Math.abs(lobeAt(lobe, flanks.opening).slope) * known.scale,
    closing: Math.abs(lobeAt(lobe, flanks.closing).slope) * known.scale,
    from: known.card ? 'the card’s lobe' : 'a common lobe',
  };
}

/** Lift from which a drop is counted: the trace's, the card's, or that of a common lobe; mm where the indicator sits. */
export const peakOf = (known: {
  readonly trace: TraceCurve | null;
  readonly card: Lobe | null;
  readonly scale: number;
}): number => known.trace?.peak ?? (known.card ?? COMMON).peak * known.scale;
