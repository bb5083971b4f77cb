import fc from 'fast-check';
import { makeRandom } from '../statistics/random';
import { inches } from '../units/length';
import { judgeTrial, rightLengths } from './pushrod-trials';
import { type Rocker, armAt, leastPath, pathAcross, pushrodToOrder, rockerTrouble, turnedBy } from './rocker';

/** An engine of bodies, not of formulas: arm, roller, stem and pushrod as points, the arm's place found by halving. Lengths mm. */
interface Bodies {
  readonly arm: number;
  readonly cup: number;
  /** How far the cup lies out of line with the arm, radians; how far the lifter stands from the stud, mm. */
  readonly bend: number;
  readonly away: number;
  /** The pivot over a closed valve's roller. */
  readonly pivot: number;
}

/** Angle of the arm below the level at which its roller lies so far below the pivot: by halving, not by arcsine. */
function angleWhereRollerIs(arm: number, below: number): number {
  let [low, high] = [-Math.PI / 2, Math.PI / 2];
  for (let i = 0; i < 44; i += 1) {
    const middle = (low + high) / 2;
    if (arm * Math.sin(middle) < below) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** How long a pushrod reaches from the lifter, far below and to the side, to the cup on the other side of the pivot: the valve closed. */
function pushrodOf({ arm, cup, bend, away, pivot }: Bodies): number {
  const closed = angleWhereRollerIs(arm, pivot);
  return Math.hypot(-cup * Math.cos(closed + bend) + away, pivot + cup * Math.sin(closed + bend) + 200);
}

/** Where the roller goes across the stem while the valve opens, and where the arm stands half-way. */
function solve({ arm, pivot }: Bodies, lift: number): { readonly path: number; readonly mid: number } {
  const across: number[] = [];
  for (let i = 0; i <= 400; i += 1) across.push(arm * Math.cos(angleWhereRollerIs(arm, pivot + (lift * i) / 400)));
  return {
    path: Math.max(...across) - Math.min(...across),
    mid: Math.sin(angleWhereRollerIs(arm, pivot + lift / 2)),
  };
}

test('an arm of 38 mm and 16 mm of lift: the least path across the tip is 0.85 mm', () => {
  // Published sum of the trade: R·(1 − cos asin(h/2R)); common practice, no source.
  expect(leastPath({ arm: 38, ratio: 1.5, lift: 16 })).toBeCloseTo(0.852, 3);
});

test('the path is that of an arm and a circle, intersected by halving', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 25, max: 60, noNaN: true }),
      fc.double({ min: 5, max: 18, noNaN: true }),
      fc.double({ min: -0.35, max: 0.35, noNaN: true }),
      (arm, lift, mid) => {
        const rocker = { arm, ratio: 1.5, lift };
        const pivot = arm * armAt(rocker, mid).closed;
        const solved = solve({ arm, cup: arm / 1.5, bend: 0, away: 0, pivot }, lift);
        expect(pathAcross(rocker, mid)).toBeCloseTo(solved.path, 3);
        expect(solved.mid).toBeCloseTo(mid, 9);
      },
    ),
    { numRuns: 200 },
  );
});

test('what a longer pushrod does is what bodies do, to within a few per cent where all lies in line', () => {
  const rocker = { arm: 38, ratio: 1.6, lift: 14 };
  const at = (mid: number) =>
    pushrodOf({ arm: 38, cup: 38 / 1.6, bend: 0, away: 38 / 1.6, pivot: 38 * armAt(rocker, mid).closed });
  const really = (at(0.02) - at(-0.02)) / 0.04;
  expect(really / turnedBy(rocker).pushrod).toBeCloseTo(1, 1);
});

test('length to order: 7.862 in, 0.030 in of preload, to the next 0.025 in', () => {
  // The trade's own sum, common practice, no source: 7.892 → 7.900, which really gives 0.038.
  const order = pushrodToOrder({ measured: inches('7.862'), preload: inches('0.030'), step: inches('0.025') });
  expect(order.length).toBeCloseTo(inches('7.900'), 9);
  expect(order.preload).toBeCloseTo(inches('0.038'), 9);
  expect(pushrodToOrder({ measured: 200, preload: 0.8, step: 0 })).toEqual({
    length: 200.8,
    preload: expect.closeTo(0.8, 9),
  });
});

test('a rocker that cannot be is refused with what to check', () => {
  expect(rockerTrouble({ arm: 38, ratio: 0, lift: 14 })).toMatchObject({ ok: false });
  expect(rockerTrouble({ arm: 1.5, ratio: 1.5, lift: 14 })).toMatchObject({
    ok: false,
    problem: { remedy: expect.stringMatching(/wrong unit/) },
  });
});

const ROCKER: Rocker = { arm: 38, ratio: 1.6, lift: 13.5 };

test('a pattern alone leaves two lengths; what is seen at mid-lift, or a second length, leaves one', () => {
  const trial = { length: 200, pattern: pathAcross(ROCKER, 0.12), seen: null };
  const two = rightLengths(ROCKER, 'stud', [trial]);
  expect(two).toHaveLength(2);
  const lengths = two.map(({ length }) => length).sort((a, b) => a - b);
  const off = 0.12 * turnedBy(ROCKER).pushrod;
  expect(lengths[0]).toBeCloseTo(200 - off, -0.5);
  expect(lengths[1]).toBeCloseTo(200 + off, -0.5);
  const [above] = rightLengths(ROCKER, 'stud', [{ ...trial, seen: 'above' }]);
  expect(above?.length).toBeGreaterThan(200);
  const second = { length: 203, pattern: pathAcross(ROCKER, 0.12 + 3 / turnedBy(ROCKER).pushrod), seen: null };
  const [one, ...others] = rightLengths(ROCKER, 'stud', [trial, second]);
  expect(others).toEqual([]);
  expect(Math.abs((one?.length ?? 0) - (200 - off))).toBeLessThan(one?.expanded ?? 0);
  expect(rightLengths(ROCKER, 'stud', [{ length: 200, pattern: null, seen: null }])).toEqual([]);
});

test('this one: narrow, central and with its lift; where mid-lift disagrees, the pattern wins and is named', () => {
  const narrow = { length: 200, pattern: leastPath(ROCKER) + 0.1, seen: 'right' } as const;
  const good = { offset: 0.3, tip: 8, lift: 13.4 };
  expect(judgeTrial(ROCKER, narrow, good)).toBe('this-one');
  expect(judgeTrial(ROCKER, { ...narrow, seen: 'above' }, good)).toBe('this-one-by-pattern');
  expect(judgeTrial(ROCKER, { ...narrow, pattern: leastPath(ROCKER) + 0.6 }, good)).toBe('not-yet');
  expect(judgeTrial(ROCKER, narrow, { ...good, offset: 2 })).toBe('not-yet');
  expect(judgeTrial(ROCKER, narrow, { ...good, lift: 12.5 })).toBe('not-yet');
});

/**
 * Hands that try lengths as they are told, on 2,000 engines of bodies: cups out of line, lifters to the side, rollers with play that rub
 * wider than they roll, pushrods that bend more under the running springs than under the checking ones, arms and ratios that are not quite
 * as stated; patterns read to 0.12 mm, right angles seen to 2°. The supplier's step is 0.050 in.
 */
test('2,000 engines: after at most three trials the step to order is the right one, or the next to it', () => {
  const random = makeRandom(7862);
  const step = inches('0.050');
  let found = 0;
  for (let engine = 0; engine < 2000; engine += 1) {
    const arm = 33 + 10 * random.even();
    const ratio = 1.45 + 0.35 * random.even();
    const lift = 11 + 5 * random.even();
    const rocker = { arm, ratio, lift };
    const stated = { arm: arm * (1 + random.normal(0.01)), ratio: ratio * (1 + random.normal(0.01)), lift };
    const play = 0.15 * random.even();
    const [checking, running] = [0.08 * random.even(), 0.15 + 0.25 * random.even()];
    const bodies = { arm, cup: arm / ratio, bend: random.normal(0.06), away: arm / ratio + random.normal(4) };
    const lengthAt = (mid: number): number => pushrodOf({ ...bodies, pivot: arm * armAt(rocker, mid).closed });
    const right = lengthAt(0) + running;
    const midOf = (length: number): number => {
      let [low, high] = [-0.6, 0.6];
      for (let i = 0; i < 30; i += 1) {
        const middle = (low + high) / 2;
        if (lengthAt(middle) < length) low = middle;
        else high = middle;
      }
      return (low + high) / 2;
    };
    const trials: Parameters<typeof rightLengths>[2][number][] = [];
    let length = Math.round((right + random.within(9)) / 0.5) * 0.5;
    for (let at = 0; at < 3; at += 1) {
      const mid = midOf(length - checking);
      const looked = mid + random.normal(0.035);
      trials.push({
        length,
        pattern: Math.max(0, pathAcross(rocker, mid) + play + random.normal(0.12)),
        seen: Math.abs(looked) < 0.035 ? 'right' : looked < 0 ? 'above' : 'below',
      });
      length = rightLengths(stated, 'stud', trials)[0]?.length ?? length;
    }
    if (Math.abs(Math.round(length / step) - Math.round(right / step)) <= 1) found += 1;
  }
  expect(found / 2000).toBeGreaterThanOrEqual(0.95);
});
