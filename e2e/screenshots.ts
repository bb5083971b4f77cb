import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { type Browser, PHONE, WIDE, openBrowser, signIn } from './browser';

/** Pictures of the main views on the demo shop. `BASE` is the running application; `OUT` a folder other than docs/screenshots. */

const BASE = process.env.BASE ?? 'http://127.0.0.1:8787';
const OUT = process.env.OUT ?? path.join(process.cwd(), 'docs/screenshots');
/** Longer than any movement on a screen. */
const SETTLED_MS = 700;

interface View {
  readonly file: string;
  /** Part of a build’s name, and the station; or a route of its own. */
  readonly at: readonly [build: string, place: string] | string;
}

const PHONE_VIEWS: readonly View[] = [
  { file: 'builds', at: '/' },
  { file: 'prepare', at: ['Kestrel', 'prepare'] },
  { file: 'zero', at: ['Old Tarn', 'zero'] },
  { file: 'proved', at: ['Kestrel', 'zero'] },
  { file: 'crank', at: ['Kestrel', 'crank'] },
  { file: 'card', at: ['Kestrel', 'card'] },
  { file: 'read', at: ['Alder', 'read'] },
  { file: 'measured', at: ['Kestrel', 'read'] },
  { file: 'decide', at: ['Kestrel', 'decide'] },
  { file: 'what-if', at: ['Gannet', 'what-if'] },
  { file: 'sheet', at: ['Kestrel', 'sheet'] },
];
const WIDE_VIEWS: readonly View[] = [
  { file: 'zero', at: ['Old Tarn', 'zero'] },
  { file: 'prepare', at: ['Kestrel', 'prepare'] },
  { file: 'crank', at: ['Kestrel', 'crank'] },
  { file: 'card', at: ['Alder', 'card'] },
  { file: 'read', at: ['Alder', 'read'] },
  { file: 'measured', at: ['Kestrel', 'read'] },
  { file: 'decide', at: ['Quarry', 'decide'] },
];

async function openView(browser: Browser, { at }: View): Promise<void> {
  if (typeof at === 'string') {
    await browser.visit(at);
    await browser.find('[role=main]');
  } else {
    await browser.visit('/');
    await browser.find('[data-testid="build"]');
    const address = await browser.driver.executeScript<string | null>(
      `return [...document.querySelectorAll('a[data-testid=build]')]
         .find((link) => link.innerText.includes(arguments[0]))?.getAttribute('href') ?? null`,
      at[0],
    );
    if (address === null) throw new Error(`no build is called ${at[0]}`);
    await browser.visit(address.replace(/[^/]+$/, at[1]));
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
    for (const view of views) {
      await openView(browser, view);
      writeFileSync(path.join(OUT, `${size}-${view.file}.png`), await browser.picture());
    }
  } finally {
    await browser.close();
  }
}

async function main(): Promise<void> {
  mkdirSync(OUT, { recursive: true });
  await shoot(PHONE, 'phone', 'Dye (dark)', PHONE_VIEWS);
  await shoot(WIDE, 'wide', 'Sheet (light)', WIDE_VIEWS);
}

void main();
