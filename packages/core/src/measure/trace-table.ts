import { MM_PER_INCH } from '../units/length';
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
  /** Angles that fall from row to row: a scale that falls as the engine runs, or a list that runs backwards; null while nobody has said. */
  readonly falling: Falling | null;
}

/** With one the lobe is laid as it runs, with the other the rows are turned round: they are mirror images. */
export type Falling = 'scale' | 'list';

export interface TableSurvey {
  readonly headings: readonly string[] | null;
  readonly columns: number;
  /** Do the angles fall from row to row? Then it has to be said why. */
  readonly falls: boolean;
  /** Best guess, from the headings and the figures. */
  readonly reading: TableReading;
}

/** More points than this are no better: every tenth of a degree twice round. */
const MOST_ROWS = 7200;
const MM_PER: Readonly<Record<TableLift, number>> = { mm: 1, in: MM_PER_INCH, thou: MM_PER_INCH / 1000 };
/** No lobe or valve lifts more: mm, and a little less in inches. */
const MOST_LIFT = 40;
const MOST_LIFT_IN = 1.5;

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

function linesOf(table: Table): {
  readonly headings: readonly string[] | null;
  readonly lines: readonly Line[];
  /** Were decimals put together that commas had torn apart? */
  readonly joined: boolean;
} {
  const lines = table.map((cells, at): Line => ({ number: at + 1, cells })).filter(({ cells }) => !isBlank(cells));
  const [first, ...rest] = lines;
  const titled = first?.cells.every((cell) => Number.isNaN(figureOf(cell))) ?? false;
  const joined = joinDecimals(titled ? rest : lines);
  // Headings of joined columns stand over other ones than before, if over any.
  const headings = titled && first ? first.cells.map((cell) => cell.replace(/^\uFEFF/, '').trim()) : null;
  const fits = headings !== null && headings.length === joined.lines[0]?.cells.length;
  return { headings: joined.joined && !fits ? null : headings, ...joined };
}

/**
 * Commas that serve both between columns and as decimals: "-40,0,000" is −40 and 0.000. Known by a last column of bare digits of one length, some with a 0 in front, as
 * no number is written. With four cells the angle has decimals too.
 */
function joinDecimals(lines: readonly Line[]): { readonly lines: readonly Line[]; readonly joined: boolean } {
  const width = lines[0]?.cells.length ?? 0;
  const last = lines.map(({ cells }) => (cells.at(-1) ?? '').trim());
  const long = last[0]?.length ?? 0;
  const isBare = (cell: string): boolean => /^\d+$/.test(cell);
  const whole = (cells: readonly string[], at: number): boolean => /^[-+−]?\d+$/.test((cells[at] ?? '').trim());
  const split =
    (width === 3 || width === 4) &&
    long >= 2 &&
    last.every((cell) => isBare(cell) && cell.length === long) &&
    last.some((cell) => cell.startsWith('0')) &&
    lines.every(
      ({ cells }) =>
        cells.length === width &&
        whole(cells, 0) &&
        whole(cells, width - 2) &&
        (width === 3 || isBare((cells[1] ?? '').trim())),
    );
  if (!split) return { lines, joined: false };
  return {
    joined: true,
    lines: lines.map(({ number, cells }) => {
      const [a = '', b = '', c = '', d = ''] = cells.map((cell) => cell.trim());
      return { number, cells: width === 3 ? [a, `${b}.${c}`] : [`${a}.${b}`, `${c}.${d}`] };
    }),
  };
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
  const figures = (column: number): number[] =>
    lines.flatMap(({ cells }) => {
      const value = figureOf(cells[column] ?? '');
      return Number.isNaN(value) ? [] : [value];
    });
  const all = Array.from({ length: columns }, (_, at) => figures(at));
  const first = (ofColumn: (figures: readonly number[], at: number) => boolean): number =>
    all.findIndex((each, at) => each.length > lines.length / 2 && ofColumn(each, at));
  const angleNamed = named(/angle|deg|°|crank|rotation/i);
  // Headings may be in any language: the figures say what they are.
  const angleColumn = angleNamed >= 0 ? angleNamed : Math.max(0, first(runsOn));
  const liftNamed =
    headings?.findIndex((heading, at) => at !== angleColumn && /lift|rise|travel|mm|inch|thou/i.test(heading)) ?? -1;
  const rising = first((each, at) => at !== angleColumn && risesOnce(each));
  const liftColumn = liftNamed >= 0 ? liftNamed : rising >= 0 ? rising : angleColumn === 0 ? 1 : 0;
  const most = figures(liftColumn).reduce((top, each) => Math.max(top, each), 0);
  return {
    headings,
    columns,
    falls: falls(figures(angleColumn)),
    reading: {
      falling: null,
      angleColumn,
      liftColumn,
      angleIn:
        firstThat(ANGLE_NAMES, headings?.[angleColumn] ?? '') ??
        (widthOf(lines, angleColumn, liftColumn, most) < NARROWEST_HALF ? 'cam' : 'crank'),
      liftIn: firstThat(LIFT_NAMES, headings?.[liftColumn] ?? '') ?? unitOfLift(most),
    },
  };
}

/** What a heading says of its column: the first that fits. */
const ANGLE_NAMES = [
  [/cam/i, 'cam'],
  [/crank/i, 'crank'],
] as const;
const LIFT_NAMES = [
  [/thou/i, 'thou'],
  [/\bmm\b|milli/i, 'mm'],
  [/\bin\b|inch/i, 'in'],
] as const;

const firstThat = <Kind>(names: readonly (readonly [RegExp, Kind])[], heading: string): Kind | undefined =>
  names.find(([pattern]) => pattern.test(heading))?.[1];

/** The unit in which a lobe lifts so much at most. */
function unitOfLift(most: number): TableLift {
  if (most > MOST_LIFT) return 'thou';
  return most > MOST_LIFT_IN ? 'mm' : 'in';
}

const stepsOf = (figures: readonly number[]): number[] => figures.slice(1).map((each, i) => each - (figures[i] ?? 0));

/** Do most steps go down? */
const falls = (angles: readonly number[]): boolean => {
  const steps = stepsOf(angles);
  return steps.filter((step) => step < 0).length > steps.length / 2;
};

/** An angle goes on in steps of one size, but where its scale begins anew; a count of the rows does so too, in ones from 0 or 1. */
function runsOn(figures: readonly number[]): boolean {
  const steps = stepsOf(figures);
  const usual = [...steps].sort((a, b) => a - b)[steps.length >> 1] ?? 0;
  const even = steps.filter((step) => Math.abs(step - usual) < 1e-6).length > 0.9 * steps.length;
  const counts = usual === 1 && (figures[0] === 0 || figures[0] === 1) && figures.length < 200;
  return usual !== 0 && even && !counts;
}

/** A lift goes up and down again, mostly once. */
function risesOnce(figures: readonly number[]): boolean {
  const most = Math.max(...figures);
  const rises = figures.slice(1).filter((each, i) => each > most / 2 && (figures[i] ?? 0) <= most / 2).length;
  const falls = figures.slice(1).filter((each, i) => each <= most / 2 && (figures[i] ?? 0) > most / 2).length;
  return most > 0 && Math.min(...figures) > -most / 4 && rises <= 2 && falls >= 1 && falls <= 2;
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
  const { headings, lines, joined } = linesOf(table);
  const { angleColumn, liftColumn, angleIn, liftIn, falling } = reading;
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
  const notes: string[] = [];
  if (joined) notes.push('Commas stood between the columns and for decimals: the figures were put together again.');
  const unused = Array.from({ length: width }, (_, at) => at)
    .filter((at) => at !== angleColumn && at !== liftColumn)
    .map((at) => (headings?.[at] ? `“${cutText(headings[at], 30)}”` : `column ${at + 1}`));
  if (unused.length > 0) notes.push(`Not used: ${unused.join(', ')}.`);
  if (!falls(points.map(({ angle }) => angle))) return unrolled(points, rows, notes);
  if (falling === null)
    return problem(
      'The angles fall from row to row.',
      'Say which it is: a scale whose numbers fall as the engine runs, or a list that runs backwards. One lobe is the mirror image of the other.',
    );
  if (falling === 'list') {
    notes.push('The list runs backwards: turned round.');
    return unrolled([...points].reverse(), [...rows].reverse(), notes);
  }
  notes.push('Its scale falls as the engine runs: turned round.');
  return unrolled(
    points.map(({ angle, lift }) => ({ angle: -angle, lift })),
    rows,
    notes,
  );
}

/** Angles that only grow. They may begin anywhere and run over the end of their scale once or more. */
function unrolled(points: readonly TracePoint[], rows: readonly number[], said: readonly string[]): Outcome<ReadTable> {
  const notes = [...said];
  const angles = points.map(({ angle }) => angle);
  const top = angles.reduce((most, each) => Math.max(most, each), -Infinity);
  const bottom = angles.reduce((least, each) => Math.min(least, each), Infinity);
  const scale = top - bottom > 360.5 ? 720 : 360;
  let turns = 0;
  const rising: TracePoint[] = [];
  for (const [i, point] of points.entries()) {
    const before = rising.at(-1);
    let angle = point.angle + turns * scale;
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
