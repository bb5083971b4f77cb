import { z } from 'zod';
import type { Sample } from '@yosoku/core/instruments/line';
import { type BoxErrors, PERFECT_BOX, USUAL_BOX, makeBenchBox } from '@yosoku/core/simulation/bench-box';
import { makeRandom } from '@yosoku/core/statistics/random';

/** Where a practice engine stands: what its bench box measures. */
const standSchema = z.strictObject({
  angle: z.number().min(-1_000_000).max(1_000_000),
  lifts: z.tuple([z.number().min(-100).max(100), z.number().min(-100).max(100)]),
});

/** How the stand-in behaves, and what it is told. `cable`: pulled, it says nothing. */
export const orderSchema = z.strictObject({
  manner: z.enum(['usual', 'perfect', 'rough']).optional(),
  cable: z.enum(['in', 'out']).optional(),
  stands: z.array(standSchema).max(200).optional(),
});
export type Order = z.infer<typeof orderSchema>;

const MANNERS: Readonly<Record<NonNullable<Order['manner']>, BoxErrors>> = {
  usual: USUAL_BOX,
  perfect: PERFECT_BOX,
  rough: { ...USUAL_BOX, dropped: 0.1, damaged: 0.1, angleNoise: 0.05, liftNoise: 0.005 },
};
const STAND_IN = 'practice-box';
/** A box says something even when nothing moves, ms. */
const PULSE_MS = 50;

/**
 * Stands in for a bench box on a practice engine: a line for every place that it is told of, and a pulse while nothing moves.
 * @param speak takes one line.
 */
export function makeStandIn(speak: (line: string) => void, seed: number, now: () => number = Date.now) {
  const began = now();
  const random = makeRandom(seed);
  const boxes = {
    usual: makeBenchBox(STAND_IN, MANNERS.usual, random),
    perfect: makeBenchBox(STAND_IN, MANNERS.perfect, random),
    rough: makeBenchBox(STAND_IN, MANNERS.rough, random),
  };
  let manner: keyof typeof boxes = 'usual';
  let cable = true;
  let stand: { readonly angle: number; readonly lifts: Sample['lifts'] } | null = null;
  const say = (): void => {
    if (!stand || !cable) return;
    const line = boxes[manner](now() - began, stand.angle, stand.lifts);
    if (line !== null) speak(line);
  };
  const pulse = setInterval(say, PULSE_MS);
  return {
    hear: (order: Order): void => {
      manner = order.manner ?? manner;
      if (order.cable) cable = order.cable === 'in';
      for (const each of order.stands ?? []) {
        stand = each;
        say();
      }
    },
    stop: () => clearInterval(pulse),
  };
}
