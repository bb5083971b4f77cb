import { trialTitle } from '@yosoku/core/report/sheet';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { Report } from '@yosoku/core/report/report';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { MM_PER_INCH, formatLength } from '@yosoku/core/units/length';
import { day } from './day';
import { photoPages } from './photo-pages';
import type { Letterhead } from '../letterhead/store';
import { letterheadPart } from './letterhead-part';
import { heading, lines } from './sheet-parts';
import { acceptedPart, sentByOthersPart, valveTrainPart } from './train-part';
import { INK, RULE, SOFT, toPdf } from './to-pdf';
import { wheelSvg } from './wheel-svg';

export interface Printing {
  readonly shopName: string;
  readonly letterhead: Letterhead;
  readonly paper: 'a4' | 'letter';
  readonly printedAt: Date;
  /** The customer’s has the results; single readings, what was left out and who sent what are the shop’s own. */
  readonly reader?: 'shop' | 'customer';
}

/** Rows of readings on paper; the rest stand in the file and the CSV. */
const MOST_ROWS = 64;
const POINTS_PER_MM = 72 / MM_PER_INCH;

/**
 * The build sheet as a PDF of one page to four, and its photos on pages of their own: real text, the wheel as lines.
 * @param pictures of its photos, by fingerprint, as far as they are here.
 */
export const printSheet = (
  report: Report,
  printing: Printing,
  pictures: ReadonlyMap<string, Uint8Array> = new Map(),
): Promise<Buffer> => toPdf(layOut(report, printing, pictures));

function layOut(
  report: Report,
  { shopName, letterhead, paper, printedAt, reader = 'shop' }: Printing,
  pictures: ReadonlyMap<string, Uint8Array>,
): TDocumentDefinitions {
  const { build, verdict, sign } = report;
  const margin = 36;
  const isShops = reader === 'shop';
  return {
    pageSize: paper === 'a4' ? 'A4' : 'LETTER',
    pageMargins: [margin, margin, margin, 44],
    info: { title: `Build sheet: ${build.name}`, author: shopName, creator: 'Yosoku' },
    defaultStyle: { font: 'Words', fontSize: 9, color: INK, lineHeight: 1.03 },
    styles: {
      title: { fontSize: 20, bold: true },
      heading: { fontSize: 11, bold: true, margin: [0, 5, 0, 1] },
      soft: { color: SOFT },
      figure: { font: 'Barlow' },
    },
    footer: (page, pages) => ({
      margin: [margin, 8, margin, 0],
      columns: [
        {
          text: `${build.name} · printed ${day(printedAt.toISOString())}${isShops ? ` · ${report.entries.total} entries` : ''}`,
          style: 'soft',
        },
        { text: `page ${page} of ${pages}`, style: 'soft', alignment: 'right' },
      ],
    }),
    content: [
      ...letterheadPart(shopName, letterhead),
      {
        columns: [
          { text: build.name, style: 'title' },
          {
            width: 150,
            text: `Build sheet\n${sign.signed ? `signed ${day(sign.signed.at)}` : 'not signed'}`,
            alignment: 'right',
          },
        ],
      },
      rule(paper === 'a4' ? 523 : 540),
      { text: verdict.headline, fontSize: 14, bold: true, margin: [0, 6, 0, 0] },
      { text: verdict.action, margin: [0, 0, 0, 2] },
      {
        columns: [
          { width: '*', stack: [...engine(report), ...target(report), ...zero(report)] },
          {
            width: 186,
            stack: [{ svg: wheelSvg(report), width: 180 }, scaleBar(paper)],
            margin: [6, 4, 0, 0],
          },
        ],
      },
      ...trials(report, isShops),
      ...clearances(report),
      ...valveTrainPart(report),
      ...(isShops ? [...acceptedPart(report), ...sentByOthersPart(report)] : []),
      ...signature(report),
      ...photoPages(report, pictures),
    ],
  };
}

const rule = (width: number): Content => ({
  canvas: [{ type: 'line', x1: 0, y1: 0, x2: width, y2: 0, lineWidth: 1, lineColor: RULE }],
  margin: [0, 3, 0, 0],
});

/** So that anybody can see whether the sheet was printed at its size. */
function scaleBar(paper: Printing['paper']): Content {
  const [length, label] = paper === 'a4' ? [50 * POINTS_PER_MM, '50 mm'] : [144, '2 in'];
  return {
    margin: [0, 4, 0, 0],
    stack: [
      {
        canvas: [
          { type: 'line', x1: 0, y1: 4, x2: length, y2: 4, lineWidth: 0.8, lineColor: INK },
          { type: 'line', x1: 0, y1: 0, x2: 0, y2: 8, lineWidth: 0.8, lineColor: INK },
          { type: 'line', x1: length, y1: 0, x2: length, y2: 8, lineWidth: 0.8, lineColor: INK },
        ],
      },
      {
        text: `The wheel at TDC; intake solid, exhaust dashed. This line is ${label} long where the sheet is printed at its size.`,
        fontSize: 7,
        style: 'soft',
      },
    ],
  };
}

function engine({ build }: Report): Content[] {
  const { engine: of, units } = build;
  const length = (mm: number | null): string => (mm === null ? '' : formatLength(mm, units, 'dimension'));
  return [
    heading('Engine'),
    lines(
      [
        ['Cylinders, firing order', `${of.cylinders}: ${of.firingOrder.join('-')}`],
        ['Runs, seen from the wheel', of.rotation],
        [
          of.bore === null ? 'Stroke' : 'Bore × stroke',
          [length(of.bore), length(of.stroke)].filter((each) => each !== '').join(' × '),
        ],
        ['Rod', length(of.rod)],
        ['Camshafts', of.cams === 'twin' ? (of.secondBank === null ? 'twin' : 'twin, on two banks') : 'single'],
      ].filter((row): row is [string, string] => row[1] !== ''),
    ),
  ];
}

function target({ card, target: aim, build }: Report): Content[] {
  const degrees = (value: number | null, side: string): string =>
    value === null ? '' : `${computedDegrees(value)} ${side}`;
  return [
    heading('Card and target'),
    lines(
      [
        ['Card', card.name ?? ''],
        ['Intake centreline', degrees(card.intakeCentreline, 'ATDC')],
        ['Exhaust centreline', degrees(card.exhaustCentreline, 'BTDC')],
        ['Lobe lift, intake', card.lobeLift === null ? '' : formatLength(card.lobeLift, build.units)],
        ['LSA', card.lobeSeparation === null ? '' : `${computedDegrees(card.lobeSeparation)} cam`],
        ['Target, intake', degrees(aim.intakeCentreline, 'ATDC')],
        ['Target, exhaust', degrees(aim.exhaustCentreline, 'BTDC')],
        ['Limit', `±${computedDegrees(aim.limit)}`],
      ].filter((row): row is [string, string] => row[1] !== ''),
    ),
  ];
}

const zero = ({ zero: of }: Report): Content[] => [
  heading('Zero'),
  { text: of.state === 'proved' ? `TDC proved, ${of.uncertainty?.words ?? ''}. ${of.remark ?? ''}` : of.sentence },
];

/** Each trial: what was set, what was read, what it showed, the verdict. Of a long one the readings that count most: the last. */
function trials(report: Report, isShops: boolean): Content[] {
  const titles = new Set(report.trials.map(({ number }) => trialTitle(number)));
  const sections = report.sheet.filter(({ title }) => titles.has(title));
  let room = MOST_ROWS;
  const shown = [...sections].reverse().map((section) => {
    const rows = section.rows.filter(
      ({ standing, photo }) => standing !== 'voided' && standing !== 'card' && photo === undefined,
    );
    const results = rows.filter(({ standing }) => standing === 'result');
    const readings = isShops ? rows.filter(({ standing }) => standing !== 'result') : [];
    const kept = readings.slice(-Math.max(0, room - results.length));
    room = Math.max(0, room - results.length - kept.length);
    return { title: section.title, kept, results, left: readings.length - kept.length };
  });
  return shown.reverse().flatMap(({ title, kept, results, left }): Content[] => {
    const read: Content[] = [
      ...(kept.length > 0
        ? [
            lines(
              kept.map(
                ({ label, value, standing }) => [standing === 'aside' ? `${label} (left out)` : label, value] as const,
              ),
            ),
          ]
        : []),
      ...(left > 0 ? [{ text: `${left} earlier readings are in the file and the CSV.`, style: 'soft' }] : []),
    ];
    const found = results.map(({ label, value, note }): Content => ({
      margin: [0, 0, 0, 2],
      text: [
        { text: value === '' ? label : `${label}: `, bold: true },
        { text: value, style: 'figure' },
        { text: note === null ? '' : ` ${note}`, style: 'soft' },
      ],
    }));
    // Where no readings stand beside them, as on the customer’s, results have the whole width.
    const columns = [read, found].filter((stack) => stack.length > 0);
    return [heading(title), { columnGap: 16, columns: columns.map((stack) => ({ width: '*', stack })) }];
  });
}

function clearances({ clearance }: Report): Content[] {
  const known = clearance.valves.filter(({ state }) => state !== 'unknown');
  return known.length === 0
    ? []
    : [
        heading('Valve to piston'),
        ...known.map(({ valve, words }) => ({
          text: [{ text: valve === 'intake' ? 'Intake: ' : 'Exhaust: ', bold: true }, words],
        })),
      ];
}

function signature({ sign }: Report): Content[] {
  const checks = sign.checks.map(
    ({ title, state, reason }) =>
      `${state === 'done' ? 'Done' : state === 'skipped' ? 'Skipped' : 'Open'}: ${title}${reason === null ? '' : ` (${reason})`}`,
  );
  return [
    {
      unbreakable: true,
      stack: [
        heading('Signed'),
        { columns: [{ ul: checks.slice(0, 4) }, { ul: checks.slice(4) }], fontSize: 8 },
        ...(sign.baselines.length > 0
          ? [
              {
                text: `Baseline: ${sign.baselines.map(({ words }) => words).join('; ')}.`,
                margin: [0, 3, 0, 0] as [number, number, number, number],
              },
            ]
          : []),
        {
          margin: [0, 10, 0, 0],
          columns: [
            {
              text: sign.signed
                ? `${sign.signed.name}, ${day(sign.signed.at)}${sign.signed.received ? ` (server’s clock: ${day(sign.signed.received)})` : ''}`
                : 'Name and date: ____________________________',
              bold: true,
            },
            { text: sign.signed?.note ?? '', style: 'soft' },
          ],
        },
      ],
    },
  ];
}
