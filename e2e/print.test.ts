import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { type Browser, PHONE, type Viewport, WIDE, axeViolations, deviceKeeps, ownersDevice, waitFor } from './browser';
import { answer, goTo, openBuild } from './places';

let browser: Browser;
const device = ownersDevice();
const folder = mkdtempSync(path.join(os.tmpdir(), 'yosoku-print-'));
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await device.close();
});

const open = async (size: Viewport): Promise<void> => {
  browser = await device.open(size);
};

/** Presses a key that prints, and takes what the browser opens: no window of its own, its bytes are kept for poppler. */
async function printed(key = 'print-go'): Promise<string> {
  await browser.driver.executeScript(
    `window.paper = null;
     const make = URL.createObjectURL;
     URL.createObjectURL = (blob) => { window.paper = blob; URL.createObjectURL = make; return make.call(URL, blob); };
     HTMLAnchorElement.prototype.click = function () {};`,
  );
  await browser.press(key);
  await waitFor(browser, () => browser.driver.executeScript<boolean>('return window.paper !== null'), 'no PDF');
  const text = await browser.driver.executeAsyncScript<string>(
    `const done = arguments[0];
     const reader = new FileReader();
     reader.onload = () => done(String(reader.result).split(',')[1]);
     reader.readAsDataURL(window.paper);`,
  );
  const file = path.join(folder, 'paper.pdf');
  writeFileSync(file, Buffer.from(text, 'base64'));
  const { stdout, status } = spawnSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
  expect(status).toBe(0);
  return stdout;
}

test('phone: from Zero to a wheel of this build, a printer checked on the way; it is still known after a reload', async () => {
  await open(PHONE);
  await openBuild(browser, 'Sorrel', 'zero');
  await browser.press('to-print');
  await browser.seeText('printer-error', /No printer is checked on this device/);
  expect(await axeViolations(browser)).toEqual([]);
  await browser.fill('print-diameter', '60');
  await browser.press('print-go');
  await browser.seeText('print-trouble', /at most 1200 mm|too much/);
  await answer(browser, 'print-what', 'Printer check');
  await browser.fill('printer-name', 'Office');
  await browser.fill('printer-across', '99.4');
  await browser.fill('printer-along', '100');
  await browser.press('printer-keep');
  await browser.seeText('printer-error', /−0\.6 % across and 0\.0 % along/);
  await answer(browser, 'print-what', 'Degree wheel');
  await browser.fill('print-diameter', '180 mm');
  await answer(browser, 'print-places', 'Firing TDCs too');
  expect(await printed()).toMatch(/TDC 6, TDC 3/);
  await browser.visit(new URL(await browser.driver.getCurrentUrl()).pathname);
  await browser.seeText('printer-error', /−0\.6 % across/);
  expect(await axeViolations(browser)).toEqual([]);
});

test('phone: the owner sets the letterhead; a logo with script in it is refused in words, and the sheet of a customer has the new head', async () => {
  await open(PHONE);
  await browser.visit('/shop');
  await browser.seeText('letterhead-paper', /Lower Sallow/);
  await browser.press('more-letterhead');
  const send = async (inside: string): Promise<void> => {
    const file = path.join(folder, 'logo.svg');
    writeFileSync(
      file,
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><path d="M0 0h9v9z"/>${inside}</svg>`,
    );
    await browser.driver.findElement({ css: '[data-testid="logo-file"]' }).sendKeys(file);
  };
  await send('<script>alert(1)</script>');
  await browser.seeText('logo-trouble', /There is script in this drawing/);
  const logoIs = async () => (await browser.find('[data-testid="letterhead-logo"]')).getAttribute('style');
  const before = await logoIs();
  await send('');
  await waitFor(browser, async () => (await logoIs()) !== before, 'the logo is still the one before');
  await browser.fill('letterhead-words', 'Under the clock\nBracken End');
  // The device writes a moment after the last key.
  await deviceKeeps(browser, 'drafts', (drafts) => JSON.stringify(drafts).includes('Bracken End'));
  // Half typed, and the page is gone: it stands there again.
  await browser.visit('/shop');
  await browser.press('more-letterhead');
  await browser.press('letterhead-save');
  await browser.seeText('letterhead-paper', /Under the clock\s+Bracken End/);
  expect(await axeViolations(browser)).toEqual([]);
  await openBuild(browser, 'Lark Mill', 'sheet');
  expect(await printed('print-customer-a4')).toMatch(
    /Fennel Yard Engine Works[^]*Under the clock[^]*Bracken End[^]*Lark Mill/,
  );
});

test('wide: from the sheet to the lash of this engine on a clipboard; from the list to an empty one', async () => {
  await open(WIDE);
  await openBuild(browser, 'Sorrel', 'lash');
  await goTo(browser, 'sheet');
  await browser.press('to-print');
  await answer(browser, 'print-what', 'Worksheet');
  await answer(browser, 'print-which', 'Lash');
  const own = await printed();
  expect(own).toMatch(/Lash: Sorrel Cross eight/);
  expect(own.match(/0\.018 in/g)).toHaveLength(8);
  await browser.visit('/');
  await browser.press('print-anywhere');
  await answer(browser, 'print-what', 'Worksheet');
  await answer(browser, 'print-which', 'Pushrod trials');
  expect(await printed()).toMatch(/pattern wide/);
  expect(await axeViolations(browser)).toEqual([]);
});
