import { parse } from 'papaparse';
import { type Lobe, lobeAt } from '@yosoku/core/cam/lobe';
import { readTrace } from '@yosoku/core/cam/trace';
import { type Falling, readTable, surveyTable } from '@yosoku/core/measure/trace-table';
import { tableOf } from './table-of';

/** Forty-five odd tables, as programs and people write them: each is read rightly, asked about, or refused with its line. */

const LOBE: Lobe = { peak: 8.4, nose: 108, half: 150, power: 3, lean: 0 };
type Write = (angle: number, lift: number, row: number) => string;
const rows = (write: Write, { every = 2, from = -60, to = 280 } = {}): string[] =>
  Array.from({ length: (to - from) / every + 1 }, (_, i) => {
    const angle = from + i * every;
    return write(angle, lobeAt(LOBE, angle).lift, i);
  });
const text = (write: Write, head: readonly string[] = [], how = {}): string =>
  [...head, ...rows(write, how)].join('\n');
const comma = (value: number, places = 3): string => value.toFixed(places).replace('.', ',');
const minus = (angle: number): string => String(angle).replace('-', '−');
const plain: Write = (a, l) => `${a}, ${l.toFixed(4)}`;
const changed = (at: number, row: string): string =>
  rows(plain)
    .map((each, i) => (i === at ? row : each))
    .join('\n');

/** What becomes of a text: where the nose was read, what is asked, or what is wrong. */
function outcome(given: string, falling: Falling | null = null): string {
  const table = tableOf(given, (spaced, how) => parse<string[]>(spaced, how));
  const survey = surveyTable(table);
  const read = readTable(table, { ...survey.reading, falling });
  if (!read.ok) return read.problem.message;
  const trace = readTrace(read.points, { liftSd: 0.003, angleSd: 0, closes: 0.05 });
  if (!trace.ok) return trace.problem.message;
  const { nose, peak } = trace.curve;
  return `${Math.round(nose)} ${peak.toFixed(1)}`;
}

const READ = '108 8.4';
test.each<[string, string, string | RegExp, Falling?]>([
  ['plain', text(plain), READ],
  ['no blank after the comma', text((a, l) => `${a},${l.toFixed(4)}`), READ],
  ['semicolons', text((a, l) => `${a};${l.toFixed(4)}`), READ],
  ['semicolons and decimal commas', text((a, l) => `${comma(a, 1)};${comma(l)}`), READ],
  ['tabs', text((a, l) => `${a}\t${l.toFixed(4)}`), READ],
  ['tabs and decimal commas', text((a, l) => `${a}\t${comma(l)}`), READ],
  ['blanks, right-aligned', text((a, l) => `${String(a).padStart(8)}${l.toFixed(4).padStart(12)}`), READ],
  ['blanks and decimal commas', text((a, l) => `${a}   ${comma(l)}`), READ],
  ['decimal commas between commas', text((a, l) => `${a},${comma(l)}`), READ],
  ['decimal commas between commas, the angle too', text((a, l) => `${comma(a, 1)},${comma(l)}`), READ],
  ['quoted cells', text((a, l) => `"${a}","${l.toFixed(4)}"`), READ],
  ['quoted decimal commas', text((a, l) => `"${a}","${comma(l)}"`), READ],
  ['a byte order mark', `\uFEFF${text(plain)}`, READ],
  ['lines ended the other way', text(plain).replaceAll('\n', '\r\n'), READ],
  ['blank lines and remarks', `# lobe 3\n\n${text(plain)}\n\n# end\n`, READ],
  ['a trailing separator', text((a, l) => `${a};${l.toFixed(4)};`), READ],
  ['the Unicode minus', text((a, l) => `${minus(a)}, ${l.toFixed(4)}`), READ],
  ['a plus before what is positive', text((a, l) => `${a > 0 ? '+' : ''}${a}; ${l.toFixed(4)}`), READ],
  ['a degree sign', text((a, l) => `${a}°; ${l.toFixed(4)}`), READ],
  ['exponents', text((a, l) => `${a}; ${l.toExponential(4)}`), READ],
  ['no digit before the point', text((a, l) => `${a}; ${l.toFixed(4).replace(/^0\./, '.')}`), READ],
  ['headings', text(plain, ['Angle (deg), Lift (mm)']), READ],
  ['headings, lift first', text((a, l) => `${l.toFixed(4)}, ${a}`, ['Lift mm, Crank angle']), READ],
  ['no headings, lift first', text((a, l) => `${l.toFixed(4)}; ${a}`), READ],
  ['headings in another language', text(plain, ['Drehwinkel, Hub']), READ],
  ['another, lift first', text((a, l) => `${l.toFixed(4)}; ${a}`, ['Levée; Vilebrequin']), READ],
  ['rows counted', text((a, l, i) => `${i + 1}; ${a}; ${l.toFixed(4)}`, ['No; Grad; Hub']), READ],
  ['a column that says nothing', text((a, l) => `${a}; 21.5; ${l.toFixed(4)}`, ['Grad; Temp; Hub']), READ],
  ['velocity beside it', text((a, l) => `${a}; ${l.toFixed(4)}; ${(Math.sin(a / 50) / 9).toFixed(5)}`), READ],
  ['inches', text((a, l) => `${a}; ${(l / 25.4).toFixed(5)}`, ['angle; lift in']), READ],
  ['inches, unnamed', text((a, l) => `${a}; ${(l / 25.4).toFixed(5)}`), READ],
  ['thou', text((a, l) => `${a}; ${(l / 0.0254).toFixed(1)}`), READ],
  ['cam degrees, named', text((a, l) => `${a / 2}; ${l.toFixed(4)}`, ['cam angle; lift mm']), READ],
  ['cam degrees, known by the width', text((a, l) => `${a / 2}; ${l.toFixed(4)}`), READ],
  ['0 to 720, begun anywhere', text((a, l) => `${(a + 1000) % 720}; ${l.toFixed(4)}`), /^(108|-172|-332|388) 8\.4$/],
  ['an offset on the base circle', text((a, l) => `${a}; ${(l + 0.3).toFixed(4)}`), READ],
  ['a scale that falls: asked', text((a, l) => `${-a}; ${l.toFixed(4)}`), /angles fall from row to row/],
  ['a scale that falls, said', text((a, l) => `${-a}; ${l.toFixed(4)}`), READ, 'scale'],
  ['a list that runs backwards, said', rows(plain).reverse().join('\n'), READ, 'list'],
  ['one row with a decimal comma among points', changed(30, '0, 0,0410'), /^Row 31 has 3 cells/],
  ['a word', changed(30, '0, n/a'), /^Row 31, column 2: “n\/a” is not a number/],
  ['a hole', changed(30, '0, '), /^Row 31, column 2: nothing stands there/],
  ['an angle turned back', changed(90, '100, 8.3'), /^Row 91: the angle turns back/],
  ['no lobe in it', text((a) => `${a}; 0.000`), /nothing rises/],
  ['one column', text((a) => String(a)), /^Row 1: there is only one column/],
])('%s', (...[_what, given, expected, falling]) => {
  expect(outcome(given, falling)).toMatch(typeof expected === 'string' ? new RegExp(`^${expected}$`) : expected);
});
