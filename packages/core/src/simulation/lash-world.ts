import type { Valve } from '../cam/card';

/** The valves of a practice engine that has rockers: each has a lash of its own, which a blade can feel. Lengths mm. */
export interface LashWorld {
  readonly ratio: number;
  /** Lash on the base circle, as the engine is met, by valve. */
  readonly gaps: Readonly<Record<string, number>>;
  /** The one that was set on its ramp, where that is the exercise. */
  readonly loose: { readonly cylinder: number; readonly valve: Valve; readonly by: number } | null;
}

/** How it stands under the hand. */
export interface LashStand {
  readonly gaps: Readonly<Record<string, number>>;
  /** The blade that is in the hand. */
  readonly blade: number;
}
