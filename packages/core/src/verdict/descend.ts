import { type Belief, type Block, type Solved, leastSquares, squareOf } from '../statistics/least-squares';
import { LEAST } from './blocks';
import type { Guess, Layout, Unknown } from './unknowns';

/** Shortest step that is tried, as a share of the whole one. */
const SHORTEST = 1 / 64;

/** A guess, and what it leaves. */
export interface Stand {
  readonly guess: Guess;
  readonly blocks: readonly Block[];
  readonly beliefs: readonly Belief[];
}

/** A step from a guess, in which what stands at a limit of the family and wants to go beyond it stays there. */
export function withinLimits(layout: Layout, { guess, beliefs, blocks }: Stand): Solved {
  const held = new Set<number>();
  for (;;) {
    const solved = leastSquares(
      beliefs.map((belief, at) => (held.has(at) ? { miss: 0, variance: LEAST } : belief)),
      blocks,
    );
    const before = held.size;
    layout.unknowns.forEach(({ name }, at) => {
      const limits = LIMITS[name];
      const [value, step] = [guess[at] ?? 0, solved.unknowns[at] ?? 0];
      if (limits && ((value <= limits[0] && step < 0) || (value >= limits[1] && step > 0))) held.add(at);
    });
    // Holding one may drive another to its own limit.
    if (held.size === before) return solved;
  }
}

/**
 * A step as far as it really brings the guess nearer to what was read: halved until it does, or just to the limit that it would cross. null where it never does.
 * @param most the largest share of the step that is tried.
 */
export function downhill<S extends Stand>(
  layout: Layout,
  from: S,
  step: Float64Array,
  most: number,
  at: (guess: Guess) => S,
): S | null {
  const was = misfit(from, from);
  const shares: number[] = [];
  for (let share = most; share >= SHORTEST; share /= 2) shares.push(share);
  for (const share of [...shares, toLimit(layout, from.guess, step)]) {
    const there = at(
      kept(
        layout,
        from.guess.map((value, place) => value + share * (step[place] ?? 0)),
      ),
    );
    if (misfit(there, from) < was) return there;
  }
  return null;
}

/** The share of a step after which the first unknown has come to a limit of the family. */
function toLimit({ unknowns }: Layout, guess: Guess, step: Float64Array): number {
  let share = 1;
  unknowns.forEach(({ name }, at) => {
    const limits = LIMITS[name];
    const [value, by] = [guess[at] ?? 0, step[at] ?? 0];
    const room = limits && by !== 0 ? (limits[by < 0 ? 0 : 1] - value) / by : Infinity;
    if (room > 0) share = Math.min(share, room);
  });
  return share;
}

/** χ² of a guess, weighed as another has it: where a flank is flat it is known less well, and that must not draw the guess there. */
export function misfit({ blocks, beliefs }: Stand, weighedAs: Stand): number {
  let sum = 0;
  for (const { miss, variance } of beliefs) sum += (miss * miss) / variance;
  blocks.forEach((block, place) => {
    const { covariance } = weighedAs.blocks[place] ?? block;
    sum += squareOf({ ...block, covariance }, NO_STEP);
  });
  return sum;
}
const NO_STEP = new Float64Array(0);

/** Values of the family of lobes that are still lobes: crank degrees, mm. */
const LIMITS: Readonly<Partial<Record<Unknown['name'], readonly [number, number]>>> = {
  half: [60, 220],
  power: [1.3, 14],
  lean: [-30, 30],
  peak: [1, Infinity],
};

function kept(layout: Layout, guess: Guess): Guess {
  layout.unknowns.forEach(({ name }, at) => {
    const limits = LIMITS[name];
    if (limits) guess[at] = Math.max(limits[0], Math.min(limits[1], guess[at] ?? 0));
  });
  return guess;
}
