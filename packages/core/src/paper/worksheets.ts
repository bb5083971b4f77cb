import { VALVES, type Valve } from '../cam/card';
import type { Report } from '../report/report-schema';
import { READ_METHODS, type ReadMethodName } from '../measure/read-methods';
import { ringWords } from '../crank/wheel';
import { formatLength } from '../units/length';
import { capital } from '../report/capital';
import { turnsWords } from '../report/report-lash';
import { type Mark, type Sheet, line } from './drawing';
import { type Paper, freePage } from './pages';
import { type QrCode, qrMarks } from './qr-marks';
import type { WORKSHEETS, WorksheetWish } from './wish';

/** Sheets for the clipboard: boxes large enough for a pencil. */

type Which = (typeof WORKSHEETS)[number];

/** A table of boxes: what stands printed, and what is left to write in. */
interface Table {
  readonly title: string;
  /** Widths as shares of the room. */
  readonly columns: readonly { readonly name: string; readonly share: number }[];
  readonly rows: readonly (readonly string[])[];
}

const ROW = 10.5;
const HEAD = 7;
const QR = 24;

const box = (x: number, y: number, width: number, height: number): Mark[] => [
  line(x, y, x + width, y, 0.2),
  line(x, y + height, x + width, y + height, 0.2),
  line(x, y, x, y + height, 0.2),
  line(x + width, y, x + width, y + height, 0.2),
];

/** @returns marks of a table, and how high it is. */
function tableMarks({ title, columns, rows }: Table, width: number, top: number): { marks: Mark[]; height: number } {
  const marks: Mark[] = [
    { kind: 'words', x: 0, y: top + 3, size: 4, text: title, anchor: 'start', bold: true, room: width },
  ];
  const whole = columns.reduce((sum, { share }) => sum + share, 0);
  let x = 0;
  const places = columns.map(({ name, share }) => {
    const place = { name, x, width: (width * share) / whole };
    x += place.width;
    return place;
  });
  for (const place of places)
    marks.push({
      kind: 'words',
      x: place.x + 1,
      y: top + HEAD + 2.4,
      size: 2.7,
      text: place.name,
      anchor: 'start',
      tone: 'soft',
      room: place.width - 2,
    });
  rows.forEach((row, at) => {
    const y = top + HEAD + 5 + at * ROW;
    for (const [column, place] of places.entries()) {
      marks.push(...box(place.x, y, place.width, ROW));
      const text = row[column] ?? '';
      if (text !== '')
        marks.push({
          kind: 'words',
          x: place.x + 1.5,
          y: y + ROW / 2,
          size: 3.2,
          text,
          anchor: 'start',
          room: place.width - 3,
        });
    }
  });
  return { marks, height: HEAD + 5 + rows.length * ROW + 6 };
}

/** Tables one below another, on as many sheets as they need; the first carries the code that finds the build again. */
function laidOut(
  tables: readonly Table[],
  facts: readonly string[],
  code: QrCode | null,
  paper: Paper,
): readonly Sheet[] {
  const { room, sheet } = freePage(paper);
  const pages: Mark[][] = [];
  let marks: Mark[] = [];
  const wide = room.width - (code === null ? 0 : QR + 4);
  facts.forEach((text, at) =>
    marks.push({
      kind: 'words',
      x: 0,
      y: 3 + at * 5.5,
      size: at === 0 ? 4.6 : 3.2,
      text,
      anchor: 'start',
      bold: at === 0,
      room: wide,
    }),
  );
  if (code !== null) marks.push(...qrMarks(code, room.width - QR, 0, QR));
  let y = Math.max(facts.length * 5.5 + 4, code === null ? 0 : QR + 3);
  for (const table of tables) {
    let left = table.rows;
    do {
      const fits = Math.floor((room.height - y - HEAD - 5) / ROW);
      if (fits < Math.min(2, left.length)) {
        pages.push(marks);
        marks = [];
        y = 2;
        continue;
      }
      const drawn = tableMarks({ ...table, rows: left.slice(0, fits) }, room.width, y);
      marks.push(...drawn.marks);
      y += drawn.height;
      left = left.slice(fits);
    } while (left.length > 0);
  }
  pages.push(marks);
  return pages.map((each, at) => sheet(each, pages.length === 1 ? '' : `sheet ${at + 1} of ${pages.length}`));
}

/** So many figures of the card stand in a line, and so many lines of them at most. */
const CARD_BESIDE = 3;
const CARD_LINES = 4;

/** The facts of a build that stand at the head of its worksheets. */
function factsOf(title: string, which: Which, report: Report | null): readonly string[] {
  if (!report) return [title, 'Engine: ______________________    Date: ______________    By: ______________'];
  const { build, zero, sheet } = report;
  const rings = [build.wheel, ...build.rings].map(ringWords).join(' and ');
  const card = (which === 'readings' ? (sheet.find((section) => section.title === 'Card')?.rows ?? []) : []).map(
    ({ label, value }) => `${label} ${value}`,
  );
  const lines = Array.from({ length: Math.min(CARD_LINES, Math.ceil(card.length / CARD_BESIDE)) }, (_, at) =>
    card.slice(at * CARD_BESIDE, (at + 1) * CARD_BESIDE).join('; '),
  );
  return [
    `${title}: ${build.name}`,
    `Firing order ${build.engine.firingOrder.join('-')}; wheel ${rings}, running ${build.engine.rotation}; ${zero.state === 'proved' ? 'TDC proved' : 'TDC not proved yet'}`,
    ...lines,
    'Date: ______________    By: ______________',
  ];
}

const TITLES: Readonly<Record<Which, string>> = {
  readings: 'Readings of the cam',
  lash: 'Lash',
  pushrods: 'Pushrod trials',
  lobes: 'Every lobe',
};

/** A worksheet, empty or of a build. */
export function worksheet(
  { which, method }: Pick<WorksheetWish, 'which' | 'method'>,
  report: Report | null,
  code: QrCode | null,
  paper: (title: string) => Paper,
): readonly Sheet[] {
  const title = TITLES[which];
  const tables = TABLES[which](report, method ?? report?.read.proposal.method ?? 'centreline');
  return laidOut(tables, factsOf(title, which, report), report ? code : null, paper(title));
}

const BLANK_CYLINDERS = 8;
const cylindersOf = (report: Report | null): readonly number[] =>
  report?.build.engine.firingOrder ?? Array.from({ length: BLANK_CYLINDERS }, (_, i) => i + 1);

/** The tables of each worksheet, in the order in which the work is done. */
const TABLES: Readonly<Record<Which, (report: Report | null, method: ReadMethodName) => readonly Table[]>> = {
  readings: (report, method) => [
    ...(READ_METHODS[method].needsWheel && report?.zero.state !== 'proved' ? [zeroTable] : []),
    ...VALVES.map((valve) => methodTable(method, valve)),
  ],
  lash: (report) => [
    {
      title: 'In this order; then round once more',
      columns: [
        { name: 'turn to', share: 5 },
        { name: 'valve', share: 2.2 },
        { name: 'wanted', share: 2 },
        { name: 'found', share: 2 },
        { name: 'set to', share: 2 },
        { name: 'second round', share: 2 },
      ],
      rows: report
        ? lashRows(report)
        : cylindersOf(null).flatMap((cylinder) => VALVES.map((valve) => ['', `${cylinder} ${valve}`])),
    },
  ],
  pushrods: () =>
    VALVES.map((valve) => ({
      title: capital(valve),
      columns: [
        { name: 'length', share: 2 },
        { name: 'pattern wide', share: 2 },
        { name: 'its middle off the tip’s', share: 2.4 },
        { name: 'at mid-lift: square, above, below', share: 3 },
        { name: 'lift at the valve', share: 2 },
      ],
      rows: Array.from({ length: 5 }, (_, at) => [`${at + 1}.`]),
    })),
  lobes: (report) => [
    {
      title: 'Lift at the peak, zeroed on the base circle',
      columns: [
        { name: 'cylinder', share: 1.4 },
        { name: 'intake, lobe or lifter', share: 2.4 },
        { name: 'intake, at the valve', share: 2.4 },
        { name: 'exhaust, lobe or lifter', share: 2.4 },
        { name: 'exhaust, at the valve', share: 2.4 },
      ],
      rows: cylindersOf(report).map((cylinder) => [String(cylinder)]),
    },
  ],
};

/** Every valve where it is set: as the job leads to it, which takes none to its ramp; before one is begun, in the order that is proposed. */
function lashRows({ lash, build }: Report): readonly (readonly string[])[] {
  const { job, orders, proposal } = lash;
  if (job) {
    const first = job.valves.map(({ stop }, at) => job.valves[at - 1]?.stop !== stop);
    return job.valves.map(({ cylinder, valve, which, stop, wanted }, at) => [
      first[at] ? `${stop + 1}. ${job.stops[stop]?.place ?? ''}` : '',
      `${cylinder} ${valve}${which === null ? '' : ` ${which}`}`,
      job.wanted.kind === 'lash' ? formatLength(wanted, build.units) : turnsWords(wanted),
    ]);
  }
  return (orders.find(({ order }) => order === proposal.order)?.stops ?? []).flatMap(({ place, valves }, at) =>
    valves.map(({ cylinder, valve }, i) => [i === 0 ? `${at + 1}. ${place}` : '', `${cylinder} ${valve}`]),
  );
}

const zeroTable: Table = {
  title: 'Zero, by the piston stop',
  columns: [
    { name: 'step', share: 3 },
    { name: 'turning forward', share: 2.4 },
    { name: 'turning back', share: 2.4 },
    { name: 'half of the two', share: 2 },
  ],
  rows: [['1. Both contacts'], ['2. The wheel set; proof']],
};

/** A trace wants a row every ten degrees or closer. */
const TRACE_ROWS = 30;
const REPEATS = ['first', 'second', 'third'] as const;

/** A reading for each slot of a method, as the app calls it, three times. */
function methodTable(method: ReadMethodName, valve: Valve): Table {
  const { name, slots } = READ_METHODS[method];
  const title = `${capital(valve)}: ${name.charAt(0).toLowerCase()}${name.slice(1)}`;
  if (READ_METHODS[method].reads === 'curve')
    return {
      title,
      columns: Array.from({ length: 3 }, () => [
        { name: 'wheel', share: 2 },
        { name: 'indicator', share: 2 },
      ]).flat(),
      rows: Array.from({ length: TRACE_ROWS / 3 }, () => []),
    };
  return {
    title,
    columns: [
      { name: 'step', share: 4 },
      { name: 'height', share: 1.6 },
      ...REPEATS.map((repeat) => ({ name: repeat, share: 2 })),
    ],
    rows: slots.map(({ label }, at) => [`${at + 1}. ${label}`]),
  };
}
