import { type Lobe, lobeAt } from '@yosoku/core/cam/lobe';

/** A lobe to be drawn: as a curve of its own, or as points of a trace; cycle angle in crank degrees, lift in mm. */
export type DrawnLobe = Lobe | readonly (readonly [angle: number, lift: number])[];

const STEP = 4;

const isCurve = (lobe: DrawnLobe): lobe is Lobe => !Array.isArray(lobe);

/** Greatest lift, mm. */
export const peakOf = (lobe: DrawnLobe): number =>
  isCurve(lobe) ? lobe.peak : Math.max(0, ...lobe.map(([, lift]) => lift));

/** Lift at a cycle angle, mm. */
export function liftOf(lobe: DrawnLobe, angle: number): number {
  if (isCurve(lobe)) return lobeAt(lobe, angle).lift;
  const [first] = lobe;
  if (!first) return 0;
  const at = first[0] + ((((angle - first[0]) % 720) + 720) % 720);
  const after = lobe.findIndex(([place]) => place >= at);
  const [a, b] = [lobe[after - 1], lobe[after]];
  if (after === 0) return first[1];
  if (!a || !b) return 0;
  return a[1] + ((at - a[0]) / (b[0] - a[0])) * (b[1] - a[1]);
}

/** Where lift stands over the cycle: [−360, 360] with the lobe in one piece, cut at the ends of the ribbon. */
export function lobePoints(lobe: DrawnLobe): (readonly [number, number])[][] {
  const pieces: (readonly [number, number])[][] = [];
  let piece: (readonly [number, number])[] = [];
  for (let angle = -360; angle <= 360; angle += STEP) {
    const lift = liftOf(lobe, angle);
    if (lift > 0) piece.push([angle, lift]);
    else if (piece.length > 0) {
      pieces.push(piece);
      piece = [];
    }
  }
  if (piece.length > 0) pieces.push(piece);
  return pieces;
}
