import { type AppServer, openAppServer } from './app-server';
import { type Browser, PHONE, axeViolations, openBrowser, signIn } from './browser';
import { goTo, openBuild } from './places';

jest.setTimeout(300_000);

let server: AppServer;
let browser: Browser;
beforeAll(async () => {
  server = await openAppServer('demo');
  browser = await openBrowser(server.base, PHONE);
  await signIn(browser, 'mara', 'layout-dye-demo');
});
afterAll(async () => {
  await browser.close();
  await server.stop();
});

/** The keypad alone: digits where the lash was measured first, then the one large key. Counts the taps. */
async function takeValve(figures: string): Promise<number> {
  for (const figure of figures) await browser.press(`key-${figure}`);
  await browser.press('record');
  return figures.length + 1;
}

test('phone: the lash of an eight, once through and once more, by the keypad alone, at most four taps a valve', async () => {
  await openBuild(browser, 'Old Tarn', 'lash');
  // No card: it says what would be enough, and offers what needs none.
  await browser.seeText('seats-unknown', /not known[^]*advertised duration/);
  await browser.press('lash-begin');
  await browser.seeMain(/Say what is wanted/);
  await browser.fill('lash-intake', '14');
  await browser.fill('lash-exhaust', '16');
  expect(await axeViolations(browser)).toEqual([]);
  await browser.press('lash-begin');
  await browser.seeText('sentence', /cylinder 1 at its firing TDC\. Set the intake of cylinder 1 to 0\.014 in\./);

  const valves = [1, 8, 7, 2, 6, 5, 4, 3].flatMap((cylinder) =>
    (['intake', 'exhaust'] as const).map((valve) => ({ cylinder, valve })),
  );
  const taps: number[] = [];
  for (const [at, { cylinder, valve }] of valves.entries()) {
    await browser.seeText('sentence', new RegExp(`Set the ${valve} of cylinder ${cylinder} to`));
    // Every third one is measured before it is turned.
    taps.push(await takeValve(at % 3 === 0 ? '19' : ''));
    // Half-way the page goes and comes back: what was done is done.
    if (at === 7) await browser.visit(new URL(await browser.driver.getCurrentUrl()).pathname);
  }
  await browser.seeText('lash-counts', /All 16 set/);
  expect(await axeViolations(browser)).toEqual([]);
  for (const [at, { cylinder, valve }] of valves.entries()) {
    await browser.seeText('sentence', new RegExp(`Second round: is the ${valve} of cylinder ${cylinder} still`));
    // The exhaust of cylinder 2 is loose.
    taps.push(await takeValve(cylinder === 2 && valve === 'exhaust' ? '22' : ''));
    if (at === 7) {
      await browser.seeText('lash-trouble-2-exhaust', /0\.006 in looser than it was left/);
      await browser.seeText('sentence', /Set the exhaust of cylinder 2 to 0\.016 in again/);
      taps.push(await takeValve(''));
      await browser.seeText('sentence', /Second round: is the exhaust of cylinder 2 still at 0\.016 in/);
      taps.push(await takeValve(''));
    }
  }
  await browser.seeText('sentence', /All 16 valves are set, and were found again as they were left/);
  expect(Math.max(...taps)).toBeLessThanOrEqual(4);

  await browser.press('next');
  await browser.seeMain(/Lash set for running/);
  await goTo(browser, 'sheet');
  expect(await browser.seeText('sheet', /Cylinder 2, exhaust\s+found 0\.022 in/)).toMatch(
    /16 of 16 set, 16 found again as left/,
  );
  await browser.seeText('sync-sign', /Saved/);
});
