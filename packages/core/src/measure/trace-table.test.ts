import { type Lobe, lobeAt } from '../cam/lobe';
import { readTrace } from '../cam/trace';
import { type Table, type TableReading, readTable, separatorOf, surveyTable } from './trace-table';

const LOBE: Lobe = { peak: 8.4, nose: 108, half: 150, power: 3, lean: 0 };
const rowsOf = (
  every: number,
  show: (angle: number, lift: number) => readonly [string, string],
  from = -60,
  to = 280,
) =>
  Array.from({ length: (to - from) / every + 1 }, (_, i) => {
    const angle = from + i * every;
    return show(angle, lobeAt(LOBE, angle).lift);
  });
const plain = (angle: number, lift: number) => [String(angle), lift.toFixed(4)] as const;
const READING: TableReading = { angleColumn: 0, liftColumn: 1, angleIn: 'crank', liftIn: 'mm', falling: null };
const noseOf = (table: Table, reading = surveyTable(table).reading): number => {
  const read = readTable(table, reading);
  if (!read.ok) throw new Error(`${read.problem.message} ${read.problem.remedy}`);
  const trace = readTrace(read.points, { liftSd: 0.001, angleSd: 0, closes: 0.05 });
  if (!trace.ok) throw new Error(trace.problem.message);
  return trace.curve.nose;
};

test.each([
  ['-20;0,00\n-15;0,02', ';'],
  ['-20\t0,00\n-15\t0,02', '\t'],
  ['# a remark; with marks\n-20, 0.00\n-15, 0.02', ','],
  ['-20  0,00\n-15  0,02', ' '],
  ['angle,lift\n-20,0.00', ','],
])('what stands between the columns of %j', (text, separator) => expect(separatorOf(text)).toBe(separator));

describe('a table is understood', () => {
  test.each<[string, Table]>([
    ['plain crank degrees and mm', rowsOf(2, plain)],
    ['headings, and a mark at the beginning', [['\uFEFFAngle (crank deg)', 'Lift (mm)'], ...rowsOf(2, plain)]],
    ['decimal commas', rowsOf(2, (a, l) => [`${a},0`, l.toFixed(4).replace('.', ',')])],
    [
      'cam degrees and inches',
      [['cam angle', 'lift inch'], ...rowsOf(2, (a, l) => [String(a / 2), (l / 25.4).toFixed(5)])],
    ],
    ['thou', rowsOf(2, (a, l) => [String(a), (l / 0.0254).toFixed(1)])],
    ['inches, known by their size', rowsOf(2, (a, l) => [String(a), (l / 25.4).toFixed(5)])],
    ['blank rows and remarks', [['# bench 2'], [''], ...rowsOf(2, plain), ['', '']]],
    ['started anywhere on 0 to 720', rowsOf(2, (a, l) => [String((((a + 720) % 720) + 720) % 720), l.toFixed(4)])],
    ['lift first', [['Rise mm', 'Crank °'], ...rowsOf(2, (a, l) => [l.toFixed(4), String(a)])]],
  ])('%s', (_what, table) => expect(noseOf(table)).toBeCloseTo(108, 1));

  test.each<[string, Table, number]>([
    [
      'commas between columns and for decimals',
      rowsOf(2, (a, l) => plain(a, l)).map(([a, l]) => [a, ...l.split('.')]),
      0,
    ],
    ['the angle with decimals too', rowsOf(2, (a, l) => plain(a, l)).map(([a, l]) => [a, '0', ...l.split('.')]), 0],
    ['headings in another language', [['Drehung', 'Hub'], ...rowsOf(2, plain)], 0],
    ['headings in another language, lift first', [['Hub', 'Drehung'], ...rowsOf(2, plain).map(([a, l]) => [l, a])], 0],
    ['rows counted, a column too many', rowsOf(2, plain).map(([a, l], i) => [String(i + 1), l, a, '21.5']), 2],
  ])('%s', (_what, table, unused) => {
    expect(noseOf(table)).toBeCloseTo(108, 1);
    const read = readTable(table, surveyTable(table).reading);
    const notes = read.ok ? read.notes.join(' ') : '';
    expect(notes.match(/column \d/g)?.length ?? 0).toBe(unused);
    expect(/put together again/.test(notes)).toBe(/commas|decimals/.test(_what));
  });

  test('angles that fall are asked about: a scale that falls, or a list that runs backwards, is the other’s mirror image', () => {
    const scale = rowsOf(2, (a, l) => plain(-a, l));
    expect(surveyTable(scale).falls).toBe(true);
    expect(readTable(scale, READING)).toMatchObject({
      ok: false,
      problem: { message: expect.stringMatching(/angles fall/) },
    });
    expect(noseOf(scale, { ...READING, falling: 'scale' })).toBeCloseTo(108, 1);
    const list = [...rowsOf(2, plain)].reverse();
    expect(noseOf(list, { ...READING, falling: 'list' })).toBeCloseTo(108, 1);
    expect(readTable(list, { ...READING, falling: 'list' })).toMatchObject({
      notes: [expect.stringMatching(/turned round/)],
    });
  });
});

describe('a table that cannot be a trace is refused whole, and the place named', () => {
  const good: (readonly string[])[] = rowsOf(2, plain);
  const withRow = (at: number, row: readonly string[]): Table => good.map((each, i) => (i === at ? row : each));
  test.each<[string, Table, RegExp]>([
    ['a missing column', good.map(([angle]) => [angle ?? '']), /Row 1: there is only one column/],
    ['mixed separators', withRow(40, ['20', '1', '27']), /Row 41 has 3 cells, the rows before it 2/],
    ['text', withRow(12, ['-36', 'n/a']), /Row 13, column 2: “n\/a” is not a number/],
    ['an empty cell', withRow(12, ['-36', ' ']), /Row 13, column 2: nothing stands there/],
    ['an angle that turns back', withRow(90, ['100', '8.3']), /Row 91: the angle turns back, from 118 to 100/],
    [
      '200,000 rows',
      Array.from({ length: 200_000 }, (_, i) => [String(i / 300), '0']),
      /has 200,000 rows; a trace has at most 7,200/,
    ],
    ['a lift beyond any lobe', withRow(20, ['-20', '420']), /Row 21: a lift of 420 mm/],
    ['too few', good.slice(0, 5), /5 points are too few/],
    ['nothing', [['# only a remark']], /no figures/],
    ['words only', [['angle', 'lift']], /no figures/],
    [
      'far more than a cycle',
      Array.from({ length: 800 }, (_, i) => [String(i * 2), '1']),
      /runs over 1598 crank degrees/,
    ],
  ])('%s', (_what, table, words) => {
    const read = readTable(table, READING);
    expect(read.ok ? 'understood' : `${read.problem.message}`).toMatch(words);
  });

  test('columns must be two different ones', () =>
    expect(readTable(good, { ...READING, liftColumn: 0 }).ok).toBe(false));
});
