import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import { Builder, Key, type WebElement } from 'selenium-webdriver';
import { type Driver, Options, ServiceBuilder } from 'selenium-webdriver/chrome';
import { oneOf, sharedServer } from './app-server';
import { forget, keptPart, settle } from './device-memory';
import { LOOK_MS, SEEN, placeToPress, waitInPage } from './screen-scripts';

export const PHONE = { width: 390, height: 844, mobile: true } as const;
export const WIDE = { width: 1280, height: 800, mobile: false } as const;
export type Viewport = typeof PHONE | typeof WIDE;

/**
 * Longer nothing is waited for that never comes, ms. What does come is seen at once: under a load it costs no more than it takes.
 */
const PATIENCE_MS = 60_000;
export const CHROMIUM = '/usr/bin/chromium';
export const FLAGS = [
  '--headless=new',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  // Pages of the browser's own that nobody sees; each costs as much as one of ours.
  '--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup,WebUIOmniboxFullPopup',
  '--disable-dev-shm-usage',
  '--hide-scrollbars',
  '--lang=en-GB',
  // A window without the browser's own tabs and fields, which would be drawn for nobody.
  '--app=data:,',
];

/** The app in a real browser, driven by what stands on the screen. */
export interface Browser {
  readonly driver: Driver;
  readonly visit: (route: string) => Promise<void>;
  /** The same page anew. */
  readonly reload: () => Promise<void>;
  readonly find: (css: string) => Promise<WebElement>;
  /** Whether it stands there now, without waiting for it. */
  readonly isSeen: (css: string) => Promise<boolean>;
  readonly press: (testId: string) => Promise<void>;
  readonly pressAt: (css: string) => Promise<void>;
  /** A key, a link or one of several answers by all that it says. @param within looked for in there alone */
  readonly pressText: (text: string, within?: string) => Promise<void>;
  readonly fill: (testId: string, text: string) => Promise<void>;
  readonly keys: (...keys: string[]) => Promise<void>;
  readonly text: (testId: string) => Promise<string>;
  readonly seeText: (testId: string, wanted: RegExp | string) => Promise<string>;
  /** The same of all that stands in the middle. */
  readonly seeMain: (wanted: RegExp | string) => Promise<string>;
  readonly picture: () => Promise<Buffer>;
  /** Another screen in the same hands. */
  readonly become: (screen: Viewport) => Promise<void>;
  /** Nothing is left of what the device has kept, but who is signed in, if the server knows him still. The app itself stays with it. */
  readonly forget: () => Promise<void>;
  readonly close: () => Promise<void>;
}

const byTestId = (testId: string): string => `[data-testid="${testId}"]`;

/** A device of the shop rather than the machine of the server. */
interface Device {
  /** A name that leads to this machine, as one does in a shop’s network. */
  readonly name?: string;
  /** File of an authority that the device has taken in. */
  readonly trusts?: string;
  /** The page is looked at while it still loads; otherwise nothing is done before it has. */
  readonly early?: boolean;
  /** A browser that runs already, by the address of its developer's tools. It is left running. */
  readonly running?: string;
}

/** A home whose browsers trust that authority: NSS, which Chromium goes by on Linux. */
function homeThatTrusts(authority: string, folder: string): string {
  const store = path.join(folder, '.pki/nssdb');
  mkdirSync(store, { recursive: true });
  const certutil = (...args: string[]): void => void execFileSync('certutil', ['-d', `sql:${store}`, ...args]);
  certutil('-N', '--empty-password');
  certutil('-A', '-t', 'C,,', '-n', 'shop', '-i', authority);
  return folder;
}

export async function openBrowser(
  base: string,
  screen: Viewport,
  { name, trusts, early = false, running }: Device = {},
): Promise<Browser> {
  // One that runs already has a profile of its own, and this stays empty.
  const profile = mkdtempSync(path.join(os.tmpdir(), 'yosoku-browser-'));
  const options = new Options();
  if (running !== undefined) options.debuggerAddress(running);
  else {
    options.setChromeBinaryPath(CHROMIUM);
    options.addArguments(...FLAGS, `--window-size=${screen.width},${screen.height}`, `--user-data-dir=${profile}`);
  }
  if (early) options.setPageLoadStrategy('none');
  if (name !== undefined) options.addArguments(`--host-resolver-rules=MAP ${name} 127.0.0.1`);
  const service = new ServiceBuilder('/usr/bin/chromedriver');
  if (trusts !== undefined)
    service.setEnvironment({ ...(process.env as Record<string, string>), HOME: homeThatTrusts(trusts, profile) });
  const driver = (await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(service)
    .build()) as Driver;
  const become = async ({ mobile, ...size }: Viewport): Promise<void> => {
    const screen = { ...size, deviceScaleFactor: 1, mobile };
    await driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', screen);
    await driver.sendDevToolsCommand('Emulation.setTouchEmulationEnabled', { enabled: mobile });
  };
  await become(screen);

  /** Asked again and again until there is an answer. A page that is just being left answers with an error: it is asked anew. */
  const ask = async <T>(what: () => Promise<T | null>, never: string): Promise<T> => {
    let trouble = '';
    return driver
      .wait(() => what().catch((error: Error) => void (trouble = `; last ${error.message}`)), PATIENCE_MS, '', LOOK_MS)
      .catch(() => {
        throw new Error(never + trouble);
      }) as Promise<T>;
  };
  const find = (css: string): Promise<WebElement> =>
    ask(
      () => driver.executeAsyncScript<WebElement | null>(waitInPage('seen(arguments[0])'), css),
      `nothing on the screen matches ${css}`,
    );
  /**
   * Presses where a finger would: in the middle of what can be seen of it, once it stands still and nothing lies on top. Pages redraw and move under the hand: a
   * press that would meet something else is held back in the page, and made again.
   * @param candidates what may be meant, as an expression of the page, to which `named` are its arguments.
   */
  const click = async (candidates: string, named: readonly string[], never: string): Promise<void> => {
    await ask(async () => {
      const at = await driver.executeAsyncScript<{ x: number; y: number } | string>(placeToPress(candidates), ...named);
      if (at === '') return null;
      if (typeof at === 'string') throw new Error(at);
      await driver
        .actions()
        .move({ ...at, duration: 0 })
        .click()
        .perform();
      // A page that the press has led away from knows of no guard any more.
      const met = await driver.executeScript<boolean>('return window.endPress?.() ?? true').catch(() => true);
      if (!met) throw new Error('it moved under the hand');
      return true;
    }, never);
  };
  const pressAt = (css: string): Promise<void> =>
    click('[...document.querySelectorAll(arguments[0])]', [css], `nothing to press matches ${css}`);
  /** Waits until it says that: what follows from a press stands there a moment later. */
  const see = async (selector: string, wanted: RegExp | string): Promise<string> => {
    const says = "(seen(arguments[0])?.innerText ?? '')";
    const [pattern, flags] = typeof wanted === 'string' ? [wanted, null] : [wanted.source, wanted.flags];
    const look = `((said) => {
      const fits = arguments[2] === null ? said.includes(arguments[1]) : new RegExp(arguments[1], arguments[2]).test(said);
      return fits ? said : null;
    })(${says})`;
    return ask(
      () => driver.executeAsyncScript<string | null>(waitInPage(look), selector, pattern, flags),
      `“${selector}” never said ${wanted}`,
    ).catch(async (error: Error) => {
      const said = await driver.executeScript<string>(`${SEEN} return ${says};`, selector).catch(() => '');
      throw new Error(`${error.message}; it says “${said}”`);
    });
  };

  return {
    driver,
    find,
    visit: async (route) => {
      await settle(driver);
      await driver.get(base + route);
    },
    reload: async () => {
      await settle(driver);
      await driver.navigate().refresh();
    },
    isSeen: (css) => driver.executeScript<boolean>(`${SEEN} return seen(arguments[0]) !== null;`, css),
    press: (testId) => pressAt(byTestId(testId)),
    pressAt,
    pressText: (label, within = 'body') =>
      click(
        `[...document.querySelectorAll(arguments[1])].flatMap((each) => [...each.querySelectorAll('[role=button], [role=radio], a')])
           .filter((each) => each.textContent.trim().replace(/\\s+/g, ' ') === arguments[0])`,
        [label, within],
        `nothing to press says “${label}”`,
      ),
    fill: async (testId, value) => {
      const field = await find(byTestId(testId));
      if (value === '') return field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE);
      await field.sendKeys(Key.chord(Key.CONTROL, 'a'));
      // At once, as a telephone's keyboard puts in the word that it offers: after each single key the whole station follows. `keys` types.
      await driver.sendDevToolsCommand('Input.insertText', { text: value });
    },
    keys: (...keys) =>
      driver
        .actions()
        .sendKeys(...keys)
        .perform(),
    text: (testId) => see(byTestId(testId), /[^]/),
    seeText: (testId, wanted) => see(byTestId(testId), wanted),
    seeMain: (wanted) => see('[role=main]', wanted),
    picture: async () => Buffer.from(await driver.takeScreenshot(), 'base64'),
    become,
    forget: async () => {
      await driver.get(`${base}/api/health`);
      await forget(driver);
    },
    close: async () => {
      await driver.quit();
      rmSync(profile, { recursive: true, force: true });
    },
  };
}

/** Waits until something holds, looked at again and again; says what never came otherwise. */
export const waitFor = async (
  { driver }: Pick<Browser, 'driver'>,
  holds: () => Promise<boolean> | boolean,
  never: string,
): Promise<void> => void (await driver.wait(holds, PATIENCE_MS, never, LOOK_MS));

/**
 * Presses a key that lets in by a password, until something stands there. To prove one costs the server much on purpose: beside a load that takes it longer than
 * the app waits, which then says so, and a builder presses again.
 */
export async function pressUntil(browser: Browser, key: string, css: string): Promise<void> {
  await browser.press(key);
  await waitFor(
    browser,
    async () => {
      if (await browser.isSeen(css)) return true;
      const said = await browser.driver.executeScript<string>('return document.body.innerText');
      if (said.includes('The server cannot be reached.')) await browser.press(key);
      return false;
    },
    `“${key}” never led to ${css}`,
  );
}

export async function signIn(browser: Browser, signInName: string, password: string): Promise<void> {
  await browser.visit('/sign-in');
  await browser.fill('sign-in-name', signInName);
  await browser.fill('password', password);
  await pressUntil(browser, 'sign-in', byTestId('new-build'));
}

/**
 * One device for all journeys that the demo's owner makes, in every file: signed in, with the app on it, and of what it kept from the journey before nothing is
 * left. To open a browser of its own for each costs more than most journeys.
 */
export function ownersDevice() {
  let device: Browser | null = null;
  return {
    open: async (screen: Viewport): Promise<Browser> => {
      device ??= await openBrowser(sharedServer().base, screen, { running: oneOf(process.env.SHARED_BROWSERS) });
      await device.forget();
      await device.become(screen);
      await device.visit('/');
      await device.find('[data-testid="new-build"], [data-testid="sign-in"]');
      // At first, and after a journey that signed the owner out everywhere.
      if (await device.isSeen(byTestId('sign-in'))) await signIn(device, 'mara', 'layout-dye-demo');
      return device;
    },
    close: async (): Promise<void> => device?.close(),
  };
}

/** Waits until the service worker has the app: from now on it starts without the server. */
export const appIsKept = (browser: Browser): Promise<void> =>
  waitFor(
    browser,
    () => browser.driver.executeScript<boolean>('return navigator.serviceWorker.controller !== null'),
    'the service worker never took over',
  );

/** Waits until this device has kept a part of the app's memory in a state that fits: what a reload would find. */
export async function deviceKeeps(browser: Browser, part: string, fits: (kept: unknown) => boolean): Promise<void> {
  await waitFor(
    browser,
    async () => {
      const kept = await keptPart(browser.driver, part);
      return kept !== null && fits(kept);
    },
    `the device never kept its ${part}`,
  );
}

const load = createRequire(path.join(process.cwd(), 'package.json'));

/** What axe-core finds wrong with the screen as it stands: rule and element. Empty is good. */
export async function axeViolations({ driver }: Browser): Promise<string[]> {
  // A page that it was given to keeps it.
  if (!(await driver.executeScript<boolean>('return "axe" in window')))
    await driver.executeScript(readFileSync(load.resolve('axe-core/axe.min.js'), 'utf8'));
  return driver.executeAsyncScript<string[]>(`
    const done = arguments[arguments.length - 1];
    axe.run(document, { resultTypes: ['violations'] }).then(
      (result) => done(result.violations.flatMap((each) => each.nodes.map((node) => each.id + ': ' + node.html.slice(0, 160) + ' ' + (node.any[0]?.message ?? '')))),
      (error) => done([String(error)]),
    );`);
}
