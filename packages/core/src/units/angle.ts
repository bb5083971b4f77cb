declare const unit: unique symbol;

/** An angle in crank degrees. One turn of the crank is 360. */
export type CrankDeg = number & { readonly [unit]: 'crank degrees' };
/** An angle in cam degrees. One turn of the cam is 360, which is two turns of the crank. */
export type CamDeg = number & { readonly [unit]: 'cam degrees' };

declare const countedFrom: unique symbol;
/**
 * Crank degrees are counted from three places, which must not be mixed: from the 0 of the wheel’s numbers under the pointer; past true TDC, in the cycle; and as
 * a card prints them, each event from its own dead centre. A plain number goes for any of them, since files and keypads give such; what is known to be
 * counted in one way does not go for another.
 */
export type RingDeg = number & { readonly [countedFrom]?: 'the 0 of the ring' };
export type CycleDeg = number & { readonly [countedFrom]?: 'true TDC' };
export type PrintedDeg = number & { readonly [countedFrom]?: 'the dead centre that a card names' };

/** The bare figure: for the few places where two ways of counting meet. */
export const bareDeg = (angle: number): number => angle;

/** Names a plain number as crank degrees. `crankDeg(2.5)` */
export const crankDeg = (degrees: number): CrankDeg => degrees as CrankDeg;

/** Cam degrees that the cam turns while the crank turns `angle` (half of it). `toCam(5)` is 2.5. */
export const toCam = (angle: CrankDeg): CamDeg => (angle / 2) as CamDeg;

/** The same direction in [0, 360). `wrap360(-10)` is 350. */
export function wrap360(angle: number): CrankDeg {
  const rest = angle % 360;
  const positive = rest < 0 ? rest + 360 : rest;
  // −1e-15 + 360 rounds to 360 itself.
  return crankDeg(positive >= 360 ? 0 : positive + 0);
}

/** The same direction in [−180, 180). `wrap180(350)` is −10. */
export function wrap180(angle: number): CrankDeg {
  const positive = wrap360(angle);
  return crankDeg(positive >= 180 ? positive - 360 : positive);
}

/**
 * How far the crank turns, the way it runs, from one direction to another: [0, 360) crank degrees.
 * `forwardArc(342, 25)` is 43; `forwardArc(25, 342)` is 317.
 */
export const forwardArc = (from: number, to: number): CrankDeg => wrap360(to - from);

/**
 * The direction half-way along the arc that runs forward from `from` to `to`, in [0, 360).
 * Two directions have two midpoints; the order of the arguments says which is meant.
 * `forwardMidpoint(331, 249)` is 110; `forwardMidpoint(249, 331)` is 290.
 */
export const forwardMidpoint = (from: number, to: number): CrankDeg => wrap360(from + forwardArc(from, to) / 2);
