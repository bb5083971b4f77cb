import { type AppServer, openAppServer } from './app-server';
import { type Browser, PHONE, WIDE, axeViolations, openBrowser, signIn, waitFor } from './browser';

let server: AppServer;
let browser: Browser;
beforeAll(async () => {
  server = await openAppServer();
});
afterAll(() => server.stop());
afterEach(() => browser.close());

const FIRST = 'grease-pencil-demo';
const SECOND = 'seven slow turns of it';

test('phone: the owner gives a builder a code; he chooses a password by it, is told why a poor one is none, and changes it back', async () => {
  browser = await openBrowser(server.base, PHONE);
  await signIn(browser, 'mara', 'layout-dye-demo');
  await browser.visit('/shop');
  await browser.press('more-tobin');
  await browser.press('give-code');
  const code = await browser.text('given-code-value');
  expect(await axeViolations(browser)).toEqual([]);
  await browser.press('sign-out');
  await browser.press('to-code');
  await browser.fill('code-signInName', 'tobin');
  await browser.fill('code-code', code.toLowerCase());
  await browser.fill('code-password', 'password123');
  await waitFor(
    browser,
    async () => /commonest passwords/.test(await (await browser.find('[role=main]')).getText()),
    'the meter never said why',
  );
  await browser.fill('code-password', SECOND);
  await browser.press('use-code');
  await browser.find('[data-testid="new-build"]');

  await browser.visit('/shop');
  await browser.press('more-password');
  await browser.fill('old-password', SECOND);
  await browser.fill('changed-password', FIRST);
  await browser.press('change-password');
  await browser.seeText('password-changed', /Changed\. You are signed out everywhere else/);
  // What is the owner's is not offered to him.
  expect(await browser.driver.findElements({ css: '[data-testid="more-mara"], [data-testid="box-add"]' })).toEqual([]);
});

test('wide: sessions elsewhere are ended; signing out asks what becomes of what is half typed', async () => {
  const other = await openBrowser(server.base, PHONE);
  await signIn(other, 'mara', 'layout-dye-demo');
  browser = await openBrowser(server.base, WIDE);
  await signIn(browser, 'mara', 'layout-dye-demo');
  await browser.visit('/shop');
  await browser.press('more-sessions');
  await browser.press('end-others');
  await waitFor(
    browser,
    async () => (await browser.driver.findElements({ css: '[data-testid="end-session"]' })).length === 0,
    'the other sessions were never ended',
  );
  await other.visit('/');
  await other.seeText('sync-sign', /Sign in again/);
  await other.close();

  await browser.visit('/builds/new');
  await browser.fill('engine-name', 'Half a four');
  await browser.visit('/shop');
  await browser.press('sign-out');
  await browser.seeText('half-typed', /half typed on this device/);
  await browser.press('sign-out-forget');
  await browser.find('[data-testid="sign-in-name"]');
  await signIn(browser, 'mara', 'layout-dye-demo');
  await browser.visit('/builds/new');
  expect(await (await browser.find('[data-testid="engine-name"]')).getAttribute('value')).toBe('');
});
