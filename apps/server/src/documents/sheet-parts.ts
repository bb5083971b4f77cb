import type { Content, TableCell } from 'pdfmake/interfaces';
import { SOFT } from './to-pdf';

/** What the sheets are put together from. */

export const heading = (text: string): Content => ({ text, fontSize: 11, bold: true, margin: [0, 5, 0, 1] });

/** Lines of label and figure with hairlines between. */
export const lines = (rows: readonly (readonly [string, string])[]): Content => ({
  layout: HAIRLINES,
  table: {
    widths: ['*', 'auto'],
    body: rows.map(([label, value]): TableCell[] => [
      { text: label, color: SOFT },
      { text: value, font: 'Barlow', alignment: 'right' },
    ]),
  },
});

export const HAIRLINES = {
  hLineWidth: (at: number, node: { table: { body: readonly unknown[] } }) =>
    at === 0 || at === node.table.body.length ? 0 : 0.4,
  vLineWidth: () => 0,
  hLineColor: () => '#D3C9AE',
  paddingLeft: () => 0,
  paddingRight: () => 0,
  paddingTop: () => 1,
  paddingBottom: () => 1,
};
