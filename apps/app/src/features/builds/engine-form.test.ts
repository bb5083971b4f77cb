import { entrySchema } from '@yosoku/core/record/entry';
import { derive } from '@yosoku/core/report/report';
import { EMPTY_ENGINE, type EngineForm, echoLength, engineForm, engineProblems, readEngine } from './engine-form';

const typed: EngineForm = {
  ...EMPTY_ENGINE,
  name: ' Kestrel Point six ',
  cylinders: '6',
  firingOrder: '1 5 3 6 2 4',
  stroke: '3.48',
  rod: '144.78mm',
};

const entryOf = (form: EngineForm) =>
  entrySchema.parse({
    id: '00000000-0000-4000-8000-000000000001',
    buildId: '00000000-0000-4000-8000-000000000002',
    builderId: '00000000-0000-4000-8000-000000000003',
    takenAt: '2026-03-14T09:26:53Z',
    kind: 'build.described',
    body: { replaces: null, ...readEngine(form) },
  });

test('a good form becomes an entry that the logbook takes, and is shown again as it was meant', () => {
  expect(engineProblems(typed)).toEqual({});
  const report = derive([entryOf(typed)]);
  if (!report) throw new Error('the entry says what engine it is');
  // 3.48 in is 88.392 mm exactly (NIST SP 811).
  expect(report.build.engine).toMatchObject({ stroke: 88.392, rod: 144.78 });
  expect(engineForm(report)).toMatchObject({ name: 'Kestrel Point six', stroke: '3.480 in', rod: '5.700 in' });
  expect(engineProblems(engineForm(report))).toEqual({});
  expect(echoLength('144.78mm', typed)).toBe('144.78 mm');
});

test.each([
  [{ name: ' ' }, 'name', /Give it a name/],
  [{ cylinders: '0' }, 'cylinders', /1 to 24/],
  [{ cylinders: 'six' }, 'cylinders', /1 to 24/],
  [{ firingOrder: '1-5-3-3-2-4' }, 'firingOrder', /3 stands twice/],
  [{ firingOrder: '' }, 'firingOrder', /like 1-3-4-2/],
  [{ stroke: '0' }, 'stroke', /cannot be 0/],
  [{ stroke: '88.4' }, 'stroke', /Check the unit/],
  [{ rod: '1.7' }, 'rod', /longer than half the stroke/],
  [{ bore: '101.6' }, 'bore', /Check the unit/],
  [{ compression: '1.5' }, 'compression', /between 2 and 30/],
  [{ compression: 'ten' }, 'compression', /between 2 and 30/],
  [{ chamber: '0' }, 'chamber', /up to 5000/],
  [{ compression: '10', chamber: '48' }, 'chamber', /not both/],
] as const)('%j is named at %s', (wrong, field, words) => {
  expect(engineProblems({ ...typed, ...wrong })[field]).toMatch(words);
});

test.each([
  [
    { bore: '4', compression: '10,5' },
    { bore: 101.6, compression: { given: 'ratio', ratio: 10.5 } },
  ],
  [{ chamber: '48.5' }, { bore: null, compression: { given: 'chamber', volume: 48.5 } }],
  [{}, { bore: null, compression: null }],
])('what the cylinder holds: %j is kept and shown again', (more, kept) => {
  const form = { ...typed, ...more };
  expect(engineProblems(form)).toEqual({});
  const report = derive([entryOf(form)]);
  if (!report) throw new Error('the entry says what engine it is');
  expect(report.build.engine).toMatchObject(kept);
  expect(readEngine(engineForm(report)).engine).toEqual(readEngine(form).engine);
});

test('a second set of numbers is kept, the first one is not it again, and a third is not lost by an edit', () => {
  const form = { ...typed, ring: '0-180', secondRing: '0-90' };
  expect(readEngine(form).rings).toEqual([{ ring: '0-90' }]);
  expect(readEngine({ ...typed, secondRing: '0-180' }).rings).toBeUndefined();
  // Two that go all round count opposite ways.
  const round = { ...typed, ring: '0-360', sense: 'rising', secondRing: '0-360', secondSense: 'rising' };
  expect(readEngine(round).rings).toEqual([{ ring: '0-360', sense: 'falling' }]);
  const third = { ring: '0-360', sense: 'rising' } as const;
  expect(readEngine(form, [{ ring: '0-90' }, third]).rings).toEqual([{ ring: '0-90' }, third]);
  expect(readEngine({ ...form, ring: '0-360' }, [{ ring: '0-90' }, third]).rings).toEqual([{ ring: '0-90' }]);
});
