import { book } from '../testing/book';
import type { Mark, Sheet } from './drawing';
import { makePaper } from './make-paper';
import { WORKSHEETS, paperWish } from './wish';
import { READ_METHODS, READ_METHOD_NAMES } from '../measure/read-methods';

const CODE = { size: 3, isDark: (row: number, column: number) => (row + column) % 2 === 0 };

function sheets(
  which: string,
  report: Parameters<typeof makePaper>[1],
  more: { readonly method?: string } = {},
): readonly Sheet[] {
  const made = makePaper(paperWish.parse({ what: 'worksheet', which, ...more }), report, CODE);
  if (!made.ok) throw new Error(made.problem.message);
  return made.printed.sheets;
}
const marksOf = (all: readonly Sheet[]): Mark[] => all.flatMap(({ parts }) => parts.flatMap(({ marks }) => [...marks]));
const wordsOf = (all: readonly Sheet[]): string[] =>
  marksOf(all).flatMap((mark) => (mark.kind === 'words' ? [mark.text] : []));

test('lash: this engine’s valves in the order in which they are set, with what is wanted', () => {
  const job = book();
  job.write('lash.begun', {
    after: null,
    order: 'firing',
    engine: 'hot',
    wanted: { kind: 'lash', intake: 0.254, exhaust: 0.3048 },
  });
  const words = wordsOf(sheets('lash', job.report()));
  const valves = words.filter((each) => /^\d (intake|exhaust)$/.test(each));
  expect(valves.slice(0, 4)).toEqual(['1 intake', '1 exhaust', '5 intake', '5 exhaust']);
  expect(valves).toHaveLength(12);
  expect(words.filter((each) => each === '0.010 in')).toHaveLength(6);
  expect(words.some((each) => each.includes('cylinder 5 at its firing TDC'))).toBe(true);
  expect(words[0]).toBe('Lash: Test six');
});

test('lash: a valve that the printed two stops would catch on its ramp stands on paper where it rests; several of a kind each have a row', () => {
  const job = book();
  const lobe = (duration: number) => ({
    centreline: 108,
    lobeLift: 9,
    ratio: 1.5,
    timing: [{ height: null, at: 'lobe' as const, duration }],
  });
  const described = job.entries[0];
  if (described?.kind !== 'build.described') throw new Error('a book opens with its description');
  const engine = { ...described.body.engine, cylinders: 8, firingOrder: [1, 6, 2, 5, 8, 3, 7, 4] };
  job.write('build.described', { ...described.body, replaces: described.id, engine });
  // So long that two stops do not suffice: an intake that opens 87° before overlap stands 3° from its ramp at one of them.
  job.write('card.entered', { replaces: null, intake: lobe(390), exhaust: lobe(390) });
  const wanted = { kind: 'lash', intake: 0.3, exhaust: 0.3 } as const;
  job.write('lash.begun', {
    after: null,
    order: 'two-stops',
    engine: 'cold',
    count: { intake: 2, exhaust: 1 },
    wanted,
  });
  const { lash } = job.report();
  const caught = lash.orders.find(({ order }) => order === 'two-stops')?.caught ?? [];
  expect(caught.length).toBeGreaterThan(0);
  const words = wordsOf(sheets('lash', job.report()));
  expect(words.filter((each) => /^\d (intake|exhaust)/.test(each))).toHaveLength(24);
  for (const { cylinder, valve } of caught) {
    const name = valve === 'intake' ? `${cylinder} intake 1` : `${cylinder} exhaust`;
    // The nearest stop that is printed before it is its own firing TDC.
    const stop = words.slice(0, words.indexOf(name)).findLast((each) => /^\d+\. /.test(each));
    expect(stop).toMatch(new RegExp(`cylinder ${cylinder} at its firing TDC`));
  }
});

test('readings: of each method every slot as the app calls it, with the card’s figures, the wheel and its rings', () => {
  const job = book();
  job.card(104);
  const words = wordsOf(sheets('readings', job.report(), { method: 'centreline' }));
  expect(words).toContain('Intake: centreline by equal drop');
  expect(words.some((each) => each.includes('ICL 104° ATDC'))).toBe(true);
  expect(words.some((each) => /wheel 0–180, running clockwise; TDC not proved yet/.test(each))).toBe(true);
  for (const method of READ_METHOD_NAMES) {
    const own = wordsOf(sheets('readings', null, { method }));
    const { slots, reads } = READ_METHODS[method];
    if (reads === 'curve') expect(own.filter((each) => each === 'wheel').length).toBeGreaterThanOrEqual(6);
    else
      for (const [at, { label }] of slots.entries())
        expect(own.filter((each) => each === `${at + 1}. ${label}`)).toHaveLength(2);
  }
});

test('empty ones carry no code; those of a build do; each cylinder has its row', () => {
  const dark = (all: readonly Sheet[]): number =>
    marksOf(all).filter((mark) => mark.kind === 'shape' && mark.fill).length;
  for (const which of WORKSHEETS) {
    expect(dark(sheets(which, null))).toBe(0);
    expect(dark(sheets(which, book().report()))).toBe(5);
  }
  expect(wordsOf(sheets('lobes', null)).filter((each) => /^\d$/.test(each))).toHaveLength(8);
  expect(wordsOf(sheets('lobes', book().report())).filter((each) => /^\d$/.test(each))).toEqual([
    '1',
    '5',
    '3',
    '6',
    '2',
    '4',
  ]);
});

test('a table that is longer than a sheet goes on on the next, boxes inside of the paper', () => {
  const job = book();
  const described = job.entries[0];
  if (described?.kind !== 'build.described') throw new Error('a book opens with its description');
  const cylinders = 12;
  const firingOrder = Array.from({ length: cylinders }, (_, i) => i + 1);
  job.write('build.described', {
    ...described.body,
    replaces: described.id,
    engine: { ...described.body.engine, cylinders, firingOrder },
  });
  const all = sheets('lash', job.report());
  expect(all).toHaveLength(2);
  for (const { width, height, parts } of all)
    for (const { at, marks } of parts)
      for (const mark of marks) {
        if (mark.kind !== 'line') continue;
        expect(Math.min(mark.x1, mark.x2) + at[0]).toBeGreaterThanOrEqual(0);
        expect(Math.max(mark.x1, mark.x2) + at[0]).toBeLessThanOrEqual(width);
        expect(Math.max(mark.y1, mark.y2) + at[1]).toBeLessThanOrEqual(height);
      }
  expect(wordsOf(all).filter((each) => /^\d+ (intake|exhaust)$/.test(each))).toHaveLength(24);
});
