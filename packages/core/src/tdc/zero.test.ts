import fc from 'fast-check';
import { inches } from '../units/length';
import { holdsExchanged, solveTdc } from './equal-heights';
import { checkFiringAngles, companion, firingTdcs, whichTdc } from '../crank/firing';
import { proposeZero } from './propose-zero';
import { markError, rimDegrees, rimDistance, rimTrouble, roundOf, timingTape } from '../crank/rim';
import { crankAngleAtDrop, equalHeights, pistonDrop, pistonSlope } from '../crank/slider-crank';
import { formatReading, ringPosition, wheelReadingSchema } from '../crank/wheel';
import { readableStep, zeroUncertainty } from './zero-uncertainty';

const COMMON = { stroke: inches('3.48'), rod: inches('5.7') };

describe('equal heights', () => {
  const offset = { ...COMMON, pinOffset: -1 };

  // The closed form against the slider-crank's own inverse, which knows nothing of it (Heywood, ch. 2).
  test('agree with the piston’s own height, and the pin offset is taken off', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 2.1, max: 84.9, noNaN: true }),
        fc.double({ min: -6, max: 6, noNaN: true }),
        (half, e) => {
          const crank = { ...COMMON, pinOffset: e };
          const { middle, drop } = equalHeights(crank, half);
          const at = crankAngleAtDrop(crank, drop);
          if (!at) throw new Error('inside the stroke');
          expect((at.after - at.before) / 2).toBeCloseTo(half, 6);
          expect((at.after + at.before) / 2).toBeCloseTo(middle, 6);
          const solved = solveTdc({ before: 100 + at.before, after: 100 + at.after }, crank);
          expect(solved.ok && solved.tdc).toBeCloseTo(100, 6);
        },
      ),
    ));

  // Design values, no outside source: 0.002° at 0.050 in, 0.04° at 20 mm for 1 mm of offset.
  test.each([
    [1.27, 0.002],
    [20, 0.04],
  ])('at %d mm the shift is about %d°', (drop, shift) => {
    const at = crankAngleAtDrop(offset, drop);
    const half = ((at?.after ?? 0) - (at?.before ?? 0)) / 2;
    expect(Math.abs(equalHeights(offset, half).middle)).toBeGreaterThan(shift * 0.6);
    expect(Math.abs(equalHeights(offset, half).middle)).toBeLessThan(shift * 1.6);
  });

  test('the slope is that of the height', () => {
    for (const at of [-40, -8, 0.5, 12, 90])
      expect(pistonSlope(offset, at)).toBeCloseTo(
        (pistonDrop(offset, at + 1e-4) - pistonDrop(offset, at - 1e-4)) / 2e-4,
        6,
      );
  });

  test('exchanged readings are recognised, hopeless ones are not', () => {
    expect(holdsExchanged({ before: 15, after: 350 })).toBe(true);
    expect(holdsExchanged({ before: 350, after: 15 })).toBe(false);
    expect(holdsExchanged({ before: 0, after: 180 })).toBe(false);
  });
});

describe('rim', () => {
  // Common practice, no source: 2 in on an 8 in balancer is "about 30"; exactly 28.65.
  test('2 in of an 8 in balancer is 28.6°', () =>
    expect(rimDegrees(inches('2'), roundOf(inches('8')))).toBeCloseTo(28.65, 2));
  test('there and back', () => expect(rimDegrees(rimDistance(37, 500), 500)).toBeCloseTo(37, 12));
  test('a tape reads as any ring does, and not further than half-way round', () => {
    const round = roundOf(180);
    const reading = { ring: 'rim', round, unit: 'mm', shows: rimDistance(23, round), side: 'before' } as const;
    expect(ringPosition(reading)).toBeCloseTo(337, 9);
    expect(formatReading(reading)).toBe('36.13 mm before');
    expect(wheelReadingSchema.safeParse(reading).success).toBe(true);
    expect(wheelReadingSchema.safeParse({ ...reading, shows: round }).error?.issues[0]?.message).toMatch(
      /half-way round/,
    );
    expect(wheelReadingSchema.safeParse({ ...reading, round: 0 }).error?.issues[0]?.message).toMatch(/more than 0/);
    expect(rimTrouble(roundOf(8))).toMatch(/Check the unit/);
  });
  test('a mark that has gone by at TDC comes too early', () => {
    const round = roundOf(180);
    expect(markError({ distance: rimDistance(2, round), stands: 'after', round }).error).toBeCloseTo(2, 9);
    expect(markError({ distance: rimDistance(2, round), stands: 'before', round }).error).toBeCloseTo(-2, 9);
    expect(timingTape(round, 10, 30).map(({ distance }) => distance.toFixed(2))).toEqual(['15.71', '31.42', '47.12']);
  });
});

describe('firing', () => {
  test('companions: six and four have them, three and five have none', () => {
    expect(companion({ order: [1, 5, 3, 6, 2, 4] })).toBe(6);
    expect(companion({ order: [1, 3, 4, 2] })).toBe(4);
    expect(companion({ order: [1, 8, 4, 3, 6, 5, 7, 2] })).toBe(6);
    expect(companion({ order: [1, 2, 3] })).toBeNull();
    expect(companion({ order: [1, 2, 4, 5, 3] })).toBeNull();
  });
  test('odd-fire: only where one really fires 360° away', () => {
    // A 90° V-twin on one crankpin fires at 0 and 450; a parallel twin with both pistons together at 0 and 360.
    expect(companion({ order: [1, 2], angles: [0, 450] })).toBeNull();
    expect(companion({ order: [1, 2], angles: [0, 360] })).toBe(2);
    expect(firingTdcs({ order: [2, 1], angles: [0, 270] })).toEqual([
      { cylinder: 2, after: 450 },
      { cylinder: 1, after: 0 },
    ]);
  });
  test.each([
    [[0, 450, 500], /3 firing angles for 2/],
    [[10, 450], /fires at 0/],
    [[0, 0], /not more than the one before/],
    [[0, 720], /720 or more/],
  ])('angles %j are refused', (angles, words) => {
    const checked = checkFiringAngles(angles, 2);
    expect(checked.ok ? '' : checked.problem.message).toMatch(words);
  });
  test('rocking valves: overlap on the cylinder itself, firing on its companion', () => {
    expect(whichTdc('own', 'rocking')).toBe('overlap');
    expect(whichTdc('own', 'both-closed')).toBe('firing');
    expect(whichTdc('companion', 'rocking')).toBe('firing');
    expect(whichTdc('companion', 'both-closed')).toBe('overlap');
  });
});

describe('the method that is proposed', () => {
  const at = { head: 'off', plugHole: true, wheel: true, indicator: true, oneWay: false } as const;
  test.each([
    [at, 'positive-stop'],
    [{ ...at, head: 'on' }, 'plug-stop'],
    [{ ...at, head: 'on', plugHole: false }, 'dropped-valve'],
    [{ ...at, wheel: false, indicator: false }, 'rim-marks'],
    [{ ...at, head: 'on', wheel: false }, 'rim-marks'],
    // A valve or a drop is read along the rim as well as on a wheel.
    [{ ...at, head: 'on', plugHole: false, wheel: false }, 'dropped-valve'],
    [{ ...at, head: 'on', plugHole: true, wheel: false, indicator: false }, 'rim-marks'],
    // Nothing that has to be turned back.
    [{ ...at, oneWay: true }, 'equal-drop'],
    [{ ...at, head: 'on', oneWay: true }, 'dropped-valve'],
    [{ ...at, head: 'on', wheel: false, oneWay: true }, 'dropped-valve'],
  ] as const)('%j: %s', (here, method) => expect(proposeZero(here)?.method).toBe(method));
  test('the shop’s rule wins where the engine allows it, and only there', () => {
    expect(proposeZero(at, 'equal-drop')).toMatchObject({
      method: 'equal-drop',
      why: expect.stringMatching(/^Your shop/),
    });
    expect(proposeZero({ ...at, head: 'on' }, 'equal-drop')?.method).toBe('plug-stop');
  });
  test('head on, no plug hole, no wheel, no indicator: nothing can be done', () =>
    expect(proposeZero({ ...at, head: 'on', plugHole: false, wheel: false, indicator: false })).toBeNull());
});

describe('what would improve it most', () => {
  const conditions = {
    method: 'plug-stop',
    half: 8,
    engine: COMMON,
    readOn: { on: 'wheel', radius: 230, graduation: 0.5 },
    resolution: 0.01,
    passes: [0],
  } as const;
  test('a stop near the top: one that meets the piston further out, and that is true', () => {
    const now = zeroUncertainty(conditions);
    expect(now.advice).toBe('A stop that meets the piston 25° out instead of 8° would halve it.');
    expect(zeroUncertainty({ ...conditions, half: 25 }).expanded / now.expanded).toBeLessThan(0.6);
  });
  test('a small wheel in two degrees: a larger one', () =>
    expect(
      zeroUncertainty({ ...conditions, half: 30, readOn: { on: 'wheel', radius: 80, graduation: 2 } }).advice,
    ).toMatch(/^A wheel of 400 mm/));
  test('at radius R one degree is πR/180: the eye, not the lines, limits a small wheel', () =>
    expect(readableStep({ on: 'wheel', radius: 60, graduation: 0.5 })).toBeCloseTo((0.25 * 180) / (Math.PI * 60), 9));
  test('passes that scatter beyond the budget are believed beside it', () => {
    const wild = zeroUncertainty({ ...conditions, half: 25, passes: [-1, 1, 0.2] });
    expect(wild.expanded).toBeGreaterThan(0.7);
    expect(wild.budget.map(({ from }) => from)).toContain('repeats');
  });
});
