import type { Hardware } from '../timing-set/hardware';
import { readingAt } from '../crank/wheel';
import { book, id } from '../testing/book';

type Book = ReturnType<typeof book>;

const PHASER: Hardware = { kind: 'phaser', stamped: 'crank', sense: 'grows-early', from: -20, to: 20 };

/** Twin cams, each on its phaser; no card, no wheel. */
function twin(at: Book) {
  const [first] = at.entries;
  if (first?.kind !== 'build.described') throw new Error('a book opens with its engine');
  at.write('build.described', {
    ...first.body,
    replaces: first.id,
    engine: { ...first.body.engine, cams: 'twin' },
  });
  const [intake, exhaust] = [id(), id()];
  at.write('drive.fitted', {
    replaces: null,
    trial: at.trial,
    camTurns: 'with-crank',
    parts: (
      [
        [intake, 'intake'],
        [exhaust, 'exhaust'],
      ] as const
    ).map(([part, cam]) => ({
      part,
      name: `${cam} phaser`,
      library: null,
      hardware: PHASER,
      cam,
      bank: 1,
      at: { at: 0 },
      experience: [],
    })),
  });
  const read = (part: string, nominal: number, shows: number, trial = at.trial): string =>
    at.write('phaser.read', { trial, part, nominal, tolerance: 1, shows, setTo: 0 });
  return { intake, exhaust, read };
}

test('twin cams on their phasers: judged in the maker’s scale by the manual’s tolerance, moved, and proved', () => {
  const at = book();
  const { intake, exhaust, read } = twin(at);
  read(intake, 0.5, 3.5);
  read(exhaust, -1, -1.5);
  const { verdict, trials, move, drive } = at.report();
  expect(verdict.headline).toMatch(/intake cam sits 3\.0° early/);
  expect(trials[0]?.cams.map(({ cam, verdict: each }) => [cam, each.kind])).toEqual([
    ['intake', 'move'],
    ['exhaust', 'leave'],
  ]);
  expect(trials[0]?.cams[0]?.verdict.why).toMatch(/maker’s own scale, \+3\.5, against \+0\.5 ±1; limit ±1°/);
  // Clamped at 0 when it was tightened, it came to 3.5: set to nominal and the spring carried it as far again.
  expect(drive.parts[0]?.angle).toMatchObject({ setTo: -3, tolerance: 1 });
  const [plan] = move.plans;
  expect(plan?.parts.map(({ part, setting }) => [part, setting])).toContainEqual([intake, { at: -3 }]);
  expect(plan?.inside).toBe(true);
  const trial = at.write('trial.begun', {
    after: at.trial,
    move: {
      parts: [{ part: intake, to: { at: -3 } }],
      cams: [{ cam: 'intake', bank: 1, by: -3, standard: 0.2 }],
      predicted: [],
    },
  });
  expect(at.report().proof).toMatchObject({
    state: 'due',
    sentence: expect.stringMatching(/read the angle of each phaser/),
  });
  read(intake, 0.5, 0.7, trial);
  expect(at.report().proof.state).toBe('due');
  read(exhaust, -1, -1.4, trial);
  expect(at.report().proof).toMatchObject({ state: 'proved' });
  expect(at.report().sign.open.filter((words) => /TDC|verdict|moved/.test(words))).toEqual([]);
});

test('where the exhaust has no phaser and was never read, nobody asks for it', () => {
  const at = book();
  const { intake, read } = twin(at);
  read(intake, 0.5, 3.5);
  const trial = at.write('trial.begun', {
    after: at.trial,
    move: { parts: [{ part: intake, to: { at: -3 } }], cams: [], predicted: [] },
  });
  expect(at.report().proof).toMatchObject({ state: 'due', next: [] });
  at.write('phaser.read', { trial, part: intake, nominal: 0.5, tolerance: 2, shows: 2 });
  expect(at.report().proof).toMatchObject({ state: 'proved', sentence: expect.stringMatching(/early, advanced/) });
  expect(at.report().trials[1]?.cams[0]?.limit).toBe(2);
});

test('without what the manual allows an angle is a correction, and no verdict', () => {
  const at = book();
  const { intake } = twin(at);
  at.write('phaser.read', { trial: at.trial, part: intake, nominal: 0.5, shows: 3.5 });
  expect(at.report().verdict.kind).toBe('waiting');
  expect(at.report().drive.parts[0]?.angle?.correction).toBe(-3);
});

test('the maker’s pin is a TDC by its tolerance: proved as such, and told in every figure', () => {
  const at = book();
  const zero = at.write('zero.begun', { after: at.zero, method: 'locking-pin', cylinder: 1, tolerance: 1.5 });
  const pin = (setting: string | null, degrees: number): string =>
    at.write('zero.reading', {
      zero,
      setting,
      pass: id(),
      side: 'before',
      wheel: readingAt({ ring: '0-180' }, degrees),
    });
  pin(null, 12);
  expect(at.report().zero).toMatchObject({ state: 'found', method: 'locking-pin' });
  const setting = at.write('zero.set', { zero, after: null, moved: 'wheel' });
  pin(setting, 0);
  const report = at.report();
  expect(report.zero.state).toBe('proved');
  expect(report.zero.uncertainty?.words).toBe('good to ±1.8°');
  expect(report.zero.uncertainty?.budget.map(({ from }) => from)).toContain('the maker’s pin');
  at.card();
  at.pair(setting, 66, 153);
  expect(at.report().verdict.expanded).toBeGreaterThan(1.7);
});
