import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { v7 as uuidv7 } from 'uuid';
import { PNG } from 'pngjs';
import type { Entry } from '@yosoku/core/record/entry';
import { derive } from '@yosoku/core/report/report';
import { gannetTwin, oldTarnEight } from '../demo/builds';
import { sorrelCrossEight } from '../demo/lash-build';
import { larkMillEight } from '../demo/signed-build';
import type { Pen } from '../demo/demo-logbook';
import type { Letterhead } from '../letterhead/store';
import { printSheet } from './build-sheet';
import { printPistonSheet } from './piston-sheet';

/** Opened with poppler (Debian's poppler-utils), which shares nothing with what writes the sheet. */
const folder = mkdtempSync(path.join(os.tmpdir(), 'yosoku-sheet-'));
afterAll(() => rmSync(folder, { recursive: true }));

async function print(
  entries: readonly Entry[],
  paper: 'a4' | 'letter',
  {
    angles,
    reader = 'shop',
    letterhead = { lines: [], logo: null },
  }: {
    readonly angles?: readonly number[];
    readonly reader?: 'shop' | 'customer';
    readonly letterhead?: Letterhead;
  } = {},
) {
  const report = derive(entries);
  if (!report) throw new Error('the logbook says what engine it is');
  const printing = {
    shopName: 'Test & Söhne',
    letterhead,
    paper,
    reader,
    printedAt: new Date('2026-03-14T10:00:00Z'),
  } as const;
  const pdf = await (angles ? printPistonSheet(report, printing, angles) : printSheet(report, printing));
  const file = path.join(folder, 'sheet.pdf');
  writeFileSync(file, pdf);
  const run = (program: string, ...args: string[]): string => {
    const { stdout, status } = spawnSync(program, args, { encoding: 'utf8' });
    expect(status).toBe(0);
    return stdout;
  };
  return {
    report,
    text: run('pdftotext', '-layout', file, '-'),
    info: run('pdfinfo', file),
    boxes: run('pdftotext', '-bbox', file, '-'),
    fonts: run('pdffonts', file),
    images: run('pdfimages', '-list', file),
  };
}

const logbook = (make: (pen: Pen) => Entry[]): Entry[] =>
  make({ nextId: uuidv7, builderId: uuidv7(), startedAt: new Date('2026-03-01T08:00:00Z') });
const pages = (info: string): number => Number(/Pages:\s+(\d+)/.exec(info)?.[1]);

test('a signed build on A4: everything on it as text that can be searched and copied', async () => {
  const { text, info, report } = await print(logbook(larkMillEight), 'a4');
  expect(info).toMatch(/Page size:\s+595\.28 x 841\.89 pts \(A4\)/);
  expect(pages(info)).toBeLessThanOrEqual(2);
  for (const words of [
    'Lark Mill eight',
    'Test & Söhne',
    report.verdict.headline,
    'Lark 250-108',
    'TDC proved',
    '69½° after',
    'Set: Nine-keyway crank gear',
    'its label says 4.0° earlier',
    'Valve to piston',
    'Mara Quill, 2026-03-01',
    'intake lobe lift 0.310 in',
  ])
    expect(text).toContain(words);
});

test('the valve train of an eight: what to order, the lash of every valve, what tightens over the years', async () => {
  const { text, info } = await print(logbook(sorrelCrossEight), 'a4');
  expect(pages(info)).toBeLessThanOrEqual(4);
  expect(text).toMatch(/Intake pushrods: order 7\.925 in/);
  expect(text.replaceAll(/\s+/g, ' ')).toMatch(/cylinder 1 2 3 4 5 6 7 8 intake( 0\.018 in){5} exhaust( 0\.020 in){6}/);
  expect(text).toMatch(/It tightens: valve or seat is\s+receding/);
});

test('the customer’s has the results, and nothing that is the shop’s own', async () => {
  const entries = logbook(larkMillEight);
  const [own, theirs] = [await print(entries, 'a4'), await print(entries, 'a4', { reader: 'customer' })];
  for (const words of [own.report.verdict.headline, 'TDC proved', 'Valve to piston', 'Mara Quill'])
    expect(theirs.text).toContain(words);
  expect(own.text).toContain('entries');
  expect(own.text).toContain('69½° after');
  for (const words of ['69½° after', 'entries', 'left out']) expect(theirs.text).not.toContain(words);
});

test('with a letterhead: its lines over the name of the build, its logo beside them, on either kind of sheet; the fullest build has four pages', async () => {
  const picture = new PNG({ width: 40, height: 20 });
  const bytes = new Uint8Array(PNG.sync.write(picture));
  const lines = ['Fennel Yard 3, Lower Sallow', 'bench@fennelyard.example'];
  const letterhead: Letterhead = { lines, logo: { kind: 'png', bytes, width: 40, height: 20 } };
  const head = /Test & Söhne\s+Fennel Yard 3, Lower Sallow\s+bench@fennelyard\.example[^]*?Sorrel Cross eight/;
  for (const more of [{}, { reader: 'customer' as const }, { angles: [-10, 0, 10] }]) {
    const { text, images, info } = await print(logbook(sorrelCrossEight), 'a4', { letterhead, ...more });
    expect(text).toMatch(head);
    expect(images).toMatch(/image\s+40\s+20/);
    expect(pages(info)).toBeLessThanOrEqual(4);
  }
});

test('on Letter, and without a card, a verdict or a signature', async () => {
  const { text, info } = await print(logbook(oldTarnEight), 'letter');
  expect(info).toMatch(/Page size:\s+612 x 792 pts \(letter\)/);
  expect(pages(info)).toBe(1);
  expect(text).toMatch(/No verdict yet/);
  expect(text).toMatch(/Name and date: _+/);
});

test('printed at its size: the wheel’s numbers stand on a circle, 0 over 180, and letters are embedded', async () => {
  const { boxes, fonts, text } = await print(logbook(gannetTwin), 'a4');
  const at = (word: string): readonly [number, number] => {
    const found = new RegExp(`xMin="([\\d.]+)" yMin="([\\d.]+)" xMax="([\\d.]+)" yMax="([\\d.]+)">${word}<`).exec(
      boxes,
    );
    if (!found) throw new Error(`“${word}” is not on the sheet`);
    const [xMin = 0, yMin = 0, xMax = 0, yMax = 0] = found.slice(1).map(Number);
    return [(xMin + xMax) / 2, (yMin + yMax) / 2];
  };
  const [left, right] = [at('90'), at('270')];
  // Numbered rising and running clockwise: 90 comes from the left. 142 of the picture’s 180 either way, drawn 180 points wide for 360.
  expect(right[0] - left[0]).toBeCloseTo(142, 0);
  expect(left[1]).toBeCloseTo(right[1], 0);
  expect(at('180')[0]).toBeCloseTo((left[0] + right[0]) / 2, 0);
  expect(
    fonts
      .split('\n')
      .filter((line) => line.includes('Barlow'))
      .every((line) => /yes yes/.test(line)),
  ).toBe(true);
  expect(text).toMatch(/50\s+mm\s+long\s+where\s+the\s+sheet/);
});

test('a thousand readings still make two pages; the rest is said to be elsewhere', async () => {
  const entries = logbook(gannetTwin);
  const last = entries.findLast((entry) => entry.kind === 'reading.taken');
  if (!last) throw new Error('it was read');
  const more = Array.from({ length: 1000 }, () => ({ ...last, id: uuidv7(), body: { ...last.body, round: uuidv7() } }));
  const { text, info } = await print([...entries, ...(more as Entry[])], 'letter');
  expect(pages(info)).toBeLessThanOrEqual(2);
  expect(text).toMatch(/earlier readings are in the file and the CSV/);
});

test('for the piston maker: one page with every angle, and where each lift comes from', async () => {
  const { text, info } = await print(logbook(larkMillEight), 'letter', { angles: [-20, -15, -10, 0, 10, 15, 20] });
  expect(pages(info)).toBe(1);
  for (const words of ['Lark Mill eight', '20° before', 'TDC', '15° after', 'Intake: from', 'rocker ratio'])
    expect(text).toContain(words);
  expect(text).toMatch(/TDC\s+0\.000 in/);
});
