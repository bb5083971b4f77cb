import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { openBuild } from './places';
import { type Browser, PHONE, WIDE, openBrowser, signIn } from './browser';

/** Pictures of the main views on the demo shop. `BASE` is the running application; `OUT` a folder other than docs/screenshots; `ONLY` part of a view's name. */

const BASE = process.env.BASE ?? 'http://127.0.0.1:8787';
const OUT = process.env.OUT ?? path.join(process.cwd(), 'docs/screenshots');
/** Part of the names of the views that are wanted; empty: all of them. */
const ONLY = process.env.ONLY ?? '';
/** Longer than any movement on a screen. */
const SETTLED_MS = 1200;

interface View {
  readonly file: string;
  /** Part of a build’s name, and the station; or a route of its own. */
  readonly at: readonly [build: string, place: string] | string;
}

const PHONE_VIEWS: readonly View[] = [
  { file: 'builds', at: '/' },
  { file: 'prepare', at: ['Kestrel', 'prepare'] },
  { file: 'zero', at: ['Old Tarn', 'zero'] },
  { file: 'card', at: ['Kestrel', 'card'] },
  { file: 'read', at: ['Alder', 'read'] },
  { file: 'decide', at: ['Kestrel', 'decide'] },
  { file: 'what-if', at: ['Gannet', 'what-if'] },
  { file: 'move', at: ['Gannet', 'move'] },
  { file: 'lash', at: ['Sorrel', 'lash'] },
  { file: 'sign', at: ['Kestrel', 'sign'] },
  { file: 'sheet', at: ['Lark', 'sheet'] },
  { file: 'practice', at: '/practice?begin=from-bare&seed=5' },
];
const WIDE_VIEWS: readonly View[] = [
  { file: 'practice', at: '/practice?begin=centreline&seed=5' },
  { file: 'decide', at: ['Quarry', 'decide'] },
  { file: 'move', at: ['Gannet', 'move'] },
  { file: 'clear', at: ['Lark', 'clear'] },
  { file: 'rockers', at: ['Sorrel', 'rockers'] },
  { file: 'print', at: ['Kestrel', 'print'] },
];

async function openView(browser: Browser, { at }: View): Promise<void> {
  if (typeof at === 'string') {
    await browser.visit(at);
    await browser.find('[role=main]');
  } else {
    await openBuild(browser, ...at);
    // Nothing of the way there is left: no key is held, and the page stands at its top.
    await browser.reload();
    await browser.find('[role=main]');
  }
  await browser.driver.sleep(SETTLED_MS);
}

async function shoot(
  viewport: typeof PHONE | typeof WIDE,
  size: string,
  theme: string,
  views: readonly View[],
): Promise<void> {
  const browser = await openBrowser(BASE, viewport);
  try {
    await signIn(browser, 'mara', 'layout-dye-demo');
    await browser.visit('/shop');
    await browser.pressText(theme);
    await browser.driver.sleep(SETTLED_MS);
    for (const view of views.filter(({ file }) => `${size}-${file}`.includes(ONLY))) {
      await openView(browser, view);
      writeFileSync(path.join(OUT, `${size}-${view.file}.png`), await browser.picture());
    }
  } finally {
    await browser.close();
  }
}

/** A screen across the shop that follows a build; its link is taken back afterwards. */
async function shootBoard(): Promise<void> {
  if (!'wide-board'.includes(ONLY)) return;
  const bench = await openBrowser(BASE, WIDE);
  const screen = await openBrowser(BASE, WIDE);
  try {
    await signIn(bench, 'mara', 'layout-dye-demo');
    await bench.visit('/shop');
    await bench.fill('board-name', 'Over the dyno');
    await bench.press('board-add');
    const link = await bench.text('board-link-value');
    await openBuild(bench, 'Quarry', 'sheet');
    await bench.press('show-on-Over the dyno');
    await screen.visit(link.slice(link.indexOf('/board')));
    await screen.find('[data-testid="board-now"]');
    await screen.driver.sleep(SETTLED_MS);
    writeFileSync(path.join(OUT, 'wide-board.png'), await screen.picture());
    await bench.visit('/shop');
    await bench.press('board-remove-Over the dyno');
  } finally {
    await bench.close();
    await screen.close();
  }
}

async function main(): Promise<void> {
  mkdirSync(OUT, { recursive: true });
  await shoot(PHONE, 'phone', 'Dye (dark)', PHONE_VIEWS);
  await shoot(WIDE, 'wide', 'Sheet (light)', WIDE_VIEWS);
  await shootBoard();
}

void main();
