import fc from 'fast-check';
import { forwardArc, wrap180 } from '../units/angle';
import { inches } from '../units/length';
import { checkFiringOrder, parseFiringOrder } from './firing-order';
import { provesZero, sideDifference, solveTdc, zeroCorrection } from '../tdc/equal-heights';
import { crankAngleAtDrop, crankTrainAt, crankTrouble, pistonDrop } from './slider-crank';
import { type WheelReading, type WheelRing, formatReading, readingAt, ringPosition, wheelReadingSchema } from './wheel';

const RINGS: WheelRing[] = [
  { ring: '0-360', sense: 'rising' },
  { ring: '0-360', sense: 'falling' },
  { ring: '0-180' },
  { ring: '0-90' },
];
const anyRing = fc.constantFrom(...RINGS);
/** Quarter degrees, as read. */
const anyPosition = fc.integer({ min: 0, max: 1439 }).map((quarter) => quarter / 4);

function stop(before: number, after: number) {
  const solved = solveTdc({ before, after });
  if (!solved.ok) throw new Error(solved.problem.message);
  return solved;
}

describe('slider-crank', () => {
  const common = { stroke: inches('3.48'), rod: inches('5.7') };
  const offset = { ...common, pinOffset: -1 };

  // Heywood, Internal Combustion Engine Fundamentals, eq. 2.5 (a = S/2): s = a·cosθ + √(l² − a²·sin²θ).
  test('follows the published equation without offset', () => {
    const a = common.stroke / 2;
    for (let degrees = -180; degrees <= 180; degrees += 7.5) {
      const t = (degrees * Math.PI) / 180;
      const s = a * Math.cos(t) + Math.sqrt(common.rod ** 2 - (a * Math.sin(t)) ** 2);
      expect(pistonDrop(common, degrees)).toBeCloseTo(a + common.rod - s, 9);
    }
  });

  test('0.050 in is 12.06° of that crank (common practice says 12, no source)', () =>
    expect(crankAngleAtDrop(common, 1.27)?.after).toBeCloseTo(12.06, 2));

  test('with offset: TDC is the highest point, and the stroke is the measured one', () => {
    // The sweep knows nothing of asin(e/(r+L)): it only looks for the highest and lowest piston.
    const sweep = Array.from({ length: 72_000 }, (_, i): number => pistonDrop(offset, i / 200 - 180));
    const top = sweep.indexOf(Math.min(...sweep)) / 200 - 180;
    expect(top).toBeCloseTo(0, 6);
    expect(Math.max(...sweep) - Math.min(...sweep)).toBeCloseTo(common.stroke, 6);
  });

  test('the parts hang together wherever it stands: throw, rod length, and the drop of the piston', () => {
    const top = crankTrainAt(offset, 0);
    for (let degrees = -180; degrees < 180; degrees += 11) {
      const { pin, piston, rodLean } = crankTrainAt(offset, degrees);
      expect(Math.hypot(pin.side, pin.height)).toBeCloseTo(Math.hypot(top.pin.side, top.pin.height), 9);
      expect(Math.hypot(piston.side - pin.side, piston.height - pin.height)).toBeCloseTo(common.rod, 9);
      expect(Math.tan((rodLean * Math.PI) / 180)).toBeCloseTo(
        (piston.side - pin.side) / (piston.height - pin.height),
        9,
      );
      expect(top.piston.height - piston.height).toBeCloseTo(pistonDrop(offset, degrees), 9);
    }
  });

  test('drop and angle undo each other, with any offset', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 0.001, max: 0.999, noNaN: true }),
        fc.double({ min: -5, max: 5, noNaN: true }),
        (part, pinOffset) => {
          const engine = { ...common, pinOffset };
          const drop = part * engine.stroke;
          const at = crankAngleAtDrop(engine, drop);
          if (!at) throw new Error('inside the stroke');
          expect(at.before).toBeLessThanOrEqual(0);
          expect(at.after).toBeGreaterThanOrEqual(0);
          expect(pistonDrop(engine, at.before)).toBeCloseTo(drop, 6);
          expect(pistonDrop(engine, at.after)).toBeCloseTo(drop, 6);
        },
      ),
    ));

  // Design value from the trade notes, no outside source: equal heights are 0.002° unsymmetric at 0.050 in for 1 mm of offset.
  test('pin offset makes equal heights unsymmetric by very little', () => {
    const at = crankAngleAtDrop(offset, 1.27);
    expect(Math.abs(((at?.before ?? 0) + (at?.after ?? 0)) / 2)).toBeLessThan(0.003);
  });

  test('an impossible crank is named', () => {
    expect(crankTrouble({ stroke: 80, rod: 40 })).toMatch(/rod/);
    expect(crankTrouble({ stroke: 0, rod: 40 })).toMatch(/stroke/);
    expect(crankTrouble({ stroke: 80, rod: 130, pinOffset: 95 })).toMatch(/offset/);
    expect(() => pistonDrop({ stroke: 80, rod: 40 }, 0)).toThrow(RangeError);
    expect(crankAngleAtDrop(common, 90)).toBeNull();
  });
});

describe('wheel', () => {
  test('reads where it stands and stands where it reads, on every ring', () =>
    fc.assert(
      fc.property(anyRing, anyPosition, (ring, position) => {
        const reading = readingAt(ring, position);
        expect(wheelReadingSchema.safeParse(reading).success).toBe(true);
        expect(ringPosition(reading)).toBeCloseTo(position, 9);
      }),
    ));

  test.each<[WheelReading, number, string]>([
    [{ ring: '0-360', sense: 'rising', shows: 360 }, 0, '360°'],
    [{ ring: '0-360', sense: 'falling', shows: 21 }, 339, '21°'],
    [{ ring: '0-180', shows: 26.5, side: 'after' }, 26.5, '26½° after'],
    [{ ring: '0-180', shows: 10, side: 'before' }, 350, '10° before'],
    [{ ring: '0-90', shows: 30, side: 'before-bdc' }, 150, '30° before BDC'],
    [{ ring: '0-90', shows: 30, side: 'after-bdc' }, 210, '30° after BDC'],
    [{ ring: '0-90', shows: 0, side: 'after-bdc' }, 180, '0° (BDC)'],
  ])('%j stands at %d', (reading, position, words) => {
    expect(ringPosition(reading)).toBe(position);
    expect(formatReading(reading)).toBe(words);
  });

  test.each([
    [{ ring: '0-360', sense: 'rising', shows: -1 }, '−1'],
    [{ ring: '0-360', sense: 'rising', shows: 361 }, '361'],
    [{ ring: '0-180', shows: 181, side: 'after' }, '181'],
    [{ ring: '0-90', shows: 95, side: 'after-tdc' }, '95'],
  ])('%j is refused by name', (reading, figure) => {
    const parsed = wheelReadingSchema.safeParse(reading);
    expect(parsed.error?.issues[0]?.message).toContain(`has no ${figure}. Type what is under the pointer`);
  });
});

describe('positive stop', () => {
  // Worked values, common practice, no source.
  test('10 before and 15 after: 12½ each, out by 2½', () =>
    expect(stop(350, 15)).toMatchObject({ arc: 25, half: 12.5, tdc: 2.5 }));
  test('wheel zeroed at first contact: 70 gives 35, and 290 the other way gives 325', () => {
    expect(stop(0, 70).tdc).toBe(35);
    expect(stop(290, 0).tdc).toBe(wrap180(325));
  });
  test('200 and 274: TDC at 237, hold at the contact turning back and set 37 after', () => {
    const result = stop(200, 274);
    expect(wrap180(result.tdc - 237)).toBe(0);
    expect(zeroCorrection(result, { ring: '0-180' }, 'clockwise').ways.at(-1)?.text).toContain('37° after');
  });
  test('both on one side: 5 and 50 after give 27.5', () => expect(stop(5, 50).tdc).toBe(27.5));

  test.each([
    [0, 3.75, /apart/],
    [10, 10, /apart/],
    [15, 350, /exchanged/],
    [0, 170.25, /exchanged/],
  ])('arc from %d to %d cannot be', (forward, backward, words) => {
    const solved = solveTdc({ before: forward, after: backward });
    expect(solved.ok ? '' : `${solved.problem.message} ${solved.problem.remedy}`).toMatch(words);
  });
  test('4° and 170° themselves are allowed', () => {
    expect(stop(358, 2).half).toBe(2);
    expect(stop(275, 85).half).toBe(85);
  });

  test('any wheel position gives the same TDC; mirroring the engine mirrors the answer', () =>
    fc.assert(
      fc.property(anyPosition, fc.integer({ min: 8, max: 340 }), anyPosition, (tdc, halfArcHalves, mount) => {
        const half = halfArcHalves / 4;
        const here = stop(tdc - half, tdc + half);
        const remounted = stop(tdc - half + mount, tdc + half + mount);
        expect(Math.abs(wrap180(remounted.tdc - here.tdc - mount))).toBeLessThan(1e-9);
        expect(Math.abs(wrap180(here.tdc - tdc))).toBeLessThan(1e-9);
        const mirrored = stop(-(tdc + half), -(tdc - half));
        expect(Math.abs(wrap180(mirrored.tdc + here.tdc))).toBeLessThan(1e-9);
      }),
    ));

  test('doing what the instruction says makes both contacts equal, whichever part is moved', () =>
    fc.assert(
      fc.property(anyPosition, fc.integer({ min: 3, max: 84 }), anyRing, (tdc, half, ring) => {
        const before = { before: tdc - half, after: tdc + half };
        const result = stop(before.before, before.after);
        const [slip, , hold] = zeroCorrection(result, ring, 'clockwise').ways;
        if (!slip || !hold) return;
        const size = Math.abs(result.tdc);
        // Slipping the wheel the way it runs brings higher ring positions under the pointer.
        const moved = slip.text.includes('the way it runs') && !slip.text.includes('against') ? size : -size;
        const after = stop(before.before + moved, before.after + moved);
        expect(sideDifference(after)).toBeLessThan(1e-9);
        expect(hold.text).toContain(formatReading(readingAt(ring, forwardArc(before.before, before.after) / 2)));
      }),
    ));

  test('the words name the turning that a bystander sees', () => {
    const late = zeroCorrection(stop(350, 15), { ring: '0-180' }, 'counter-clockwise');
    expect(late.finding).toBe('At true TDC the pointer reads 2½° after.');
    expect(late.ways[0]?.text).toBe('Slip the wheel 2½° clockwise, against the way it runs.');
    expect(late.ways[1]?.text).toBe(
      'Move the pointer, or the window that it is read in, 2½° counter-clockwise, the way it runs.',
    );
    expect(zeroCorrection(stop(347.5, 12.5), { ring: '0-180' }, 'clockwise').ways).toEqual([]);
  });

  test('a proof passes up to its limit and not beyond', () => {
    expect(provesZero(stop(347.75, 12.75), 0.5)).toBe(true);
    expect(provesZero(stop(347.5, 13), 0.5)).toBe(true);
    expect(provesZero(stop(347.5, 13.25), 0.5)).toBe(false);
  });
});

describe('firing order', () => {
  test('is a permutation, however it is typed', () => {
    expect(checkFiringOrder(parseFiringOrder('1-5–3, 6 2;4'), 6)).toEqual({ ok: true, order: [1, 5, 3, 6, 2, 4] });
  });
  test.each([
    ['1-3-3-2', /3 stands twice/],
    ['1-2-3', /3 of 4/],
    ['1-2-3-5', /no cylinder 5/],
    ['1-x-3-4', /no cylinder NaN/],
  ])('%s is refused', (typed, words) => {
    const checked = checkFiringOrder(parseFiringOrder(typed), 4);
    expect(checked.ok ? '' : checked.problem.message).toMatch(words);
  });
});
