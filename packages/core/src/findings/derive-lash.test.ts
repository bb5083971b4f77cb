import { completeCard } from '../cam/complete-card';
import { fold } from '../record/fold';
import { listHeadline, listPlace } from '../report/list-headline';
import { boardOf } from '../report/board';
import { readingsTable } from '../report/readings-table';
import { makeRandom } from '../statistics/random';
import { book } from '../testing/book';
import { inches } from '../units/length';
import { deriveLash } from './derive-lash';

const THOU = inches('0.001');
const WANTED = 16 * THOU;
const LASH = { kind: 'lash', intake: WANTED, exhaust: WANTED } as const;

/** An engine of six with a card that prints its seat events. */
function lashed(card: 'seat' | 'lift' | 'none' = 'seat') {
  const job = book();
  const seat = (duration: number) =>
    card === 'seat' ? { timing: [{ height: null, at: 'lobe' as const, duration }] } : {};
  if (card !== 'none')
    job.write('card.entered', {
      replaces: null,
      intake: { centreline: 108, lobeLift: 8, lashHot: 16 * THOU, ratio: 1.5, ...seat(280) },
      exhaust: { centreline: 112, lobeLift: 8, lashHot: 16 * THOU, ratio: 1.5, ...seat(284) },
    });
  const begin = (engine: 'cold' | 'hot' = 'hot', after: string | null = null): string =>
    job.write('lash.begun', { after, order: 'firing', engine, wanted: LASH });
  const take = (
    of: string,
    cylinder: number,
    valve: 'intake' | 'exhaust',
    more: { found?: number; set?: number; at?: number },
  ): string => {
    const { found, set, at } = more;
    return job.write('lash.taken', {
      job: of,
      cylinder,
      valve,
      ...(found === undefined ? {} : { found: found * THOU }),
      ...(set === undefined ? {} : { set: set * THOU }),
      ...(at === undefined ? {} : { at }),
    });
  };
  const lash = () => job.report().lash;
  return { ...job, begin, take, lash };
}

/** Firing TDCs of 1-5-3-6-2-4. */
const FIRES: Readonly<Record<number, number>> = { 1: 0, 5: 120, 3: 240, 6: 360, 2: 480, 4: 600 };

test('seat events: the card’s advertised duration about its centreline, wider by what the lash leaves lower', () => {
  const { lash } = lashed();
  expect(lash().seats?.words).toMatch(/from the card’s figures at the seat\. A cam that has not been measured/);
  // 108 − 140 and 108 + 140: 0.016 in of lash ÷ 1.5 is taken up above the card’s 0.006 in, so nothing is added; 5° for the marks.
  expect(lash().seats?.intake).toEqual({ opens: -32, closes: 248, slack: 5 });
});

test('seat events unknown: it says what would be enough, and offers what needs none', () => {
  const { lash } = lashed('none');
  expect(lash().seats).toBeNull();
  expect(lash().problem?.remedy).toMatch(/advertised duration with its centreline/);
  expect(lash().orders.map(({ order }) => order)).toEqual(['firing', 'partner']);
  expect(lash().proposal.order).toBe('firing');
});

test('a card of lift and centreline alone is a likeness, and counted wider', () => {
  const { lash } = lashed('lift');
  expect(lash().seats?.words).toMatch(/a lobe like its other figures, counted 10° wider/);
  expect(lash().seats?.intake.slack).toBe(15);
});

test('once through and once more: each valve is asked for by its place, and what is done is counted', () => {
  const { begin, take, lash } = lashed();
  expect(lash().sentence).toMatch(/what is wanted, cold or hot/);
  const job = begin();
  expect(lash().sentence).toBe('Turn to 0°, cylinder 1 at its firing TDC. Set the intake of cylinder 1 to 0.016 in.');
  take(job, 1, 'intake', { found: 18, set: 16, at: 0 });
  take(job, 1, 'exhaust', { set: 16, at: 0 });
  expect(lash().sentence).toBe(
    'Turn to 120° after, cylinder 5 at its firing TDC. Set the intake of cylinder 5 to 0.016 in.',
  );
  for (const cylinder of [5, 3, 6, 2, 4])
    for (const valve of ['intake', 'exhaust'] as const) take(job, cylinder, valve, { set: 16, at: FIRES[cylinder] });
  expect(lash().job).toMatchObject({ state: 'checking', round: 2, counts: { all: 12, set: 12, good: 0 } });
  expect(lash().sentence).toMatch(/Second round: is the intake of cylinder 1 still at 0\.016 in\?$/);
  for (const cylinder of [1, 5, 3, 6, 2, 4])
    for (const valve of ['intake', 'exhaust'] as const) take(job, cylinder, valve, { found: 16, at: FIRES[cylinder] });
  expect(lash().job).toMatchObject({ state: 'done', next: null });
  expect(lash().sentence).toBe('All 12 valves are set, and were found again as they were left.');
});

test('a valve that was set on its ramp is named with that, one that was not with its lock', () => {
  const { begin, take, lash } = lashed();
  const job = begin();
  // Its exhaust opens at −254 of its cycle; cylinder 5 fires 120° on: at −130 of the crank it has just begun.
  take(job, 5, 'exhaust', { set: 16, at: 215 });
  take(job, 1, 'intake', { set: 16, at: 0 });
  expect(lash().job?.valves.find(({ cylinder, valve }) => cylinder === 5 && valve === 'exhaust')?.words).toMatch(
    /Exhaust of cylinder 5 stood 6° from its ramp when it was set: 20° are wanted/,
  );
  take(job, 5, 'exhaust', { found: 22, at: 120 });
  take(job, 1, 'intake', { found: 22, at: 0 });
  const words = (lash().job?.valves ?? []).flatMap((each) => each.words ?? []);
  expect(words).toEqual([
    expect.stringMatching(
      /^Intake of cylinder 1: 0\.006 in looser than it was left\. As if its lobe stood 0\.004 in up/,
    ),
    expect.stringMatching(/^Exhaust of cylinder 5: .* It stood 6° from its ramp when it was set/),
  ]);
  expect(lash().job?.state).toBe('off');
});

test('several valves of a kind in a cylinder are each set, found and remembered by their number', () => {
  const { write, take, lash, report } = lashed();
  const begin = (after: string | null): string =>
    write('lash.begun', { after, order: 'firing', engine: 'cold', count: { intake: 2, exhaust: 1 }, wanted: LASH });
  const each = (job: string, which: number, lashes: object): string =>
    write('lash.taken', { job, cylinder: 1, valve: 'intake', which, ...lashes });
  const first = begin(null);
  expect(lash().job?.counts.all).toBe(18);
  expect(lash().sentence).toMatch(/Set the intake 1 of cylinder 1 to/);
  each(first, 1, { set: WANTED });
  expect(lash().sentence).toMatch(/Set the intake 2 of cylinder 1 to/);
  each(first, 2, { set: WANTED });
  each(first, 2, { found: WANTED + 6 * THOU });
  expect(lash().job?.valves.filter(({ valve, cylinder }) => cylinder === 1 && valve === 'intake')).toMatchObject([
    { which: 1, state: 'set' },
    { which: 2, state: 'loose', words: expect.stringMatching(/^Intake 2 of cylinder 1: 0\.006 in looser/) },
  ]);
  // A number that no cylinder here has is said, and kept.
  take(first, 1, 'exhaust', { set: 16 });
  write('lash.taken', { job: first, cylinder: 1, valve: 'exhaust', which: 2, set: WANTED });
  expect(report().problems).toMatchObject([{ message: 'There is no exhaust 2 in a cylinder here.' }]);
  each(begin(first), 2, { found: WANTED - 3 * THOU });
  expect(lash().history.map(({ words }) => words)).toEqual([expect.stringMatching(/^Intake 2 of cylinder 1: left at/)]);
});

test('set again, it waits to be looked at again', () => {
  const { begin, take, lash } = lashed();
  const job = begin();
  take(job, 1, 'intake', { set: 16, at: 0 });
  take(job, 1, 'intake', { found: 22, at: 0 });
  take(job, 1, 'intake', { found: 22, set: 16, at: 0 });
  const own = () => lash().job?.valves[0];
  expect(own()).toMatchObject({ state: 'set', words: null });
  take(job, 1, 'intake', { found: 17, at: 0 });
  expect(own()).toMatchObject({ state: 'good' });
});

test('found right and left alone needs nothing more; found wrong it is set, without blaming anybody', () => {
  const { begin, take, lash } = lashed();
  const job = begin();
  take(job, 1, 'intake', { found: 17 });
  take(job, 1, 'exhaust', { found: 24 });
  expect(lash().job?.valves.slice(0, 2)).toMatchObject([
    { state: 'good', words: null },
    { state: 'loose', words: 'Exhaust of cylinder 1: 0.008 in looser than wanted. Set it.' },
  ]);
  expect(lash().sentence).toMatch(/Set the exhaust of cylinder 1 to 0\.016 in\.$/);
});

test('cold to hot is learned from valves that were measured both ways, and proposed; never from the card alone', () => {
  const { begin, take, lash } = lashed();
  expect(lash().proposal.cold.intake).toBeNull();
  const cold = begin('cold');
  const grown = [4, 5, 4, 4, 5, 4];
  [1, 5, 3, 6, 2, 4].forEach((cylinder) => void take(cold, cylinder, 'intake', { set: 20 }));
  const hot = begin('hot', cold);
  [1, 5, 3, 6, 2, 4].forEach((cylinder, at) => void take(hot, cylinder, 'intake', { found: 20 - (grown[at] ?? 0) }));
  // 26 ÷ 6 = 0.00433 in tighter.
  expect(lash().proposal.cold.intake).toBeCloseTo(16 * THOU + (26 / 6) * THOU, 9);
  expect(lash().proposal.words.join(' ')).toMatch(
    /On this engine the intake is 0\.004 in tighter hot than cold \(±0\.001 in, 6 valves\)/,
  );
  expect(lash().proposal.cold.exhaust).toBeNull();
});

test('year after year: a valve that tightens by itself is receding', () => {
  const { begin, take, lash } = lashed();
  let before: string | null = null;
  for (const found of [16, 14, 13, 12]) {
    const job = begin('hot', before);
    take(job, 3, 'exhaust', before === null ? { set: 16 } : { found, set: 16 });
    take(job, 4, 'exhaust', before === null ? { set: 16 } : { found: before ? 16 + (found % 2) : 16, set: 16 });
    before = job;
  }
  const [own, other] = lash().history;
  expect(own).toMatchObject({ cylinder: 3, valve: 'exhaust', trend: 'tighter' });
  expect(own?.words).toMatch(/It tightens: valve or seat is receding/);
  expect(other?.trend).toBeNull();
});

test('hydraulic: turns, and both reckonings of what they are', () => {
  const { write, lash } = lashed();
  const job = write('lash.begun', {
    after: null,
    order: 'firing',
    engine: 'cold',
    wanted: { kind: 'preload', turns: 0.5, pitch: inches('0.050') },
  });
  expect(lash().job?.wantedWords).toBe(
    // 0.5 × 0.050 = 0.025; × (1 + 1/1.5) = 0.0417.
    '½ turn past zero lash: 0.025 in as commonly reckoned, 0.042 in at the pushrod under a rocker on its stud',
  );
  write('lash.taken', { job, cylinder: 1, valve: 'intake', turns: 0.5 });
  expect(lash().job?.valves[0]).toMatchObject({ state: 'good', shows: '½ turn' });
  expect(lash().sentence).toMatch(/The exhaust of cylinder 1: to zero lash, then ½ turn more\.$/);
});

test('a reading of a cylinder that the engine does not have is kept, named, and counts for nothing', () => {
  const { begin, take, report } = lashed();
  take(begin(), 7, 'intake', { set: 16 });
  expect(report().problems.map(({ message }) => message)).toContain('It was read at cylinder 7, and the engine has 6.');
});

test('what stands in the table for other programs: every figure with its valve, and where the crank was', () => {
  const { begin, take, entries, write } = lashed();
  const job = begin();
  take(job, 5, 'exhaust', { found: 19, set: 16, at: 120 });
  write('lash.taken', { job, cylinder: 5, valve: 'intake', turns: 0.5 });
  const rows = readingsTable(entries).filter(({ kind }) => kind === 'lash');
  expect(
    rows.map((row) => [row.cylinder, row.valve, row.shows, row['figure (mm)'], row['ring position (crank degrees)']]),
  ).toEqual([
    [5, 'exhaust', 'lash found, past firing TDC of cylinder 1', expect.closeTo(19 * THOU, 9), 120],
    [5, 'exhaust', 'lash set, past firing TDC of cylinder 1', expect.closeTo(16 * THOU, 9), 120],
    [5, 'intake', '0.5 turns past zero lash', '', ''],
  ]);
});

test('a valve whose job was undone is kept, and named', () => {
  const { begin, take, write, report } = lashed();
  const job = begin();
  take(job, 1, 'intake', { set: 16 });
  write('entry.voided', { voids: job });
  expect(report().lash.job).toBeNull();
  expect(
    report()
      .problems.map(({ message }) => message)
      .join(' '),
  ).toMatch(/a setting of the lash that has been undone/);
});

test('the board does not pass Lash over where an engine has no Rockers', () => {
  const buckets = book();
  buckets.stands({ lifter: 'bucket' });
  buckets.write('lash.begun', { after: null, order: 'firing', engine: 'cold', wanted: LASH });
  expect(boardOf(buckets.report(), buckets.entries).station).toBe('lash');
});

test('the board across the shop, and what stands open at signing', () => {
  const { begin, take, report, entries } = lashed();
  const job = begin();
  take(job, 1, 'intake', { set: 16 });
  expect(boardOf(report(), entries)).toMatchObject({ station: 'lash', now: report().lash.sentence });
  expect(report().sign.open.join(' ')).toMatch(/The lash of 11 valves is not set/);
  expect([listHeadline(report()), listPlace(report())]).toEqual(['Lash: 0.016 in, hot. 1 of 12 set.', 'lash']);
});

/**
 * Hands that set an engine of six, its lobes with ramps of a steady slope: another kind than the core's smooth ones. Every felt lash errs
 * by 0.0005 in and is written in whole thousandths.
 */
describe('2,000 engines', () => {
  const random = makeRandom(1909);
  const ramped = (inside: number, slope: number, length: number): number =>
    inside <= 0 ? 0 : inside < length ? slope * inside : slope * length + 0.03 * (inside - length);
  const typed = (mm: number): number => Math.max(0, Math.round((mm + random.normal(inches('0.0005'))) / THOU)) * THOU;
  const card = completeCard(
    {
      intake: { centreline: 108, lobeLift: 8, ratio: 1.5, timing: [{ height: null, at: 'lobe', duration: 280 }] },
      exhaust: { centreline: 112, lobeLift: 8, ratio: 1.5, timing: [{ height: null, at: 'lobe', duration: 284 }] },
    },
    'in',
  );

  test('the valve that was set on its ramp is found in the second round, and hardly ever another', () => {
    let [found, accused, healthy] = [0, 0, 0];
    for (let engine = 0; engine < 2000; engine += 1) {
      const { entries, write, begin } = lashed('none');
      const job = begin();
      const wrong = { cylinder: 1 + Math.floor(6 * random.even()), valve: random.even() < 0.5 ? 'intake' : 'exhaust' };
      // Somewhere on a ramp that is steep or gentle, from where a blade can tell it up to well onto the lobe.
      const slope = 0.004 + 0.012 * random.even();
      const lifted = ramped(12 + 28 * random.even() + 0.08 / slope, slope, 30);
      for (const cylinder of [1, 5, 3, 6, 2, 4])
        for (const valve of ['intake', 'exhaust'] as const) {
          const isWrong = cylinder === wrong.cylinder && valve === wrong.valve;
          const truth = WANTED + random.normal(inches('0.0005')) + (isWrong ? 1.5 * lifted : 0);
          write('lash.taken', { job, cylinder, valve, set: WANTED });
          write('lash.taken', { job, cylinder, valve, found: typed(truth) });
        }
      const build = fold(entries);
      const valves = build ? (deriveLash(build, [], card).job?.valves ?? []) : [];
      for (const each of valves) {
        const off = each.state !== 'good';
        if (each.cylinder === wrong.cylinder && each.valve === wrong.valve) found += off ? 1 : 0;
        else [healthy, accused] = [healthy + 1, accused + (off ? 1 : 0)];
      }
    }
    expect(found / 2000).toBeGreaterThanOrEqual(0.99);
    expect(accused / healthy).toBeLessThan(0.01);
  });
});
