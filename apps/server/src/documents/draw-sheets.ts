import type PDFDocument from 'pdfkit';
import type { Mark, Sheet, Tone } from '@yosoku/core/paper/drawing';
import { MM_PER_INCH } from '@yosoku/core/units/length';
import { FONT_FILES } from './fonts';
import { INK, SOFT } from './to-pdf';

const POINTS_PER_MM = 72 / MM_PER_INCH;
const TONES: Readonly<Record<Tone, string>> = { ink: INK, soft: SOFT, intake: '#0B6E60', exhaust: '#A8441D' };
/** The middle of capital letters lies so high over their base line, as a share of their size. */
const MIDDLE = 0.35;

type Page = InstanceType<typeof PDFDocument>;

/**
 * Sheets as the bytes of a PDF: lines as vectors, words as text in the fonts of the app.
 * Each is drawn so much smaller or larger than true that its printer makes it true.
 */
export async function drawSheets(
  sheets: readonly Sheet[],
  { title, author }: { readonly title: string; readonly author: string },
): Promise<Buffer> {
  // When it is wanted: see `to-pdf.ts`.
  const { default: Document } = await import('pdfkit');
  const document = new Document({
    autoFirstPage: false,
    info: { Title: title, Author: author, Creator: 'Yosoku' },
  });
  for (const [name, file] of Object.entries(FONT_FILES)) document.registerFont(name, file);
  for (const sheet of sheets) {
    const size: [number, number] = [
      (sheet.width / sheet.factor.x) * POINTS_PER_MM,
      (sheet.height / sheet.factor.y) * POINTS_PER_MM,
    ];
    document.addPage({ size, margin: 0 });
    document.save().scale(POINTS_PER_MM / sheet.factor.x, POINTS_PER_MM / sheet.factor.y);
    for (const { at, marks, window } of sheet.parts) {
      document.save();
      if (window) document.rect(window.x, window.y, window.width, window.height).clip();
      document.translate(...at);
      for (const mark of marks) put(document, mark);
      document.restore();
    }
    document.restore();
  }
  return new Promise((settle, fail) => {
    const parts: Buffer[] = [];
    document.on('data', (part: Buffer) => parts.push(part));
    document.on('end', () => settle(Buffer.concat(parts)));
    document.on('error', fail);
    document.end();
  });
}

function put(document: Page, mark: Mark): void {
  const colour = TONES[mark.tone ?? 'ink'];
  switch (mark.kind) {
    case 'line':
      pen(document, mark.width, mark.dashed).moveTo(mark.x1, mark.y1).lineTo(mark.x2, mark.y2).stroke(colour);
      return;
    case 'circle':
      pen(document, mark.width, mark.dashed).circle(mark.x, mark.y, mark.r).stroke(colour);
      return;
    case 'shape': {
      document.polygon(...mark.points.map(([x, y]): [number, number] => [x, y]));
      if (mark.fill) document.fill(colour);
      else document.lineWidth(0.2).undash().stroke(colour);
      return;
    }
    case 'words':
      write(document, mark, colour);
  }
}

const pen = (document: Page, width: number, dashed = false): Page =>
  dashed ? document.lineWidth(width).dash(2, { space: 1.5 }) : document.lineWidth(width).undash();

/** Words about their own place: turned, and made smaller where they would not fit. */
function write(document: Page, mark: Extract<Mark, { kind: 'words' }>, colour: string): void {
  const { x, y, text, anchor, room, turn = 0, bold = false } = mark;
  document.font(bold ? 'bold' : 'plain');
  const wide = document.fontSize(mark.size).widthOfString(text);
  const size = room !== undefined && wide > room ? (mark.size * room) / wide : mark.size;
  const width = (wide * size) / mark.size;
  const left = anchor === 'start' ? 0 : anchor === 'end' ? -width : -width / 2;
  document.save();
  document.translate(x, y).rotate(turn);
  document
    .fontSize(size)
    .fillColor(colour)
    .text(text, left, MIDDLE * size, { lineBreak: false, baseline: 'alphabetic' });
  document.restore();
}
