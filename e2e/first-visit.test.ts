import { type AppServer, openAppServer } from './app-server';
import { type Browser, PHONE, axeViolations, openBrowser } from './browser';

jest.setTimeout(120_000);

let server: AppServer;
let browser: Browser;
beforeAll(async () => {
  server = await openAppServer('none');
  browser = await openBrowser(server.base, PHONE);
});
afterAll(async () => {
  await browser.close();
  await server.stop();
});

test('without the demo: the one-time code opens the shop, a wrong one does not, and the empty list says what to do', async () => {
  const code = /with the code (\S+)/.exec(server.said())?.[1] ?? '';
  expect(code).toMatch(/^[A-Z0-9]{8}$/);
  await browser.visit('/setup');
  await browser.fill('setup-code', 'WRONG234');
  await browser.fill('setup-shopName', 'Tansy Row Engines');
  await browser.fill('setup-builderName', 'Ines Harrow');
  await browser.fill('setup-signInName', 'ines');
  await browser.fill('setup-password', 'a long enough one');
  await browser.press('setup');
  await browser.find('[role=alert]');
  expect(await axeViolations(browser)).toEqual([]);
  await browser.fill('setup-code', code);
  await browser.press('setup');
  await browser.find('[data-testid="new-build"]');
  expect(await (await browser.find('[role=main]')).getText()).toMatch(/No build yet[\s\S]*Zero comes first/);
  expect(await axeViolations(browser)).toEqual([]);
  // Nobody else gets in by the demo's passwords, and nothing of this shop is shown without a sign-in.
  const opened = await browser.driver.executeAsyncScript<number[]>(
    `const done = arguments[arguments.length - 1];
     const tryDemo = fetch('/api/session', { method: 'POST', headers: { 'content-type': 'application/json' },
       body: JSON.stringify({ signInName: 'mara', password: 'layout-dye-demo' }) }).then((answer) => answer.status);
     const bare = fetch('/api/builds', { credentials: 'omit' }).then((answer) => answer.status);
     Promise.all([tryDemo, bare]).then(done);`,
  );
  expect(opened).toEqual([401, 401]);
});
