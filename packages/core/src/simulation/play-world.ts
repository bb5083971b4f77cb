import { inches } from '../units/length';

/** A cam that is held endways by a button behind a cover that gives. Lengths mm. */
export interface PlayWorld {
  /** As the engine is met. */
  readonly play: number;
  /** What the cover gives where it is pulled hard. */
  readonly flex: number;
}

export type Pull = 'none' | 'gentle' | 'hard';

/** How it stands under the hand. */
export interface PlayStand {
  readonly play: number;
  readonly pull: Pull;
  /** Was the cam let go after a hard pull? Then the needle stands off its zero until it is pushed back. */
  readonly crept: boolean;
}

/** What is filed off a button, or put under it, at a time, mm. */
export const PLAY_STEP = inches('0.001');
const MOST = inches('0.060');
/** Of what a cover gave, so much is left when it is let go. From memory. */
const CREEPS = 0.3;

/** What the dial at the nose of the cam shows, mm: zeroed with the cam pushed back. */
export function playShows({ flex }: PlayWorld, { play, pull, crept }: PlayStand): number {
  if (pull === 'gentle') return play;
  if (pull === 'hard') return play + flex;
  return crept ? CREEPS * flex : 0;
}

export const pulled = (stand: PlayStand, pull: Pull): PlayStand => ({
  ...stand,
  pull,
  crept: pull === 'none' ? stand.pull === 'hard' : false,
});

/** The button filed shorter (positive: more play), or shimmed; the cover bolted up again, the dial zeroed. */
export const buttonChanged = (stand: PlayStand, steps: number): PlayStand => ({
  play: Math.max(0, Math.min(MOST, stand.play + steps * PLAY_STEP)),
  pull: 'none',
  crept: false,
});
