import { READ_METHOD_NAMES, type ReadMethodName } from '@yosoku/core/measure/read-methods';
import { drawn } from '@/testing/drawn';
import { ReadSketch } from './read-sketch';

/** All shapes of a kind, with what they are drawn by. */
const shapes = (method: ReadMethodName, kind: RegExp) =>
  drawn(<ReadSketch method={method} width={84} next={0} />)
    .filter(({ type }) => kind.test(type))
    .map(({ props }) => props);

test.each([
  ['centreline', 2],
  ['events', 2],
  ['opening-only', 1],
  ['by-feel', 2],
  ['lift-at-tdc', 1],
  ['identity', 1],
  ['trace', 15],
  // Come to from both sides, and still one place.
  ['backlash', 1],
] as const)('%s: each of its places once, from its own readings', (method, places) =>
  expect(shapes(method, /circle/i)).toHaveLength(places),
);

test('nobody who adds a way of reading draws anything: each has a picture', () => {
  for (const method of READ_METHOD_NAMES)
    expect([method, shapes(method, /circle/i).length > 0]).toEqual([method, true]);
});

test('a drop is read near the nose, events near the foot, one of them to be read now', () => {
  const heights = (method: ReadMethodName): number[] => shapes(method, /circle/i).map(({ cy }) => Number(cy));
  // Down the picture is down the lobe.
  expect(Math.max(...heights('centreline'))).toBeLessThan(Math.min(...heights('events')));
  expect(Math.max(...heights('events'))).toBeLessThan(Math.min(...heights('by-feel')));
  expect(Math.max(...heights('backlash'))).toBeLessThan(Math.min(...heights('events')));
  const [now, later] = shapes('centreline', /circle/i).map(({ fill }) => JSON.stringify(fill));
  expect(now).not.toBe(later);
});
