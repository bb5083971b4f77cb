import type { TDocumentDefinitions, TableCell } from 'pdfmake/interfaces';
import type { Report } from '@yosoku/core/report/report';
import { type PistonLift, type PistonRow, angleWords, pistonTable, sourcesOf } from '@yosoku/core/report/piston-table';
import { formatComputedLength, formatLength } from '@yosoku/core/units/length';
import type { Printing } from './build-sheet';
import { letterheadPart } from './letterhead-part';
import { HAIRLINES } from './sheet-parts';
import { day } from './day';
import { INK, SOFT, toPdf } from './to-pdf';

/** For who cuts the pockets: pistons and valves about the TDC between exhaust and intake, on one page. */
export const printPistonSheet = (report: Report, printing: Printing, angles: readonly number[]): Promise<Buffer> =>
  toPdf(layOut(report, printing, pistonTable(report, angles)));

const COLUMNS = ['Crank', 'Piston below the top', 'Intake lobe', 'Intake valve', 'Exhaust lobe', 'Exhaust valve'];

function layOut(
  report: Report,
  { shopName, letterhead, paper, printedAt }: Printing,
  rows: readonly PistonRow[],
): TDocumentDefinitions {
  const { build, card } = report;
  const { engine, units } = build;
  const length = (mm: number | null | undefined): string =>
    mm == null ? 'not known' : formatComputedLength(mm, units);
  const dimension = (mm: number | null): string => (mm === null ? 'not known' : formatLength(mm, units, 'dimension'));
  const lifts = (lift: PistonLift | null): string[] => [length(lift?.lobe), length(lift?.valve)];
  const bold = (text: string): TableCell => ({ text, bold: true });
  return {
    pageSize: paper === 'a4' ? 'A4' : 'LETTER',
    pageMargins: [48, 48, 48, 48],
    info: { title: `For the piston maker: ${build.name}`, author: shopName, creator: 'Yosoku' },
    defaultStyle: { font: 'Words', fontSize: 11, color: INK },
    styles: { soft: { color: SOFT } },
    content: [
      ...letterheadPart(shopName, letterhead),
      { text: build.name, fontSize: 20, bold: true },
      {
        text: 'For the piston maker: piston and valves about the TDC between exhaust and intake',
        margin: [0, 0, 0, 10],
      },
      {
        text: `Bore ${dimension(engine.bore)}, stroke ${dimension(engine.stroke)}, rod ${dimension(engine.rod)}${engine.pinOffset ? `, pin offset ${dimension(engine.pinOffset)}` : ''}. Cam: ${card.name ?? 'no name on the card'}.`,
        margin: [0, 0, 0, 8],
      },
      {
        layout: HAIRLINES,
        table: {
          headerRows: 1,
          widths: COLUMNS.map(() => '*'),
          body: [
            COLUMNS.map(bold),
            ...rows.map(({ at, piston, intake, exhaust }): TableCell[] => [
              bold(angleWords(at)),
              ...[length(piston), ...lifts(intake), ...lifts(exhaust)].map((text) => ({ text, font: 'Barlow' })),
            ]),
          ],
        },
      },
      { text: `Where the lifts come from. ${sourcesOf(rows)}`, margin: [0, 10, 0, 0] },
      {
        text: 'At the valve: lobe × rocker ratio − lash, without deflection. Piston heights are worked out from stroke and rod; deck height and gasket are not in them.',
        color: SOFT,
        margin: [0, 6, 0, 0],
      },
      { text: `Printed ${day(printedAt.toISOString())}.`, color: SOFT, margin: [0, 6, 0, 0] },
    ],
  };
}
