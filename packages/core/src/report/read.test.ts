import { readingAt } from '../crank/wheel';
import { type Lobe, flanksAt, lobeAt } from '../cam/lobe';
import { BUILD, book, id } from '../testing/book';
import { inches } from '../units/length';
import { makeRandom } from '../statistics/random';
import { cardFromMeasured } from './card-from-measured';
import { type BodyOf, entrySchema } from '../record/entry';
import { type NextReading, nextReading } from './reading-words';
import type { Report } from './report';

const H = inches('0.050');
const below = (flank: 'opening' | 'closing', drop: number = H) => ({ kind: 'below-peak' as const, flank, drop });
const above = (flank: 'opening' | 'closing', lift: number = H) => ({ kind: 'above-base' as const, flank, lift });
const line = (opens: number, closes: number) => ({ height: H, at: 'lobe' as const, opens, closes });
const viewOf = (report: Report, key: string) => report.trials.at(-1)?.views.find((view) => view.key.startsWith(key));

/** A proved zero and a card with events and centrelines of both lobes. */
function ready() {
  const job = book();
  const setting = job.proved();
  job.write('card.entered', {
    replaces: null,
    intake: { centreline: 107, lobeLift: inches('0.330'), timing: [line(21, 55)] },
    exhaust: { centreline: 111, lobeLift: inches('0.325'), timing: [line(65.5, 23.5)] },
    lobeSeparation: 109,
  });
  return { ...job, setting };
}

describe('every method, from readings to its view', () => {
  // Worked value, common practice, no source: 160 and 63 before TDC are 111.5.
  test('exhaust centreline; with the intake it gives LSA and ground-in advance, in which TDC cancels', () => {
    const job = ready();
    job.pair(job.setting, 66, 153);
    job.round(
      'centreline',
      'exhaust',
      [
        { shows: below('opening'), at: -160 },
        { shows: below('closing'), at: -63 },
      ],
      job,
    );
    const report = job.report();
    expect(viewOf(report, 'centreline exhaust')).toMatchObject({
      value: 111.5,
      delta: expect.closeTo(0.5, 1),
      shows: '111.50° BTDC',
    });
    const lsa = viewOf(report, 'lsa');
    expect(lsa).toMatchObject({ value: 110.5, unit: 'cam degrees', detail: 'ground-in advance 1.0°' });
    const tdc = viewOf(report, 'centreline intake')?.budget.find(({ from }) => from === 'TDC')?.standard ?? 0;
    expect(lsa?.standard).toBeLessThan(Math.hypot(tdc, tdc) / 2 + 0.06);
    expect(lsa?.remark).toMatch(/1\.5° wider than the card’s: moving a single cam cannot cure that/);
  });

  // Worked values, common practice, no source: 21 and 55 are 256° about 107; 65.5 and 23.5 are 269° about 111.
  test('events of both valves', () => {
    const job = ready();
    job.round(
      'events',
      'intake',
      [
        { shows: above('opening'), at: -21 },
        { shows: above('closing'), at: 235 },
      ],
      job,
    );
    job.round(
      'events',
      'exhaust',
      [
        { shows: above('opening'), at: -245.5 },
        { shows: above('closing'), at: 23.5 },
      ],
      job,
    );
    const report = job.report();
    expect(viewOf(report, 'events intake')).toMatchObject({
      value: 107,
      delta: 0,
      shows: 'IVO 21° BTDC, IVC 55° ABDC',
    });
    expect(viewOf(report, 'events exhaust')).toMatchObject({ value: 111, delta: 0, remark: null });
    expect(report.verdict).toMatchObject({ kind: 'leave', headline: expect.stringMatching(/on the target, ±0\.\d°/) });
  });

  test('the base-circle zero moves the duration, not the centre, and the duration is spoken of', () => {
    const job = ready();
    job.round(
      'events',
      'intake',
      [
        { shows: above('opening'), at: -18 },
        { shows: above('closing'), at: 232 },
      ],
      job,
    );
    const view = viewOf(job.report(), 'events intake');
    expect(view).toMatchObject({ value: 107, delta: expect.closeTo(0, 1) });
    expect(view?.remark).toMatch(/lasts 6\.0° less than the card’s/);
  });

  test('opening side only: its zero counts fully', () => {
    const job = ready();
    job.round('opening-only', 'intake', [{ shows: above('opening'), at: -19 }], job);
    const view = viewOf(job.report(), 'opening-only intake');
    expect(view).toMatchObject({ value: 19, delta: expect.closeTo(-2, 1), against: 'IVO 21°' });
    const pair = ready();
    pair.round(
      'events',
      'intake',
      [
        { shows: above('opening'), at: -19 },
        { shows: above('closing'), at: 237 },
      ],
      pair,
    );
    const share = (of: typeof view): number => of?.budget.find(({ from }) => from === 'the indicator')?.standard ?? 0;
    expect(share(view)).toBeGreaterThan(1.5 * share(viewOf(pair.report(), 'events intake')));
  });

  // Worked value, common practice, no source: 0.115 in at 106, 0.099 at 110; 0.107 in is 108.
  test('lift at TDC with and without a wheel', () => {
    const job = book();
    const setting = job.proved();
    job.write('card.entered', {
      replaces: null,
      intake: {
        centreline: 106,
        liftAtTdc: [
          { centreline: 106, lift: inches('0.115') },
          { centreline: 110, lift: inches('0.099') },
        ],
      },
    });
    const shows = { kind: 'tdc-lift' as const, lift: inches('0.107') };
    job.round('lift-at-tdc', 'intake', [{ shows, at: 0 }], { setting });
    const withWheel = viewOf(job.report(), 'lift-at-tdc');
    expect(withWheel?.delta).toBeCloseTo(-2, 9);
    expect(job.report().verdict).toMatchObject({
      kind: 'move',
      action: 'First make the closing check. Then advance it 2.0°: turn the cam the way it runs.',
    });
    const bare = book();
    bare.entries.push(...job.entries.filter(({ kind }) => kind === 'card.entered'));
    bare.round('lift-at-tdc', 'intake', [{ shows }]);
    const without = viewOf(bare.report(), 'lift-at-tdc');
    expect(without?.delta).toBeCloseTo(-2, 9);
    expect(without?.deltaExpanded ?? 0).toBeGreaterThan(1.5 * (withWheel?.deltaExpanded ?? 0));
    // A degree past TDC on the wheel is carried back to it: the intake gains 0.004 in for it.
    const past = ready();
    const printed = job.entries.find(({ kind }) => kind === 'card.entered')?.body as BodyOf<'card.entered'>;
    past.write('card.entered', {
      ...printed,
      replaces: past.entries.find(({ kind }) => kind === 'card.entered')?.id ?? null,
    });
    past.round('lift-at-tdc', 'intake', [{ shows: { ...shows, lift: inches('0.111') }, at: 1 }], past);
    expect(viewOf(past.report(), 'lift-at-tdc')?.delta).toBeCloseTo(-2, 6);
  });

  test('identity: lobe and valve, the ratio as it is, and another cam', () => {
    const job = book();
    job.write('card.entered', { replaces: null, intake: { lobeLift: inches('0.280'), ratio: 1.5 } });
    const peak = (lift: string, sitsOn: 'lifter' | 'valve' = 'lifter'): string[] =>
      job.round('identity', 'intake', [{ shows: { kind: 'peak-lift', lift: inches(lift) } }], { sitsOn });
    peak('0.279');
    peak('0.410', 'valve');
    expect(viewOf(job.report(), 'lobe-lift')).toMatchObject({ shows: '0.279 in', remark: null });
    expect(viewOf(job.report(), 'valve-lift')?.against).toBe('0.420 in on the card');
    expect(viewOf(job.report(), 'valve-lift')?.remark).toMatch(/0\.010 in less.*deflection, lash or another ratio/);
    expect(viewOf(job.report(), 'ratio')).toMatchObject({ shows: '1.470', against: '1.50 in theory' });
    const worn = book();
    worn.write('card.entered', { replaces: null, intake: { lobeLift: inches('0.280') } });
    worn.round('identity', 'intake', [{ shows: { kind: 'peak-lift', lift: inches('0.262') } }]);
    expect(viewOf(worn.report(), 'lobe-lift')?.remark).toMatch(/0\.018 in less than the card’s: a worn lobe/);
  });

  test('slack: from both directions; a backward reading is kept, marked, and used for nothing else', () => {
    const job = ready();
    job.round('backlash', 'intake', [
      { shows: above('opening', 2.54), at: 20 },
      { shows: above('opening', 2.54), at: 17, approach: 'backward' },
    ]);
    expect(viewOf(job.report(), 'backlash')).toMatchObject({ value: 3, shows: '3.0°' });
    const [, back] = job.round(
      'events',
      'intake',
      [
        { shows: above('opening'), at: -21 },
        { shows: above('opening'), at: -24, approach: 'backward' },
      ],
      job,
    );
    const report = job.report();
    expect(viewOf(report, 'backlash')).toMatchObject({ value: 3, count: 2 });
    expect(report.problems).toMatchObject([{ entries: [back], message: expect.stringMatching(/turning backwards/) }]);
    expect(report.read.open).toMatchObject([{ method: 'events', slot: 1 }]);
    expect(viewOf(report, 'events')).toBeUndefined();
  });

  test('twin cams: each has its own verdict, and the two may stand apart', () => {
    const job = ready();
    const described = job.entries[0]?.body as { engine: object };
    job.write('build.described', {
      ...described,
      replaces: job.entries[0]?.id ?? null,
      engine: { ...described.engine, cams: 'twin' },
    } as never);
    job.round(
      'centreline',
      'exhaust',
      [
        { shows: below('opening'), at: -160 },
        { shows: below('closing'), at: -70 },
      ],
      job,
    );
    expect(job.report().verdict).toMatchObject({
      kind: 'move',
      headline: expect.stringMatching(/^The exhaust cam sits 4\.0° early/),
    });
    expect(job.report().trials[0]?.cams.map(({ cam }) => cam)).toEqual(['exhaust']);
    job.pair(job.setting, 64, 150);
    const { cams, verdict } = job.report().trials[0] ?? {};
    expect(cams?.map(({ cam, verdict: { kind } }) => [cam, kind])).toEqual([
      ['intake', 'leave'],
      ['exhaust', 'move'],
    ]);
    expect(verdict?.action).toMatch(
      /^Intake: .*Then leave it\. Exhaust: First read the pair once more, and make the closing check\. Then retard it 4\.0°/,
    );
    expect(viewOf(job.report(), 'lsa')?.remark).toMatch(/move the two cams against each other/);
  });
});

describe('traces', () => {
  const lobe: Lobe = { peak: 8.382, nose: 107, half: 164, power: 2, lean: 3 };
  const points = (advance = 0, noise = 0): [number, number][] => {
    const random = makeRandom(8);
    return Array.from({ length: 180 }, (_, i): [number, number] => {
      const at = -70 + i * 2;
      return [at, Math.max(0, Math.round((lobeAt(lobe, at + advance).lift + random.normal(noise)) * 100) / 100)];
    });
  };
  const trace = (job: ReturnType<typeof ready>, list: [number, number][], more = {}): string =>
    job.write('trace.recorded', {
      setting: job.setting,
      trial: job.trial,
      cylinder: 1,
      valve: 'intake',
      sitsOn: 'lifter',
      approach: 'forward',
      source: 'file',
      name: 'bench.csv',
      counted: 'from-zero',
      points: list,
      ...more,
    });

  test('gives centreline, events at the card’s height, lean and the curve; the verdict can speak from it', () => {
    const job = ready();
    job.write('target.set', { replaces: null, target: { kind: 'card' }, limit: 1, judgedBy: 'trace' });
    trace(job, points(2, 0.003));
    const report = job.report();
    const nose = flanksAt(lobe, lobe.peak - H);
    const really = ((nose?.opening ?? 0) + (nose?.closing ?? 0)) / 2 - 2;
    const view = viewOf(report, 'trace');
    expect(Math.abs((view?.value ?? 0) - really)).toBeLessThan(view?.expanded ?? 0);
    expect(view?.detail).toMatch(/at 0\.050 in IVO .* IVC /);
    expect(view?.weight).toBeCloseTo(1, 6);
    const lean = report.trials[0]?.traces[0]?.lean ?? [];
    expect((lean.at(-1)?.centre ?? 0) - (lean[0]?.centre ?? 0)).toBeGreaterThan(1.5);
    expect(report.trials[0]?.traces[0]?.figures?.peak).toBeCloseTo(lobe.peak, 1);
  });

  test('a stray point is named and can be left out; a trace nobody has placed gives no verdict', () => {
    const job = ready();
    const list = points();
    list[90] = [list[90]?.[0] ?? 0, (list[90]?.[1] ?? 0) - 0.4];
    const entry = trace(job, list);
    const strays = () => job.report().trials[0]?.traces[0]?.dots.filter(({ stray }) => stray !== null) ?? [];
    expect(strays()).toMatchObject([{ entry, place: 90 }]);
    job.write('trace.points-voided', { trace: entry, points: [90] });
    expect(strays()).toEqual([]);
    expect(job.report().trials[0]?.traces[0]?.dots).toHaveLength(179);
    const loose = ready();
    trace(loose, points(), { counted: 'anyhow' });
    expect(loose.report().verdict.kind).toBe('waiting');
  });

  test('typed point by point it is the same trace; one that does not close is kept and left out', () => {
    const job = ready();
    job.round(
      'trace',
      'intake',
      points()
        .filter((_, i) => i % 2 === 0)
        .map(([at, lift]) => ({ shows: { kind: 'trace-point' as const, lift }, at })),
      job,
    );
    expect(viewOf(job.report(), 'trace')?.value).toBeCloseTo(107, 0);
    const open = ready();
    trace(
      open,
      points().map(([at, lift]): [number, number] => [at, lift + (at > 107 ? 0.09 : 0)]),
    );
    const report = open.report();
    expect(report.problems[0]?.message).toMatch(/does not close/);
    expect(report.verdict.headline).toMatch(/does not hold/);
  });

  // GUM: the stated interval covers the truth 95 times in 100.
  test('with noise the stated interval of a lift at TDC covers the truth', () => {
    const random = makeRandom(55);
    const upright = { ...lobe, lean: 0 };
    const liftAtTdc = Array.from({ length: 8 }, (_, i) => 103.5 + i).map((centreline) => ({
      centreline,
      lift: lobeAt({ ...upright, nose: centreline }, 0).lift,
    }));
    let covered = 0;
    const trials = 300;
    for (let trial = 0; trial < trials; trial += 1) {
      const job = book();
      const setting = job.proved();
      job.write('card.entered', { replaces: null, intake: { centreline: 107, lobeLift: upright.peak, liftAtTdc } });
      const advance = random.within(2.5);
      const tdc = job.report().zero.uncertainty?.standard ?? 0;
      const stood = Math.round(random.within(1) * 4) / 4;
      const lift = lobeAt(upright, stood + random.within(0.125) - random.normal(tdc) + advance).lift;
      const shown = Math.round((lift + random.within(0.0127 / 2)) / 0.0127) * 0.0127;
      job.round('lift-at-tdc', 'intake', [{ shows: { kind: 'tdc-lift', lift: shown }, at: stood }], { setting });
      const view = viewOf(job.report(), 'lift-at-tdc');
      if (Math.abs((view?.delta ?? 0) - advance) <= (view?.deltaExpanded ?? 0)) covered += 1;
    }
    // The card is exact here, and its rounding is in the interval: it covers more.
    expect(covered / trials).toBeGreaterThanOrEqual(0.97);
  });

  // GUM, likewise for a whole trace.
  test('with noise the stated interval of a trace covers the truth', () => {
    const random = makeRandom(77);
    const nose = flanksAt(lobe, lobe.peak - H);
    let covered = 0;
    const trials = 300;
    for (let trial = 0; trial < trials; trial += 1) {
      const job = ready();
      const advance = random.within(4);
      const tdc = random.normal(0.1);
      const list = Array.from({ length: 90 }, (_, i): [number, number] => {
        const at = -70 + i * 4;
        const lift = lobeAt(lobe, at + advance + random.within(0.125)).lift;
        return [at + tdc, Math.max(0, Math.round((lift + random.within(0.00635)) / 0.0127) * 0.0127)];
      });
      trace(job, list);
      const view = viewOf(job.report(), 'trace');
      const own = Math.hypot(view?.budget.find(({ from }) => from === 'the indicator')?.standard ?? 0, 0.1);
      const really = ((nose?.opening ?? 0) + (nose?.closing ?? 0)) / 2 - advance;
      if (Math.abs((view?.value ?? 0) - really) <= 1.96 * own) covered += 1;
    }
    expect(covered / trials).toBeGreaterThanOrEqual(0.93);
    expect(covered / trials).toBeLessThanOrEqual(0.98);
  });
});

test('a cam without a card: its card is written from the measurements, and the cam then sits on it', () => {
  const job = book();
  const setting = job.proved();
  job.pair(setting, 66, 153);
  job.round(
    'events',
    'intake',
    [
      { shows: above('opening'), at: -18.5 },
      { shows: above('closing'), at: 237.5 },
    ],
    { setting },
  );
  job.round('identity', 'intake', [{ shows: { kind: 'peak-lift', lift: 8.38 } }]);
  expect(job.report().verdict.headline).toMatch(/nothing to compare/);
  const card = cardFromMeasured(job.report().trials[0]);
  expect(card).toEqual({
    name: 'As measured',
    intake: { centreline: 109.5, lobeLift: 8.38, timing: [{ height: H, at: 'lobe', opens: 18.5, closes: 57.5 }] },
  });
  job.write('card.entered', { replaces: null, ...(card as Omit<BodyOf<'card.entered'>, 'replaces'>) });
  expect(job.report().verdict).toMatchObject({ kind: 'leave', delta: expect.closeTo(0, 1) });
  expect(cardFromMeasured(book().report().trials[0])).toBeNull();
});

test('one flank only of a method that needs two: said, and what to do', () => {
  const job = ready();
  job.round('events', 'intake', [{ shows: above('opening'), at: -21 }], job);
  expect(job.report().verdict).toMatchObject({
    kind: 'waiting',
    headline: 'No verdict yet: one side of the nose is missing.',
  });
});

describe('what is read next', () => {
  const next = (report: Report, method: 'centreline' | 'events', height: number = H): NextReading =>
    nextReading(report.read, { method, valve: 'intake', cylinder: 1, sitsOn: 'lifter', height }, 'in');

  test('says where to come from, joins the open round, and keeps its height', () => {
    const job = ready();
    expect(next(job.report(), 'centreline').sentence).toMatch(
      /Zero the indicator at peak lift of the intake\. Back up well past, come forward to 0\.050 in before peak/,
    );
    const [opening] = job.round('centreline', 'intake', [{ shows: below('opening', 2), at: 60 }], job);
    const joined = next(job.report(), 'centreline', H);
    expect(joined).toMatchObject({ slot: { flank: 'closing' }, height: 2, short: '0.0787 in after peak' });
    expect(joined.round).not.toBeNull();
    job.write('entry.voided', { voids: opening ?? '' });
    job.round('centreline', 'intake', [{ shows: below('closing'), at: 153 }], job);
    expect(next(job.report(), 'centreline').sentence).toMatch(
      /^The other side: back up well past, come forward to 0\.050/,
    );
  });

  test('a lift at TDC is read the other way round too: zeroed at the top, turned back to the base circle, or on where it must not go back', () => {
    const job = ready();
    const choice = { method: 'lift-at-tdc', valve: 'intake', cylinder: 1, sitsOn: 'lifter', height: null } as const;
    const told = (otherWay: 'back' | 'on') => nextReading(job.report().read, { ...choice, otherWay }, 'in').sentence;
    expect(told('back')).toMatch(/zero the indicator on the intake there\. Turn back until its needle rests/);
    expect(told('on')).toMatch(/Go on, the way it runs, until its needle rests/);
  });

  test('the exhaust comes after the intake; what the engine forbids goes before the rule', () => {
    const job = ready();
    expect(job.report().read.proposal).toMatchObject({ method: 'centreline', valve: 'intake' });
    job.pair(job.setting, 66, 153);
    expect(job.report().read.proposal.valve).toBe('exhaust');
    job.write('target.set', { replaces: null, target: { kind: 'card' }, limit: 1, judgedBy: 'events' });
    expect(job.report().read.proposal).toMatchObject({ method: 'events', why: 'The rule of the shop.' });
    job.stands({ lifter: 'roller', springs: 'none' });
    expect(job.report().read.proposal).toMatchObject({ method: 'opening-only' });
  });
});

describe('intake and exhaust', () => {
  test('that disagree beyond what they can: nothing is moved, both reasons are named, and the check that tells', () => {
    const job = ready();
    job.pair(job.setting, 66, 153);
    job.round(
      'centreline',
      'exhaust',
      [
        { shows: below('opening'), at: -163 },
        { shows: below('closing'), at: -66 },
      ],
      job,
    );
    // The intake is 2.5° late, the exhaust 3.5° early.
    const { verdict, trials } = job.report();
    expect(verdict).toMatchObject({
      kind: 'do-not-move',
      headline: expect.stringMatching(
        /most likely the wheel or the pointer moved by \d\.\d°, before the reading “exhaust/,
      ),
      action: expect.stringMatching(
        /stop contacts are still equal.*the lobes are ground \d\.\d° of the cam further apart/,
      ),
    });
    expect(trials[0]?.faults[0]?.fault).toBe('wheel-slipped');
    // The contacts are found equal again: then the wheel has not moved, and the cam is ground so.
    job.pass(job.setting, -23.75, 23.75);
    const proved = job.report().trials[0]?.faults.map(({ fault }) => fault);
    expect(proved).toContain('lsa-off');
    expect(proved).not.toContain('wheel-slipped');
  });
});

describe('what cannot be an entry is refused with the field', () => {
  const parse = (kind: string, body: object): string => {
    const parsed = entrySchema.safeParse({
      id: id(),
      buildId: BUILD,
      takenAt: '2026-03-14T09:26:53Z',
      builderId: id(),
      kind,
      body,
    });
    return parsed.success
      ? 'kept'
      : parsed.error.issues.map(({ path, message }) => `${path.join('.')}: ${message}`).join('; ');
  };
  test.each<[string, object, RegExp]>([
    ['a negative lift', { intake: { lobeLift: -3 } }, /intake\.lobeLift: the lobe lift must be more than 0/],
    ['a ratio of 0.2', { intake: { ratio: 0.2 } }, /intake\.ratio: the ratio must lie between 0\.5 and 3/],
    ['a centreline of 700', { exhaust: { centreline: 700 } }, /the exhaust centreline must lie between 1 and 179/],
    ['nothing at all', {}, /no figures/],
    ['a height twice', { intake: { timing: [line(21, 55), line(20, 56)] } }, /stands twice/],
    ['events and duration that disagree', { intake: { timing: [{ ...line(21, 55), duration: 270 }] } }, /^kept$/],
  ])('card: %s', (_what, body, words) => expect(parse('card.entered', { replaces: null, ...body })).toMatch(words));

  test('a reading that needs a wheel has one', () => {
    const body = {
      setting: null,
      trial: id(),
      round: id(),
      cylinder: 1,
      valve: 'intake',
      sitsOn: 'lifter',
      shows: above('opening'),
      approach: 'forward',
      wheel: null,
    };
    expect(parse('reading.taken', body)).toMatch(/wheel: this reading needs what stood under the pointer/);
    expect(parse('reading.taken', { ...body, wheel: readingAt({ ring: '0-180' }, -21) })).toBe('kept');
    expect(parse('reading.taken', { ...body, shows: { kind: 'peak-lift', lift: 8 } })).toBe('kept');
  });
});
