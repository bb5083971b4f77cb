import { type AppServer, openAppServer } from './app-server';
import { type Browser, PHONE, appIsKept, deviceKeeps, openBrowser, ownersDevice, signIn } from './browser';
import { openBuild } from './places';

let server: AppServer;
let browser: Browser;
let cutOff: Browser;
const device = ownersDevice();
beforeAll(async () => {
  server = await openAppServer();
  browser = cutOff = await openBrowser(server.base, PHONE);
  await signIn(cutOff, 'mara', 'layout-dye-demo');
});
afterAll(async () => {
  await cutOff.close();
  await device.close();
  await server.stop();
});

const tap = async (figures: string, side: string): Promise<void> => {
  for (const key of figures) await browser.press(`key-${key}`);
  await browser.press(`side-${side}`);
  await browser.press('record');
};

/** On a device eight times slower: leaves the page, and comes back, the moment that the sign says this. */
async function leaveWhenSaid({ driver }: Browser, words: string, act: () => Promise<void>): Promise<void> {
  await driver.sendDevToolsCommand('Emulation.setCPUThrottlingRate', { rate: 8 });
  await driver.executeScript(
    `window.isLeft = true;
     new MutationObserver(() => {
       if (document.querySelector('[data-testid=sync-sign]')?.innerText.includes(arguments[0])) location.reload();
     }).observe(document.body, { subtree: true, childList: true, characterData: true });`,
    words,
  );
  await act();
  await driver.wait(() => driver.executeScript<boolean>('return window.isLeft !== true').catch(() => false), 60_000);
  await driver.sendDevToolsCommand('Emulation.setCPUThrottlingRate', { rate: 1 });
}

test('with the server stopped a measurement is finished, survives a reload, and is posted when it returns', async () => {
  await browser.press('new-build');
  await browser.fill('engine-name', 'Gorse End twin');
  await browser.fill('engine-cylinders', '2');
  await browser.fill('engine-firingOrder', '1-2');
  await browser.press('begin');
  await browser.seeText('sync-sign', /Saved/);
  // The service worker must have the app before the server goes.
  await appIsKept(browser);
  const address = await browser.driver.getCurrentUrl();
  await server.stop();

  await browser.press('zero-begin');
  await leaveWhenSaid(browser, '3 not sent yet', () => tap('20', 'before'));
  await browser.seeText('sentence', /Turn it backwards/);
  await browser.seeText('sync-sign', /3 not sent yet/);
  // Half a reading is typed when the page is reloaded.
  await browser.press('key-2');
  await browser.press('key-5');
  await browser.press('side-after');
  // The side is the last that was pressed: until the device has it, half of the half would be lost.
  await deviceKeeps(browser, 'drafts', (kept) => /"text":"25","side":"after"/.test(JSON.stringify(kept)));
  await browser.reload();
  await browser.seeText('sentence', /Turn it backwards/);
  await browser.press('record');
  await browser.seeText('sentence', /Slip the wheel 2½°/);
  await browser.press('wheel-set');
  await tap('22½', 'before');
  await tap('22½', 'after');
  await browser.seeText('sentence', /TDC is proved/);
  await browser.press('next');
  await browser.fill('card-centreline', '108');
  await browser.press('card-save');
  await tap('66', 'after');
  await browser.seeText('sentence', /Over the nose/);
  await tap('153', 'after');
  await browser.press('next');
  await browser.seeText('verdict', /1\.5° late/);
  await browser.seeText('sync-sign', /not sent yet · working offline/);
  await browser.reload();
  await browser.seeText('verdict', /1\.5° late/);
  // Opened from the home screen it goes on where the work was.
  await browser.visit('/?from=home');
  await browser.seeText('verdict', /1\.5° late/);

  await server.start();
  await browser.seeText('sync-sign', /^Saved$/);
  const id = /builds\/([^/]+)/.exec(address)?.[1];
  const seen = await browser.driver.executeAsyncScript<{ seqs: number[]; headline: string }>(
    `const done = arguments[arguments.length - 1];
     Promise.all(['entries', 'report'].map((what) => fetch('/api/builds/${id}/' + what).then((answer) => answer.json())))
       .then(([log, { report }]) => done({ seqs: log.entries.map((entry) => entry.seq), headline: report.verdict.headline }));`,
  );
  // Opening, trial, as it stands, zero, two contacts, set, two proofs, card, target, two readings: each once, in order.
  expect(seen.seqs).toEqual(Array.from({ length: 13 }, (_, at) => at + 1));
  expect(seen.headline).toMatch(/^The cam sits 1\.5° late, retarded, ±0\.\d°\.$/);
});

test('a server that has frozen is as good as none: within seconds the work goes on without it, and nothing is lost', async () => {
  await browser.forget();
  await browser.visit('/');
  await browser.press('new-build');
  await browser.fill('engine-name', 'Frozen four');
  await browser.fill('engine-cylinders', '4');
  await browser.fill('engine-firingOrder', '1-3-4-2');
  await browser.press('begin');
  await browser.seeText('sync-sign', /Saved/);
  server.freeze(true);
  await browser.press('zero-begin');
  await tap('20', 'before');
  await browser.seeText('sentence', /Turn it backwards/);
  await browser.seeText('sync-sign', /3 not sent yet · working offline/);
  await tap('25', 'after');
  await browser.seeText('sentence', /Slip the wheel 2½°/);
  server.freeze(false);
  await browser.seeText('sync-sign', /^Saved$/);
});

test('while the pieces of a page are fetched its address stays: a reload in that moment comes back to the same place', async () => {
  browser = await device.open(PHONE);
  await openBuild(browser, 'Sorrel', 'lash');
  await browser.find('[data-testid="sentence"]');
  const { driver } = browser;
  const here = new URL(await driver.getCurrentUrl()).pathname;
  const watched = `window.addresses = [];
    for (const name of ['pushState', 'replaceState']) {
      const was = history[name];
      history[name] = function (...given) { window.addresses.push(String(given[2])); return was.apply(this, given); };
    }`;
  await driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source: watched });
  await browser.visit(here);
  await browser.find('[data-testid="sentence"]');
  expect(new Set(await driver.executeScript<string[]>('return window.addresses'))).toEqual(new Set([here]));
});
