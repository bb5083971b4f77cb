import { SIGN_CHECK_NAMES } from '../sign/sign-checks';
import { kindOfMove } from '../testing/kind-of-move';
import { book, id } from '../testing/book';
import { readingAt } from '../crank/wheel';
import type { Hardware, Setting } from '../timing-set/hardware';
import { type BodyOf, entrySchema } from '../record/entry';
import { writeBuildFile } from '../record/file';
import { readBuildFile } from '../record/read-file';
import { readingsTable } from './readings-table';
import { type Report, derive } from './report';

type Shows = BodyOf<'reading.taken'>['shows'];
type Job = ReturnType<typeof book>;
const DROP = 1.27;
const below = (flank: 'opening' | 'closing'): Shows => ({ kind: 'below-peak', flank, drop: DROP });
const KEYWAYS: Hardware = { kind: 'keyways', stamped: 'crank', marks: [-8, -6, -4, -2, 0, 2, 4, 6, 8] };
const SLOTTED: Hardware = { kind: 'slotted-pulley', stamped: 'cam', range: 4, scale: true };
const LIBRARY = '00000000-0000-4000-8000-00000000a11b';

function ready(engine: Partial<BodyOf<'build.described'>['engine']> = {}) {
  const job = book();
  const [first] = job.entries;
  const described = first?.body as BodyOf<'build.described'>;
  job.write('build.described', {
    ...described,
    replaces: first?.id ?? null,
    engine: { ...described.engine, ...engine },
  });
  const setting = job.proved();
  job.write('card.entered', {
    replaces: null,
    intake: { centreline: 107, lobeLift: 8.382, timing: [{ height: 1.27, at: 'lobe', opens: 3, closes: 37 }] },
    exhaust: { centreline: 111, lobeLift: 8.382, timing: [{ height: 1.27, at: 'lobe', opens: 45, closes: 3 }] },
  });
  return { ...job, setting };
}

/** Both flanks so that the centre lies there, as printed. */
function centre(
  job: Job,
  setting: string,
  valve: 'intake' | 'exhaust',
  printed: number,
  more: { trial?: string; cylinder?: number; firesAfter?: number } = {},
): void {
  const nose = (valve === 'intake' ? printed : -printed) + (more.firesAfter ?? 0);
  const round = id();
  for (const [flank, at] of [
    ['opening', nose - 43],
    ['closing', nose + 43],
  ] as const)
    job.write('reading.taken', {
      setting,
      trial: more.trial ?? job.trial,
      round,
      method: 'centreline',
      cylinder: more.cylinder ?? 1,
      valve,
      sitsOn: 'lifter',
      shows: below(flank),
      approach: 'forward',
      wheel: readingAt({ ring: '0-180' }, at),
    });
}

function fit(
  job: Job,
  parts: readonly {
    hardware: Hardware;
    at: Setting;
    cam?: 'all' | 'intake' | 'exhaust';
    bank?: 1 | 2 | null;
    name?: string;
  }[],
  trial = job.trial,
): string[] {
  const fitted = parts.map(({ hardware, at, cam = 'all', bank = null, name = 'the gear' }) => ({
    part: id(),
    name,
    library: LIBRARY,
    hardware,
    cam,
    bank,
    at,
    experience: [],
  }));
  job.write('drive.fitted', { replaces: null, trial, camTurns: 'with-crank', parts: fitted });
  return fitted.map(({ part }) => part);
}

const next = (job: Job, plan: Report['move']['plans'][number] | undefined): string => {
  if (!plan) throw new Error('there is a plan');
  return job.write('trial.begun', { after: job.trial, move: kindOfMove(plan) });
};

describe('from verdict to proof', () => {
  test('the plan, its prediction, what the hardware gave, and what that teaches', () => {
    const job = ready();
    centre(job, job.setting, 'intake', 113);
    const unfitted = job.report();
    expect(unfitted.move).toMatchObject({ state: 'unfitted', plans: [] });
    const [part] = fit(job, [{ hardware: KEYWAYS, at: { mark: '0' } }]);
    const planned = job.report();
    const [plan] = planned.move.plans;
    expect(planned.move.state).toBe('plans');
    expect(plan).toMatchObject({
      parts: [{ part, to: 'the +6 keyway', setting: { mark: '+6' }, label: 6 }],
      wheelOff: true,
      inside: true,
      clearanceUnknown: true,
      breaks: [],
    });
    expect(plan?.predicted[0]).toMatchObject({
      value: 107,
      shows: '107.0° ATDC; on the wheel near 64° after and 150° after',
    });
    // Every method has its prediction, also those that were not used.
    expect(plan?.predicted.map(({ view }) => view.split(' ')[0])).toEqual(
      expect.arrayContaining(['centreline', 'events', 'lift-at-tdc']),
    );

    // The gear comes off with the wheel: the zero is void, what was read before stands.
    const keeps = job.entries.flatMap((entry) => (entry.kind === 'reading.taken' ? [entry.id] : []));
    const trial = next(job, plan);
    job.write('zero.disturbed', { setting: job.setting, what: 'with-drive', keeps });
    expect(job.report().proof).toMatchObject({ state: 'due', sentence: expect.stringMatching(/Find TDC again first/) });
    const again = job.write('zero.begun', { after: job.zero, method: 'positive-stop', cylinder: 1 });
    const contact = (setting: string | null, pass: string, side: 'before' | 'after', at: number): string =>
      job.write('zero.reading', { zero: again, setting, pass, side, wheel: readingAt({ ring: '0-180' }, at) });
    for (const [setting, pass] of [[null, id()]] as const) {
      contact(setting, pass, 'before', -20);
      contact(setting, pass, 'after', 27.5);
    }
    const set = job.write('zero.set', { zero: again, after: null, moved: 'wheel' });
    const proof = id();
    contact(set, proof, 'before', -23.75);
    contact(set, proof, 'after', 23.75);
    const due = job.report().proof;
    expect(due.next).toMatchObject([{ method: 'centreline', valve: 'intake', readings: 2 }]);
    expect(due.sentence).toMatch(/^2 readings show whether it worked\. Read the intake centreline\.$/);

    // It gave 4.9 of its 6.
    centre(job, set, 'intake', 108.1, { trial });
    const after = job.report();
    expect(after.moves[0]?.cams[0]?.gave).toBeCloseTo(4.9, 6);
    expect(after.proof).toMatchObject({
      state: 'off',
      gave: expect.stringMatching(/went 4\.9° earlier.*its label says 6\.0° earlier/),
    });
    expect(after.proof.rows[0]).toMatchObject({ measured: '108.10° ATDC', agrees: true });
    expect(after.proof.rows[0]?.off).toBeCloseTo(-1.1, 6);
    expect(after.experience).toMatchObject([{ library: LIBRARY, from: { mark: '0' }, to: { mark: '+6' } }]);
    expect(after.drive.parts[0]).toMatchObject({
      stands: 'the +6 keyway',
      learned: expect.stringMatching(/gave 4\.9° earlier/),
    });
    expect(after.drive.parts[0]?.response).toBeLessThan(0.97);
    // The zero of before still carries the readings of before.
    expect(after.trials[0]?.verdict?.kind).toBe('move');
    expect(after.stations.find(({ station }) => station === 'prove')?.state).toBe('void');
    // Every sheet tells it.
    const rows = after.sheet
      .find(({ title }) => title === 'Trial 2')
      ?.rows.map(({ label, value }) => `${label} ${value}`);
    expect(rows?.join('\n')).toMatch(/Set: the gear the \+6 keyway[\s\S]*What it gave/);
  });

  test('a move the wrong way is called that', () => {
    const job = ready();
    centre(job, job.setting, 'intake', 110.5);
    fit(job, [{ hardware: KEYWAYS, at: { mark: '0' } }]);
    const trial = next(job, job.report().move.plans[0]);
    centre(job, job.setting, 'intake', 112.5, { trial });
    expect(job.report().proof.sentence).toMatch(/^It went the wrong way\./);
  });

  test('what is fitted does not reach: the nearest, and what would', () => {
    const job = ready();
    centre(job, job.setting, 'intake', 117);
    fit(job, [{ hardware: SLOTTED, at: { at: 2 } }]);
    const { move } = job.report();
    expect(move.state).toBe('short');
    expect(`${move.sentence} ${move.then}`).toMatch(
      /does not reach\. The nearest: set the gear to \+4 on its scale\..*From where it stands now it takes a part that advances it 10\.0° at the crank/,
    );
  });

  test('nothing is planned where nothing may be moved', () => {
    const job = ready();
    expect(job.report().move.state).toBe('waiting');
    centre(job, job.setting, 'intake', 107.2);
    fit(job, [{ hardware: KEYWAYS, at: { mark: '0' } }]);
    expect(job.report().move).toMatchObject({ state: 'stay', plans: [] });
  });

  test('a correction of the drive in a later trial says how it stands from then on', () => {
    const job = ready();
    centre(job, job.setting, 'intake', 113);
    fit(job, [{ hardware: KEYWAYS, at: { mark: '0' } }]);
    const trial = next(job, job.report().move.plans[0]);
    expect(job.report().drive.parts[0]?.stands).toBe('the +6 keyway');
    fit(job, [{ hardware: KEYWAYS, at: { mark: '+4' } }], trial);
    expect(job.report().drive.parts[0]?.stands).toBe('the +4 keyway');
  });
});

describe('twin cams', () => {
  const twin = { cams: 'twin' } as const;

  test('a verdict and a move for each, LSA and overlap as they will become', () => {
    const job = ready(twin);
    centre(job, job.setting, 'intake', 110);
    centre(job, job.setting, 'exhaust', 113);
    fit(job, [
      { hardware: SLOTTED, at: { at: 0 }, cam: 'intake', name: 'the intake pulley' },
      { hardware: SLOTTED, at: { at: 0 }, cam: 'exhaust', name: 'the exhaust pulley' },
    ]);
    const [plan] = job.report().move.plans;
    expect(plan?.parts.map(({ name, setting }) => [name, setting])).toEqual([
      ['the intake pulley', { at: 1.5 }],
      ['the exhaust pulley', { at: -1 }],
    ]);
    expect(plan?.becomes.separation).toBeCloseTo(109, 6);
    const steps = plan?.steps.map(({ text }) => text).join('\n');
    expect(steps).toMatch(
      /First the intake cam: the intake pulley\.[\s\S]*Then the exhaust cam: the exhaust pulley\. What was set before stays locked\./,
    );
  });

  test('a part that turns a cam which nobody has measured says so', () => {
    const job = ready(twin);
    centre(job, job.setting, 'intake', 110);
    fit(job, [{ hardware: KEYWAYS, at: { mark: '0' } }]);
    expect(job.report().move.plans[0]?.work).toMatch(/The exhaust cam goes with it, and has not been measured\.$/);
  });

  test('the exhaust may have a target of its own', () => {
    const job = ready(twin);
    centre(job, job.setting, 'intake', 107);
    centre(job, job.setting, 'exhaust', 111);
    const target = { replaces: null, target: { kind: 'card' }, limit: 1 } as const;
    job.write('target.set', { ...target, exhaust: { kind: 'centreline', centreline: 114 } });
    const { trials, target: aim } = job.report();
    expect(aim).toMatchObject({ intakeCentreline: 107, exhaustCentreline: 114 });
    const [intake, exhaust] = trials[0]?.cams ?? [];
    expect(intake?.verdict.kind).toBe('leave');
    // A larger exhaust centreline is an earlier cam: it sits 3° late.
    expect(exhaust?.verdict.delta).toBeCloseTo(-3, 1);
    expect(exhaust?.verdict.headline).toMatch(/exhaust cam sits 3\.0° late/);
  });

  test('two banks: the second is read at its own cylinder, judged and moved by itself', () => {
    // Fires 1-5-3-6-2-4: cylinder 5 comes 120° after cylinder 1.
    const job = ready({ cams: 'twin', secondBank: 5 });
    centre(job, job.setting, 'intake', 107);
    const before = job.report().lash.seats?.intake;
    centre(job, job.setting, 'intake', 110, { cylinder: 5, firesAfter: 120 });
    // For setting the lash a valve counts as lifted wherever that of either bank is; a bank that nobody measured counts wider.
    const both = job.report().lash.seats?.intake;
    expect((both?.opens ?? 0) - (before?.opens ?? 0)).toBeCloseTo(0, 1);
    expect((both?.closes ?? 0) - (before?.closes ?? 0)).toBeCloseTo(3, 1);
    expect((before?.slack ?? 0) - (both?.slack ?? 0)).toBe(5);
    fit(job, [
      { hardware: SLOTTED, at: { at: 0 }, cam: 'intake', bank: 1, name: 'the first pulley' },
      { hardware: SLOTTED, at: { at: 0 }, cam: 'intake', bank: 2, name: 'the second pulley' },
    ]);
    const report = job.report();
    expect(report.trials[0]?.cams.map(({ cam, bank, verdict }) => [cam, bank, verdict.kind])).toEqual([
      ['intake', 1, 'leave'],
      ['intake', 2, 'move'],
    ]);
    expect(report.trials[0]?.cams[1]?.verdict.headline).toMatch(/intake cam of bank 2 sits 3\.0° late/);
    expect(report.move.plans[0]?.parts).toMatchObject([{ name: 'the second pulley', setting: { at: 1.5 } }]);
    // Of many cams only those that move are spoken of.
    centre(job, job.setting, 'exhaust', 111);
    expect(job.report().verdict.headline).toMatch(
      /^The intake cam of bank 2 sits 3\.0° late, retarded, \S+ The other 2 sit inside the limit\.$/,
    );
    expect(report.trials[0]?.views.map(({ title }) => title)).toContain('Bank 2: intake centreline, 0.050 in drop');
  });

  test('a phaser: nominal, measured, correction; after the move what its spring took back', () => {
    const job = ready(twin);
    const [part = ''] = fit(job, [
      {
        hardware: { kind: 'phaser', stamped: 'crank', sense: 'grows-late', from: -20, to: 20 },
        at: { at: 0 },
        cam: 'intake',
      },
    ]);
    job.write('phaser.read', { trial: job.trial, part, nominal: 5, shows: 8 });
    expect(job.report().drive.parts[0]?.angle).toMatchObject({ correction: -3, advance: 3, setTo: 5 });
    expect(job.report().drive.parts[0]?.angle?.words).toMatch(
      /correction −3 .*3\.0° earlier \(advance\).*set it to \+5\./,
    );
    const trial = job.write('trial.begun', {
      after: job.trial,
      move: { parts: [{ part, to: { at: 5 } }], cams: [], predicted: [] },
    });
    job.write('phaser.read', { trial, part, nominal: 5, shows: 4.5 });
    expect(job.report().drive.parts[0]?.angle).toMatchObject({ correction: 0.5, windUp: 0.5, setTo: 5.5 });
    // A plan by the wheel winds it up beforehand too: 2° more advance is 2 less on this scale, and half a degree on top.
    centre(job, job.setting, 'intake', 109, { trial });
    const [plan] = job.report().move.plans;
    expect(plan?.parts[0]).toMatchObject({ setting: { at: 3 }, put: 'to +3 on its scale' });
  });
});

test('a phaser stands where it was last set or read, whichever came later', () => {
  const job = ready({ cams: 'twin' });
  const hardware: Hardware = { kind: 'phaser', stamped: 'crank', sense: 'grows-early', from: -20, to: 20 };
  const [part = ''] = fit(job, [{ hardware, at: { at: 0 }, cam: 'intake' }]);
  job.write('phaser.read', { trial: job.trial, part, nominal: 0.5, shows: 3.5 });
  expect(job.report().drive.parts[0]?.setting).toEqual({ at: 3.5 });
  const move = { parts: [{ part, to: { at: 0.5 } }], cams: [], predicted: [] };
  const trial = job.write('trial.begun', { after: job.trial, move });
  centre(job, job.setting, 'intake', 108.9, { trial });
  const { drive, move: next } = job.report();
  expect(drive.parts[0]?.setting).toEqual({ at: 0.5 });
  expect(next.plans[0]?.parts[0]).toMatchObject({ from: '+0.5 on its scale', setting: { at: 2.4 } });
  job.write('phaser.read', { trial, part, nominal: 0.5, shows: 0.9 });
  expect(job.report().drive.parts[0]?.setting).toEqual({ at: 0.9 });
});

// Common practice, no source: clamped at 0, the drive tightened, let go, two turns; the correction is added to what it had been set to.
test.each([
  [3.5, 0.5, 0, -3],
  [-1, 1.5, 0, 2.5],
  [2, 0.5, -1, -2.5],
])(
  'a phaser set from its clamps: measured %d, nominal %d, it had been set to %d: set it to %d',
  (shows, nominal, was, to) => {
    const job = ready({ cams: 'twin' });
    const hardware: Hardware = { kind: 'phaser', stamped: 'crank', sense: 'grows-late', from: -20, to: 20 };
    const [part = ''] = fit(job, [{ hardware, at: { at: 0 }, cam: 'intake' }]);
    job.write('phaser.read', { trial: job.trial, part, nominal, shows, setTo: was });
    expect(job.report().drive.parts[0]?.angle?.setTo).toBeCloseTo(to, 9);
  },
);

describe('valve to piston', () => {
  test('the planner knows how far each valve leaves room, and what it does not know it says', () => {
    const blind = ready();
    centre(blind, blind.setting, 'intake', 113);
    blind.write('clearance.set-up', { replaces: null, intake: { angle: 0, pocket: 'flat', minimum: 2 } });
    blind.write('clearance.measured', { trial: blind.trial, cylinder: 1, valve: 'intake', gaps: [{ at: 10, gap: 3 }] });
    // With rockers taken for none the gap would come out too large: nothing is said instead.
    expect(blind.report().clearance.valves[0]).toMatchObject({
      state: 'unknown',
      problem: { message: 'The rocker ratio is not known.' },
    });

    const job = ready({ rockerRatio: { intake: 1, exhaust: 1 } });
    centre(job, job.setting, 'intake', 113);
    fit(job, [{ hardware: KEYWAYS, at: { mark: '0' } }]);
    const facing = { angle: 0, pocket: 'parallel' } as const;
    job.write('clearance.set-up', {
      replaces: null,
      intake: { ...facing, minimum: 2 },
      exhaust: { ...facing, minimum: 2.5 },
    });
    expect(job.report().clearance.valves.map(({ state }) => state)).toEqual(['unknown', 'unknown']);
    job.write('clearance.measured', { trial: job.trial, cylinder: 1, valve: 'intake', gaps: [{ at: 10, gap: 2.6 }] });
    const report = job.report();
    const [intake, exhaust] = report.clearance.valves;
    expect(intake).toMatchObject({ state: 'enough' });
    expect(exhaust?.problem?.message).toBe('No clearance was measured yet.');
    const most = intake?.room?.to ?? 0;
    expect(most).toBeGreaterThan(0.5);
    expect(most).toBeLessThan(6);
    // +6 would cure it best, but brings the valve too near: it is never offered first.
    expect(report.move.plans[0]?.breaks).toEqual([]);
    expect(report.move.plans[0]?.cams[0]?.by).toBeLessThanOrEqual(most);
    const slotted = fit(job, [{ hardware: SLOTTED, at: { at: 0 } }]);
    const [short] = job.report().move.plans;
    expect(short).toMatchObject({ parts: [{ part: slotted[0] }], breaks: [] });
    expect(short?.cams[0]?.by).toBeLessThanOrEqual(most);
    expect(job.report().move.sentence).toMatch(
      /^Its target would bring a valve too near to its piston\. As far as there is room: set/,
    );
    // After a move the gap is carried with the cam, before it is measured again.
    const trial = job.write('trial.begun', {
      after: job.trial,
      move: { parts: [], cams: [{ cam: 'single', bank: 1, by: 2, standard: 0 }], predicted: [] },
    });
    expect(job.report().clearance.valves[0]?.room?.to).toBeCloseTo(most - 2, 1);
    centre(job, job.setting, 'intake', 111, { trial });
    expect(job.report().clearance.valves[0]?.room?.to).toBeCloseTo(most - 2, 1);
    // Moved by who knows how much: nothing is said until it is measured.
    job.write('trial.begun', { after: trial, note: 'One tooth, or so.' });
    expect(job.report().clearance.valves[0]).toMatchObject({ state: 'unknown', room: null });
  });
});

describe('signing', () => {
  function signed() {
    const job = ready();
    centre(job, job.setting, 'intake', 107);
    const reading = { setting: job.setting, trial: job.trial, cylinder: 1, valve: 'intake', sitsOn: 'lifter' } as const;
    const take = (lift: number): string =>
      job.write('reading.taken', {
        ...reading,
        round: id(),
        method: 'identity',
        shows: { kind: 'peak-lift', lift },
        approach: 'forward',
        wheel: null,
      });
    take(8.38);
    for (const check of SIGN_CHECK_NAMES) job.write('sign.checked', { replaces: null, check, result: 'done' });
    const signature = job.write('build.signed', { after: null, name: 'Mara Quill' });
    return { ...job, signature, take };
  }

  test('every check answered, who and when, and the lifts that it is compared with later', () => {
    const due = ready();
    expect(due.report().sign).toMatchObject({ ready: false, closed: false, signed: null });
    expect(due.report().sign.open.join()).toMatch(/clearance was not measured/);
    const job = signed();
    expect(job.report().sign).toMatchObject({
      ready: true,
      closed: true,
      signed: { entry: job.signature, name: 'Mara Quill' },
      baselines: [{ valve: 'intake', at: 'lobe', lift: 8.38 }],
    });
  });

  test('what comes after the signature is kept and changes nothing; reopened, what comes then counts', () => {
    const job = signed();
    const before = job.report();
    const late = job.take(8.0);
    job.write('entry.voided', { voids: job.signature });
    const after = job.report();
    expect(after.sign.closed).toBe(true);
    expect(after.verdict).toEqual(before.verdict);
    expect(after.sign.baselines).toEqual(before.sign.baselines);
    expect(after.problems.find(({ entries }) => entries.includes(late))?.message).toMatch(/after the signature/);
    job.write('build.reopened', { signature: job.signature, reason: 'Ticks at idle.' });
    job.take(8.1);
    const open = job.report();
    expect(open.sign).toMatchObject({ closed: false, reopened: { reason: 'Ticks at idle.' } });
    // The mean of the first and the last: the one between was written while it was closed.
    expect(open.sign.baselines[0]?.lift).toBeCloseTo((8.38 + 8.1) / 2, 6);
    const again = job.write('build.signed', { after: open.sign.reopened?.entry ?? null, name: 'Tobin Ashdown' });
    expect(job.report().sign).toMatchObject({ closed: true, signed: { entry: again } });
  });

  test('by the places that the server gave, whatever the order of the ids: taken before, posted after', () => {
    const job = signed();
    const numbered = job.entries.map((entry, at) => ({ ...entry, seq: at + 1 }));
    const old = {
      ...numbered[numbered.length - 2],
      id: '00000000-0000-4000-8000-000000000000',
      seq: numbered.length + 1,
    };
    const report = derive([...numbered, old as (typeof numbered)[number]]);
    expect(report?.problems.flatMap(({ entries }) => entries)).toContain(old.id);
  });
});

describe('files', () => {
  test('a build written and read is the same build: the same Report', () => {
    const job = ready();
    centre(job, job.setting, 'intake', 113);
    fit(job, [{ hardware: KEYWAYS, at: { mark: '0' } }]);
    next(job, job.report().move.plans[0]);
    const read = readBuildFile(writeBuildFile(job.entries, []));
    if (!read.ok) throw new Error(read.message);
    expect(derive(read.file.entries)).toEqual(derive(job.entries));
  });

  test.each([
    ['', /not JSON/],
    ['{"format":"yosoku-build","version":1,"entries":[{"id":', /cut short/],
    ['{"format":"yosoku-build",\n "version":1 "entries":[]}', /line 2, column 14: a comma is missing/],
    ['\uFEFF{"format":"other"}', /expected "yosoku-build"/],
    ['{"format":"yosoku-build","version":2,"entries":[]}', /newer/],
    ['{"format":"something","version":1,"entries":[]}', /yosoku-build/],
  ])('%s is refused with what is wrong', (text, says) => {
    const read = readBuildFile(text);
    expect(read.ok ? '' : read.message).toMatch(says);
  });

  test('no word of a library reaches whoever reads why a file is refused', () => {
    const job = ready();
    centre(job, job.setting, 'intake', 109);
    const file = JSON.parse(writeBuildFile(job.entries, [])) as unknown;
    /** Every place of the file, with something there that cannot be. */
    function* spoiled(value: unknown, put: (to: unknown) => unknown): Iterable<unknown> {
      for (const wrong of [undefined, null, -1e9, 'sideways', [], {}, [[1]]]) yield put(wrong);
      if (typeof value !== 'object' || value === null) return;
      for (const [key, inner] of Object.entries(value))
        yield* spoiled(inner, (to) =>
          put(Array.isArray(value) ? value.with(Number(key), to) : { ...value, [key]: to }),
        );
    }
    const said = new Set<string>();
    for (const each of spoiled(file, (to) => to)) {
      const read = readBuildFile(JSON.stringify(each) ?? '');
      if (!read.ok) said.add(read.message);
    }
    expect(said.size).toBeGreaterThan(20);
    expect(
      [...said].filter((words) => /Invalid|Too (big|small)|received|discriminator|Unrecognized/.test(words)),
    ).toEqual([]);
  });

  test('the readings as a table: units in the headings, what does not count says why', () => {
    const job = ready();
    centre(job, job.setting, 'intake', 109);
    job.write('entry.voided', { voids: job.entries.at(-1)?.id ?? '', reason: 'Misread.' });
    const rows = readingsTable(job.entries);
    expect(rows.filter(({ kind }) => kind === 'zero')).toHaveLength(4);
    const cam = rows.filter(({ kind }) => kind === 'cam');
    expect(cam).toMatchObject([
      {
        trial: 1,
        valve: 'intake',
        method: 'centreline',
        'figure (mm)': 1.27,
        'ring position (crank degrees)': 66,
        counts: 'yes',
      },
      { counts: 'no', 'why not': 'Misread.' },
    ]);
  });
});

describe('what an entry may say', () => {
  const shell = { id: id(), buildId: id(), builderId: id(), takenAt: '2026-03-14T09:26:53Z' };
  const part = { part: id(), name: 'gear', library: null, hardware: KEYWAYS, cam: 'all', bank: null, experience: [] };
  const said = (kind: string, body: object): string =>
    entrySchema
      .safeParse({ ...shell, kind, body })
      .error?.issues.map(({ message }) => message)
      .join() ?? '';
  const fitted = (parts: readonly object[]) => ({ replaces: null, trial: id(), camTurns: 'with-crank', parts });

  test.each([
    ['drive.fitted', fitted([{ ...part, at: { mark: '+5' } }]), /no such position/],
    ['drive.fitted', fitted([{ ...part, hardware: SLOTTED, at: { at: 9 } }]), /no such position/],
    [
      'drive.fitted',
      fitted([
        { ...part, at: { mark: '0' } },
        { ...part, at: { mark: '0' } },
      ]),
      /stands twice/,
    ],
    ['build.signed', { after: null, name: '  ' }, /must not be empty/],
    ['build.reopened', { signature: id(), reason: '' }, /must not be empty/],
    ['sign.checked', { replaces: null, check: 'locking', result: 'skipped' }, /say why/],
    ['clearance.measured', { trial: id(), cylinder: 1, valve: 'intake', gaps: [] }, /at least one/],
    ['clearance.set-up', { replaces: null, intake: { angle: 80, pocket: 'flat', minimum: 2 } }, /between 0 and 60/],
  ])('%s %j', (kind, body, says) => {
    expect(said(kind, body)).toMatch(says);
  });

  test('a second bank needs twin cams, and a cylinder that there is', () => {
    const described = book().entries[0]?.body as BodyOf<'build.described'>;
    const engine = (more: object): string =>
      said('build.described', { ...described, engine: { ...described.engine, ...more } });
    expect(engine({ secondBank: 4 })).toMatch(/twin cams/);
    expect(engine({ cams: 'twin', secondBank: 9 })).toMatch(/no cylinder 9/);
    expect(engine({ cams: 'twin', secondBank: 4 })).toBe('');
  });
});
