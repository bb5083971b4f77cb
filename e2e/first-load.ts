import { readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { PHONE, openBrowser } from './browser';

/** Prints, as JSON, the bytes of JavaScript that the first page loads, raw and gzipped: asked of a browser with an empty cache. */
async function main(): Promise<void> {
  const browser = await openBrowser(process.env.BASE ?? '', PHONE);
  try {
    await browser.visit('/');
    await browser.find('[data-testid="sign-in"]');
    const scripts = await browser.driver.executeScript<string[]>(
      `return performance.getEntriesByType('resource').filter((each) => new URL(each.name).pathname.endsWith('.js'))
         .map((each) => new URL(each.name).pathname)`,
    );
    const names = [...new Set(scripts)].filter((name) => name !== '/sw.js');
    const files = names.map((name) => readFileSync(path.join(process.env.WEB_DIR ?? '', name)));
    const raw = files.reduce((sum, file) => sum + file.length, 0);
    const gzip = files.reduce((sum, file) => sum + gzipSync(file, { level: 9 }).length, 0);
    console.log(JSON.stringify({ files: files.length, raw, gzip }));
  } finally {
    await browser.close();
  }
}

void main();
