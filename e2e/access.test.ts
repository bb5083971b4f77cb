import { Key } from 'selenium-webdriver';
import { sharedServer } from './app-server';
import {
  type Browser,
  PHONE,
  WIDE,
  axeViolations,
  openBrowser,
  ownersDevice,
  pressUntil,
  signIn,
  waitFor,
} from './browser';
import { holdBackProgram } from './holding-back';

const { base } = sharedServer();
const device = ownersDevice();
let browser: Browser;
afterAll(device.close);
afterEach(() => browser.close());

const FIRST = 'grease-pencil-demo';
const SECOND = 'seven slow turns of it';

test('phone: the owner gives a builder a code; he chooses a password by it, is told why a poor one is none, and changes it back', async () => {
  browser = await openBrowser(base, PHONE);
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
  const other = await device.open(PHONE);
  browser = await openBrowser(base, WIDE);
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

describe('over a slow line', () => {
  let line: Awaited<ReturnType<typeof holdBackProgram>>;
  beforeEach(async () => {
    line = await holdBackProgram(base);
    browser = await openBrowser(line.base, PHONE, { early: true });
  });
  afterEach(() => line.close());
  const typeInto = async (name: string, ...keys: string[]): Promise<void> =>
    (await browser.find(`#first-form input[name="${name}"]`)).sendKeys(...keys);
  const says = async (wanted: RegExp): Promise<void> =>
    waitFor(
      browser,
      async () => wanted.test(await (await browser.find('#first-form')).getText()),
      `the first form never said ${wanted}`,
    );

  test('what is typed before the program is there stands in its sign-in, and the next key goes on behind it', async () => {
    await browser.visit('/');
    await typeInto('signInName', 'mara');
    await typeInto('password', 'layout-');
    const words = await (await browser.find('#first-form')).getText();
    line.letGo();
    await browser.find('[data-testid="sign-in"]');
    // The one looks like the other: their words are written twice.
    expect((await browser.seeMain(/Sign in/)).split(/\s+/)).toEqual(words.split(/\s+/));
    expect(await browser.driver.findElements({ css: '#first-form' })).toEqual([]);
    expect(await (await browser.find('[data-testid="sign-in-name"]')).getAttribute('value')).toBe('mara');
    await browser.keys('dye-demo', Key.ENTER);
    await browser.find('[data-testid="new-build"]');
  });

  test('a sign-in that was sent too early is carried out; a wrong one is told, with the name still there', async () => {
    await browser.visit('/builds/new');
    await typeInto('signInName', 'mara');
    await typeInto('password', 'wrong-by-a-word', Key.ENTER);
    await says(/Signing in[\s\S]*still loading/);
    expect(await axeViolations(browser)).toEqual([]);
    line.letGo();
    await browser.find('[data-testid="sign-in-trouble"]');
    await browser.fill('password', 'layout-dye-demo');
    await pressUntil(browser, 'sign-in', '[data-testid="new-build"]');
  });

  test('a program that does not arrive is told; who has a code, or a session, meets no sign-in', async () => {
    await browser.visit('/sign-in');
    await typeInto('signInName', 'mara', Key.ENTER);
    line.break();
    await says(/Load again[\s\S]*could not be loaded/);
    expect(await axeViolations(browser)).toEqual([]);
    line.letGo();
    await (await browser.find('#first-form button')).click();
    await browser.find('[data-testid="sign-in"]');
    await browser.visit('/code');
    await browser.find('[data-testid="use-code"]');
    expect(await browser.driver.findElements({ css: '#first-form' })).toEqual([]);
    await signIn(browser, 'mara', 'layout-dye-demo');
    const page = await browser.driver.executeAsyncScript<string>(
      `const done = arguments[arguments.length - 1];
       fetch('/shop?past-the-worker', { headers: { accept: 'text/html' } }).then((answer) => answer.text()).then(done);`,
    );
    expect(page).toContain('id="root"');
    expect(page).not.toContain('first-form');
  });
});
