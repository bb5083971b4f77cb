import { inches } from '../units/length';
import { book, id as freshId } from '../testing/book';
import { readingAt } from '../crank/wheel';
import type { BodyOf } from '../record/entry';

/**
 * Jobs that were once judged too surely, each of a structure of its own with figures of our own. What must be said: common practice, no source.
 */
const H = inches('0.050');
const opensAt = (lift = H) => ({ kind: 'above-base' as const, flank: 'opening' as const, lift });
const closesAt = (lift = H) => ({ kind: 'above-base' as const, flank: 'closing' as const, lift });

type Card = BodyOf<'card.entered'>;

function ready(card: Card | null, contacts: readonly [number, number] = [-27, 27]) {
  const job = book({ ring: '0-180' });
  job.pass(null, -25.5, 28.5);
  const setting = job.set();
  job.pass(setting, ...contacts);
  if (card) job.write('card.entered', card);
  const events = (valve: 'intake' | 'exhaust', opening: number, closing: number): void => {
    const readings = [
      { shows: opensAt(), at: opening },
      { shows: closesAt(), at: closing },
    ];
    job.round('events', valve, readings, { setting });
  };
  return { ...job, setting, events, drops: (opening: number, closing: number) => job.pair(setting, opening, closing) };
}

const EVENTS: Card = {
  replaces: null,
  intake: { centreline: 109, lobeLift: 8.1, timing: [{ height: H, at: 'lobe', opens: 14, closes: 52 }] },
};

describe('what a printed centreline means', () => {
  test('events as printed, the middle of an equal drop 1½° before: on the target, nobody turned backwards', () => {
    const job = ready(EVENTS);
    job.events('intake', -14, 232);
    job.drops(65.5, 149.5);
    const { verdict, trials } = job.report();
    expect(verdict).toMatchObject({ kind: 'leave', delta: expect.closeTo(0, 0) });
    expect(trials[0]?.faults).toEqual([]);
  });

  test('an equal drop against a card of centres stays decisive; that the card may count by events stands beside it', () => {
    const job = ready({ replaces: null, intake: { centreline: 109, lobeLift: 8.1 } });
    job.drops(64.5, 149);
    const { verdict } = job.report();
    expect(verdict).toMatchObject({ kind: 'move', delta: expect.closeTo(2.25, 1) });
    expect(verdict.expanded ?? 9).toBeLessThan(0.9);
    expect(verdict.beside.join(' ')).toMatch(/counts its centreline by the events.*opening and closing, read once/);
  });

  test('said on the card, it is believed: counted by events, the same drop weighs with the lean that it may have', () => {
    const card: Card = { replaces: null, centrelineMeans: 'events', intake: { centreline: 109, lobeLift: 8.1 } };
    const unsaid = ready({ ...card, centrelineMeans: undefined });
    const said = ready(card);
    for (const job of [unsaid, said]) job.drops(64.5, 149);
    expect(said.report().verdict.expanded ?? 0).toBeGreaterThan(2 * (unsaid.report().verdict.expanded ?? 9));
    expect(said.report().verdict.beside.join(' ')).not.toMatch(/counts its centreline/);
  });
});

describe('how finely people read', () => {
  test('halves typed throughout: ± of half degrees, and a repeat a half degree away accuses nobody', () => {
    const job = ready(EVENTS);
    job.events('intake', -20.5, 225);
    job.events('intake', -20, 225.5);
    job.drops(60.5, 145);
    job.drops(60, 145.5);
    const { verdict, trials } = job.report();
    expect(trials[0]?.faults).toEqual([]);
    expect(verdict).toMatchObject({ kind: 'move', delta: expect.closeTo(6.4, 0) });
  });

  test('whole degrees know less than quarters', () => {
    const [whole, quarters] = [ready(EVENTS), ready(EVENTS, [-27.25, 27.25])];
    whole.events('intake', -14, 232);
    quarters.events('intake', -14.25, 231.75);
    // 25.5 and 28.5 were typed first: halves at the best.
    expect(quarters.report().verdict.expanded ?? 9).toBeLessThan(whole.report().verdict.expanded ?? 0);
  });

  test('sides that differ by what a pin offset and half degrees make of them prove TDC', () => {
    const job = book();
    job.write('build.described', {
      replaces: job.entries[0]?.id ?? null,
      name: 'Offset four',
      engine: { cylinders: 4, firingOrder: [1, 3, 4, 2], rotation: 'clockwise', stroke: 81, rod: 138, pinOffset: -0.9 },
      wheel: { ring: '0-180' },
      units: 'mm',
    });
    job.pass(null, -30, 33);
    const setting = job.set();
    job.pass(setting, -31.5, 32);
    expect(job.report().zero.state).toBe('proved');
  });

  test('two proofs that happen to lie apart do not make a rough zero', () => {
    const job = book();
    job.pass(null, -30, 33);
    const setting = job.set();
    job.pass(setting, -31.75, 31.5);
    job.pass(setting, -31.25, 31.75);
    const { zero } = job.report();
    expect(zero.state).toBe('proved');
    expect(zero.uncertainty?.expanded ?? 9).toBeLessThan(0.5);
  });
});

describe('repeats, lifters and units', () => {
  test('a wheel that slipped 5° between repeats is spoken of, and not averaged away', () => {
    const job = ready(EVENTS);
    job.events('intake', -14, 232);
    job.drops(67, 151);
    job.events('intake', -9, 237);
    job.drops(72, 156);
    const { verdict, trials } = job.report();
    expect(verdict.kind).toBe('do-not-move');
    expect(trials[0]?.faults[0]?.fault).toBe('wheel-slipped');
  });

  test('both lifts in the other unit: units, not another cam', () => {
    const job = ready({
      replaces: null,
      intake: { centreline: 109, lobeLift: 8.1 },
      exhaust: { centreline: 113, lobeLift: 7.9 },
    });
    for (const [valve, lift] of [
      ['intake', 0.319],
      ['exhaust', 0.311],
    ] as const)
      job.round('identity', valve, [{ shows: { kind: 'peak-lift', lift } }], { setting: null });
    job.drops(67, 151);
    expect(job.report().trials[0]?.faults[0]?.fault).toBe('units');
  });

  test('without its own lifts a card says next to nothing of a lift at TDC: no accusation rests on one', () => {
    for (const lift of [1.6, 2.6]) {
      const other = ready({
        replaces: null,
        intake: { lobeLift: 8.1, timing: [{ height: H, at: 'lobe', opens: 14, closes: 52 }] },
      });
      other.round('opening-only', 'intake', [{ shows: opensAt(), at: -14 }], { setting: other.setting });
      other.round('lift-at-tdc', 'intake', [{ shows: { kind: 'tdc-lift', lift }, at: 0 }], { setting: other.setting });
      expect(other.report().trials[0]?.faults).toEqual([]);
    }
  });

  test('no card, a centreline wanted, everything read: it comes to a place and not to 140°', () => {
    const job = ready(null);
    job.write('target.set', { replaces: null, target: { kind: 'centreline', centreline: 108.5 }, limit: 1 });
    job.drops(66, 150);
    job.events('intake', -16, 234);
    job.round('lift-at-tdc', 'intake', [{ shows: { kind: 'tdc-lift', lift: 2.3 }, at: 0 }], { setting: job.setting });
    const { verdict, trials } = job.report();
    expect(Math.abs(verdict.delta ?? 99)).toBeLessThan(1.5);
    expect(trials[0]?.faults).toEqual([]);
  });
});

describe('the same height gives the same arc', () => {
  const withDrop = (passes: readonly (readonly [number, number, number])[]) => {
    const job = book({ ring: '0-180' });
    const zero = job.write('zero.begun', { after: null, method: 'equal-drop', cylinder: 1 });
    for (const [indicator, before, after] of passes) {
      const pass = freshId();
      for (const [side, at] of [
        ['before', before],
        ['after', after],
      ] as const)
        job.write('zero.reading', {
          zero,
          setting: null,
          pass,
          side,
          indicator,
          wheel: readingAt({ ring: '0-180' }, at),
        });
    }
    return job.report().zero;
  };

  test.each([
    // 88.392 mm of stroke and a rod of 144.78 mm stand 2 mm down at 15.1° either side (slider-crank, worked by hand).
    ['as wide as stroke and rod make it, read to half degrees', [[2, -16, 14.5]], null],
    ['three times as wide as its drop', [[2, -45, 46]], /a drop of 0\.0787 in is 30\.3° wide; this pass is 91\.0°/],
    [
      'the second pass 3° wider at the same figure',
      [
        [2, -15, 15],
        [2, -16.5, 16.5],
      ],
      /were 30\.0° and 33\.0° wide: they were not at one height/,
    ],
    [
      'at another figure it may be',
      [
        [2, -15, 15],
        [3, -18.5, 18.5],
      ],
      null,
    ],
  ] as const)('%s', (_what, passes, odd) => {
    const { odd: said } = withDrop(passes);
    if (odd) expect(said).toMatch(odd);
    else expect(said).toBeNull();
  });

  test('a stop that moved between two proofs; one that was put elsewhere after finding is no fault', () => {
    const moved = ready(null, [-27, 27]);
    expect(moved.report().zero.odd).toBeNull();
    moved.pass(moved.setting, -40, 40);
    expect(moved.report().zero.odd).toMatch(/stop were 54\.0° and 80\.0° wide/);
    const elsewhere = ready(null, [-40, 40]);
    expect(elsewhere.report().zero).toMatchObject({ state: 'proved', odd: null });
  });
});

test('a healthy pair that is off is moved only after it was read once more and the closing check was made', () => {
  const job = ready({ replaces: null, intake: { centreline: 109, lobeLift: 8.1 } });
  job.drops(64.5, 149);
  expect(job.report().verdict.action).toMatch(
    /^First read the pair once more, and make the closing check\. Then retard it/,
  );
  job.drops(64.5, 149);
  expect(job.report().verdict.action).toMatch(/^First make the closing check\. Then retard it/);
  job.write('zero.reading', {
    zero: job.zero,
    setting: job.setting,
    pass: freshId(),
    side: 'before',
    wheel: readingAt({ ring: '0-180' }, -27),
    closing: true,
  });
  const report = job.report();
  expect(report.verdict.action).toMatch(/^Retard it 2\.\d°/);
  // One contact more proves nothing anew, and takes no proof away; one of a proof that is made again waits for its other side.
  expect(report.zero.state).toBe('proved');
  expect(report.stations.find(({ station }) => station === 'zero')?.state).toBe('done');
  const again = { zero: job.zero, setting: job.setting, pass: freshId(), side: 'before' } as const;
  job.write('zero.reading', { ...again, wheel: readingAt({ ring: '0-180' }, -27) });
  expect(job.report().zero).toMatchObject({ state: 'set', step: { does: 'read', side: 'after' } });
});
