import type { Lobe } from '../cam/lobe';
import { COUNTED_AT } from './unknowns';

/** How far below the top of its family's limits a flank is still one, share of the peak. */
const TOP = 0.995;
const FOOT = 0.004;

/** Where a flank stands at a lift, and how that moves with the lobe: crank degrees, for each mm or each unit. */
export function flankOf(lobe: Lobe, flank: 'opening' | 'closing', height: number) {
  const { peak, nose, half, power, lean } = lobe;
  const lift = Math.max(FOOT * peak, Math.min(TOP * peak, height));
  const q = (lift / peak) ** (1 / power);
  const share = 1 - q;
  const u = Math.sqrt(share);
  const side = flank === 'opening' ? -1 : 1;
  const byShare = lean + (side * half) / (2 * u);
  return {
    angle: nose + lean * share + side * half * u,
    byHalf: side * u,
    byLean: share,
    byPower: (byShare * q * Math.log(lift / peak)) / (power * power),
    byLift: (-byShare * q) / (power * lift),
    byPeak: (byShare * q) / (power * peak),
  };
}

/**
 * The nose by itself: common ones are blunt, whatever the flanks are like. 0.050 in below the peak they stand 40 to 48° from it, and as the root of the drop at
 * others; common practice, no source. Steepness 1 is that root.
 */
const BLUNT = 44;
export const noseOf = (lobe: Lobe): Lobe => ({
  ...lobe,
  power: 1,
  half: BLUNT * Math.sqrt(lobe.peak / COUNTED_AT),
  lean: lobe.lean / lobe.power,
});

/** As `flankOf`, of the nose: it has a width of its own, so that neither the lobe’s nor its steepness nor its peak moves it. */
export function noseFlank(lobe: Lobe, flank: 'opening' | 'closing', height: number): ReturnType<typeof flankOf> {
  const { angle, byLean, byLift } = flankOf(noseOf(lobe), flank, height);
  const leaning = (lobe.lean * byLean) / lobe.power;
  return {
    angle,
    byHalf: 0,
    byLean: byLean / lobe.power,
    byPower: -leaning / lobe.power,
    byLift,
    // Seen at one drop: `byLift` comes in again with the peak that it is counted from.
    byPeak: -byLift - leaning / lobe.peak,
  };
}
