import { isDeepStrictEqual } from 'node:util';
import { palette } from '../apps/app/src/ui/palette';
import { type Browser, WIDE, ownersDevice, waitFor } from './browser';
import { openBuild } from './places';

const device = ownersDevice();
afterAll(device.close);
let browser: Browser;

const asRgb = (hex: string): string => `rgb(${[1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16)).join(', ')})`;

/** Device setting: what the browser says that the person prefers. */
const deviceIs = (scheme: 'dark' | 'light'): Promise<void> =>
  browser.driver.sendDevToolsCommand('Emulation.setEmulatedMedia', {
    features: [{ name: 'prefers-color-scheme', value: scheme }],
  });

/** The colours in force: of the page, of its heading, and of what the degree wheel is painted with. */
const colours = () =>
  browser.driver.executeScript<{ page: string; text: string; picture: string }>(
    `const of = (css) => getComputedStyle(document.querySelector(css));
     const painted = document.querySelector('[data-testid=degree-wheel] svg circle, [role=img] svg circle');
     return { page: of('body').backgroundColor, text: of('[role=main] [role=heading], [role=main] h1, [role=main] h2').color, picture: getComputedStyle(painted).fill };`,
  );

/** Asked in the page: a wheel has hundreds of parts, and the driver looks at each. */
const wheelIsThere = (): Promise<unknown> =>
  waitFor(
    browser,
    () => browser.driver.executeScript<boolean>("return document.querySelector('svg circle') !== null"),
    'the wheel was never drawn',
  );

async function looks(theme: 'dye' | 'sheet'): Promise<void> {
  const { ground, ink, raised } = palette[theme];
  const wanted = { page: asRgb(ground), text: asRgb(ink), picture: asRgb(raised) };
  let seen = await colours();
  for (let tries = 0; tries < 100 && !isDeepStrictEqual(seen, wanted); tries += 1) {
    await browser.driver.sleep(100);
    seen = await colours();
  }
  expect(seen).toEqual(wanted);
}

async function choose(label: string): Promise<void> {
  await browser.visit('/shop');
  await browser.pressText(label);
  await openBuild(browser, 'Old Tarn', 'zero');
  await wheelIsThere();
}

test('page, words and pictures are of one theme: by the device, by choice, and when the device changes its mind', async () => {
  browser = await device.open(WIDE);
  await deviceIs('dark');
  await openBuild(browser, 'Old Tarn', 'zero');
  await wheelIsThere();
  await looks('dye');
  // Evening ends while the page is open.
  await deviceIs('light');
  await looks('sheet');
  await deviceIs('dark');
  await looks('dye');
  // A choice outweighs the device, either way.
  await choose('Sheet (light)');
  await looks('sheet');
  await deviceIs('light');
  await choose('Dye (dark)');
  await looks('dye');
  await choose('As the device');
  await looks('sheet');
});
