import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import jsQR from 'jsqr';
import { v7 as uuidv7 } from 'uuid';
import type { Sheet } from '@yosoku/core/paper/drawing';
import { makePaper } from '@yosoku/core/paper/make-paper';
import { type PaperWish, WORKSHEETS, paperWish } from '@yosoku/core/paper/wish';
import { type Report, derive } from '@yosoku/core/report/report';
import { makeRandom } from '@yosoku/core/statistics/random';
import { kestrelPointSix } from '../demo/builds';
import { sorrelCrossEight } from '../demo/lash-build';
import type { Pen } from '../demo/demo-logbook';
import type { Entry } from '@yosoku/core/record/entry';
import { codeOf } from './code-of';
import { drawSheets } from './draw-sheets';

/** Opened with poppler (Debian's poppler-utils), which shares nothing with what draws. */
const folder = mkdtempSync(path.join(os.tmpdir(), 'yosoku-paper-'));
afterAll(() => rmSync(folder, { recursive: true }));
const file = path.join(folder, 'paper.pdf');
const run = (program: string, ...args: string[]): string => {
  const { stdout, status } = spawnSync(program, args, { encoding: 'utf8', maxBuffer: 1 << 28 });
  expect(status).toBe(0);
  return stdout;
};

const ADDRESS = 'https://bench.local:8443/builds/0190b3c4-5d6e-7f80-9a1b-2c3d4e5f6071';
const reportOf = (make: (pen: Pen) => Entry[]): Report => {
  const report = derive(make({ nextId: uuidv7, builderId: uuidv7(), startedAt: new Date('2026-03-01T08:00:00Z') }));
  if (!report) throw new Error('the logbook says what engine it is');
  return report;
};
const SIX = reportOf(kestrelPointSix);
const EIGHT = reportOf(sorrelCrossEight);

function sheetsOf(query: Record<string, string>, report: Report | null) {
  const wish: PaperWish = paperWish.parse(query);
  const made = makePaper(wish, report, codeOf(ADDRESS));
  if (!made.ok) throw new Error(made.problem.message);
  return { sheets: made.printed.sheets, factor: { across: wish.across, along: wish.along } };
}
async function print(query: Record<string, string>, report: Report | null = SIX) {
  const { sheets, factor } = sheetsOf(query, report);
  writeFileSync(file, await drawSheets(sheets, { title: 'paper', author: 'Test & Söhne' }));
  return { sheets, factor };
}

const MM = 25.4 / 72;
interface Stroke {
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  /** Of the drawing, not of the page. */
  readonly origin: readonly [number, number];
}

/**
 * Straight lines of a page in the millimetres that a printer of that factor makes of them; the transform is taken from the PDF, not from who
 * drew it. A page that is wider than high goes through the printer turned.
 */
function strokes(page: number, factor: { readonly across: number; readonly along: number }): Stroke[] {
  const [, wide = 0, high = 0] =
    /Page size:\s+([\d.]+) x ([\d.]+)/
      .exec(run('pdfinfo', '-f', String(page), '-l', String(page), file).replace(/Page\s+\d+ size/, 'Page size'))
      ?.map(Number) ?? [];
  const [across, along] = wide > high ? [factor.along, factor.across] : [factor.across, factor.along];
  const svg = path.join(folder, 'page.svg');
  // As large as it is: by itself it would shrink a page by a thousandth.
  run('pdftocairo', '-svg', '-noshrink', '-nocenter', '-f', String(page), '-l', String(page), file, svg);
  const lines = readFileSync(svg, 'utf8').matchAll(/d="M (\S+) (\S+) L (\S+) (\S+) " transform="matrix\(([^)]+)\)"/g);
  return [...lines].map(([, x1, y1, x2, y2, matrix = '']) => {
    const [a = 1, , , d = 1, e = 0, f = 0] = matrix.split(',').map(Number);
    const place = (x: number, y: number): readonly [number, number] => [
      (a * x + e) * MM * across,
      (d * y + f) * MM * along,
    ];
    return {
      from: place(Number(x1), Number(y1)),
      to: place(Number(x2), Number(y2)),
      origin: [e * MM * across, f * MM * along],
    };
  });
}
const length = ({ from, to }: Stroke): number => Math.hypot(to[0] - from[0], to[1] - from[1]);

test.each([
  ['a true printer', '1', '1'],
  ['one that prints a per cent too narrow and two too long', '0.99', '1.02'],
])(
  'a wheel on %s: every mark at its angle within 0.005°, on its circle within 0.02 mm',
  async (_printer, across, along) => {
    const { factor, sheets } = await print({ what: 'wheel', diameter: '180', ring: '0-360', across, along }, null);
    expect(sheets).toHaveLength(1);
    const all = strokes(1, factor);
    // Marks begin on the rim: 90 mm from the middle of their own drawing.
    const marks = all.flatMap(({ from, origin }) => {
      const [x, y] = [from[0] - origin[0], from[1] - origin[1]];
      return Math.abs(Math.hypot(x, y) - 90) < 0.5
        ? [{ r: Math.hypot(x, y), angle: (Math.atan2(x, -y) * 180) / Math.PI }]
        : [];
    });
    // Halves: at 90 mm a quarter would be 0.39 mm.
    expect(marks).toHaveLength(720);
    const halves = marks.map(({ angle }) => 2 * angle);
    for (const half of halves) expect(Math.abs(half - Math.round(half)) / 2).toBeLessThan(0.005);
    expect(new Set(halves.map((half) => (Math.round(half) + 720) % 720)).size).toBe(720);
    for (const { r } of marks) expect(Math.abs(r - 90)).toBeLessThan(0.02);
    // And the lines of the printer check are 100 mm long, one each way.
    const checks = all.filter((each) => Math.abs(length(each) - 100) < 0.02);
    expect(checks).toHaveLength(2);
    expect(run('pdffonts', file)).toMatch(/Barlow/);
    for (const line of run('pdffonts', file)
      .split('\n')
      .filter((each) => each.includes('Barlow')))
      expect(line).toMatch(/yes yes/);
  },
);

test('numbers run as the engine does: turned clockwise, a rising ring brings its next number from the left', async () => {
  await print({ what: 'wheel', diameter: '180', ring: '0-360', rotation: 'clockwise' }, null);
  const at = (word: string): number => {
    const found = new RegExp(`xMin="([\\d.]+)" yMin="[\\d.]+" xMax="([\\d.]+)"[^>]*>${word}<`).exec(
      run('pdftotext', '-bbox', file, '-'),
    );
    return found ? (Number(found[1]) + Number(found[2])) / 2 : NaN;
  };
  expect(at('90')).toBeLessThan(at('270'));
  await print({ what: 'wheel', diameter: '180', ring: '0-360', rotation: 'counter-clockwise' }, null);
  expect(at('90')).toBeGreaterThan(at('270'));
});

test('a wheel over six sheets: they overlap, and every cross lies on its own of the next sheet', async () => {
  const { sheets, factor } = await print({ what: 'wheel', diameter: '400', hole: '30', places: 'tdcs' }, EIGHT);
  expect(sheets).toHaveLength(7);
  const pages = sheets.slice(0, 6).map((sheet, at) => {
    const [part] = sheet.parts;
    const window = part?.window;
    if (!part || !window) throw new Error('a tile shows a part of the wheel');
    const drawn = strokes(at + 1, factor).find(({ origin }) => Math.hypot(...origin) > 5);
    if (!drawn) throw new Error('the wheel is on it');
    // What of the wheel this sheet shows, by the transform in the PDF: mm from its middle.
    return {
      left: window.x - drawn.origin[0],
      top: window.y - drawn.origin[1],
      width: window.width,
      height: window.height,
    };
  });
  const columns = [...new Set(pages.map(({ left }) => left.toFixed(2)))].map(Number).sort((a, b) => a - b);
  const rows = [...new Set(pages.map(({ top }) => top.toFixed(2)))].map(Number).sort((a, b) => a - b);
  expect([columns.length, rows.length]).toEqual([3, 2]);
  const [first] = pages;
  for (let i = 1; i < columns.length; i += 1)
    expect((columns[i - 1] ?? 0) + (first?.width ?? 0) - (columns[i] ?? 0)).toBeCloseTo(12, 1);
  expect(columns[0]).toBeLessThan(-200);
  expect((columns.at(-1) ?? 0) + (first?.width ?? 0)).toBeGreaterThan(200);
  expect((rows.at(-1) ?? 0) + (first?.height ?? 0)).toBeGreaterThan(200);
  const text = run('pdftotext', file, '-');
  expect(text).toMatch(/row 2 of 2, column 3 of 3/);
  expect(text).toMatch(/TDC 1, TDC 8/);
});

test.each([
  ['a true printer', '1', '1'],
  ['one that errs along the sheet only', '1', '0.97'],
])('on %s a tape all round a rim is as long as the rim with its paper', async (_printer, acrossSheet, alongSheet) => {
  const round = Math.PI * 180;
  const { factor } = await print({
    what: 'tape',
    round: String(round),
    thickness: '0.2',
    span: '180',
    across: acrossSheet,
    along: alongSheet,
  });
  const drawn = strokes(1, factor);
  const tens = drawn.filter((each) => Math.abs(length(each) - 9) < 0.01 && Math.abs(each.from[0] - each.to[0]) < 0.001);
  const places = [...new Set(tens.map(({ from, origin }) => (from[0] - origin[0]).toFixed(2)))].map(Number);
  // π(D + paper): 180.2 mm across.
  expect(Math.abs(Math.max(...places) - Math.min(...places) - Math.PI * 180.2)).toBeLessThan(0.02);
  expect(places).toHaveLength(37);
  const text = run('pdftotext', '-layout', file, '-');
  expect(text).toMatch(/moves this way/);
  // Stamped on the bare rim: 10° are 15.71 mm, 5/8 in to the next 64th (39.6 of them).
  expect(text).toMatch(/10°\s+⅝ in\s+15\.71 mm/);
});

test('a worksheet has its own readings and a code that finds the build again', async () => {
  await print({ what: 'worksheet', which: 'lash' }, EIGHT);
  const text = run('pdftotext', '-layout', file, '-');
  expect(text).toMatch(/Lash: Sorrel Cross eight/);
  expect(text.match(/0\.018 in/g)).toHaveLength(8);
  expect(text.match(/0\.020 in/g)).toHaveLength(8);
  run('pdftoppm', '-r', '150', '-singlefile', file, path.join(folder, 'page'));
  const ppm = readFileSync(path.join(folder, 'page.ppm'));
  const [, wide, high, from] = /^P6\s+(\d+)\s+(\d+)\s+255\s/.exec(ppm.toString('latin1', 0, 40)) ? headOf(ppm) : [];
  if (!wide || !high || !from) throw new Error('the page was not drawn');
  const pixels = new Uint8ClampedArray(wide * high * 4).fill(255);
  for (let i = 0; i < wide * high; i += 1)
    for (let c = 0; c < 3; c += 1) pixels[i * 4 + c] = ppm[from + i * 3 + c] ?? 255;
  expect(jsQR(pixels, wide, high)?.data).toBe(ADDRESS);
});

/** Width, height and where the pixels begin of a portable pixmap. */
function headOf(ppm: Buffer): readonly number[] {
  const head = /^P6\s+(\d+)\s+(\d+)\s+255\s/.exec(ppm.toString('latin1', 0, 40));
  return head ? [0, Number(head[1]), Number(head[2]), head[0].length] : [];
}

test('what cannot be printed is said', () => {
  const said = (query: Record<string, string>): string => {
    const wish = paperWish.safeParse(query);
    if (!wish.success) return wish.error.issues.map(({ message }) => message).join();
    const made = makePaper(wish.data, null, null);
    return made.ok ? '' : `${made.problem.message} ${made.problem.remedy}`;
  };
  expect(said({ what: 'wheel', diameter: '5000' })).toMatch(/at most 1200 mm/);
  expect(said({ what: 'wheel', diameter: '1150' })).toMatch(/more than 24 sheets/);
  expect(said({ what: 'wheel', diameter: '180', hole: '150' })).toMatch(/no room for the numbers/);
  expect(said({ what: 'wheel', diameter: '180', circle: '140' })).toMatch(/under the numbers/);
  expect(said({ what: 'wheel', diameter: '180', across: '0.5' })).toMatch(/more than a tenth/);
  expect(said({ what: 'tape', round: '30' })).toMatch(/No balancer or flywheel is that size/);
  expect(said({ what: 'tape', round: 'wide' })).toMatch(/length in millimetres/);
  expect(said({ what: 'worksheet', which: 'tea' })).toMatch(/no such worksheet/);
});

test('200 papers of all kinds: no word runs over an edge', async () => {
  const random = makeRandom(200);
  const pick = <T>(all: readonly T[]): T => all[Math.floor(random.even() * all.length)] as T;
  const name = 'Wmwmwmwm '.repeat(20);
  const long = (report: Report): Report => ({
    ...report,
    build: { ...report.build, name },
    card: { ...report.card, name },
  });
  const reports = [SIX, EIGHT, long(SIX), long(EIGHT), null];
  const wishes = (): Record<string, string> => {
    const paper = pick(['a4', 'letter', 'a3']);
    const kind = pick(['wheel', 'wheel', 'tape', 'worksheet', 'check']);
    if (kind === 'wheel')
      return {
        what: kind,
        paper,
        diameter: String(60 + random.even() * 540),
        hole: String(random.even() * 25),
        places: pick(['none', 'tdcs', 'all']),
      };
    if (kind === 'tape')
      return { what: kind, paper, round: String(160 + random.even() * 1500), span: pick(['60', '180']) };
    return kind === 'check' ? { what: kind, paper } : { what: kind, paper, which: pick(WORKSHEETS) };
  };
  for (let batch = 0; batch < 4; batch += 1) {
    const across = String(0.97 + random.even() * 0.06);
    // What is cut by a window stands whole in the next one; of a wheel on one sheet nothing is cut.
    const isCut = (own: readonly Sheet[]): boolean =>
      own.flatMap(({ parts }) => parts.filter(({ window }) => window)).length > 1;
    const uncut = (sheet: Sheet): Sheet => ({ ...sheet, parts: sheet.parts.filter(({ window }) => !window) });
    const sheets = Array.from({ length: 50 }, () => {
      const own = sheetsOf({ ...wishes(), across, along: '1' }, pick(reports)).sheets;
      return isCut(own) ? own.map(uncut) : own;
    }).flat();
    writeFileSync(file, await drawSheets(sheets, { title: 'papers', author: 'all' }));
    for (const page of run('pdftotext', '-bbox', file, '-').split('<page ').slice(1)) {
      const [, wide = 0, high = 0] = /width="([\d.]+)" height="([\d.]+)"/.exec(page)?.map(Number) ?? [];
      for (const [word, ...box] of page.matchAll(
        /xMin="(-?[\d.]+)" yMin="(-?[\d.]+)" xMax="(-?[\d.]+)" yMax="(-?[\d.]+)">[^<]*/g,
      )) {
        const [left = 0, top = 0, right = 0, bottom = 0] = box.map(Number);
        if (left < 0 || top < 0 || right > wide || bottom > high) throw new Error(word);
      }
    }
  }
});
