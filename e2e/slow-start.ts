import { type Browser, PHONE, appIsKept, openBrowser } from './browser';

/** An old phone on a slow line: four times slower than this machine, 1.6 Mbit/s, 40 ms to the server. */
const LINE = { offline: false, latency: 40, downloadThroughput: 1.6e6 / 8, uploadThroughput: 0.75e6 / 8 };
const SLOWER = 4;
const RUNS = 3;

const tell = (browser: Browser, name: string, parameters: object): Promise<void> =>
  (
    browser.driver as unknown as { sendDevToolsCommand(name: string, parameters: object): Promise<void> }
  ).sendDevToolsCommand(name, parameters);

/** Times from going to the first page, ms. */
interface Start {
  /** Until name and password can be typed in. */
  readonly typed: number;
  /** Until the program is there. */
  readonly there: number;
}

/** One visit, of a device that has never been here or has. */
async function startTime(base: string, been: boolean): Promise<Start> {
  const browser = await openBrowser(base, PHONE, { early: true });
  try {
    if (been) {
      await browser.visit('/');
      await browser.find('[data-testid="sign-in"]');
      await appIsKept(browser);
    }
    await tell(browser, 'Network.enable', {});
    await tell(browser, 'Network.emulateNetworkConditions', LINE);
    await tell(browser, 'Emulation.setCPUThrottlingRate', { rate: SLOWER });
    const began = performance.now();
    await browser.visit('/sign-in');
    await browser.find('input[autocomplete="username"]');
    const typed = performance.now() - began;
    await browser.find('[data-testid="sign-in"]');
    return { typed, there: performance.now() - began };
  } finally {
    await browser.close();
  }
}

const middle = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN;

/** Prints, as JSON, how long an old phone takes to the first page: median of a few runs each, ms. */
async function main(): Promise<void> {
  const median = async (been: boolean): Promise<Start> => {
    const runs: Start[] = [];
    for (let run = 0; run < RUNS; run += 1) runs.push(await startTime(process.env.BASE ?? '', been));
    return { typed: middle(runs.map(({ typed }) => typed)), there: middle(runs.map(({ there }) => there)) };
  };
  console.log(JSON.stringify({ never: await median(false), been: await median(true) }));
}

void main();
