import { FEWEST_POINTS, type TracePoint } from '../cam/trace-points';
import { type Outcome, problem } from '../problem';
import { cutText } from '../units/text';

/** Rows of cells as text, from a file or a paste; the first may be headings. */
export type Table = readonly (readonly string[])[];

export type TableLift = 'mm' | 'in' | 'thou';

/** How a table is to be understood. Columns count from 0. */
export interface TableReading {
  readonly angleColumn: number;
  readonly liftColumn: number;
  readonly angleIn: 'crank' | 'cam';
  readonly liftIn: TableLift;
}

export interface TableSurvey {
  readonly headings: readonly string[] | null;
  readonly columns: number;
  /** Best guess, from the headings and the figures. */
  readonly reading: TableReading;
}

/** More points than this are no better: every tenth of a degree twice round. */
const MOST_ROWS = 7200;
const MM_PER: Readonly<Record<TableLift, number>> = { mm: 1, in: 25.4, thou: 0.0254 };
/** No lobe or valve lifts more, mm. */
const MOST_LIFT = 40;

/** A figure with decimal point or comma and either minus sign; NaN when it is none. `figureOf('1,27')` is 1.27. */
export function figureOf(cell: string): number {
  const text = cell
    .trim()
    .replace(/^\uFEFF/, '')
    .replace('−', '-')
    .replace(/°$/, '')
    .trim();
  return /^[-+]?(\d+([.,]\d*)?|[.,]\d+)(e[-+]?\d+)?$/i.test(text) ? Number(text.replace(',', '.')) : NaN;
}

const isBlank = (row: readonly string[]): boolean =>
  row.every((cell) => cell.trim() === '') || (row[0] ?? '').trim().startsWith('#');

interface Line {
  /** As an editor counts it, from 1. */
  readonly number: number;
  readonly cells: readonly string[];
}

function linesOf(table: Table): { readonly headings: readonly string[] | null; readonly lines: readonly Line[] } {
  const lines = table.map((cells, at): Line => ({ number: at + 1, cells })).filter(({ cells }) => !isBlank(cells));
  const [first, ...rest] = lines;
  const titled = first?.cells.every((cell) => Number.isNaN(figureOf(cell))) ?? false;
  return titled && first
    ? { headings: first.cells.map((cell) => cell.replace(/^\uFEFF/, '').trim()), lines: rest }
    : { headings: null, lines };
}

/**
 * What stands between the columns of a text. A comma only where nothing else does: it may be a decimal comma.
 * @example separatorOf('-20;0,00\n-15;0,02') // ';'
 */
export function separatorOf(text: string): ';' | '\t' | ' ' | ',' {
  const lines = text
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line !== '' && !line.startsWith('#'))
    .slice(0, 40);
  const most = (has: (line: string) => boolean): boolean => lines.filter(has).length > lines.length / 2;
  if (most((line) => line.includes(';'))) return ';';
  if (most((line) => line.includes('\t'))) return '\t';
  return most((line) => /^[-+\d.,]*\d +[-+\d.,]+( |$)/.test(line)) ? ' ' : ',';
}

/** What a table seems to hold: which columns, which units. The builder has the last word. */
export function surveyTable(table: Table): TableSurvey {
  const { headings, lines } = linesOf(table);
  const columns = Math.max(0, ...lines.slice(0, 50).map(({ cells }) => cells.length));
  const named = (pattern: RegExp): number => headings?.findIndex((heading) => pattern.test(heading)) ?? -1;
  const angleNamed = named(/angle|deg|°|crank|rotation/i);
  const angleColumn = angleNamed >= 0 ? angleNamed : 0;
  const liftNamed =
    headings?.findIndex((heading, at) => at !== angleColumn && /lift|rise|travel|mm|inch|thou/i.test(heading)) ?? -1;
  const liftColumn = liftNamed >= 0 ? liftNamed : angleColumn === 0 ? 1 : 0;
  const figures = (column: number): number[] =>
    lines.flatMap(({ cells }) => {
      const value = figureOf(cells[column] ?? '');
      return Number.isNaN(value) ? [] : [value];
    });
  const most = figures(liftColumn).reduce((top, each) => Math.max(top, each), 0);
  const title = headings?.[liftColumn] ?? '';
  return {
    headings,
    columns,
    reading: {
      angleColumn,
      liftColumn,
      angleIn: /cam/i.test(headings?.[angleColumn] ?? '')
        ? 'cam'
        : /crank/i.test(headings?.[angleColumn] ?? '')
          ? 'crank'
          : widthOf(lines, angleColumn, liftColumn, most) < NARROWEST_HALF
            ? 'cam'
            : 'crank',
      liftIn: /thou/i.test(title)
        ? 'thou'
        : /\bmm\b|milli/i.test(title)
          ? 'mm'
          : /\bin\b|inch/i.test(title)
            ? 'in'
            : most > MOST_LIFT
              ? 'thou'
              : most > 1.5
                ? 'mm'
                : 'in',
    },
  };
}

/** No lobe is narrower than this at half its lift, crank degrees; none is wider in cam degrees. From memory. */
const NARROWEST_HALF = 100;

/** How wide the lobe is at half its lift, on the scale of the table. */
function widthOf(lines: readonly Line[], angleColumn: number, liftColumn: number, most: number): number {
  let width = 0;
  for (const [i, { cells }] of lines.entries()) {
    const before = lines[i - 1]?.cells[angleColumn];
    if (before === undefined || figureOf(cells[liftColumn] ?? '') < most / 2) continue;
    const step = Math.abs(figureOf(cells[angleColumn] ?? '') - figureOf(before));
    if (step < 100) width += step;
  }
  return width;
}

export interface ReadTable {
  /** Crank degrees growing as the engine runs, and lift in mm. */
  readonly points: readonly TracePoint[];
  /** What was understood of it, in words. */
  readonly notes: readonly string[];
}

/**
 * The points of a table, all or none.
 * @returns the first thing that is wrong, with its row: a cell that is no number, a row of other width, an angle that turns back, too many rows.
 */
export function readTable(table: Table, reading: TableReading): Outcome<ReadTable> {
  const { lines } = linesOf(table);
  const { angleColumn, liftColumn, angleIn, liftIn } = reading;
  if (lines.length === 0) return problem('There are no figures in it.', 'Give at least two columns: angle and lift.');
  if (lines.length > MOST_ROWS)
    return problem(
      `It has ${lines.length.toLocaleString('en')} rows; a trace has at most ${MOST_ROWS.toLocaleString('en')}.`,
      'A point every tenth of a degree is plenty: export it in coarser steps, or one turn only.',
    );
  const [first] = lines;
  const width = first?.cells.length ?? 0;
  if (width < 2)
    return problem(
      `Row ${first?.number}: there is only one column.`,
      'Angle and lift need a column each, with a comma, a semicolon or a tab between them.',
    );
  if (angleColumn === liftColumn || angleColumn >= width || liftColumn >= width)
    return problem('Angle and lift are not two different columns of it.', 'Choose a column for each.');
  const points: TracePoint[] = [];
  const rows: number[] = [];
  for (const { number, cells } of lines) {
    if (cells.length !== width)
      return problem(
        `Row ${number} has ${cells.length} cells, the rows before it ${width}.`,
        'A figure may be missing there, or commas serve both between columns and as decimals. Put it right and import again.',
      );
    const [angle, lift] = [figureOf(cells[angleColumn] ?? ''), figureOf(cells[liftColumn] ?? '')];
    for (const [value, column] of [
      [angle, angleColumn],
      [lift, liftColumn],
    ] as const)
      if (Number.isNaN(value))
        return problem(
          `Row ${number}, column ${column + 1}: ${(cells[column] ?? '').trim() === '' ? 'nothing stands there' : `“${cutText((cells[column] ?? '').trim(), 30)}” is not a number`}.`,
          'Put it right or take the row out, and import again. Nothing has been kept of it.',
        );
    const mm = lift * MM_PER[liftIn];
    if (Math.abs(mm) > MOST_LIFT)
      return problem(
        `Row ${number}: a lift of ${cells[liftColumn]?.trim()} ${liftIn} is more than any lobe lifts.`,
        'Check the unit, and which column is the lift.',
      );
    points.push({ angle: angle * (angleIn === 'cam' ? 2 : 1), lift: mm });
    rows.push(number);
  }
  if (points.length < FEWEST_POINTS)
    return problem(`${points.length} points are too few for a trace.`, `Give at least ${FEWEST_POINTS}.`);
  return unrolled(points, rows);
}

/** Angles that only grow. They may begin anywhere and run over the end of their scale once or more. */
function unrolled(points: readonly TracePoint[], rows: readonly number[]): Outcome<ReadTable> {
  const notes: string[] = [];
  const steps = points.slice(1).map(({ angle }, i) => angle - (points[i]?.angle ?? 0));
  const falling = steps.filter((step) => step < 0).length > steps.length / 2;
  const sign = falling ? -1 : 1;
  if (falling) notes.push('The angles fall: taken as a scale that falls as the engine runs.');
  const angles = points.map(({ angle }) => angle);
  const top = angles.reduce((most, each) => Math.max(most, each), -Infinity);
  const bottom = angles.reduce((least, each) => Math.min(least, each), Infinity);
  const scale = top - bottom > 360.5 ? 720 : 360;
  let turns = 0;
  const rising: TracePoint[] = [];
  for (const [i, point] of points.entries()) {
    const before = rising.at(-1);
    let angle = sign * point.angle + turns * scale;
    if (before && angle < before.angle - scale / 2) {
      turns += 1;
      angle += scale;
    }
    if (before && angle < before.angle - 1e-9)
      return problem(
        `Row ${rows[i]}: the angle turns back, from ${points[i - 1]?.angle} to ${point.angle}.`,
        'A trace is taken in one direction. Take the rows out that were read turning back.',
      );
    rising.push({ angle, lift: point.lift });
  }
  if (turns > 0) notes.push(`It runs over the end of its scale${turns > 1 ? ` ${turns} times` : ''}: laid end to end.`);
  const span = (rising.at(-1)?.angle ?? 0) - (rising[0]?.angle ?? 0);
  if (span > 1450)
    return problem(
      `It runs over ${Math.round(span)} crank degrees.`,
      'One cycle is 720. Take one turn of the cam out of it, or check whether the angle is in cam or crank degrees.',
    );
  return { ok: true, points: rising, notes };
}
