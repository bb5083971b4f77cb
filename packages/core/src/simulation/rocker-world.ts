import { type MidLift } from '../valve-train/pushrod-trials';
import { type Rocker, armAt, pathAcross, turnedBy } from '../valve-train/rocker';

/** The rockers of a practice engine, on studs: an adjustable pushrod shows where the right length lies. Lengths mm. */
export interface RockerWorld {
  readonly rocker: Rocker;
  readonly tip: number;
  /** At which the arm stands square at mid-lift, at zero lash. */
  readonly right: number;
  /** What a length really turns the arm, against the reckoning with cup and arm in one line. */
  readonly gain: number;
  /** Of the adjustable pushrod, as the engine is met. */
  readonly first: number;
  /** Pushrods come in such steps. */
  readonly step: number;
}

/** How it stands under the hand. */
export interface RockerStand {
  /** Of the adjustable pushrod. */
  readonly length: number;
  /** The length with which it was turned over last, the tip freshly marked: what the tip shows. */
  readonly shows: number | null;
}

/** Sines within this are seen as square: 2°. From memory. */
const SEEN_SQUARE = 0.035;
const FURTHEST = 0.4;

/** Sine of the arm's angle at mid-lift with a length of pushrod. */
const midOf = ({ rocker, right, gain }: RockerWorld, length: number): number =>
  Math.max(-FURTHEST, Math.min(FURTHEST, (length - right) / (turnedBy(rocker).pushrod * gain)));

/** What a length shows once it was turned over. */
export interface TipShows {
  readonly pattern: number;
  /** Of its middle from that of the tip, positive away from the pivot. */
  readonly offset: number;
  readonly seen: MidLift;
}

/**
 * The pattern that a length leaves, and how the arm stands at mid-lift.
 * Source: geometry, see `rocker.ts`: the roller stands at arm · cos β across the stem.
 */
export function tipShows(world: RockerWorld, length: number): TipShows {
  const mid = midOf(world, length);
  const { rocker } = world;
  const middleOf = (at: number): number => {
    const { closed, open } = armAt(rocker, at);
    const across = [closed, open].map((sine) => rocker.arm * Math.sqrt(1 - sine * sine));
    const furthest = closed < 0 && open > 0 ? rocker.arm : Math.max(...across);
    return (furthest + Math.min(...across)) / 2;
  };
  return {
    pattern: pathAcross(rocker, mid),
    offset: middleOf(mid) - middleOf(0),
    seen: Math.abs(mid) <= SEEN_SQUARE ? 'right' : mid < 0 ? 'above' : 'below',
  };
}
