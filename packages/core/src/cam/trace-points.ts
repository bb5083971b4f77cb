/** Lift against crank angle: `angle` crank degrees growing as the engine runs, `lift` mm above the base circle. */
export interface TracePoint {
  readonly angle: number;
  readonly lift: number;
}

/** How the points of a trace err. */
export interface TraceConditions {
  /** Standard uncertainty of one lift, mm, and of one angle, crank degrees. */
  readonly liftSd: number;
  readonly angleSd: number;
  /** How far lift may differ from base circle to base circle, mm. */
  readonly closes: number;
}

/** A point with its place among those given. */
export interface Merged extends TracePoint {
  readonly index: number;
}

/** With fewer there is no curve to speak of. */
export const FEWEST_POINTS = 8;
