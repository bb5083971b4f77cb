import type { Content, TableCell } from 'pdfmake/interfaces';
import type { Report } from '@yosoku/core/report/report';
import { formatLength } from '@yosoku/core/units/length';
import { isSameValve, valvesOfCylinder } from '@yosoku/core/valve-train/valve-name';
import { HAIRLINES, heading, lines } from './sheet-parts';

/** What the sheet says of the valve train: every lobe, rockers and pushrods, lash. */
export const valveTrainPart = (report: Report): Content[] => [
  ...lobesPart(report),
  ...rockersPart(report),
  ...lashPart(report),
];

const table = (head: readonly string[], rows: readonly (readonly string[])[]): Content => ({
  layout: HAIRLINES,
  fontSize: 8,
  table: {
    headerRows: 1,
    widths: head.map((_, at) => (at === 0 ? 70 : '*')),
    body: [
      head.map((text): TableCell => ({ text, bold: true })),
      ...rows.map((row) => row.map((text): TableCell => ({ text, font: 'Barlow' }))),
    ],
  },
});

/** The lifts of all cylinders, of the last trial that has any. */
function lobesPart({ trials, build }: Report): Content[] {
  const tables = trials.findLast(({ everyLobe }) => everyLobe.length > 0)?.everyLobe ?? [];
  if (tables.length === 0) return [];
  const cylinders = [...new Set(tables.flatMap(({ rows }) => rows.map(({ cylinder }) => cylinder)))].sort(
    (a, b) => a - b,
  );
  return [
    heading('Every lobe'),
    table(
      ['cylinder', ...cylinders.map(String)],
      tables.map(({ valve, at, rows }) => [
        `${valve}, ${at === 'lobe' ? 'lobe' : 'at the valve'}`,
        ...cylinders.map((cylinder) => {
          const lift = rows.find((row) => row.cylinder === cylinder)?.lift;
          return lift ? formatLength(lift.value, build.units) : '';
        }),
      ]),
    ),
    ...tables.flatMap(({ words, differs }): Content[] => (differs ? words.map((text) => ({ text })) : [])),
  ];
}

function rockersPart({ rockers }: Report): Content[] {
  const orders = rockers.valves.flatMap(({ order }) => (order ? [order] : []));
  const theory = rockers.valves.flatMap((valve) => valve.theory.filter(({ right }) => !right));
  if (orders.length === 0 && theory.length === 0) return [];
  return [
    heading('Rockers and pushrods'),
    ...orders.map(({ words, trouble }): Content => ({ text: [words, ...trouble].join(' ') })),
    ...theory.map(({ words }): Content => ({ text: words })),
  ];
}

/** The lash of every valve as it was left, by cylinder; what tightens or loosens over the years. */
function lashPart({ lash, build }: Report): Content[] {
  const { job, history } = lash;
  if (!job) return [];
  const cylinders = [...new Set(job.valves.map(({ cylinder }) => cylinder))].sort((a, b) => a - b);
  const moving = history.filter(({ trend }) => trend !== null);
  return [
    heading('Lash'),
    { text: job.countWords },
    table(
      ['cylinder', ...cylinders.map(String)],
      valvesOfCylinder(0, job.count).map((kind) => [
        `${kind.valve}${kind.which === null ? '' : ` ${kind.which}`}`,
        ...cylinders.map((cylinder) => {
          const own = job.valves.find((each) => isSameValve(each, { ...kind, cylinder }));
          if (!own) return '';
          const off = own.state === 'loose' || own.state === 'tight';
          const shows = own.turns === null && own.left !== null ? formatLength(own.left, build.units) : own.shows;
          return off ? `${own.shows} ${own.state}` : shows;
        }),
      ]),
    ),
    ...moving.map(({ words }): Content => ({ text: words })),
  ];
}

/** What was left as it is, knowingly. */
export const acceptedPart = ({ accepted }: Report): Content[] =>
  accepted.length === 0
    ? []
    : [heading('Accepted as it is'), ...accepted.map(({ words }): Content => ({ text: words }))];

/** Who sent what another has done. */
export function sentByOthersPart({ sheet }: Report): Content[] {
  const section = sheet.find(({ title }) => title === 'Sent by somebody else');
  return section
    ? [heading(section.title), lines(section.rows.map(({ label, value }) => [label, value] as const))]
    : [];
}
