import { type Outcome, problem } from '../problem';
import {
  EDGE,
  type Mark,
  PAPER_SIZES,
  type PaperName,
  type Part,
  type Sheet,
  type Window,
  cross,
  line,
} from './drawing';
import { CHECK_LINE, type PrinterFactor } from './printer';

/** On what, and how it is called there. */
export interface Paper {
  readonly paper: PaperName;
  readonly factor: PrinterFactor;
  readonly title: string;
}

/** Beside and below what is printed: the lines of the printer check, and the title. mm. */
const STRIP = 9;
const FOOT = 13;
/** Sheets lie over one another by so much, mm. */
const OVERLAP = 12;
/** Nobody joins more. */
export const MOST_SHEETS = 24;

/** A page of a paper, laid upright or across, in true millimetres as this printer prints it. */
interface Page extends Pick<Sheet, 'width' | 'height' | 'factor'> {
  /** Where the drawing goes. */
  readonly room: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}

function pageOf({ paper, factor }: Paper, across: boolean): Page {
  const size = PAPER_SIZES[paper];
  const [wide, high] = across ? [size.height, size.width] : [size.width, size.height];
  // A page that lies across is turned by the printer: its width runs along the sheet.
  const turned = across ? { x: factor.along, y: factor.across } : { x: factor.across, y: factor.along };
  const [width, height] = [wide * turned.x, high * turned.y];
  return {
    width,
    height,
    factor: turned,
    room: { x: EDGE + STRIP, y: EDGE, width: width - 2 * EDGE - STRIP, height: height - 2 * EDGE - FOOT },
  };
}

const sideOf = ({ width, height, factor }: Page): Omit<Sheet, 'parts'> => ({ width, height, factor });

/** Letters are no wider than this share of their height, on the mean of a word. */
const WIDEST_LETTER = 0.75;

/** What is filled, mm: y runs down. */
interface Extent {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Roughly what a mark fills. */
function extent(mark: Mark): Extent {
  const around = (xs: readonly number[], ys: readonly number[], more = 0) => ({
    left: Math.min(...xs) - more,
    top: Math.min(...ys) - more,
    right: Math.max(...xs) + more,
    bottom: Math.max(...ys) + more,
  });
  switch (mark.kind) {
    case 'line':
      return around([mark.x1, mark.x2], [mark.y1, mark.y2], mark.width);
    case 'circle':
      return around([mark.x], [mark.y], mark.r + mark.width);
    case 'shape':
      return around(
        mark.points.map(([x]) => x),
        mark.points.map(([, y]) => y),
      );
    case 'words': {
      const long = mark.size * WIDEST_LETTER * mark.text.length;
      return around([mark.x], [mark.y], mark.size + Math.min(long, mark.room ?? long));
    }
  }
}

/** Marks with what each fills, worked out once for all windows that it may be seen through. */
type Spread = readonly { readonly mark: Mark; readonly fills: Extent }[];

const spread = (marks: readonly Mark[]): Spread => marks.map((mark) => ({ mark, fills: extent(mark) }));

/** Marks of which something is seen through a window; the others would only make the file larger. */
function seenThrough(window: Window, [x, y]: Part['at'], marks: Spread): readonly Mark[] {
  return marks
    .filter(
      ({ fills: { left, top, right, bottom } }) =>
        right + x >= window.x &&
        left + x <= window.x + window.width &&
        bottom + y >= window.y &&
        top + y <= window.y + window.height,
    )
    .map(({ mark }) => mark);
}

const windowed = (window: Window, at: Part['at'], marks: Spread): Part => ({
  at,
  marks: seenThrough(window, at, marks),
  window,
});

/** The lines of 100 mm each way and the title, on every sheet. */
function furniture({ width, height }: Page, title: string, which: string): Part {
  const low = height - EDGE - 3;
  const [left, top] = [EDGE + 4, EDGE + 2];
  const ends = 2;
  const marks: Mark[] = [
    line(left + 8, low, left + 8 + CHECK_LINE, low, 0.2),
    line(left + 8, low - ends, left + 8, low + ends, 0.2),
    line(left + 8 + CHECK_LINE, low - ends, left + 8 + CHECK_LINE, low + ends, 0.2),
    line(left, top, left, top + CHECK_LINE, 0.2),
    line(left - ends, top, left + ends, top, 0.2),
    line(left - ends, top + CHECK_LINE, left + ends, top + CHECK_LINE, 0.2),
    {
      kind: 'words',
      x: left + 10,
      y: low - 3.2,
      size: 2.3,
      text: `both lines are ${CHECK_LINE} mm long where this sheet is true`,
      anchor: 'start',
      tone: 'soft',
      room: CHECK_LINE - 4,
    },
    {
      kind: 'words',
      x: width - EDGE,
      y: low - 3.2,
      size: 2.6,
      text: title,
      anchor: 'end',
      room: width - 2 * EDGE - CHECK_LINE - 20,
    },
  ];
  if (which !== '')
    marks.push({
      kind: 'words',
      x: width - EDGE,
      y: low + 0.6,
      size: 2.6,
      text: which,
      anchor: 'end',
      tone: 'soft',
      room: width - 2 * EDGE - CHECK_LINE - 20,
    });
  return { at: [0, 0], marks };
}

/** Sheets side by side and one below another that hold a drawing of a width and a height. */
interface TilePlan {
  readonly page: Page;
  readonly columns: number;
  readonly rows: number;
}

const count = (size: number, room: number): number =>
  size <= room ? 1 : Math.ceil((size - OVERLAP) / (room - OVERLAP));

/** The plan of fewest sheets, upright or across. */
function planFor(paper: Paper, width: number, height: number): TilePlan | null {
  const plans = [false, true].map((across): TilePlan => {
    const page = pageOf(paper, across);
    return { page, columns: count(width, page.room.width), rows: count(height, page.room.height) };
  });
  const [best] = plans.sort((a, b) => a.columns * a.rows - b.columns * b.rows);
  return best && best.columns * best.rows <= MOST_SHEETS ? best : null;
}

/**
 * A drawing on as many sheets as it takes; they overlap, and crosses on two of them lie over one another where they are joined.
 * @param bounds what the drawing fills about its origin, true mm.
 * @returns what is wrong where it would be more than 24 sheets.
 */
export function tiled(
  paper: Paper,
  marks: readonly Mark[],
  bounds: { readonly left: number; readonly top: number; readonly width: number; readonly height: number },
): Outcome<{ readonly sheets: readonly Sheet[] }> {
  const plan = planFor(paper, bounds.width, bounds.height);
  if (!plan)
    return problem(
      `That would be more than ${MOST_SHEETS} sheets.`,
      'Take larger paper, or make it smaller; check the unit.',
    );
  const { page, columns, rows } = plan;
  const { room } = page;
  const [stepX, stepY] = [room.width - OVERLAP, room.height - OVERLAP];
  // Centred over all sheets together.
  const left = bounds.left + bounds.width / 2 - (columns * stepX + OVERLAP) / 2;
  const top = bounds.top + bounds.height / 2 - (rows * stepY + OVERLAP) / 2;
  const drawn = spread([...marks, ...jointsOf({ columns, rows, left, top, stepX, stepY, room })]);
  const sheets: Sheet[] = [];
  for (let row = 0; row < rows; row += 1)
    for (let column = 0; column < columns; column += 1) {
      const [x, y] = [left + column * stepX, top + row * stepY];
      const which = columns * rows === 1 ? '' : `row ${row + 1} of ${rows}, column ${column + 1} of ${columns}`;
      sheets.push({
        ...sideOf(page),
        parts: [windowed(room, [room.x - x, room.y - y], drawn), furniture(page, paper.title, which)],
      });
    }
  return { ok: true, sheets };
}

interface Grid {
  readonly columns: number;
  readonly rows: number;
  readonly left: number;
  readonly top: number;
  readonly stepX: number;
  readonly stepY: number;
  readonly room: Page['room'];
}

/** Crosses in the middle of each overlap, in the coordinates of the drawing, each with a letter. */
function jointsOf({ columns, rows, left, top, stepX, stepY, room }: Grid): Mark[] {
  const places: (readonly [x: number, y: number])[] = [];
  const half = OVERLAP / 2;
  for (let row = 0; row < rows; row += 1)
    for (let column = 0; column < columns; column += 1) {
      const [x, y] = [left + column * stepX, top + row * stepY];
      if (column + 1 < columns)
        for (const share of [0.25, 0.75]) places.push([x + room.width - half, y + share * room.height]);
      if (row + 1 < rows)
        for (const share of [0.25, 0.75]) places.push([x + share * room.width, y + room.height - half]);
    }
  return places.flatMap(([x, y], at): Mark[] => [
    ...cross(x, y, 4),
    {
      kind: 'words',
      x: x + 1.4,
      y: y - 2.2,
      size: 2.4,
      text: letterOf(at),
      anchor: 'start',
      tone: 'soft',
    },
  ]);
}

const LETTERS = 26;
const letterOf = (at: number): string =>
  `${at >= LETTERS ? String.fromCharCode(64 + Math.floor(at / LETTERS)) : ''}${String.fromCharCode(65 + (at % LETTERS))}`;

/** Strips of a long drawing, one below another: each begins where the one before ends, with a flap to glue it on. */
export function strips(
  paper: Paper,
  { length, marks }: { readonly length: number; readonly marks: readonly Mark[] },
  height: number,
  head: (width: number) => { readonly marks: readonly Mark[]; readonly height: number },
): Outcome<{ readonly sheets: readonly Sheet[] }> {
  const page = pageOf(paper, true);
  const { room } = page;
  const piece = room.width - OVERLAP;
  const pieces = Math.ceil(length / piece);
  const gap = 8;
  const drawn = spread(marks);
  const heading = head(room.width);
  const sheets: Sheet[] = [];
  let parts: Part[] = [];
  let y = room.y;
  const turnPage = (): void => {
    sheets.push({ ...sideOf(page), parts });
    parts = [];
    y = room.y;
  };
  for (let at = 0; at < pieces; at += 1) {
    if (y + height > room.y + room.height) turnPage();
    const from = at * piece;
    const long = Math.min(room.width, length - from + (at + 1 < pieces ? 0 : 0.2));
    parts.push(windowed({ x: room.x, y: y - 0.5, width: long, height: height + 1 }, [room.x - from, y], drawn));
    parts.push({ at: [room.x, y], marks: flapMarks(at, pieces, piece, length - from, height) });
    y += height + gap;
  }
  if (y + heading.height > room.y + room.height) turnPage();
  parts.push({ at: [room.x, y], marks: heading.marks });
  turnPage();
  if (sheets.length > MOST_SHEETS)
    return problem(`That would be more than ${MOST_SHEETS} sheets.`, 'Check the diameter and its unit.');
  return {
    ok: true,
    sheets: sheets.map((sheet, at) => ({
      ...sheet,
      parts: [
        ...sheet.parts,
        furniture(page, paper.title, sheets.length === 1 ? '' : `sheet ${at + 1} of ${sheets.length}`),
      ],
    })),
  };
}

/** Where a piece is cut and where the next one is laid over it. */
function flapMarks(at: number, pieces: number, piece: number, left: number, height: number): Mark[] {
  const marks: Mark[] = [];
  const join = (x: number, name: string, anchor: 'start' | 'end'): Mark[] => [
    { kind: 'line', x1: x, y1: -2, x2: x, y2: height + 2, width: 0.2, dashed: true, tone: 'soft' },
    {
      kind: 'words',
      x: anchor === 'start' ? x + 1 : x - 1,
      y: height + 3.4,
      size: 2.2,
      text: name,
      anchor,
      tone: 'soft',
    },
  ];
  marks.push(...join(0, at === 0 ? 'begins: cut here' : `lay this edge on “${letterOf(at - 1)}”`, 'start'));
  const isLast = at + 1 === pieces;
  marks.push(
    ...join(isLast ? left : piece, isLast ? 'ends: cut here' : `“${letterOf(at)}”: the next one begins here`, 'end'),
  );
  return marks;
}

/** A page on which marks are put freely. @returns its room and a way to make the sheet. */
export function freePage(paper: Paper, across = false) {
  const page = pageOf(paper, across);
  return {
    room: page.room,
    sheet: (marks: readonly Mark[], which = ''): Sheet => ({
      ...sideOf(page),
      parts: [{ at: [page.room.x, page.room.y], marks }, furniture(page, paper.title, which)],
    }),
  };
}
