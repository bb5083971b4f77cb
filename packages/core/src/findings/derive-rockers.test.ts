import { book } from '../testing/book';
import { inches } from '../units/length';

/** An engine with rockers on studs, 1.5 : 1, and 8 mm of lobe. */
function rocked(mounted: 'stud' | 'shaft' = 'stud', more: { ratio?: boolean } = {}) {
  const job = book();
  const lobe = { centreline: 108, lobeLift: 8, ...(more.ratio === false ? {} : { ratio: 1.5 }) };
  job.write('card.entered', { replaces: null, intake: lobe, exhaust: lobe });
  job.write('rockers.set-up', { replaces: null, mounted, arm: 36, tip: 8, step: inches('0.050') });
  const tried = (
    length: number,
    showed: { pattern?: number; seen?: 'right' | 'above' | 'below'; lift?: number; offset?: number },
  ) => job.write('rocker.tried', { valve: 'intake', cylinder: 1, length, ...showed });
  const rockers = () => job.report().rockers;
  const intake = () => {
    const [first] = rockers().valves;
    if (!first) throw new Error('the intake comes first');
    return first;
  };
  return { ...job, tried, rockers, intake };
}

test('only where there are rockers: not on buckets, not where nobody said so', () => {
  const places = (job: ReturnType<typeof book>) => job.report().stations.map(({ station }) => station);
  const nothing = book();
  expect(places(nothing)).not.toContain('rockers');
  const buckets = book();
  buckets.stands({ lifter: 'bucket' });
  expect(places(buckets)).not.toContain('rockers');
  expect(
    rocked()
      .report()
      .stations.map(({ station }) => station),
  ).toContain('rockers');
});

test('what is missing is said: the ratio', () => {
  const { intake, rockers } = rocked('stud', { ratio: false });
  expect(intake().problem?.message).toBe('The rocker ratio is not known.');
  expect(rockers().sentence).toMatch(/ratio is not known/);
});

test('a pattern alone leaves two lengths and asks for what would tell; the arm at mid-lift tells', () => {
  const { tried, intake, rockers } = rocked();
  // 12 mm of lift on 36 mm: the least is 36 · (1 − cos asin(1/6)) = 0.504 mm.
  expect(intake().least).toBeCloseTo(0.504, 3);
  tried(200, { pattern: 1.3 });
  expect(intake().words).toMatch(/Two lengths would leave such a pattern/);
  tried(200, { pattern: 1.3, seen: 'above' });
  expect(intake().words).toMatch(/The right length by all trials is/);
  expect(intake().next).toBeGreaterThan(203);
  expect(rockers().sentence).toMatch(/^Intake: try .* in next\.$/);
});

test('this one, with its reasons; where mid-lift disagrees, the pattern with full lift wins and says so', () => {
  const { tried, intake, rockers } = rocked();
  tried(206, { pattern: 0.6, seen: 'below', lift: 11.9 });
  expect(intake().trials[0]?.words).toMatch(
    /^This one: .*Mid-lift and pattern disagree: a narrow pattern with full lift wins\.$/,
  );
  expect(rockers().sentence).toMatch(/this geometry is right\. Measure the pushrod/);
});

test('on a shaft it is shims, and the pushrod afterwards', () => {
  const { tried, intake, rockers } = rocked('shaft');
  tried(0, { pattern: 1.3, seen: 'above' });
  // The pivot is raised by arm · sin β, without the pushrod’s arm: less than on a stud.
  expect(intake().next).toBeGreaterThan(2);
  expect(intake().next).toBeLessThan(5);
  expect(rockers().sentence).toMatch(/^Intake: try 0\.\d+ in of shims next\.$/);
});

test('wider than the tip, and higher than lobe and ratio: named, kept, and left out', () => {
  const { tried, intake } = rocked();
  tried(200, { pattern: 9 });
  tried(201, { lift: 13.5, seen: 'right' });
  const [wide, high] = intake().trials;
  expect(wide?.words).toMatch(/wider than the tip/);
  expect(high?.words).toMatch(/lifts more than lobe and ratio can make/);
  expect(intake().next).toBeNull();
});

test('the order: measured, preload, step; what it really gives, and with which lifter', () => {
  const { write, intake, report } = rocked();
  write('pushrod.measured', {
    replaces: null,
    valve: 'intake',
    length: inches('7.862'),
    lifter: 'other',
    preload: inches('0.030'),
    travel: inches('0.050'),
    clears: false,
  });
  // 7.892 → 7.900 in steps of 0.050: 0.038 (common practice, no source).
  expect(intake().order?.words).toBe(
    'Intake pushrods: order 7.900 in. Measured 7.862 in at zero lash, with another lifter than will run; preload 0.038 in, 0.030 in wanted.',
  );
  expect(intake().order?.trouble).toEqual([
    expect.stringMatching(/touches the head/),
    expect.stringMatching(/Seats differ in height/),
  ]);
  const rows = report().sheet.find(({ title }) => title === 'Rockers and pushrods')?.rows ?? [];
  expect(rows.map(({ label, value }) => [label, value])).toEqual([
    ['Intake pushrod, zero lash', '7.862 in'],
    [expect.stringMatching(/order 7\.900 in/), ''],
  ]);
});

test('a step that leaves no preload, or presses the plunger to its end, is no order to send; two lengths for one kind are named', () => {
  const { write, intake } = rocked();
  const measured = (length: number, preload: number, travel: number) =>
    write('pushrod.measured', { replaces: null, valve: 'intake', length, lifter: 'own', preload, travel });
  measured(inches('7.870'), inches('0.010'), inches('0.100'));
  // 7.880 → 7.900: 0.030.
  expect(intake().order?.trouble).toEqual([]);
  measured(inches('7.860'), inches('0.012'), inches('0.040'));
  // 7.872 → 7.850: 0.010 shorter than measured.
  expect(intake().order?.trouble).toEqual([
    expect.stringMatching(/leaves no preload/),
    expect.stringMatching(/Two lengths were measured/),
  ]);
});

test('lift at the valve against theory: what grows with the spring bends, what does not is ratio, lash or geometry', () => {
  const { round, intake } = rocked();
  const read = (cylinder: number, lift: number, springs?: 'checking' | 'valve') =>
    void round('identity', 'intake', [{ shows: { kind: 'peak-lift', lift, ...(springs ? { springs } : {}) } }], {
      sitsOn: 'valve',
      cylinder,
    });
  // 8 × 1.5 = 12 mm.
  read(1, 11.95, 'checking');
  read(1, 11.92, 'valve');
  read(2, 11.95, 'checking');
  read(2, 11.6, 'valve');
  read(3, 11.5, 'checking');
  read(3, 11.48, 'valve');
  read(4, 11.5, 'checking');
  read(4, 11.2, 'valve');
  read(5, 11.5);
  read(6, 12.6);
  expect(intake().theory.map(({ words }) => words.replace(/^.*? in\. /, ''))).toEqual([
    'Nothing is lost.',
    expect.stringMatching(/^It is lost under the running springs only: something bends/),
    expect.stringMatching(/^It is lost with light springs already: ratio, lash or geometry/),
    expect.stringMatching(/^Part is lost with light springs already/),
    expect.stringMatching(/^Read it with checking springs too/),
    expect.stringMatching(/^That is more than can be/),
  ]);
});

test('what the lash takes is no loss: nobody wrote down whether it was set when the lift was read', () => {
  const { round, write, intake } = rocked();
  write('lash.begun', {
    after: null,
    order: 'firing',
    engine: 'cold',
    wanted: { kind: 'lash', intake: 0.4, exhaust: 0.4 },
  });
  for (const [cylinder, lift] of [
    [1, 12],
    [5, 11.6],
    [3, 11.2],
  ] as const)
    void round('identity', 'intake', [{ shows: { kind: 'peak-lift', lift } }], { sitsOn: 'valve', cylinder });
  expect(intake().theory.map(({ cylinder, right }) => [cylinder, right])).toEqual([
    [1, true],
    [3, false],
    [5, true],
  ]);
});

test('lifts under other springs do not stand beside each other: no lobe is accused of what bends', () => {
  const { round, report } = rocked();
  for (const cylinder of [1, 5, 3, 6, 2, 4])
    void round('identity', 'intake', [{ shows: { kind: 'peak-lift', lift: 11.95, springs: 'checking' } }], {
      sitsOn: 'valve',
      cylinder,
    });
  for (const cylinder of [1, 5])
    void round('identity', 'intake', [{ shows: { kind: 'peak-lift', lift: 11.6, springs: 'valve' } }], {
      sitsOn: 'valve',
      cylinder,
    });
  const table = report().trials[0]?.everyLobe.find(({ at }) => at === 'valve');
  expect(table?.rows.map(({ lift }) => lift?.value)).toEqual([11.6, 11.6]);
  expect(table?.words.join(' ')).not.toMatch(/less than the others/);
});
