import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import { Builder, By, Key, type WebDriver, type WebElement } from 'selenium-webdriver';
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome';

export const PHONE = { width: 390, height: 844, mobile: true } as const;
export const WIDE = { width: 1280, height: 800, mobile: false } as const;
export type Viewport = typeof PHONE | typeof WIDE;

/**
 * Longer nothing is waited for that never comes, ms. What does come is seen at once: under a load it costs no more than it takes.
 */
const PATIENCE_MS = 60_000;
const FLAGS = [
  '--headless=new',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-dev-shm-usage',
  '--hide-scrollbars',
  '--lang=en-GB',
];

/** The app in a real browser, driven by what stands on the screen. */
export interface Browser {
  readonly driver: WebDriver;
  readonly visit: (route: string) => Promise<void>;
  readonly find: (css: string) => Promise<WebElement>;
  readonly press: (testId: string) => Promise<void>;
  readonly pressText: (text: string) => Promise<void>;
  readonly fill: (testId: string, text: string) => Promise<void>;
  readonly keys: (...keys: string[]) => Promise<void>;
  readonly text: (testId: string) => Promise<string>;
  readonly seeText: (testId: string, wanted: RegExp | string) => Promise<string>;
  /** The same of all that stands in the middle. */
  readonly seeMain: (wanted: RegExp | string) => Promise<string>;
  readonly picture: () => Promise<Buffer>;
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
  { width, height, mobile }: Viewport,
  { name, trusts, early = false }: Device = {},
): Promise<Browser> {
  const profile = mkdtempSync(path.join(os.tmpdir(), 'yosoku-browser-'));
  const options = new Options();
  options.setChromeBinaryPath('/usr/bin/chromium');
  options.addArguments(...FLAGS, `--window-size=${width},${height}`, `--user-data-dir=${profile}`);
  if (early) options.setPageLoadStrategy('none');
  if (name !== undefined) options.addArguments(`--host-resolver-rules=MAP ${name} 127.0.0.1`);
  const service = new ServiceBuilder('/usr/bin/chromedriver');
  if (trusts !== undefined)
    service.setEnvironment({ ...(process.env as Record<string, string>), HOME: homeThatTrusts(trusts, profile) });
  const driver = (await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(service)
    .build()) as WebDriver & { sendDevToolsCommand(name: string, parameters: object): Promise<void> };
  await driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
    width,
    height,
    deviceScaleFactor: 1,
    mobile,
  });
  if (mobile) await driver.sendDevToolsCommand('Emulation.setTouchEmulationEnabled', { enabled: true });

  const find = (css: string): Promise<WebElement> =>
    driver.wait(
      async () => {
        for (const element of await driver.findElements(By.css(css)))
          if (await element.isDisplayed().catch(() => false)) return element;
        return null;
      },
      PATIENCE_MS,
      `nothing on the screen matches ${css}`,
    ) as Promise<WebElement>;
  /** Screens redraw under the hand; a press that meets an element which has just gone is made again. */
  const click = async (locate: () => Promise<WebElement>): Promise<void> => {
    for (let tries = 0; ; tries += 1) {
      const element = await locate();
      try {
        await driver.executeScript('arguments[0].scrollIntoView({block:"nearest"})', element);
        await element.click();
        return;
      } catch (error) {
        if (tries === 5) throw error;
        await driver.sleep(150);
      }
    }
  };
  /** Waits until it says that: what follows from a press stands there a moment later. */
  const see = async (selector: string, wanted: RegExp | string): Promise<string> => {
    let seen = '';
    await driver
      .wait(
        async () => {
          // What has just been redrawn is looked at again.
          seen = await find(selector)
            .then((element) => element.getText())
            .catch(() => '');
          return typeof wanted === 'string' ? seen.includes(wanted) : wanted.test(seen);
        },
        PATIENCE_MS,
        `“${selector}” never said ${wanted}`,
      )
      .catch((error: Error) => {
        throw new Error(`${error.message}; it says “${seen}”`);
      });
    return seen;
  };

  return {
    driver,
    find,
    visit: (route) => driver.get(base + route),
    press: (testId) => click(() => find(byTestId(testId))),
    pressText: (label) =>
      click(
        () =>
          driver.wait(
            async () => {
              const xpath = `//*[@role="button" or @role="radio" or self::a][normalize-space(.)=${JSON.stringify(label)}]`;
              for (const element of await driver.findElements(By.xpath(xpath)))
                if (await element.isDisplayed().catch(() => false)) return element;
              return null;
            },
            PATIENCE_MS,
            `nothing to press says “${label}”`,
          ) as Promise<WebElement>,
      ),
    fill: async (testId, value) => {
      const field = await find(byTestId(testId));
      await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE, value);
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
): Promise<void> => void (await driver.wait(holds, PATIENCE_MS, never));

export async function signIn(browser: Browser, signInName: string, password: string): Promise<void> {
  await browser.visit('/sign-in');
  await browser.fill('sign-in-name', signInName);
  await browser.fill('password', password);
  await browser.press('sign-in');
  await browser.find(byTestId('new-build'));
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
  const read = () =>
    browser.driver.executeAsyncScript<string | null>(
      `const done = arguments[arguments.length - 1];
       indexedDB.open('keyval-store').onsuccess = ({ target }) => {
         target.result.transaction('keyval').objectStore('keyval').get('yosoku-' + arguments[0]).onsuccess =
           ({ target: { result } }) => done(result === undefined ? null : typeof result === 'string' ? result : JSON.stringify(result));
       };`,
      part,
    );
  await waitFor(
    browser,
    async () => {
      const kept = await read();
      return kept !== null && fits(JSON.parse(kept));
    },
    `the device never kept its ${part}`,
  );
}

const load = createRequire(path.join(process.cwd(), 'package.json'));

/** What axe-core finds wrong with the screen as it stands: rule and element. Empty is good. */
export async function axeViolations({ driver }: Browser): Promise<string[]> {
  await driver.executeScript(readFileSync(load.resolve('axe-core/axe.min.js'), 'utf8'));
  return driver.executeAsyncScript<string[]>(`
    const done = arguments[arguments.length - 1];
    axe.run(document, { resultTypes: ['violations'] }).then(
      (result) => done(result.violations.flatMap((each) => each.nodes.map((node) => each.id + ': ' + node.html.slice(0, 160) + ' ' + (node.any[0]?.message ?? '')))),
      (error) => done([String(error)]),
    );`);
}
