import type { Browser } from './browser';

/** Types a reading of the wheel key by key, on the app's own keypad, and records it. */
export async function tapReading(browser: Browser, figures: string, side?: 'before' | 'after'): Promise<void> {
  for (const key of figures) await browser.press(`key-${key}`);
  if (side) await browser.press(`side-${side}`);
  // A key that was lost is named here, not by a verdict that comes of it.
  await browser.find(`[aria-label*="Under the pointer: ${figures}°"]`);
  await browser.press('record');
}

/** From the list of builds: a new engine with a proved zero on a 0–180 wheel, and the Card station open. */
export async function provedBuild(browser: Browser, name: string): Promise<void> {
  await browser.press('new-build');
  await browser.fill('engine-name', name);
  await browser.fill('engine-cylinders', '4');
  await browser.fill('engine-firingOrder', '1-3-4-2');
  await browser.press('begin');
  await browser.press('zero-begin');
  await browser.find('[data-testid="record"]');
  const wide = (await browser.driver.findElements({ css: '[data-testid="key-1"]' })).length === 0;
  const read = async (side: 'before' | 'after'): Promise<void> => {
    if (wide) await browser.keys('2', '0', side === 'before' ? 'b' : 'a', '\n');
    else await tapReading(browser, '20', side);
  };
  for (const pass of [1, 2]) {
    await read('before');
    await browser.seeText('sentence', /Turn it backwards/);
    await read('after');
    if (pass === 1) await browser.press('wheel-set');
  }
  await browser.seeText('sentence', /TDC is proved/);
  await browser.press('next');
  await browser.find('[data-testid="card-centreline"]');
}
