import { typedAngleOf } from './typed-figure';
import { lengthIn, troubleIn, typedLengthOf } from './typed-length';

const ASKED = { units: 'in', family: 'lift', most: 20 } as const;
const notHalf = (mm: number, understood: string): string | null => (mm === 12.7 ? `${understood} is no good.` : null);

test('a typed length is good, empty, unreadable, of the wrong unit, or none that fits: each with its own words', () => {
  expect(lengthIn(typedLengthOf('.4', ASKED))).toBeCloseTo(10.16, 9);
  expect(typedLengthOf('  ', { ...ASKED, misfit: () => 'never asked of nothing' })).toEqual({ state: 'empty' });
  expect(troubleIn(typedLengthOf('four', ASKED))).not.toBeNull();
  expect(troubleIn(typedLengthOf('40 in', { ...ASKED, misfit: notHalf }))).toMatch(/too much\. Check the unit/);
  expect(troubleIn(typedLengthOf('.5', { ...ASKED, misfit: notHalf }))).toMatch(/0\.500 in is no good/);
  expect(lengthIn(typedLengthOf('.5', { ...ASKED, misfit: notHalf }))).toBeNull();
});

test.each([
  ['12,5', 12.5],
  [' 0 ', 0],
  ['360', 360],
  ['360.1', null],
  ['-1', null],
  ['', null],
  ['ten', null],
])('typed degrees “%s” of a whole turn are %p', (text, degrees) => {
  expect(typedAngleOf(text, 360)).toBe(degrees);
});
