import type { WheelRing } from '../crank/wheel';
import { flanksAt } from '../cam/lobe';
import { USUAL_HEIGHT } from '../cam/usual-height';
import type { Outcome } from '../problem';
import type { Report } from '../report/report-schema';
import { wrap360 } from '../units/angle';
import type { Mark, Sheet } from './drawing';
import { type Paper, freePage, strips, tiled } from './pages';
import { CHECK_LINE } from './printer';
import type { QrCode } from './qr-marks';
import { TAPE_HEIGHT, stampedMarks, tapeDrawing } from './rim-tape';
import { type NamedPlace, type PaperWheel, firingPlaces, pointerDrawing, wheelDrawing } from './wheel';
import type { PaperWish, TapeWish, WheelWish } from './wish';
import { worksheet } from './worksheets';

type DegreeRing = PaperWheel['rings'][number];

/** What is printed, and what the file is called. */
export interface Printed {
  readonly name: string;
  readonly sheets: readonly Sheet[];
}

/**
 * The sheets that were asked for.
 * @param report of the build that they are for; null where they are for none.
 * @param code of the address where a phone finds the build, for worksheets.
 */
export function makePaper(
  wish: PaperWish,
  report: Report | null,
  code: QrCode | null,
): Outcome<{ readonly printed: Printed }> {
  const of = report === null ? '' : `: ${report.build.name}`;
  const paper = (title: string): Paper => ({
    paper: wish.paper,
    factor: { across: wish.across, along: wish.along },
    title: `${title}${of}`,
  });
  const named = (name: string, made: Outcome<{ readonly sheets: readonly Sheet[] }>) =>
    made.ok ? { ok: true as const, printed: { name, sheets: made.sheets } } : made;
  switch (wish.what) {
    case 'wheel':
      return named('degree-wheel', wheelSheets(wish, report, paper('Degree wheel')));
    case 'tape':
      return named('rim-tape', tapeSheets(wish, report, paper('Rim tape')));
    case 'check':
      return named('printer-check', { ok: true, sheets: [checkSheet(paper('Printer check'))] });
    case 'worksheet':
      return named('worksheet', { ok: true, sheets: worksheet(wish, report, code, paper) });
  }
}

/** So much room the pointer wants below a wheel, mm. */
const POINTER_ROOM = 42;

function wheelSheets(
  wish: WheelWish,
  report: Report | null,
  paper: Paper,
): Outcome<{ readonly sheets: readonly Sheet[] }> {
  const { diameter, hole, circle, bolts, bolt } = wish;
  const wheel: PaperWheel = {
    diameter,
    rings: ringsOf(wish, report),
    rotation: wish.rotation ?? report?.build.engine.rotation ?? 'clockwise',
    hole,
    bolts: circle === undefined ? null : { circle, count: bolts, size: bolt },
    places: report ? placesOf(wish, report) : [],
  };
  const bounds = { left: -diameter / 2 - 1, top: -diameter / 2 - 1, width: diameter + 2, height: diameter + 2 };
  const made = tiled(paper, wheelDrawing(wheel), bounds);
  if (!made.ok) return made;
  return { ok: true, sheets: withPointer(made.sheets, paper, diameter) };
}

/** The pointer stands below a wheel that leaves the room, else on a sheet of its own. */
function withPointer(sheets: readonly Sheet[], paper: Paper, diameter: number): readonly Sheet[] {
  const [only] = sheets;
  const { room, sheet } = freePage(paper);
  if (only && sheets.length === 1 && only.height > only.width && room.height - diameter > 2 * POINTER_ROOM)
    return [
      { ...only, parts: [...only.parts, { at: [room.x + 14, room.y + room.height - 4], marks: pointerDrawing() }] },
    ];
  const [x, y] = [room.width / 2, 60];
  const moved = pointerDrawing().map((mark) => shifted(mark, x, y));
  return [...sheets, sheet(moved, 'the pointer')];
}

/** A mark somewhere else. */
function shifted(mark: Mark, x: number, y: number): Mark {
  switch (mark.kind) {
    case 'line':
      return { ...mark, x1: mark.x1 + x, x2: mark.x2 + x, y1: mark.y1 + y, y2: mark.y2 + y };
    case 'shape':
      return { ...mark, points: mark.points.map(([px, py]) => [px + x, py + y] as const) };
    default:
      return { ...mark, x: mark.x + x, y: mark.y + y };
  }
}

const isDegrees = (ring: WheelRing): ring is DegreeRing => ring.ring !== 'rim';

/** As asked for; else as the wheel of the build is numbered; else as most are. */
function ringsOf({ ring, sense }: WheelWish, report: Report | null): readonly DegreeRing[] {
  if (ring !== undefined) return [ring === '0-360' ? { ring, sense } : { ring }];
  const own = report ? [report.build.wheel, ...report.build.rings].filter(isDegrees) : [];
  return own.length > 0 ? own.slice(0, 2) : [{ ring: '0-180' }];
}

/** Firing TDCs of all cylinders, and where the lobes as measured, else as on the card, open and close. */
function placesOf({ places }: WheelWish, { build, standing, card, crank }: Report): readonly NamedPlace[] {
  if (places === 'none') return [];
  const tdcs = firingPlaces(crank.cylinders);
  if (places === 'tdcs') return tdcs;
  const height = USUAL_HEIGHT[build.units];
  const events = (['intake', 'exhaust'] as const).flatMap((valve): NamedPlace[] => {
    const lobe = standing[valve]?.lobe ?? card.lobes[valve];
    const flanks = lobe && flanksAt(lobe, Math.min(height, lobe.peak / 2));
    if (!lobe || !flanks) return [];
    const letter = valve === 'intake' ? 'I' : 'E';
    return [
      { at: flanks.opening, name: `${letter}VO`, tone: valve },
      { at: lobe.nose, name: `${letter}CL`, tone: valve },
      { at: flanks.closing, name: `${letter}VC`, tone: valve },
    ];
  });
  return [...tdcs, ...events];
}

function tapeSheets(
  { round, thickness, span }: TapeWish,
  report: Report | null,
  paper: Paper,
): Outcome<{ readonly sheets: readonly Sheet[] }> {
  const tdcs = (report?.crank.cylinders ?? []).map(({ cylinder, after }) => ({
    at: wrap360(after),
    name: String(cylinder),
  }));
  const drawn = tapeDrawing({ round, thickness, span: Number(span), tdcs, timing: [10, 20, 30, 40] });
  return strips(paper, drawn, TAPE_HEIGHT, () => stampedTable(round));
}

/** Distances for who stamps the bare rim. */
function stampedTable(round: number): { readonly marks: readonly Mark[]; readonly height: number } {
  const rows = stampedMarks(round);
  const columns = [20, 48, 76] as const;
  const words = (x: number, y: number, text: string, bold = false): Mark => ({
    kind: 'words',
    x,
    y,
    size: 3,
    text,
    anchor: 'end',
    bold,
  });
  const marks = [
    { kind: 'words', x: 0, y: 2, size: 3, text: 'On the bare rim, from TDC', anchor: 'start', bold: true } as const,
    ...rows.flatMap(({ degrees, inches, mm }, at): Mark[] => {
      const y = 8 + at * 5;
      return [words(columns[0], y, `${degrees}°`, true), words(columns[1], y, inches), words(columns[2], y, mm)];
    }),
  ];
  return { marks, height: 8 + rows.length * 5 };
}

/** Both lines of 100 mm stand on every sheet; here they are all that there is, with what to do. */
function checkSheet(paper: Paper): Sheet {
  const { sheet } = freePage(paper);
  const lines = [
    `Measure both lines, end to end, with a rule that you trust: each is drawn ${CHECK_LINE} mm long.`,
    'Type both figures at Print. Every sheet for this printer then comes out true.',
    'Print at 100 %, without “fit to page”.',
  ];
  return sheet(
    lines.map((text, at): Mark => ({
      kind: 'words',
      x: 14,
      y: 130 + at * 8,
      size: 4,
      text,
      anchor: 'start',
      room: 165,
    })),
  );
}
