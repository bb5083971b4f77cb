import { readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { type Browser, PHONE, openBrowser, signIn } from './browser';
import { openBuild } from './places';

/** The scripts that a page has loaded since its device was empty: how many, and their bytes, raw and gzipped. */
async function loaded({ driver }: Browser): Promise<{ files: number; raw: number; gzip: number }> {
  const scripts = await driver.executeScript<string[]>(
    `return performance.getEntriesByType('resource').filter((each) => new URL(each.name).pathname.endsWith('.js'))
       .map((each) => new URL(each.name).pathname)`,
  );
  const names = [...new Set(scripts)].filter((name) => name !== '/sw.js');
  const files = names.map((name) => readFileSync(path.join(process.env.WEB_DIR ?? '', name)));
  const raw = files.reduce((sum, file) => sum + file.length, 0);
  const gzip = files.reduce((sum, file) => sum + gzipSync(file, { level: 9 }).length, 0);
  return { files: files.length, raw, gzip };
}

/** Prints, as JSON, what the first page loads, and what the Read station of a build does: asked of a browser with an empty cache. */
async function main(): Promise<void> {
  const browser = await openBrowser(process.env.BASE ?? '', PHONE);
  try {
    await browser.visit('/');
    await browser.find('[data-testid="sign-in"]');
    const first = await loaded(browser);
    await signIn(browser, 'mara', 'layout-dye-demo');
    // One whose readings are still to be taken.
    await openBuild(browser, 'Alder', 'read');
    // By its address, as a device does that was left there.
    await browser.reload();
    await browser.find('[data-testid="sentence"]');
    console.log(JSON.stringify({ first, read: await loaded(browser) }));
  } finally {
    await browser.close();
  }
}

void main();
