import type { Lobe } from '../cam/lobe';
import type { VirtualLifter } from '../simulation/follow';
import type { Random } from '../statistics/random';
import { between, either } from './at-random';
import type { Cause } from './causes';

/** What is wrong with the engine, and how. Left out: nothing. */
export interface Twist {
  readonly cause?: Cause;
  /** How far ahead of the card the cams sit, crank degrees. */
  readonly ahead?: number;
  readonly slack?: number;
  readonly lifter?: VirtualLifter;
  readonly slips?: { readonly after: number; readonly by: number };
  readonly ground?: (lobe: Lobe) => Lobe;
  /** By how much the card prints the intake centreline wrong, crank degrees. */
  readonly misprint?: number;
}

/** Crank degrees. */
const half = (value: number): number => Math.round(value * 2) / 2;

const TWISTS: Readonly<Record<Cause, (random: Random) => Twist>> = {
  'cam-off': (random) => ({ ahead: either(random) * half(between(random, 4, 8)) }),
  'tooth-out': (random) => ({ ahead: (either(random) * 720) / 42 + half(between(random, -1, 1)) }),
  'wrong-cam': (random) => {
    const longer = between(random, 8, 14);
    const higher = between(random, 0.5, 1.2);
    return { ground: (lobe) => ({ ...lobe, half: lobe.half + longer, peak: lobe.peak + higher }) };
  },
  'wheel-slipped': (random) => ({
    slips: { after: between(random, 1000, 1300), by: either(random) * half(between(random, 5, 10)) },
  }),
  'card-figure': (random) => ({ misprint: half(between(random, 2.75, 3.75)) }),
  sticking: (random) => ({ lifter: { kind: 'sticking' }, ahead: half(between(random, -3, 3)) }),
  'bleed-down': (random) => ({ lifter: { kind: 'bleeding', perDegree: between(random, 0.005, 0.008) } }),
  slack: (random) => ({ slack: half(between(random, 6, 10)), ahead: half(between(random, -3, 3)) }),
};

/** One thing that is wrong, by how much chance says. */
export const one =
  (cause: Cause) =>
  (random: Random): Twist => ({ cause, ...TWISTS[cause](random) });
