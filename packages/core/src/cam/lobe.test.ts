import fc from 'fast-check';
import numeric from 'numeric';
import { makeRandom } from '../statistics/random';
import { fitLobe } from './fit-lobe';
import { type Lobe, areaUnder, durationAt, flanksAt, lobeAt, wrap720 } from './lobe';
import { smoothingSpline } from '../statistics/smoothing-spline';
import { readTrace } from './trace';
import type { TraceConditions, TracePoint } from './trace-points';

const lobes = fc.record({
  peak: fc.double({ min: 4, max: 14, noNaN: true }),
  nose: fc.double({ min: -130, max: 130, noNaN: true }),
  half: fc.double({ min: 110, max: 190, noNaN: true }),
  power: fc.double({ min: 2.2, max: 6, noNaN: true }),
  lean: fc.double({ min: -12, max: 12, noNaN: true }),
});

describe('the lobe', () => {
  test('flank and lift undo each other; slope and curvature are the derivatives', () =>
    fc.assert(
      fc.property(lobes, fc.double({ min: 0.02, max: 0.98, noNaN: true }), (lobe, share) => {
        const flanks = flanksAt(lobe, share * lobe.peak);
        if (!flanks) throw new Error('below the peak there are flanks');
        for (const at of [flanks.opening, flanks.closing]) {
          expect(lobeAt(lobe, at).lift).toBeCloseTo(share * lobe.peak, 8);
          const [before, after] = [lobeAt(lobe, at - 1e-4), lobeAt(lobe, at + 1e-4)];
          expect(lobeAt(lobe, at).slope).toBeCloseTo((after.lift - before.lift) / 2e-4, 6);
          expect(lobeAt(lobe, at).curvature).toBeCloseTo((after.slope - before.slope) / 2e-4, 6);
        }
        expect(lobeAt(lobe, lobe.nose).slope).toBeCloseTo(0, 9);
      }),
    ));

  test('area is the sum of the lift, and the lean does not change it', () => {
    const lobe: Lobe = { peak: 8.4, nose: 108, half: 150, power: 3, lean: 7 };
    let sum = 0;
    for (let at = -80; at < 300; at += 0.05) sum += lobeAt(lobe, at).lift * 0.05;
    expect(areaUnder(lobe)).toBeCloseTo(sum, 2);
  });

  test('fitted through two durations, a nose and a centre it meets all of them', () =>
    fc.assert(
      fc.property(lobes, (lobe) => {
        const known = [0.15, 1.27].map((height) => ({ height, duration: durationAt(lobe, height) ?? 0 }));
        const [low] = known.map(({ height }) => flanksAt(lobe, height));
        const centre = ((low?.opening ?? 0) + (low?.closing ?? 0)) / 2;
        const fitted = fitLobe({
          peak: lobe.peak,
          nose: lobe.nose,
          durations: known,
          centres: [{ height: 0.15, centre }],
        });
        expect(fitted?.worst).toBeLessThan(0.01);
        for (const at of [-60, -20, 15, 70])
          expect(lobeAt(fitted?.lobe ?? lobe, lobe.nose + at).lift).toBeCloseTo(lobeAt(lobe, lobe.nose + at).lift, 2);
      }),
    ));
});

describe('smoothing spline', () => {
  const random = makeRandom(5);
  const points = Array.from({ length: 60 }, (_, i) => ({
    x: i * 2 + random.within(0.8),
    y: Math.sin(i / 9) + random.normal(0.02),
  }));

  // Independent library: numeric 1.2.6, natural cubic spline and its derivatives.
  test('without smoothing it is the natural cubic spline, with its derivatives', () => {
    const ours = smoothingSpline(points, 0);
    const theirs = numeric.spline(
      points.map(({ x }) => x),
      points.map(({ y }) => y),
    );
    for (let x = 0.9; x < 117; x += 0.37) {
      expect(ours.at(x)).toBeCloseTo(Number(theirs.at(x)), 9);
      expect(ours.slope(x)).toBeCloseTo(Number(theirs.diff().at(x)), 9);
      expect(ours.curvature(x)).toBeCloseTo(Number(theirs.diff().diff().at(x)), 8);
    }
  });

  test('cross-validation finds the curve under the noise, and how large the noise is', () => {
    const { values, x, scale, leverage } = smoothingSpline(points.map((point) => ({ ...point, sd: 0.01 })));
    const off = values.map((value, i) => value - Math.sin((x[i] ?? 0) / 18));
    expect(Math.sqrt(off.reduce((sum, each) => sum + each * each, 0) / off.length)).toBeLessThan(0.012);
    expect(scale * 0.01).toBeGreaterThan(0.014);
    expect(scale * 0.01).toBeLessThan(0.026);
    // The leverage is what it is by definition: how a smoothed value follows its own point.
    const moved = points.map((point, i) => (i === 20 ? { ...point, y: point.y + 1 } : point));
    const fixed = (with_: typeof points) => smoothingSpline(with_, 30);
    expect((fixed(moved).values[20] ?? 0) - (fixed(points).values[20] ?? 0)).toBeCloseTo(
      fixed(points).leverage[20] ?? 0,
      9,
    );
    expect(leverage.every((each) => each > 0 && each < 1)).toBe(true);
  });

  test('a straight line stays one however much it is smoothed', () => {
    const line = points.map(({ x }) => ({ x, y: 3 - x / 7 }));
    expect(smoothingSpline(line, 1e9).at(50)).toBeCloseTo(3 - 50 / 7, 9);
    expect(smoothingSpline(line, 1e9).at(200)).toBeCloseTo(3 - 200 / 7, 6);
  });
});

describe('trace', () => {
  const EXACT: TraceConditions = { liftSd: 1e-5, angleSd: 0, closes: 0.03 };
  /** Lift over the cycle from a curve of one lobe, every `step` degrees from `start`. */
  const traceOf = (curve: (from: number) => number, nose: number, step = 1, start = -360): TracePoint[] =>
    Array.from({ length: 720 / step }, (_, i) => {
      const angle = start + i * step;
      return { angle, lift: curve(wrap720(angle - nose)) };
    });
  const curveOf = (points: readonly TracePoint[], conditions = EXACT) => {
    const read = readTrace(points, conditions);
    if (!read.ok) throw new Error(read.problem.message);
    return read.curve;
  };

  // Published: simple harmonic and cycloidal rise, Rothbart, *Cam Design Handbook*, ch. 2 (from memory): s = (h/2)(1 − cos πθ/β) and
  // s = h(θ/β − sin(2πθ/β)/2π). The harmonic's events are closed forms; the cycloid is at half lift half-way up.
  test('a harmonic cam: events at any height, centre, area, peak and velocity in closed form', () => {
    const [peak, half, nose] = [9, 130, 106];
    const curve = curveOf(
      traceOf((from) => (Math.abs(from) < half ? (peak / 2) * (1 + Math.cos((Math.PI * from) / half)) : 0), nose),
    );
    for (const height of [1.27, 3, 6, 8.5]) {
      const out = (half / Math.PI) * Math.acos((2 * height) / peak - 1);
      expect(curve.flanks(height)?.opening.angle).toBeCloseTo(nose - out, 2);
      expect(curve.flanks(height)?.closing.angle).toBeCloseTo(nose + out, 2);
    }
    expect(curve.peak).toBeCloseTo(peak, 3);
    expect(curve.area / (peak * half)).toBeCloseTo(1, 4);
    expect(curve.steepest.opening).toBeCloseTo((Math.PI * peak) / (2 * half), 3);
  });

  test('a cycloidal cam passes half its lift half-way; its peak curvature is 0', () => {
    const [peak, half, nose] = [8, 120, -112];
    const rise = (share: number): number => peak * (share - Math.sin(2 * Math.PI * share) / (2 * Math.PI));
    const curve = curveOf(traceOf((from) => (Math.abs(from) < half ? rise(1 - Math.abs(from) / half) : 0), nose));
    expect(curve.flanks(peak / 2)?.opening.angle).toBeCloseTo(nose - half / 2, 2);
    expect(curve.steepest.closing).toBeCloseTo((2 * peak) / half, 3);
    expect(curve.curvature(nose)).toBeCloseTo(0, 3);
  });

  const lobe: Lobe = { peak: 8.4, nose: 108, half: 150, power: 3, lean: 6 };
  const lobeTrace = (step: number, start: number): TracePoint[] =>
    traceOf((from) => lobeAt({ ...lobe, nose: 0 }, from).lift, 108, step, start);

  test.each([1, 2, 5])('every %d°, wherever it starts: both flanks, lean and lift at TDC', (step) => {
    for (const start of [-360, 0, 107, 250, 900]) {
      const curve = curveOf(lobeTrace(step, start));
      const tolerance = step === 5 ? 1 : 2;
      expect(wrap720(curve.flanks(1.27)?.opening.angle ?? 0)).toBeCloseTo(
        flanksAt(lobe, 1.27)?.opening ?? 0,
        tolerance,
      );
      expect((curve.centre(1.27)?.angle ?? 0) - (curve.centre(7)?.angle ?? 0)).toBeCloseTo(
        lobe.lean * ((7 / 8.4) ** (1 / 3) - (1.27 / 8.4) ** (1 / 3)),
        tolerance,
      );
      expect(curve.lift(0)).toBeCloseTo(lobeAt(lobe, 0).lift, 2);
    }
  });

  test('a stray point is named, and its neighbours are not', () => {
    const random = makeRandom(11);
    const noisy = lobeTrace(5, -60).map(({ angle, lift }, i) => ({
      angle,
      lift: Math.max(0, lift + random.normal(0.004)) + (i === 24 ? 0.25 : 0),
    }));
    const { strays } = curveOf(noisy, { liftSd: 0.004, angleSd: 0.05, closes: 0.03 });
    expect(strays.map(({ index }) => index)).toEqual([24]);
    expect(strays[0]?.off).toBeGreaterThan(0.1);
  });

  test.each([
    ['too short', [0, 1, 2].map((angle) => ({ angle, lift: 0 })), /too short/],
    ['nothing rises', lobeTrace(5, 0).map(({ angle }) => ({ angle, lift: 0 })), /nothing rises/],
    [
      'does not close',
      lobeTrace(2, -200).map(({ angle, lift }) => ({ angle, lift: lift + (angle > 108 ? 0.08 : 0) })),
      /does not close/,
    ],
    ['stops before the nose', lobeTrace(2, -200).filter(({ angle }) => angle > -90 && angle < 100), /over the nose/],
  ])('%s: said, not computed', (_what, points, words) => {
    const read = readTrace(points, EXACT);
    expect(read.ok ? '' : read.problem.message).toMatch(words);
  });
});
