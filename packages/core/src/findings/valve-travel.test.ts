import { pistonDrop } from '../crank/slider-crank';
import { pistonTable } from '../report/piston-table';
import { book } from '../testing/book';
import { inches } from '../units/length';

const CRANK = { stroke: 88.392, rod: 144.78, pinOffset: 0 };
const PEAK = 8;
const NOSE = 106;

/** A lobe of another kind than the core reckons with: a cosine raised, with straight ramps at its feet, its closing side slower. Lift mm at crank degrees off its nose. */
function liftOff(off: number): number {
  const far = off < 0 ? -off : off * 0.93;
  if (far > 150) return 0;
  if (far > 130) return (150 - far) * 0.008;
  return 0.16 + ((PEAK - 0.16) * (1 + Math.cos((Math.PI * far) / 130))) / 2;
}
/** A rocker whose ratio grows through the lift, from 1.42 to 1.58. */
const atValve = (lobe: number): number => lobe * (1.42 + (0.16 * lobe) / PEAK);

/** An engine of which lobe and valve may be traced. The ratio that is stated is the one that is stamped on the rocker. */
function engine() {
  const job = book({ ring: '0-180' }, 'mm');
  const setting = job.proved();
  job.write('card.entered', {
    replaces: null,
    intake: { centreline: NOSE, lobeLift: PEAK, ratio: 1.5 },
    exhaust: { centreline: 112, lobeLift: PEAK, ratio: 1.5 },
  });
  const trace = (sitsOn: 'lifter' | 'valve'): string =>
    job.write('trace.recorded', {
      setting,
      trial: job.trial,
      cylinder: 1,
      valve: 'intake',
      sitsOn,
      approach: 'forward',
      source: 'file',
      counted: 'from-zero',
      points: Array.from({ length: 181 }, (_, i) => {
        const at = NOSE - 180 + 2 * i;
        const lobe = liftOff(at - NOSE);
        return [at, sitsOn === 'valve' ? atValve(lobe) : lobe] as [number, number];
      }),
    });
  job.write('clearance.set-up', { replaces: null, intake: { angle: 0, pocket: 'parallel', minimum: 2 } });
  const gap = (at: number, size: number): string =>
    job.write('clearance.measured', { trial: job.trial, cylinder: 1, valve: 'intake', gaps: [{ at, gap: size }] });
  const intake = () => {
    const found = job.report().clearance.valves.find(({ valve }) => valve === 'intake');
    if (!found) throw new Error('both valves are in the Report');
    return found;
  };
  return { ...job, trace, gap, intake };
}

test('the gap is carried with the ratio that both traces show through the lift, not with the one that is stamped', () => {
  const job = engine();
  job.trace('lifter');
  // Measured far from where it is tightest, so that the lift between counts: 4 mm at 30° after TDC.
  const gap = (at: number): number => 4 + pistonDrop(CRANK, at) - pistonDrop(CRANK, 30) - (valve(at) - valve(30));
  const valve = (at: number): number => atValve(liftOff(at - NOSE));
  const truth = Math.min(...Array.from({ length: 61 }, (_, i) => gap(i - 10)));
  job.gap(30, 4);
  const stated = job.intake();
  expect(stated.lifts).toBe('The valve follows its lobe by the stated ratio, 1.50.');
  job.trace('valve');
  const traced = job.intake();
  expect(traced.lifts).toMatch(
    /^The valve follows its lobe as both were traced: ratio 1\.50 half-way up, 1\.58 at full lift, 1\.50 stated\.$/,
  );
  const off = (found: typeof stated): number => Math.abs((found.tightest?.gap ?? 0) - truth);
  expect(off(traced)).toBeLessThan(0.08);
  expect(off(traced)).toBeLessThan(off(stated) / 2);
  // The piston maker is told the same.
  const [row] = pistonTable(job.report(), [20]);
  expect(row?.intake?.valve).toBeCloseTo(valve(20), 1);
});

test('where a leaning lobe leaves its seat is told by its trace where it stands, not by where it lifts most', () => {
  const job = engine();
  job.trace('lifter');
  // Its ramps rise by 0.008 mm a degree from 150° off: 0.05 mm are reached 143.75° before, and that ÷ 0.93 after.
  const seats = job.report().lash.seats?.intake;
  expect(Math.abs((seats?.opens ?? 0) - (NOSE - 143.75))).toBeLessThan(1);
  expect(Math.abs((seats?.closes ?? 0) - (NOSE + 143.75 / 0.93))).toBeLessThan(1);
});

test('a lift measured in a good pushrod trial is the real ratio; one that belongs to another rocker is not reckoned with', () => {
  const job = engine();
  job.trace('lifter');
  job.write('rockers.set-up', { replaces: null, mounted: 'stud', arm: 36 });
  const tried = (lift: number): string =>
    job.write('rocker.tried', { valve: 'intake', cylinder: 1, length: 200, pattern: 0.6, seen: 'right', lift });
  tried(12.24);
  expect(job.intake()).toMatchObject({
    ratio: expect.closeTo(1.53, 2),
    lifts: expect.stringMatching(/1\.53, 1\.50 stated/),
  });
  tried(14);
  expect(job.intake().ratio).toBeCloseTo(1.53, 2);
});

test('a hydraulic lifter that pumps up takes preload × ratio off a gap that was measured at zero lash', () => {
  const job = engine();
  job.trace('lifter');
  job.gap(10, 3);
  const left = job.intake().tightest?.gap ?? 0;
  job.write('lash.begun', {
    after: null,
    order: 'firing',
    engine: 'cold',
    wanted: { kind: 'preload', turns: 0.5, pitch: 1 },
  });
  // Half a turn of 1 mm under a rocker on its stud: 0.5 · (1 + 1 ÷ 1.5) = 0.833 at the pushrod, 1.25 at the valve.
  expect(job.intake().pumped).toMatchObject({ by: expect.closeTo(1.25, 6), leaves: expect.closeTo(left - 1.25, 6) });
  // The pushrods to order say it better than turns.
  job.write('pushrod.measured', { replaces: null, valve: 'intake', length: 200, lifter: 'own', preload: 2 });
  expect(job.intake().pumped).toMatchObject({
    by: expect.closeTo(3, 6),
    touches: true,
    words: expect.stringMatching(/valve and piston would meet/),
  });
  expect(job.report().sign.open.join(' ')).toMatch(/Intake: Pumped up, its lifter would hold the valve .* would meet/);
  expect(job.report().rockers.valves[0]?.order?.effect).toBeNull();
  job.write('rockers.set-up', { replaces: null, mounted: 'stud', arm: 36, step: inches('0.050') });
  expect(job.report().rockers.valves[0]?.order?.effect).toMatch(
    /^Each 0\.25 mm longer is as much more preload; .*0\.38 mm less/,
  );
});
