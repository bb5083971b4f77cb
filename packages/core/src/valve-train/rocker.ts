import { type Outcome, problem } from '../problem';

/** Lengths mm, angles as sines. */
export interface Rocker {
  /** From the pivot to the centre of its roller. */
  readonly arm: number;
  /** Valve travel for each 1 of lobe. */
  readonly ratio: number;
  /** Lift at the valve. */
  readonly lift: number;
}

/** Sines of the arm's angle to the perpendicular to the stem: negative while the roller stands above it. */
export interface ArmAt {
  readonly closed: number;
  readonly mid: number;
  readonly open: number;
}

const square = (value: number): number => value * value;
const cosine = (sine: number): number => Math.sqrt(Math.max(0, 1 - square(sine)));

/** An arm cannot open a valve by its own length. */
export function rockerTrouble({ arm, ratio, lift }: Rocker): Outcome<object> {
  if (!(ratio > 0)) return problem('The rocker ratio must be more than 0.', 'Give it at the engine.');
  if (!(arm > 0))
    return problem('The arm must be longer than 0.', 'Measure from its pivot to the centre of the roller.');
  if (lift >= arm)
    return problem('The valve lifts as far as the arm is long.', 'Check arm and lift: one of them has the wrong unit.');
  return { ok: true };
}

/**
 * Where the arm stands closed, half open and open.
 * Source: geometry: the roller stands at arm · sin β along the stem, so that opening by h adds h ÷ arm to the sine.
 * @param mid sine of its angle at mid-lift; 0 is the right angle.
 * @example armAt({ arm: 40, ratio: 1.5, lift: 16 }, 0) // { closed: −0.2, mid: 0, open: 0.2 }
 */
export const armAt = ({ arm, lift }: Rocker, mid: number): ArmAt => ({
  closed: mid - lift / (2 * arm),
  mid,
  open: mid + lift / (2 * arm),
});

/**
 * How far the roller travels across the tip of the valve, mm: the width of the pattern that it leaves.
 * @param mid sine of the arm's angle at mid-lift.
 * @example pathAcross({ arm: 38, ratio: 1.5, lift: 16 }, 0) // 0.85: the least that this arm can
 * Source: geometry: the roller stands at arm · cos β across the stem.
 */
export function pathAcross(rocker: Rocker, mid: number): number {
  const { closed, open } = armAt(rocker, mid);
  const furthest = closed < 0 && open > 0 ? 1 : Math.max(cosine(closed), cosine(open));
  return rocker.arm * (furthest - Math.min(cosine(closed), cosine(open)));
}

/** The narrowest pattern that an arm can leave, mm: with the right angle at mid-lift. */
export const leastPath = (rocker: Rocker): number => pathAcross(rocker, 0);

/**
 * What turns the arm by one in the sine of its angle, mm: how far the pivot rises, and how much longer the pushrod is on a stud.
 * Source: geometry, both arms taken as one line: the roller rests on a closed valve, so the pivot rises by arm · Δ sin β, and the cup,
 * arm ÷ ratio behind it, by that much again.
 * @example turnedBy({ arm: 38, ratio: 1.5, lift: 14 }).pushrod // 63.3 mm for 1; 0.63 mm turn it by 0.01
 */
export const turnedBy = ({ arm, ratio }: Rocker): { readonly pivot: number; readonly pushrod: number } => ({
  pivot: arm,
  pushrod: arm * (1 + 1 / ratio),
});

/**
 * Length to order: as measured, and the preload, to the supplier's step.
 * @param step 0: made to any length.
 * @returns the length, and the preload that it really gives, mm.
 * @example pushrodToOrder({ measured: 200, preload: 0.8, step: 0.5 }) // { length: 201, preload: 1 }
 */
export function pushrodToOrder({
  measured,
  preload,
  step,
}: {
  readonly measured: number;
  readonly preload: number;
  readonly step: number;
}): { readonly length: number; readonly preload: number } {
  const exact = measured + preload;
  const length = step > 0 ? Math.round(exact / step) * step : exact;
  return { length, preload: length - measured };
}
