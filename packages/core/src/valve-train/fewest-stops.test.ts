import fc from 'fast-check';
import { type Stretch, fewestStops } from './fewest-stops';

const wrap = (at: number): number => ((at % 720) + 720) % 720;
const covers = (stops: readonly number[], stretches: readonly Stretch[]): boolean =>
  stretches.every(({ from, length }) => stops.some((stop) => wrap(stop - from) <= length + 1e-6));

/** Every set of so many ends of stretches: one of the best sets is among them. */
function anySetOf(count: number, stretches: readonly Stretch[]): boolean {
  const ends = stretches.map(({ from, length }) => wrap(from + length));
  const tryFrom = (at: number, chosen: readonly number[]): boolean =>
    chosen.length === count
      ? covers(chosen, stretches)
      : ends.slice(at).some((end, i) => tryFrom(at + i + 1, [...chosen, end]));
  return tryFrom(0, []);
}

const stretch = fc.record({ from: fc.integer({ min: 0, max: 719 }), length: fc.integer({ min: 10, max: 400 }) });

test('every stretch holds a stop, and no smaller set of places would do: tried one by one', () => {
  fc.assert(
    fc.property(fc.array(stretch, { minLength: 1, maxLength: 9 }), (stretches) => {
      const stops = fewestStops(stretches);
      expect(covers(stops, stretches)).toBe(true);
      expect(anySetOf(stops.length - 1, stretches)).toBe(false);
    }),
    { numRuns: 400 },
  );
});

test('a stop lies in the middle of what it serves, on a mark of the wheel, or at a place that is easier to find', () => {
  const two = [
    { from: 0, length: 100 },
    { from: 50, length: 100 },
    { from: 400, length: 13 },
  ];
  expect(fewestStops(two)).toEqual([75, 405]);
  expect(fewestStops(two, [80])).toEqual([80, 405]);
  // Too near the end to be worth it.
  expect(fewestStops(two, [95])).toEqual([75, 405]);
});
