import Ajv2020 from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { book, id } from '../testing/book';
import { type WheelRing, readingAt } from '../crank/wheel';
import { type Entry, ENTRY_KINDS, entrySchema } from '../record/entry';
import { writeBuildFile } from '../record/file';
import { readBuildFile } from '../record/read-file';
import { jsonSchemas } from './json-schemas';
import { type Report, derive } from './report';
import { reportSchema } from './report-schema';

const ROOT = path.resolve(__dirname, '../../../..');
const COMMAND = path.join(ROOT, 'packages/core/bin/report.ts');
const rowsOf = (report: Report, title: string) => report.sheet.find((section) => section.title === title)?.rows ?? [];

describe('from stop to verdict', () => {
  test('a whole job: found, set, proved, measured, judged', () => {
    const job = book();
    expect(job.report().zero).toMatchObject({ state: 'open', step: { does: 'read', side: 'before' } });
    const first = id();
    job.contact(null, first, 'before', -21);
    expect(job.report().zero).toMatchObject({ step: { does: 'read', side: 'after', pass: first } });
    job.contact(null, first, 'after', 26.5);
    expect(job.report().zero).toMatchObject({
      state: 'found',
      step: { does: 'set' },
      sentence: 'Slip the wheel 2¾° counter-clockwise, against the way it runs.',
      // 23.75° of that crank is 0.191 in below the top (Heywood ch. 2).
      remark: 'The piston stood 0.191 in below the top.',
    });
    const setting = job.set();
    expect(job.report().zero).toMatchObject({ state: 'set', step: { does: 'read', setting } });
    job.pass(setting, -23.75, 23.75);
    expect(job.report()).toMatchObject({ zero: { state: 'proved' }, verdict: { kind: 'waiting' } });
    job.card();
    // Worked value, common practice, no source: 66 and 153 against 107 is 2.5° late.
    job.pair(setting, 66, 153);
    const { verdict, stations, trials } = job.report();
    expect(verdict).toMatchObject({
      kind: 'move',
      delta: -2.5,
      move: 2.5,
      headline: 'The cam sits 2.5° late, retarded, ±0.6°.',
    });
    expect(trials[0]?.views[0]).toMatchObject({ value: 109.5, spread: 0, count: 1, against: 'ICL 107°' });
    expect(stations.map(({ state }) => state)).toEqual([
      ...['due', 'done', 'done', 'done', 'begun'],
      ...['due', 'due', 'due', 'due', 'due'],
    ]);
  });

  test('a proof that is a little off corrects every reading by what it found', () => {
    const job = book();
    job.pass(null, -21, 26.5);
    const setting = job.set();
    job.pass(setting, -23.5, 24);
    job.card();
    job.pair(setting, 66, 153);
    expect(job.report().zero.remark).toContain('¼° after; every reading is corrected');
    expect(job.report().verdict.delta).toBeCloseTo(-2.25, 9);
  });

  test('a proof beyond the limit fails, says how far, and a later failure voids what leaned on it', () => {
    const job = book();
    const setting = job.proved();
    job.card();
    job.pair(setting, 66, 153);
    expect(job.report().verdict.kind).toBe('move');
    job.pass(setting, -23, 24.5);
    const report = job.report();
    expect(report.zero).toMatchObject({ state: 'failed', step: { does: 'set', after: setting } });
    expect(report.zero.sentence).toMatch(/^Not proved: the sides differ by 1\.5°, the limit is ½°\. Slip the wheel ¾°/);
    expect(report.verdict).toMatchObject({ kind: 'do-not-move', move: 0 });
    expect(report.stations.slice(0, 5).map(({ state }) => state)).toEqual(['due', 'void', 'done', 'void', 'begun']);
    expect(rowsOf(report, 'Trial 1')[0]).toMatchObject({
      standing: 'aside',
      note: expect.stringMatching(/later proof.*failed/),
    });
  });

  test('a new trial starts from nothing; the old one stays as history', () => {
    const job = book();
    const setting = job.proved();
    job.card();
    job.pair(setting, 66, 153);
    const second = job.write('trial.begun', { after: job.trial, note: 'keyway +2' });
    expect(job.report().verdict.kind).toBe('waiting');
    job.pair(setting, 63.75, 151, { trial: second });
    expect(job.report().verdict).toMatchObject({ kind: 'leave', delta: -0.375 });
    expect(job.report().trials[0]?.verdict).toMatchObject({ kind: 'move', delta: -2.5 });
  });

  test('repeats are averaged; of quarrelling ones it is said that something moved between them', () => {
    const job = book();
    const setting = job.proved();
    job.card();
    job.pair(setting, 66, 153);
    job.pair(setting, 66, 154);
    expect(job.report().trials[0]?.views[0]).toMatchObject({ value: 109.75, spread: 0.5, count: 2 });
    job.pair(setting, 69, 156);
    expect(job.report().verdict).toMatchObject({
      kind: 'do-not-move',
      headline: expect.stringMatching(/the wheel or the pointer moved by/),
    });
  });
});

describe('the same engine gives the same answer', () => {
  const rings: WheelRing[] = [
    { ring: '0-360', sense: 'rising' },
    { ring: '0-360', sense: 'falling' },
    { ring: '0-180' },
    { ring: '0-90' },
  ];
  test('on every ring, from any mounting of the wheel, in any order of arrival', () =>
    fc.assert(
      fc.property(
        fc.constantFrom(...rings),
        fc.integer({ min: 0, max: 1439 }),
        fc.integer({ min: 20, max: 300 }),
        fc.integer({ min: 380, max: 480 }),
        fc.integer({ min: 60, max: 320 }),
        fc.integer(),
        (ring, mountQuarters, halfQuarters, centreQuarters, noseQuarters, seed) => {
          const [mount, half, centre, nose] = [mountQuarters, halfQuarters, centreQuarters, noseQuarters].map(
            (quarters) => quarters / 4,
          ) as [number, number, number, number];
          const job = book(ring);
          job.pass(null, mount - half, mount + half);
          const setting = job.set();
          job.pass(setting, -half, half);
          job.card(110);
          job.pair(setting, centre - nose / 2, centre + nose / 2);
          const report = job.report();
          expect(report.zero.state).toBe('proved');
          expect(report.trials[0]?.views[0]?.value).toBeCloseTo(centre, 9);
          expect(report.verdict.delta).toBeCloseTo(110 - centre, 2);

          const shuffled = [...job.entries].sort((a, b) => hash(a.id, seed) - hash(b.id, seed));
          expect(derive(shuffled)?.verdict).toEqual(report.verdict);
        },
      ),
      { numRuns: 60 },
    ));

  const hash = (text: string, seed: number): number =>
    [...text].reduce((sum, sign) => (sum * 31 + sign.charCodeAt(0)) | 0, seed);
});

describe('a zero that no longer holds', () => {
  const disturb = (
    job: ReturnType<typeof book>,
    setting: string,
    what: 'wheel' | 'pointer' | 'fixing' | 'with-drive',
    keeps: string[] = [],
  ) => job.write('zero.disturbed', { setting, what, keeps });

  test('is void, marks what leaned on it, and leads back; what was read before stands', () => {
    const job = book();
    const setting = job.proved();
    job.card();
    const round = id();
    const kept = [job.reading(setting, round, 'opening', 66), job.reading(setting, round, 'closing', 153)];
    job.pair(setting, 67, 154);
    disturb(job, setting, 'wheel', kept);
    const report = job.report();
    expect(report.zero).toMatchObject({ state: 'void', step: { does: 'begin' } });
    expect(report.zero.sentence).toMatch(/no longer valid: the wheel was disturbed/);
    expect(report.trials[0]?.rounds.map(({ zeroProved }) => zeroProved)).toEqual([true, false]);
    // Only the pair from before counts: 2.5° late.
    expect(report.verdict).toMatchObject({ kind: 'move', delta: -2.5 });
    expect(
      rowsOf(report, 'Trial 1')
        .slice(0, 4)
        .map(({ standing }) => standing),
    ).toEqual(['counts', 'counts', 'aside', 'aside']);
  });

  test('readings can be re-based by what the new zero shows, openly, when only the wheel had moved', () => {
    const job = book();
    const setting = job.proved();
    job.card();
    // The wheel slips 1.5° against the way it runs before these are read: 66 and 153 show as 64.5 and 151.5.
    job.pair(setting, 64.5, 151.5);
    disturb(job, setting, 'wheel');
    const zero = job.write('zero.begun', { after: job.zero, method: 'positive-stop', cylinder: 1 });
    const passOf = (at: string | null, before: number, after: number): void => {
      const pass = id();
      for (const [side, where] of [
        ['before', before],
        ['after', after],
      ] as const)
        job.write('zero.reading', { zero, setting: at, pass, side, wheel: readingAt({ ring: '0-180' }, where) });
    };
    passOf(null, -25.25, 22.25);
    const again = job.write('zero.set', { zero, after: null, moved: 'wheel' });
    expect(job.report().zero.rebase).toBeNull();
    passOf(again, -23.75, 23.75);
    const offer = job.report().zero.rebase;
    expect(offer).toMatchObject({ from: setting, to: again, by: -1.5 });
    expect(job.report().verdict.kind).toBe('do-not-move');
    if (offer) job.write('readings.rebased', offer);
    const report = job.report();
    expect(report.verdict).toMatchObject({ kind: 'move', delta: -2.5 });
    expect(report.zero.rebase).toBeNull();
    expect(rowsOf(report, 'Trial 1').at(-2)?.note).toMatch(/re-based by −1\.50°/);
    disturb(job, again, 'with-drive');
    expect(job.report()).toMatchObject({ zero: { state: 'void' }, verdict: { kind: 'move', delta: -2.5 } });
  });

  test.each(['pointer', 'fixing'] as const)('nothing is offered when the %s was disturbed', (what) => {
    const job = book();
    const setting = job.proved();
    job.pair(setting, 64.5, 151.5);
    disturb(job, setting, what);
    expect(job.report().zero).toMatchObject({ state: 'void', rebase: null });
  });
});

describe('every method in the logbook', () => {
  const RIM: WheelRing = { ring: 'rim', round: Math.PI * 180, unit: 'mm' };

  test('rim marks: the mark is made half-way, proved with the tape, and the cam is read from it', () => {
    const job = book();
    const zero = job.write('zero.begun', { after: job.zero, method: 'rim-marks', cylinder: 1, ring: RIM });
    const read = (setting: string | null, pass: string, side: 'before' | 'after', at: number): string =>
      job.write('zero.reading', { zero, setting, pass, side, wheel: readingAt(RIM, at) });
    const first = id();
    read(null, first, 'before', 0);
    expect(job.report().zero.sentence).toMatch(/second mark at the pointer/);
    read(null, first, 'after', 70);
    // Worked value, common practice, no source: first 0, other 70, TDC at 35; 35° of a 180 mm rim is 54.98 mm.
    expect(job.report().zero.sentence).toBe(
      'Make the TDC mark half-way between the two: 54.98 mm along the rim from the first, against the way it runs.',
    );
    const setting = job.write('zero.set', { zero, after: null, moved: 'mark' });
    const proof = id();
    read(setting, proof, 'before', -35);
    read(setting, proof, 'after', 35.2);
    expect(job.report().zero).toMatchObject({ state: 'proved', ring: { ring: 'rim' } });
  });

  test('a soft stop agrees with itself and is still no zero to set a cam by', () => {
    const job = book();
    const zero = job.write('zero.begun', { after: job.zero, method: 'soft-stop', cylinder: 1 });
    const pass = (setting: string | null): void => {
      const passId = id();
      for (const [side, at] of [
        ['before', -14],
        ['after', 14],
      ] as const)
        job.write('zero.reading', { zero, setting, pass: passId, side, wheel: readingAt({ ring: '0-180' }, at) });
    };
    pass(null);
    const setting = job.write('zero.set', { zero, after: null, moved: 'nothing' });
    pass(setting);
    job.card();
    job.pair(setting, 66, 153);
    const report = job.report();
    expect(report.zero.state).toBe('rough');
    expect(report.zero.uncertainty?.expanded).toBeGreaterThan(1);
    expect(report.verdict.kind).toBe('do-not-move');
  });

  test('equal drop: different drops, a drop beyond the stroke, and exchanged readings are kept and named', () => {
    const job = book();
    const zero = job.write('zero.begun', { after: job.zero, method: 'equal-drop', cylinder: 1 });
    const pass = (before: number, after: number, drops: readonly [number, number]): void => {
      const passId = id();
      const wheel = (at: number) => readingAt({ ring: '0-180' }, at);
      job.write('zero.reading', {
        zero,
        setting: null,
        pass: passId,
        side: 'before',
        indicator: drops[0],
        wheel: wheel(before),
      });
      job.write('zero.reading', {
        zero,
        setting: null,
        pass: passId,
        side: 'after',
        indicator: drops[1],
        wheel: wheel(after),
      });
    };
    pass(-12, 12, [1.27, 2]);
    pass(-12, 12, [100, 100]);
    pass(12, -12, [1.27, 1.27]);
    expect(job.report().problems.map(({ message }) => message)).toEqual([
      expect.stringMatching(/different figures/),
      expect.stringMatching(/whole stroke/),
      expect.stringMatching(/more than 170/),
    ]);
    expect(job.report().zero.passes.at(-1)).toMatchObject({ exchanged: true });
    pass(-10, 14, [1.27, 1.27]);
    expect(job.report().zero).toMatchObject({ state: 'found', result: { tdc: 2 } });
  });

  test('first stop: its bias is computed, shown and taken off', () => {
    const job = book();
    const zero = job.write('zero.begun', { after: job.zero, method: 'first-stop', cylinder: 1 });
    job.write('zero.reading', {
      zero,
      setting: null,
      pass: id(),
      side: 'before',
      wheel: readingAt({ ring: '0-180' }, 5),
    });
    const { zero: found } = job.report();
    // Two thirds of 1.2°: 0.0005 in on that crank (design value, no outside source).
    expect(found.result?.tdc).toBeCloseTo(5.8, 1);
    expect(found.remark).toMatch(/stops 0\.80° before TDC on average/);
    expect(found.correction?.ways.at(-1)?.text).toMatch(
      /where the indicator just stopped, and set the wheel to 0\.8° before/,
    );
  });

  test('repeated passes are averaged, also about the far side of the ring', () => {
    const job = book({ ring: '0-360', sense: 'rising' });
    job.pass(null, 160, 199);
    job.pass(null, 160.5, 200.5);
    expect(job.report().zero.result?.tdc).toBeCloseTo(-180, 9);
    expect(job.report().zero.remark).toMatch(/mean of 2 passes, 1\.00° from the least/);
    const close = book({ ring: '0-360', sense: 'rising' });
    close.pass(null, 160, 200);
    close.pass(null, 160, 199.75);
    expect(close.report().zero.uncertainty).toMatchObject({ spread: expect.closeTo(0.0884, 4) });
    expect(close.report().zero.uncertainty?.expanded).toBeLessThan(0.5);
  });
});

describe('prepare and the crank', () => {
  const stated = {
    replaces: null,
    head: 'off',
    plugHole: true,
    wheel: true,
    indicator: true,
    lifter: 'hydraulic',
    drive: 'chain',
  } as const;

  test('the checks are those that the engine calls for, done or skipped with a reason', () => {
    const job = book();
    expect(job.report().prepare.checks).toEqual([]);
    job.write('engine.as-it-stands', stated);
    const names = job.report().prepare.checks.map(({ check }) => check);
    expect(names).toEqual(expect.arrayContaining(['made-safe', 'lifter-solid', 'one-way-tensioner']));
    expect(names).not.toContain('roller-follows');
    job.write('end-play.measured', { replaces: null, thrust: 'plate', play: 0.1016 });
    for (const check of names)
      if (check !== 'end-play')
        job.write('prepare.checked', {
          replaces: null,
          check,
          result: check === 'straight-up' ? 'skipped' : 'done',
          ...(check === 'straight-up' ? { reason: 'gears only' } : {}),
        });
    const report = job.report();
    expect(report.stations[0]).toEqual({ station: 'prepare', state: 'done' });
    // Common practice, no source: 0.004 to 0.005 in with a thrust plate.
    expect(report.prepare.endPlay).toMatchObject({
      state: 'inside',
      words: expect.stringMatching(/0\.004 in is inside/),
    });
    expect(
      entrySchema.safeParse({ ...job.entries.at(-1), body: { replaces: null, check: 'made-safe', result: 'skipped' } })
        .success,
    ).toBe(false);
  });

  test('which TDC, and the engine’s own mark', () => {
    const job = book();
    job.write('tdc.identified', { replaces: null, looked: 'companion', seen: 'rocking' });
    job.write('mark.checked', {
      replaces: null,
      part: 'balancer',
      round: Math.PI * 180,
      distance: Math.PI,
      stands: 'after',
    });
    const { crank } = job.report();
    expect(crank.identified).toMatchObject({ stands: 'firing', words: expect.stringMatching(/cylinder 6 rock/) });
    expect(crank.mark?.words).toMatch(/2\.0° too early.*2\.0° more advanced than it reads/);
    expect(crank.mark?.cure).toMatch(/0\.124 in along the rim from the old one, against the way it runs/);
    expect(crank.cylinders[1]).toMatchObject({ cylinder: 5, after: 120, shows: '120° after' });
  });
});

describe('kept, named, and left out', () => {
  test('contacts exchanged: the pass is named and can be undone', () => {
    const job = book();
    job.pass(null, 26.5, -21);
    const report = job.report();
    expect(report.problems[0]?.remedy).toMatch(/exchanged/);
    expect(report.zero).toMatchObject({ state: 'open', step: { does: 'read', pass: null } });
    expect(rowsOf(report, 'Zero').map(({ standing }) => standing)).toEqual(['card', 'aside', 'aside']);
  });

  test.each([
    ['drop over the lobe lift', { drop: 8.382 }, /not less than the whole lobe lift, 0\.330 in/],
    ['read backwards', { approach: 'backward' }, /turning backwards/],
  ] as const)('%s', (_what, more, words) => {
    const job = book();
    const setting = job.proved();
    job.card();
    job.pair(setting, 66, 153, more);
    const report = job.report();
    expect(report.problems[0]?.message).toMatch(words);
    expect(report.verdict.kind).toBe('waiting');
    expect(rowsOf(report, 'Trial 1').every(({ standing }) => standing === 'aside')).toBe(true);
  });

  test('one side read twice, different drops, exchanged sides, a wheel set in between', () => {
    const job = book();
    const setting = job.proved();
    job.card();
    const twice = id();
    job.reading(setting, twice, 'opening', 66);
    job.reading(setting, twice, 'opening', 67);
    const drops = id();
    job.reading(setting, drops, 'opening', 66);
    job.reading(setting, drops, 'closing', 153, { drop: 1 });
    job.pair(setting, 153, 66);
    const between = id();
    job.reading(null, between, 'opening', 66);
    job.reading(setting, between, 'closing', 153);
    const messages = job.report().problems.map(({ message }) => message);
    expect(messages).toEqual([
      expect.stringMatching(/twice/),
      expect.stringMatching(/different drops/),
      expect.stringMatching(/wider than any nose/),
      expect.stringMatching(/set anew/),
    ]);
    // A good pair still counts beside them.
    job.pair(setting, 66, 153);
    expect(job.report().verdict).toMatchObject({ kind: 'move', delta: -2.5 });
  });

  test('without a proved zero there is a figure but no move', () => {
    const job = book();
    job.card();
    job.pair(null, 66, 153);
    expect(job.report().verdict).toMatchObject({ kind: 'do-not-move', delta: -2.5, move: 0 });
  });

  test('without a card there is nothing to compare with, unless a target is set', () => {
    const job = book();
    const setting = job.proved();
    job.pair(setting, 66, 153);
    expect(job.report().verdict).toMatchObject({
      kind: 'waiting',
      headline: expect.stringMatching(/nothing to compare/),
    });
    job.write('target.set', { replaces: null, target: { kind: 'centreline', centreline: 109 }, limit: 0.5 });
    expect(job.report().verdict).toMatchObject({ kind: 'leave', delta: -0.5 });
  });

  test('a void takes a reading out; a void of the void brings it back; the sheet shows it struck through', () => {
    const job = book();
    const setting = job.proved();
    job.card();
    const round = id();
    job.reading(setting, round, 'opening', 66);
    const wrong = job.reading(setting, round, 'closing', 163);
    const undo = job.write('entry.voided', { voids: wrong, reason: 'misread' });
    expect(job.report().read.open).toMatchObject([{ method: 'centreline', slot: 1, round }]);
    expect(rowsOf(job.report(), 'Trial 1')[1]).toMatchObject({ standing: 'voided', note: 'misread' });
    job.write('entry.voided', { voids: undo });
    expect(job.report().trials[0]?.views[0]?.value).toBe(114.5);
  });

  test('what leans on an undone entry is unlinked, not lost; rings of links make nothing vanish', () => {
    const job = book();
    const setting = job.proved();
    job.card();
    job.pair(setting, 66, 153);
    job.write('entry.voided', { voids: job.trial });
    expect(job.report().problems).toHaveLength(2);
    const [a, b] = [id(), id()];
    for (const [from, to] of [
      [a, b],
      [b, a],
    ])
      job.entries.push({
        ...(job.entries[1] as Entry),
        id: from,
        kind: 'trial.begun',
        body: { after: to ?? null },
      } as Entry);
    expect(job.report().trials).toHaveLength(2);
  });

  test('corrections replace; two devices correcting at once agree on one', () => {
    const job = book();
    const first = job.card(107);
    const left = job.write('card.entered', { replaces: first, intake: { centreline: 108 } });
    const right = job.write('card.entered', { replaces: first, intake: { centreline: 109 } });
    expect(left < right).toBe(true);
    expect(job.report().card.intakeCentreline).toBe(109);
    expect(derive([...job.entries].reverse())?.card.intakeCentreline).toBe(109);
  });
});

describe('the open file', () => {
  const example = path.join(ROOT, 'docs/example.yosoku.json');
  const text = readFileSync(example, 'utf8');
  /** The first reading of the wheel made one that its ring has not. */
  const with361 = text.replace(/"shows": \d+(\.\d+)?/, '"shows": 361');

  test('is read, written and read again without change', () => {
    const read = readBuildFile(text);
    if (!read.ok) throw new Error(read.message);
    const written = writeBuildFile(read.file.entries, read.file.builders ?? []);
    expect(JSON.parse(written)).toEqual(JSON.parse(text));
    expect(readBuildFile(written)).toEqual(read);
    expect(derive(read.file.entries)?.verdict.headline).toBe('The cam sits 2.5° late, retarded, ±0.6°.');
  });

  test('its published schemas are the present ones, and an independent validator agrees with them', () => {
    const ajv = addFormats(new Ajv2020({ strict: false }));
    for (const [name, schema] of Object.entries(jsonSchemas()))
      expect(JSON.parse(readFileSync(path.join(ROOT, 'docs', name), 'utf8'))).toEqual(
        JSON.parse(JSON.stringify(schema)),
      );
    const schemas = jsonSchemas();
    const isFile = ajv.compile(schemas['yosoku-build.schema.json'] as object);
    expect(isFile(JSON.parse(text)) || isFile.errors).toBe(true);
    expect(isFile(JSON.parse(text.replace('"forward"', '"sideways"')))).toBe(false);
    const isReport = ajv.compile(schemas['yosoku-report.schema.json'] as object);
    const read = readBuildFile(text);
    expect((read.ok && isReport(derive(read.file.entries))) || isReport.errors).toBe(true);
  });

  const spoil = (change: (file: { version: unknown; entries: Record<string, unknown>[] }) => void): string => {
    const file = JSON.parse(text);
    change(file);
    return JSON.stringify(file);
  };
  test.each<[string, string, string, RegExp]>([
    ['no JSON', 'plain words', '', /not JSON/],
    ['another version', spoil((file) => (file.version = 2)), 'version', /version 1/],
    [
      'an unknown kind',
      spoil(({ entries }) => (entries[1]!.kind = 'valve.bent')),
      'entries[1].kind',
      /unknown kind.*zero\.begun/,
    ],
    ['a field too many', spoil(({ entries }) => (entries[1]!.colour = 'red')), 'entries[1].colour', /no such field/],
    ['361 on the wheel', with361, 'entries[2].body.wheel.shows', /has no 361/],
    [
      'half a character',
      spoil(({ entries }) => Object.assign(entries[0]!.body as object, { name: 'Mill 👍'.slice(0, 6) })),
      'entries[0].body.name',
      /half a character/,
    ],
    [
      'a time in the year 0',
      spoil(({ entries }) => (entries[1]!.takenAt = '0000-01-01T00:00:00Z')),
      'entries[1].takenAt',
      /between the years 1970 and 2199/,
    ],
    ['one id twice', spoil(({ entries }) => (entries[2]!.id = entries[1]!.id)), 'entries[2].id', /earlier entry/],
    ['two builds', spoil(({ entries }) => (entries[2]!.buildId = entries[2]!.id)), 'entries[2].buildId', /one build/],
    ['no engine', spoil(({ entries }) => void entries.shift()), 'entries[0].kind', /build\.described/],
  ])('%s is refused by name', (_what, bad, field, words) => {
    const read = readBuildFile(bad);
    expect(read).toMatchObject({ ok: false, field });
    expect(read.ok ? '' : read.message).toMatch(words);
  });

  test('every kind of entry is known to the schema by the same name', () => {
    const kinds = entrySchema.options.map((option) => option.shape.kind.value);
    expect(kinds).toEqual([...ENTRY_KINDS]);
  });

  test('the command prints the report; a bad file gives one line, exit 2 and nothing else', () => {
    // As `npm run report` does, which `every-script` runs: npm itself takes longer than the command.
    const run = (file: string, input?: string) =>
      spawnSync(process.execPath, ['--import', 'tsx', COMMAND, file], { cwd: ROOT, encoding: 'utf8', input });
    const good = run(example);
    expect(JSON.parse(good.stdout)).toEqual(JSON.parse(run('-', text).stdout));
    expect(reportSchema.parse(JSON.parse(good.stdout)).verdict.delta).toBe(-2.5);
    const file = path.join(mkdtempSync(path.join(tmpdir(), 'yosoku-')), 'bad.yosoku.json');
    writeFileSync(file, with361);
    const bad = run(file);
    expect(bad).toMatchObject({ status: 2, stdout: '' });
    expect(bad.stderr.trim().split('\n')).toEqual([
      expect.stringContaining('entries[2].body.wheel.shows: A 0–180 ring has no 361'),
    ]);
    expect(run('/nowhere.json')).toMatchObject({ status: 2, stdout: '' });
  });
});
