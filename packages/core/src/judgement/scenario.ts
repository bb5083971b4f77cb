import type { Valve } from '../cam/card';

/** What the card's centreline is: the middle of an equal drop near the nose, or the middle of the events at 0.050 in. */
export type Convention = 'nose' | 'event';

export type Reading = 'centreline' | 'events' | 'opening-only' | 'lift-at-tdc' | 'identity';

/** One kind of job: what is printed, what is read. */
export interface Scenario {
  readonly name: string;
  readonly card: 'centres' | 'events' | 'both' | 'none';
  readonly reads: readonly (readonly [Reading, Valve])[];
  /** Is the contact met once more after the last reading? */
  readonly closing?: boolean;
  /** Is TDC found, and the cam read, by a tape round the rim instead of a wheel? */
  readonly rim?: boolean;
  /** Does the card print lifts at TDC? */
  readonly catalogue?: boolean;
  readonly times?: number;
  /** The intake leans by so much, crank degrees; as lobes do, where it is left out. */
  readonly leans?: number;
}

/** What goes wrong in a job; nothing where it is left out. Angles crank degrees. */
export interface Mishap {
  /** The wheel slips by so much before this reading, counted over all readings of the cam. */
  readonly slip?: { readonly before: number; readonly by: number };
  /** This reading is written down so much too high. */
  readonly misread?: { readonly at: number; readonly by: number };
  /** This reading is taken turning backwards: slack. */
  readonly backwards?: { readonly at: number; readonly slack: number };
  /** The wheel is numbered from both dead centres, and this reading is counted from its 90 mark. */
  readonly countedFrom90?: { readonly at: number };
  /** The card prints the centreline of the intake so much too high. */
  readonly misprint?: number;
  /** All lifts are written down in the other unit. */
  readonly otherUnit?: boolean;
  /** Lift that hydraulic lifters lose, mm for each crank degree off the seat. */
  readonly bleeds?: number;
}
