import type { BodyOf } from '../record/entry';
import { book } from '../testing/book';
import { whatItDoes } from './what-it-does';

/** A cam so many degrees late on a card of 107, in an engine of 10 to 1. */
function late(by: number) {
  const at = book();
  const [first] = at.entries;
  if (first?.kind !== 'build.described') throw new Error('a book opens with its engine');
  const { engine } = first.body;
  at.write('build.described', {
    ...first.body,
    replaces: first.id,
    engine: { ...engine, bore: 101.6, compression: { given: 'ratio', ratio: 10 } },
  });
  const line = (opens: number, closes: number) => ({ height: 1.27, at: 'lobe' as const, opens, closes });
  at.write('card.entered', {
    replaces: null,
    intake: { centreline: 107, lobeLift: 8.382, timing: [line(21, 55), { height: null, at: 'lobe', duration: 290 }] },
  });
  const setting = at.proved();
  at.pair(setting, 63.5 + by, 150.5 + by);
  at.pair(setting, 63.5 + by, 150.5 + by);
  return { at, setting };
}

test('a late cam traps less, an early one more, and what stands there is no promise', () => {
  const ratios = (by: number): number[] =>
    [...(whatItDoes(late(by).at.report())[1]?.matchAll(/(\d\.\d\d) to 1/g) ?? [])].map(([, ratio]) => Number(ratio));
  const [now = NaN, onTarget = NaN] = ratios(4);
  expect(now).toBeLessThan(onTarget);
  // Slider-crank (Heywood ch. 2): 4° of intake closing near 75° after BDC is a tenth or two of compression.
  expect(onTarget - now).toBeGreaterThan(0.05);
  expect(onTarget - now).toBeLessThan(0.6);
  const [early = NaN, target = NaN] = ratios(-4);
  expect(early).toBeGreaterThan(target);
  expect(whatItDoes(late(4).at.report())[0]).toMatch(
    /^What 4\.0° late, retarded, does here, as common practice has it/,
  );
});

test('on its target, or without a verdict, there is nothing to say', () => {
  expect(whatItDoes(late(0).at.report())).toEqual([]);
  expect(whatItDoes(book().report())).toEqual([]);
});

const GEAR = { kind: 'keyways', stamped: 'crank', marks: [-4, 0, 4, 6, 8] } as const;
const fit = (at: ReturnType<typeof book>, trial: string): BodyOf<'drive.fitted'> => ({
  replaces: null,
  trial,
  camTurns: 'with-crank',
  parts: [
    {
      part: at.trial,
      name: 'Crank gear',
      library: null,
      hardware: { ...GEAR, marks: [...GEAR.marks] },
      cam: 'all',
      bank: null,
      at: { mark: '0' },
      experience: [],
    },
  ],
});

test('how long a move takes is told, as it took here once that is known; a wide figure before the front comes apart is spoken of', () => {
  const { at, setting } = late(4);
  at.write('drive.fitted', fit(at, at.trial));
  expect(at.report().move.plans[0]?.work).toMatch(
    /About an hour .* with reading it again\.|About an hour with reading it again\./,
  );
  // On other engines of the shop its gear took 50, 80 and 95 minutes.
  const fitted = fit(at, at.trial);
  const elsewhere = [50, 80, 95].map((took) => ({
    from: { mark: '0' },
    to: { mark: '+4' },
    gave: 4,
    standard: 0.3,
    took,
  }));
  const known = at.write('drive.fitted', {
    ...fitted,
    replaces: at.report().drive.entry,
    parts: fitted.parts.map((part) => ({ ...part, experience: elsewhere })),
  });
  expect(at.report().move.plans[0]?.work).toMatch(
    /About an hour and a quarter with reading it again, as it took on other engines of the shop\./,
  );
  at.write('entry.voided', { voids: known });
  // Moved, and read again 100 minutes after the last reading.
  const trial = at.write('trial.begun', {
    after: at.trial,
    move: { parts: [{ part: at.trial, to: { mark: '+4' } }], cams: [], predicted: [] },
  });
  at.pair(setting, 66, 153, { trial });
  at.pair(setting, 66, 153, { trial });
  at.write('target.set', { replaces: null, target: { kind: 'card' }, limit: 0.2 });
  for (const entry of at.entries) {
    const isAfter = entry.kind === 'reading.taken' && entry.body.trial === trial;
    if (isAfter) (entry as { takenAt: string }).takenAt = '2026-03-14T11:06:53Z';
  }
  const [plan] = at.report().move.plans;
  expect(plan?.work).toMatch(/About an hour and three quarters with reading it again, as it took here before\./);
  expect(plan?.work).toMatch(/a pair more read now may save taking it apart twice/);
});
