import { crankTrainAt } from '@yosoku/core/crank/slider-crank';
import { PRACTICE_SIX, type Scenario } from '@yosoku/core/practice/scenario';
import { type Stand, againstStop } from '@yosoku/core/simulation/whole-engine';
import { Key } from 'selenium-webdriver';
import { sharedServer } from './app-server';
import {
  type Browser,
  PHONE,
  WIDE,
  axeViolations,
  deviceKeeps,
  openBrowser,
  ownersDevice,
  signIn,
  waitFor,
} from './browser';

let browser: Browser;
const { base } = sharedServer();
const device = ownersDevice();
let newcomer: Browser | null = null;
afterAll(async () => {
  await newcomer?.close();
  await device.close();
});

/** Every run meets the same engine. */
const SEED = 11;

const label = async (css: string): Promise<string> =>
  (await (await browser.find(css)).getAttribute('aria-label')) ?? '';
const WHEEL = '[data-testid="practice-wheel"] [role="img"]';
const DIAL = '[data-testid="dial"]';

/** What stands under the pointer, as an eye reads it: figure and side. */
async function wheelReads(): Promise<{ figure: string; side: 'before' | 'after'; at: number }> {
  const words = await label(WHEEL);
  const match = /pointer: (\d*)([¼½¾]?)°(?: (before|after))?/.exec(words);
  if (!match) throw new Error(`the wheel says ${words}`);
  const [, whole = '0', part = '', side = 'after'] = match;
  const degrees = Number(whole) + ({ '¼': 0.25, '½': 0.5, '¾': 0.75 }[part] ?? 0);
  return { figure: String(degrees), side: side as 'before' | 'after', at: side === 'before' ? -degrees : degrees };
}
const dialReads = async (): Promise<number> => {
  const match = /: (−?[\d.]+)/.exec(await label(DIAL));
  return Number(match?.[1]?.replace('−', '-'));
};
/** Waits until the engine says that it has come to rest, and the words were drawn for where it did. */
const rest = (): Promise<unknown> =>
  waitFor(
    browser,
    async () => (await (await browser.find('[data-testid="practice-engine"]')).getAttribute('aria-busy')) === 'false',
    'the engine never came to rest',
  );

/** The hands of a builder: presses on a phone, keys on a keyboard. */
interface Hands {
  readonly turn: (by: 90 | 10 | 1 | 0.25 | -90 | -10 | -1 | -0.25) => Promise<void>;
  readonly tool: (name: 'stop' | 'zero' | 'dial' | 'wheel') => Promise<void>;
  readonly toEngine: () => Promise<void>;
  readonly toStation: () => Promise<void>;
  readonly type: (figure: string, side: 'before' | 'after') => Promise<void>;
  readonly press: (testId: string) => Promise<void>;
}

const byThumb = (): Hands => ({
  turn: (by) => browser.press(`turn${by}`),
  tool: (name) => browser.press(`tool-${name}`),
  toEngine: () => browser.press('show-engine'),
  toStation: () => browser.press('show-station'),
  type: async (figure, side) => {
    for (const sign of figure) await browser.pressText(sign);
    await browser.press(`side-${side}`);
    await browser.press('record');
  },
  press: (testId) => browser.press(testId),
});

const TURN_KEYS: Readonly<Record<string, string>> = {
  '90': Key.END,
  '-90': Key.HOME,
  '10': Key.PAGE_UP,
  '-10': Key.PAGE_DOWN,
  '1': Key.ARROW_RIGHT,
  '-1': Key.ARROW_LEFT,
  '0.25': Key.ARROW_UP,
  '-0.25': Key.ARROW_DOWN,
};
const byKey = (): Hands => ({
  turn: (by) => browser.keys(TURN_KEYS[by] ?? ''),
  tool: (name) => browser.keys({ stop: 's', zero: 'z', dial: 'd', wheel: 'w' }[name]),
  toEngine: async () => undefined,
  toStation: async () => undefined,
  type: async (figure, side) => {
    await browser.keys(...figure, side === 'before' ? 'b' : 'a', Key.ENTER);
  },
  // Enter says that it is done.
  press: () => browser.keys(Key.ENTER),
});

/** Turns it against the stop, rough first. */
async function toStop(hands: Hands, way: 'forward' | 'back'): Promise<void> {
  for (let i = 0; i < 8; i += 1) {
    await hands.turn(way === 'forward' ? 90 : -90);
    await rest();
    if ((await label('[data-testid="cylinder"]')).includes(way === 'forward' ? 'turned forward' : 'turned backward'))
      return;
  }
  throw new Error(`never met the stop: ${await label('[data-testid="cylinder"]')}`);
}

async function pass(hands: Hands): Promise<number[]> {
  const contacts: number[] = [];
  for (const way of ['forward', 'back'] as const) {
    await hands.toEngine();
    await toStop(hands, way);
    const { figure, side, at } = await wheelReads();
    contacts.push(at);
    await hands.toStation();
    await hands.type(figure, side);
  }
  return contacts;
}

/** The first exercise from the empty engine to its proof. @returns the middle of the first two contacts, on the ring. */
async function findTdc(hands: Hands): Promise<number> {
  await browser.find('[data-testid="practice-engine"]');
  await browser.seeText('advice', /bar across the bore/);
  await hands.toStation();
  await hands.press('zero-begin');
  await hands.toEngine();
  await browser.seeText('advice', /Put the stop in/);
  await hands.tool('stop');
  const contacts = await pass(hands);
  await hands.toEngine();
  const words = await browser.seeText('advice', /Press “Move wheel”/);
  // What the wheel shall show where the crank is held: "until it shows 26½° after".
  const wanted = /(\d*)([¼½¾]?)° (before|after)/.exec(words);
  if (!wanted) throw new Error(words);
  const target =
    (wanted[3] === 'before' ? -1 : 1) *
    (Number(wanted[1]) + ({ '¼': 0.25, '½': 0.5, '¾': 0.75 }[wanted[2] ?? ''] ?? 0));
  await hands.tool('wheel');
  for (let left = target - (await wheelReads()).at; Math.abs(left) > 0.1;) {
    const by = ([10, 1, 0.25] as const).find((step) => Math.abs(left) >= step - 0.1) ?? 0.25;
    await hands.turn((left > 0 ? by : -by) as 10);
    left -= left > 0 ? by : -by;
  }
  await rest();
  expect((await wheelReads()).at).toBeCloseTo(target, 1);
  await hands.tool('wheel');
  await hands.toStation();
  await hands.press('wheel-set');
  await pass(hands);
  await hands.toEngine();
  await browser.seeText('advice', /TDC is proved/);
  return ((contacts[0] ?? NaN) + (contacts[1] ?? NaN)) / 2;
}

test.each([
  ['a phone, by thumb', PHONE, byThumb],
  ['a wide screen, by keys', WIDE, byKey],
] as const)('the first exercise on %s: from the list to the truth', async (_where, size, handsOf) => {
  browser = await device.open(size);
  await browser.press('to-practice');
  await browser.find('[data-testid="begin-find-tdc"]');
  await browser.visit(`/practice?begin=find-tdc&seed=${SEED}`);
  const middle = await findTdc(handsOf());
  expect(await axeViolations(browser)).toEqual([]);
  await browser.press('finish');
  await browser.press('show-truth');
  // First what it says of each reading: the score alone would not tell what went wrong.
  await browser.seeText('readings', /(helped[\s\S]*){4}/);
  await browser.seeText('score', /^100\s*of 100$/);
  await browser.seeText('truth', /True TDC[\s\S]*You found: .*, proved/);
  expect(await axeViolations(browser)).toEqual([]);
  // The truth that it tells is the middle of the contacts that were read.
  const told = /showed ([\d.]+)° (before|after)/.exec(await browser.text('told'));
  expect(Math.abs(Number(told?.[1]) * (told?.[2] === 'before' ? -1 : 1) - middle)).toBeLessThan(0.3);
  await browser.press('to-practice');
  await browser.seeText('exercise-find-tdc', /best 100 of 100/);
  // Nothing of it has come among the builds, here or on the server.
  await browser.visit('/');
  await browser.find('[data-testid="build"]');
  const names = await browser.driver.executeScript<string>(
    'return [...document.querySelectorAll("a[data-testid=build]")].map((each) => each.innerText).join()',
  );
  expect(names).not.toContain('Find true TDC');
  const waiting = await browser.driver.executeScript<number>(
    `return fetch('/api/builds').then((answer) => answer.json()).then(({ builds }) => builds.filter(({ name }) => name === 'Find true TDC').length)`,
  );
  expect(waiting).toBe(0);
});

/** Translation in pixels and rotation in degrees of a moving part, as the browser draws it. */
async function partOf(testId: string): Promise<{ x: number; y: number; turned: number }> {
  const matrix = await browser.driver.executeScript<number[]>(
    `const { a, b, e, f } = new DOMMatrix(getComputedStyle(document.querySelector('[data-testid="${testId}"]')).transform);
     return [a, b, e, f];`,
  );
  const [a = 1, b = 0, x = 0, y = 0] = matrix;
  return { x, y, turned: (Math.atan2(b, a) * 180) / Math.PI };
}
const turnBetween = (a: number, b: number): number => Math.abs(((((a - b + 180) % 360) + 360) % 360) - 180);

test('crank, rod, piston, cam and needle stand on the screen where the kinematics say', async () => {
  browser = await device.open(WIDE);
  await browser.visit(`/practice?begin=centreline&seed=${SEED}`);
  const hands = byKey();
  await browser.find('[data-testid="practice-engine"]');
  const { stroke = 0, rod = 0 } = PRACTICE_SIX.engine;
  const crank = { stroke, rod };
  const lifts: { lifter: number; shown: number }[] = [];
  const seen: { degrees: number; piston: number; height: number }[] = [];
  // On, back and over the top: the slack in the timing drive goes through on the way.
  for (const by of [90, 90, -10, 90, 1, 10, 0.25, 90, 90, 10, -1, 90] as const) {
    await hands.turn(by);
    await rest();
    const { at } = await wheelReads();
    const web = await partOf('crank-web');
    const piston = await partOf('piston');
    const lean = await partOf('rod');
    const places = crankTrainAt(crank, at);
    // The words are rounded to the quarter, the picture is not.
    expect(turnBetween(web.turned, places.crank)).toBeLessThan(0.2);
    expect(turnBetween(lean.turned, places.rodLean)).toBeLessThan(0.2);
    seen.push({ degrees: at, piston: -piston.y, height: places.piston.height });
    const gears = [await partOf('crank-gear'), await partOf('cam-gear'), await partOf('lobe-intake')];
    expect(turnBetween(gears[0]?.turned ?? NaN, at)).toBeLessThan(0.2);
    const cam = gears[1]?.turned ?? NaN;
    const off = Math.min(turnBetween(cam, at / 2), turnBetween(cam, at / 2 + 180));
    expect(off).toBeLessThan(0.2 + 1.5 / 2);
    const lifter = await partOf('lifter-intake');
    const needle = await partOf('needle');
    const shown = await dialReads();
    expect(turnBetween(needle.turned, (shown / 0.1) * 360)).toBeLessThan(4);
    lifts.push({ lifter: -lifter.y, shown });
  }
  const scale = (seen[0]?.piston ?? 0) / (seen[0]?.height ?? 1);
  for (const { piston, height } of seen) expect(Math.abs(piston - height * scale)).toBeLessThan(0.3);
  expect(Math.max(...seen.map(({ height }) => height)) - Math.min(...seen.map(({ height }) => height))).toBeGreaterThan(
    40,
  );
  // Lifter and needle show the same lift, to scale.
  const most = lifts.reduce((best, each) => (each.shown > best.shown ? each : best));
  expect(most.shown).toBeGreaterThan(0.1);
  for (const { lifter, shown } of lifts)
    expect(Math.abs(lifter - (shown / most.shown) * most.lifter)).toBeLessThan(0.15);
});

/** Waits until the device has kept that the piston stands against the stop. */
async function remembered(): Promise<void> {
  await deviceKeeps(browser, 'practice', (kept) => {
    const { runs } = kept as { runs: Record<string, { scenario: Scenario; stand: Stand }> };
    return Object.values(runs).some(({ scenario, stand }) => againstStop(scenario.engine, stand) === 'forward');
  });
}

test('a practice that is left half-way waits where it was, over a reload; a newcomer is led straight into the first', async () => {
  newcomer = await openBrowser(base, PHONE);
  browser = newcomer;
  await signIn(browser, 'tobin', 'grease-pencil-demo');
  await browser.visit(`/practice?begin=find-tdc&seed=${SEED}`);
  await browser.find('[data-testid="practice-engine"]');
  await browser.press('tool-stop');
  const hands = byThumb();
  await toStop(hands, 'forward');
  const before = await label('[data-testid="cylinder"]');
  const { figure } = await wheelReads();
  await remembered();
  await browser.reload();
  await browser.find('[data-testid="practice-engine"]');
  expect(await label('[data-testid="cylinder"]')).toBe(before);
  expect((await wheelReads()).figure).toBe(figure);
  await browser.visit('/practice');
  await browser.press('go-on');
  await browser.find('[data-testid="practice-engine"]');
  await browser.visit('/practice/nowhere');
  await browser.seeText('missing', /no such practice on this device/);
  await browser.visit('/practice');
  await browser.press('drop-run');
  await waitFor(
    browser,
    async () => (await browser.driver.findElements({ css: '[data-testid="go-on"]' })).length === 0,
    'the practice that was dropped still stands there',
  );
});
