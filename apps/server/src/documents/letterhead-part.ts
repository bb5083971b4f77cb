import type { Content } from 'pdfmake/interfaces';
import type { Logo } from '../letterhead/read-logo';
import type { Letterhead } from '../letterhead/store';
import { toPdf } from './to-pdf';

/** Room for a logo, points. */
const FIT: [number, number] = [150, 54];

const logoPart = (logo: Logo): Content =>
  logo.kind === 'svg'
    ? { svg: new TextDecoder().decode(logo.bytes), fit: FIT }
    : { image: `data:image/png;base64,${Buffer.from(logo.bytes).toString('base64')}`, fit: FIT };

/** The head of a sheet: the shop’s name, what stands under it, its logo at the right. Without either it is the name alone. */
export function letterheadPart(shopName: string, { lines, logo }: Letterhead): Content[] {
  if (lines.length === 0 && logo === null) return [{ text: shopName, style: 'soft' }];
  return [
    {
      columns: [
        {
          width: '*',
          stack: [
            { text: shopName, fontSize: 12, bold: true },
            ...lines.map((text): Content => ({ text, style: 'soft' })),
          ],
        },
        ...(logo ? [{ width: 'auto' as const, stack: [logoPart(logo)] }] : []),
      ],
      columnGap: 16,
      margin: [0, 0, 0, 8],
    },
  ];
}

/** Can it be drawn on a sheet? */
export const tryLogo = (logo: Logo): Promise<boolean> =>
  Promise.resolve()
    .then(() => toPdf({ defaultStyle: { font: 'Words' }, content: letterheadPart('', { lines: [], logo }) }))
    .then(
      () => true,
      () => false,
    );
