interface WhatIsWrong {
  /** As a builder would put it. */
  readonly words: string;
  readonly told: string;
  /** By a card that is wrong nobody can say how far off the cam sits. */
  readonly cardIsWrong?: true;
}

/** What can be wrong with a practice engine. */
export const CAUSES = {
  'cam-off': {
    words: 'The cam sits early or late',
    told: 'The cam was put in early or late, and nothing else was wrong.',
  },
  'tooth-out': {
    words: 'A tooth out',
    told: 'The chain or belt was one tooth out: the cam sat off by a whole tooth.',
  },
  'wrong-cam': {
    words: 'It is not the cam of the card',
    told: 'Another cam was fitted: its lift and durations are not those of the card.',
  },
  'wheel-slipped': {
    words: 'The degree wheel slips',
    told: 'The degree wheel was not tight and slipped while the engine was turned.',
  },
  'card-figure': {
    words: 'A figure of the card is wrong',
    told: 'The intake centreline was printed wrong on the card: the cam was ground as its events say, and sat where they want it.',
    cardIsWrong: true,
  },
  sticking: {
    words: 'A lifter sticks in its bore',
    told: 'The lifters stayed where the nose had lifted them: only the way up could be read.',
  },
  'bleed-down': {
    words: 'A lifter bleeds down',
    told: 'The lifters lost oil while they were held up: what is read late in the lift is too small.',
  },
  slack: {
    words: 'Much slack in the drive',
    told: 'The drive had much slack: readings that were taken after turning back are late by it.',
  },
} as const satisfies Readonly<Record<string, WhatIsWrong>>;

export type Cause = keyof typeof CAUSES;
export const cardIsWrong = (cause: Cause): boolean => 'cardIsWrong' in CAUSES[cause];
export const CAUSE_NAMES = Object.keys(CAUSES) as [Cause, ...Cause[]];
