import type PdfPrinter from 'pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { plain, semi } from './fonts';

const FONTS = {
  Barlow: {
    normal: plain('400Regular'),
    bold: plain('600SemiBold'),
    italics: plain('400Regular'),
    bolditalics: plain('600SemiBold'),
  },
  Words: {
    normal: semi('400Regular'),
    bold: semi('700Bold'),
    italics: semi('400Regular'),
    bolditalics: semi('700Bold'),
  },
};

let printer: Promise<PdfPrinter> | null = null;

/** Loaded when the first document is asked for: it takes nearly half of the start of a process that may only work out Reports. */
const thePrinter = (): Promise<PdfPrinter> =>
  (printer ??= import('pdfmake').then(({ default: Printer }) => new Printer(FONTS)));

export const INK = '#1D1B16';
export const SOFT = '#655D49';
export const RULE = '#8D8368';

/** A document as the bytes of a PDF: real text in the fonts of the app, pictures as lines. */
export async function toPdf(layout: TDocumentDefinitions): Promise<Buffer> {
  const document = (await thePrinter()).createPdfKitDocument(layout);
  const parts: Buffer[] = [];
  return new Promise((settle, fail) => {
    document.on('data', (part: Buffer) => parts.push(part));
    document.on('end', () => settle(Buffer.concat(parts)));
    document.on('error', fail);
    document.end();
  });
}
