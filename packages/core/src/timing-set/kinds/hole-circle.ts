import { z } from 'zod';
import { FURTHEST_MOVE, type Position, kindOf, signed } from './kind';

const holes = (what: string): z.ZodInt =>
  z
    .int({ error: `${what} must be a whole number` })
    .min(2, { error: `${what}: at least 2 holes` })
    .max(240, { error: `${what}: at most 240 holes` });

const greatestDivisor = (a: number, b: number): number => (b === 0 ? a : greatestDivisor(b, a % b));

/** Turn of one step, crank degrees: 2·360 / lcm(p, q). Two rows of holes meet again after that (definition of the least common multiple). */
export const stepOf = (gear: number, hub: number): number => (2 * 360 * greatestDivisor(gear, hub)) / (gear * hub);

/**
 * How many holes the pin goes on in the gear and in the hub for so many steps: the shortest way.
 * a/p − b/q = k/lcm(p, q), solved for the least |a| + |b| (Bézout's identity).
 * @example holesFor(10, 9, 1) // one on in both
 */
export function holesFor(gear: number, hub: number, steps: number): { readonly gear: number; readonly hub: number } {
  const divisor = greatestDivisor(gear, hub);
  const [perGear, perHub] = [hub / divisor, gear / divisor];
  let best = { gear: 0, hub: 0 };
  let least = Infinity;
  for (let a = -gear; a <= gear; a += 1) {
    const rest = a * perGear - steps;
    if (rest % perHub !== 0) continue;
    const b = rest / perHub;
    if (Math.abs(a) + Math.abs(b) >= least) continue;
    least = Math.abs(a) + Math.abs(b);
    best = { gear: a, hub: b };
  }
  return { gear: best.gear + 0, hub: best.hub + 0 };
}

const go = (count: number, where: string): string =>
  count === 0
    ? `the same hole of the ${where}`
    : `${Math.abs(count)} ${Math.abs(count) === 1 ? 'hole' : 'holes'} ${count > 0 ? 'on' : 'back'} in the ${where}`;

/** Two circles of holes with different counts, gear and hub, joined by one pin where two holes meet. */
export const holeCircle = kindOf({
  name: 'Hole-circle vernier',
  about: 'A circle of holes in the gear against another count in the hub, joined by a pin where two meet.',
  body: z.strictObject({ gear: holes('holes in the gear'), hub: holes('holes in the hub') }),
  asks: [
    { name: 'gear', typed: 'count', label: 'Holes in the gear' },
    { name: 'hub', typed: 'count', label: 'Holes in the hub' },
  ],
  work: 'adjust',
  wheelOff: false,
  trust: { response: 0.01, mark: 0.15 },
  trouble: ({ gear, hub }) =>
    gear === hub ? { field: 'hub', message: 'two circles with the same count give no finer step' } : null,
  reach: ({ gear, hub }) => {
    const step = stepOf(gear, hub);
    const most = Math.floor(FURTHEST_MOVE / step);
    const positions = Array.from({ length: 2 * most + 1 }, (_, at): Position => {
      const steps = at - most;
      return {
        mark: signed(steps),
        label: steps === 0 ? 'where the marks meet' : `${signed(steps)} ${Math.abs(steps) === 1 ? 'step' : 'steps'}`,
        advance: steps * step,
      };
    });
    return { kind: 'marks', positions };
  },
  put: ({ gear, hub }, from, to, { way, cam }) => {
    const step = stepOf(gear, hub);
    const move = holesFor(gear, hub, Math.round((to - from) / step));
    return [
      'Draw the pin. Hold the gear; the chain or belt stays on.',
      `Turn the cam to ${way}, a little: the pin then goes ${go(move.gear, 'gear')}, ${go(move.hub, 'hub')}, counted ${cam(1)}. Try it in: it must drop in by hand.`,
    ];
  },
});
