import { syncAt } from '@yosoku/core/instruments/sync';
import type { Showing } from './instrument';
import { type Wanted, takeReading } from './take-reading';

const tally = { good: 50, missing: 0, damaged: 0, astray: 0 };
const SETTING = 'setting-1';
const showing: Showing = {
  condition: 'live',
  box: 'crank-1',
  angle: 169.27,
  lifts: [6.73, null],
  steady: { angle: 169.27, lifts: [6.73, null], spread: 0.02 },
  origin: 0,
  lostBecause: null,
  tally,
  run: 12,
  sync: { ...syncAt(100, 0, 1, 0), setting: SETTING },
  zero: [8, 0],
  taken: null,
};
const wanted: Wanted = { approach: 'forward', wheel: true, shown: -1.27, lift: false, place: 'opening' };
const standing = { ring: { ring: '0-180' }, setting: SETTING, units: 'in', rotation: 'clockwise' } as const;
const take = (change: Partial<Showing> = {}, want: Partial<Wanted> = {}) =>
  takeReading({ ...showing, ...change }, 0, { ...wanted, ...want }, standing);

test('a reading that stands is taken: the wheel to a twentieth, the lift above its zero, and where it came from', () => {
  expect(take()).toEqual({
    ok: true,
    taken: {
      wheel: { ring: '0-180', shows: 69.25, side: 'after' },
      lift: expect.closeTo(-1.27, 6) as number,
      box: 'crank-1',
    },
  });
  expect(take({}, { wheel: false, shown: null, lift: true, approach: 'any' })).toMatchObject({
    ok: true,
    taken: { wheel: null },
  });
});

test('undone, or read again without turning, the same place is taken', () => {
  const taken = { place: 'closing', which: 0, lift: 6.73 } as const;
  expect(take({ taken: { ...taken, place: 'opening' } }).ok).toBe(true);
  expect(take({ taken }, { place: null }).ok).toBe(true);
  // Another indicator, or this one put on another lobe.
  expect(take({ taken: { ...taken, which: 1 } }).ok).toBe(true);
  expect(take({ taken: { ...taken, lift: 4.1 } }).ok).toBe(true);
});

test.each([
  ['it turns still', { steady: null }, {}, /still turning/],
  ['nothing is heard', { condition: 'lost' }, {}, /No signal/],
  ['its lines come late', { condition: 'behind' }, {}, /are late/],
  ['two boxes speak', { condition: 'two-boxes' }, {}, /Two boxes/],
  ['the count lost its origin', { origin: 1 }, {}, /Sync it/],
  ['the wheel was set since', { sync: { ...syncAt(100, 0, 1, 0), setting: 'older' } }, {}, /Sync it/],
  [
    'the crank stands where another one was read',
    { taken: { place: 'closing', which: 0, lift: 6.73 } },
    {},
    /has not moved since the last reading/,
  ],
  ['it was come to turning back', { run: -3 }, {}, /Go back well past it/],
  ['it is to be read turning back', {}, { approach: 'backward' }, /read turning back/],
  ['the indicator is not at its figure', { zero: [7.9, 0] }, {}, /bring it to −?-?0\.050/],
  [
    'that indicator is not plugged in',
    { steady: { angle: 1, lifts: [null, null], spread: 0 } },
    { lift: true, shown: null },
    /not plugged in/,
  ],
] as const)('none is taken while %s', (_when, change, want, why) => {
  const result = take(change as Partial<Showing>, want);
  expect(result.ok).toBe(false);
  expect(result.ok ? '' : result.why).toMatch(why);
});

test('an encoder that counts the other way is come to forward when its count falls', () => {
  const other = { ...syncAt(100, 0, -1, 0), setting: SETTING };
  expect(take({ sync: other, run: -12 })).toMatchObject({
    ok: true,
    taken: { wheel: { shows: 69.25, side: 'before' } },
  });
  expect(take({ sync: other, run: 12 }).ok).toBe(false);
});
