import { once } from 'node:events';
import { Key } from 'selenium-webdriver';
import { WebSocket } from 'ws';
import { lobeAt } from '@yosoku/core/cam/lobe';
import { PERFECT_BOX, USUAL_BOX, makeBenchBox } from '@yosoku/core/simulation/bench-box';
import { makeRandom } from '@yosoku/core/statistics/random';
import { sharedServer } from './app-server';
import { type Browser, PHONE, WIDE, axeViolations, ownersDevice, waitFor } from './browser';
import { goTo } from './places';
import { provedBuild } from './proved-build';

let browser: Browser;
const { base } = sharedServer();
const device = ownersDevice();
afterEach(() => {
  plugged?.unplug();
  plugged = null;
});
afterAll(device.close);

let plugged: { readonly unplug: () => void } | null = null;
const LOBE = { peak: 8.13, nose: 106, half: 150, power: 3, lean: 0 };
const EXHAUST = { ...LOBE, peak: 7.9, nose: -112 };
/** How far from its nose a lobe is this high, crank degrees. */
const sideAt = ({ half, peak, power }: typeof LOBE, lift: number): number =>
  half * Math.sqrt(1 - (lift / peak) ** (1 / power));

/** A builder's own box on an engine whose wheel shows TDC at 0: lines as fast as wanted, the crank wherever it is put. */
async function boxOn(key: string, rate: number, errors = PERFECT_BOX, exhaust: typeof LOBE | null = null) {
  const wire = new WebSocket(`${base.replace('http', 'ws')}/api/instruments/speak`, {
    headers: { Authorization: `Bearer ${key}` },
  });
  await once(wire, 'open');
  const say = makeBenchBox('crank-1', errors, makeRandom(41));
  let [crank, target, speed, said, jump] = [-100, -100, 0, 0, 0];
  const began = performance.now();
  const timer = setInterval(() => {
    const lines: string[] = [];
    for (const due = ((performance.now() - began) * rate) / 1000; said < due; said += 1) {
      const left = target - crank;
      crank += Math.sign(left) * Math.min(Math.abs(left), speed / rate);
      const line = say((said * 1000) / rate, crank + jump, [
        lobeAt(LOBE, crank).lift,
        exhaust && lobeAt(exhaust, crank).lift,
      ]);
      if (line !== null) lines.push(`${line}\n`);
      // A message is smaller than the server takes at once.
      if (lines.length === 100) wire.send(lines.splice(0).join(''));
    }
    if (wire.readyState === WebSocket.OPEN && lines.length > 0) wire.send(lines.join(''));
  }, 20);
  const box = {
    said: () => said,
    /** Turns it there, degrees a second; resolves when it stands. */
    turnTo: async (to: number, at = 90): Promise<void> => {
      [target, speed] = [to, at];
      while (Math.abs(crank - target) > 1e-9) await new Promise((done) => setTimeout(done, 20));
      await new Promise((done) => setTimeout(done, 450));
    },
    jump: (by: number): void => void (jump += by),
    unplug: (): void => {
      clearInterval(timer);
      wire.terminate();
    },
  };
  plugged = box;
  return box;
}

/** The owner gives a box a key; the box is chosen at the station. */
async function giveKey(): Promise<string> {
  await browser.visit('/shop');
  await browser.fill('box-name', 'crank-1');
  await browser.press('box-add');
  return browser.text('box-key-value');
}

interface Recorded {
  readonly kind: string;
  readonly body: {
    readonly from?: { readonly box: string };
    readonly wheel?: { readonly shows: number; readonly side?: string };
    readonly shows?: { readonly drop?: number; readonly lift?: number };
    readonly points?: readonly [number, number][];
    readonly source?: string;
  };
}
/** What the server has of the build at hand. */
const recorded = (): Promise<readonly Recorded[]> =>
  browser.driver.executeScript<readonly Recorded[]>(
    `return fetch('/api/builds/' + location.pathname.split('/')[2] + '/entries').then((answer) => answer.json()).then(({ entries }) => entries)`,
  );

const strip = async (): Promise<string> => browser.text('instrument-strip').catch(() => '');
/** Does something until the strip says so. The instrument may refuse until what comes over the line is up to date: it says so, and is asked again. */
async function until(act: () => Promise<unknown>, words: RegExp): Promise<void> {
  await waitFor(
    browser,
    async () => {
      await act();
      return words.test(await strip());
    },
    `the strip never said ${words}`,
  ).catch(async (error: Error) => {
    throw new Error(`${error.message}; the station says “${await browser.seeMain(/[^]/).catch(() => '')}”`);
  });
}
const takeAndHear = (words: RegExp): Promise<void> => until(() => browser.keys('i'), words);
const SHOWS_ZERO = /(^|\s)−?0\.00\d (in|mm)/;
/** Zeroes the indicator where it stands. */
const zeroHere = (): Promise<void> => until(() => browser.keys('o'), SHOWS_ZERO);

/** Presses the key, and once more only after it was refused. The instrument may refuse until what comes over the line is up to date. */
async function takeOne(press: () => Promise<void> = () => browser.keys('i')): Promise<void> {
  const before = (await recorded()).length;
  const isKept = async (): Promise<boolean> => (await recorded()).length > before;
  const isRefused = async (): Promise<boolean> =>
    (await browser.driver.findElements({ css: '[data-testid="instrument-trouble"]' })).length > 0;
  await waitFor(
    browser,
    async () => {
      await press();
      await waitFor(browser, async () => (await isKept()) || (await isRefused()), 'the key did nothing');
      return isKept();
    },
    'the instrument refused every time',
  );
}

/** The main thread's memory after everything that is not needed has been let go, bytes. */
async function memory(): Promise<number> {
  const { driver } = browser;
  await driver.sendDevToolsCommand('HeapProfiler.collectGarbage', {});
  await driver.sendDevToolsCommand('Performance.enable', {});
  // An object, whatever the library’s types say.
  const told: unknown = await driver.sendAndGetDevToolsCommand('Performance.getMetrics', {});
  return (
    (told as { metrics: { name: string; value: number }[] }).metrics.find(({ name }) => name === 'JSHeapUsedSize')
      ?.value ?? NaN
  );
}

/** Chooses how the cam is read. */
async function readBy(method: string): Promise<void> {
  await browser.press('choose-method');
  await browser.press(`read-${method}`);
  await browser.press('method-go');
}
/** Syncs the count: the wheel shows so much before TDC. */
async function syncAt(before: string): Promise<void> {
  await browser.fill('reading', before);
  await browser.keys('b');
  await until(() => browser.keys('t'), new RegExp(`^${before}° before`));
  await browser.seeText('instrument-shows', new RegExp(`^${before}° before`));
}
/** Where the lobe stands this far below its nose on the way up, crank degrees. */
const flankAt = (drop: number): number => LOBE.nose - sideAt(LOBE, LOBE.peak - drop);

test('a builder’s own box at Read: synced, refused when it cannot be right, taken with one key, lost and found', async () => {
  browser = await device.open(WIDE);
  const key = await giveKey();
  const box = await boxOn(key, 50);
  await browser.visit('/');
  await provedBuild(browser, 'Sandpiper Mill four');
  await goTo(browser, 'read');
  await readBy('centreline');
  await browser.press('instrument');
  await browser.press('box-crank-1');
  await browser.seeText('instrument-trouble', /hold the crank still, and sync/);
  await syncAt('100');
  await box.turnTo(LOBE.nose);
  await zeroHere();
  await box.turnTo(50);
  await takeAndHear(/come again the way it runs/);
  await box.turnTo(70);
  await takeAndHear(/bring it to/);
  const flank = flankAt(1.27);
  // Brought to its figure, but turning back: the slack in the timing drive would stand in it.
  await box.turnTo(flank + 20);
  await box.turnTo(flank);
  await takeAndHear(/come again the way it runs/);
  await box.turnTo(flank - 30);
  await box.turnTo(flank);
  const before = (await recorded()).length;
  await takeOne();
  await browser.seeText('sheet', /Taken from crank-1/);
  const taken = (await recorded()).at(-1);
  expect(taken?.body.from).toEqual({ box: 'crank-1' });
  expect(Math.abs((taken?.body.wheel?.shows ?? NaN) - flank)).toBeLessThan(0.06);
  expect((await recorded()).length).toBe(before + 1);
  expect(await axeViolations(browser)).toEqual([]);

  // Its count jumps half a turn: said, and nothing is taken until it is synced anew.
  box.jump(180);
  await browser.seeText('instrument-trouble', /Encoder position lost/);
  await takeAndHear(/Encoder position lost/);
  // Unplugged: said at once; what was taken stays.
  box.unplug();
  await browser.seeText('instrument-trouble', /What was recorded is safe/);
  await boxOn(key, 50);
  await browser.seeText('instrument-trouble', /restarted its count|position lost/);
  expect((await recorded()).length).toBe(before + 1);
});

test('a slow turn by hand becomes a trace; a turn back on the way is noticed and left out', async () => {
  browser = await device.open(PHONE);
  await browser.visit('/shop');
  await browser.press('box-remove-crank-1');
  const box = await boxOn(await giveKey(), 200);
  await browser.visit('/');
  await provedBuild(browser, 'Snipe Marsh four');
  await goTo(browser, 'read');
  await readBy('centreline');
  await browser.press('instrument');
  await browser.press('box-crank-1');
  // Keys come and go with the first lines of the box: pressed once they stand.
  await browser.seeText('instrument-shows', /not synced/);
  await browser.press('instrument-sync');
  await browser.seeText('instrument-trouble', /Enter the wheel reading first/);
  for (const sign of '100') await browser.pressText(sign);
  await browser.press('side-before');
  await until(() => browser.press('instrument-sync').catch(() => undefined), /^100° before/);
  await readBy('trace');
  await until(() => browser.press('instrument-zero'), SHOWS_ZERO);
  await browser.press('turn-begin');
  await box.turnTo(60, 45);
  await box.turnTo(40, 45);
  await browser.seeText('turned-back', /left out until you have come forward/);
  await box.turnTo(290, 45);
  await browser.press('turn-keep');
  await browser.seeText('trace-panel', /A turn of crank-1/);
  const trace = (await recorded()).findLast(({ kind }) => kind === 'trace.recorded');
  expect(trace?.body.source).toBe('instrument');
  const points = trace?.body.points ?? [];
  expect(points.length).toBeGreaterThan(600);
  // The rule knows one turn of the crank, the cam two: the turn may be counted from either.
  for (const [angle, lift] of points)
    expect(Math.abs(lift - lobeAt(LOBE, angle > 320 ? angle - 360 : angle).lift)).toBeLessThan(0.03);
  const nose = await browser.driver.executeScript<number>(
    `return fetch('/api/builds/' + location.pathname.split('/')[2] + '/report').then((answer) => answer.json())
       .then(({ report }) => report.trials.at(-1).traces.at(-1).figures.nose)`,
  );
  expect(Math.abs(nose - LOBE.nose)).toBeLessThan(0.5);
});

test('a minute at 1,000 lines a second, one in a hundred damaged: every reading is right, and the memory stays flat', async () => {
  browser = await device.open(WIDE);
  await browser.visit('/shop');
  await browser.press('box-remove-crank-1');
  const box = await boxOn(await giveKey(), 1000, USUAL_BOX);
  await browser.visit('/');
  await provedBuild(browser, 'Curlew Sands four');
  await goTo(browser, 'read');
  await readBy('centreline');
  await browser.press('instrument');
  await browser.press('box-crank-1');
  await browser.seeText('instrument-trouble', /hold the crank still, and sync/);
  await syncAt('100');
  await readBy('identity');
  await zeroHere();
  const began = box.said();
  // Nothing but lines, while it is turned to and fro.
  for (const to of [300, -100, 300, -100]) await box.turnTo(to, 100);
  const before = await memory();
  for (const to of [300, -100, 300, -100, 300, -100]) await box.turnTo(to, 100);
  const grown = (await memory()) - before;
  if (process.env.TELL) console.log(`memory: ${(before / 1e6).toFixed(1)} MB, grown by ${(grown / 1e6).toFixed(2)} MB`);
  // And readings among them.
  const first = (await recorded()).length;
  const wanted: number[] = [];
  while (wanted.length < 8 || box.said() - began < 60_000) {
    const to = 20 + ((wanted.length * 37) % 90);
    await box.turnTo(to, 180);
    await takeOne();
    wanted.push(lobeAt(LOBE, to).lift);
    await readBy('identity');
  }
  const readings = (await recorded()).slice(first).filter(({ kind }) => kind === 'reading.taken');
  expect(readings.length).toBe(wanted.length);
  readings.forEach(({ body }, at) =>
    expect(Math.abs((body.shows?.lift ?? NaN) - (wanted[at] ?? NaN))).toBeLessThan(0.02),
  );
  expect(grown).toBeLessThan(2_000_000);
});

test('both centrelines and all four events by pedal alone: no touch of the screen', async () => {
  browser = await device.open(WIDE);
  await browser.visit('/device');
  const PEDAL = { record: Key.F1, take: Key.F2, sync: Key.F3, zero: Key.F4, more: Key.F6, less: Key.F7, other: Key.F8 };
  for (const [does, key] of Object.entries(PEDAL)) {
    await browser.press(`teach-${does}`);
    await browser.keys(key);
    await browser.seeText(`taught-${does}`, /^F\d/);
  }
  await browser.visit('/shop');
  await browser.press('box-remove-crank-1');
  const box = await boxOn(await giveKey(), 50, PERFECT_BOX, EXHAUST);
  await browser.visit('/');
  await provedBuild(browser, 'Treadle four');
  await goTo(browser, 'read');
  await readBy('centreline');
  await browser.press('instrument');
  await browser.press('box-crank-1');
  await browser.seeText('instrument-trouble', /hold the crank still, and sync/);
  await browser.driver.executeScript(
    `window.touches = 0; for (const kind of ['pointerdown', 'touchstart', 'mousedown']) addEventListener(kind, () => (window.touches += 1), true);`,
  );

  /** Feet are slower than this: what comes at once is the second key of the same press. */
  const step = async (key: string): Promise<void> => {
    await browser.driver.sleep(200);
    await browser.keys(key);
  };
  const takeBy = (): Promise<void> => takeOne(() => step(PEDAL.take));
  const zeroBy = (): Promise<void> => until(() => step(PEDAL.zero), SHOWS_ZERO);
  /** Come to it the way it runs. */
  const comeTo = async (at: number): Promise<void> => {
    await box.turnTo(at - 25, 180);
    await box.turnTo(at);
  };

  // The crank stands at TDC, where the wheel shows 0: nudged there and back, that is what is typed.
  await box.turnTo(0);
  await step(PEDAL.more);
  await step(PEDAL.less);
  await until(() => step(PEDAL.sync), /^0°/);
  for (const lobe of [LOBE, EXHAUST]) {
    await comeTo(lobe.nose);
    await zeroBy();
    for (const flank of [-1, 1]) {
      await comeTo(lobe.nose + flank * sideAt(lobe, lobe.peak - 1.27));
      await takeBy();
    }
    await browser.seeText('sentence', lobe === LOBE ? /^Intake centreline/ : /^Exhaust centreline/);
    if (lobe === LOBE) await step(PEDAL.record);
  }
  await step(PEDAL.other);
  for (const lobe of [LOBE, EXHAUST]) {
    await box.turnTo(lobe.nose + 180, 180);
    await zeroBy();
    for (const flank of [-1, 1]) {
      await comeTo(lobe.nose + flank * sideAt(lobe, 1.27));
      await takeBy();
    }
    await browser.seeText('sentence', lobe === LOBE ? /^Intake events/ : /^Exhaust events/);
    if (lobe === LOBE) await step(PEDAL.record);
  }
  const taken = (await recorded()).filter(({ kind }) => kind === 'reading.taken');
  expect(taken).toHaveLength(8);
  expect(taken.every(({ body }) => body.from?.box === 'crank-1')).toBe(true);
  expect(await browser.driver.executeScript('return window.touches')).toBe(0);
  const views = await browser.driver.executeScript<{ method: string; valve: string; centreline: number | null }[]>(
    `return fetch('/api/builds/' + location.pathname.split('/')[2] + '/report').then((answer) => answer.json())
       .then(({ report }) => report.trials.at(-1).rounds)`,
  );
  const centre = (valve: string): number =>
    views.find((each) => each.method === 'centreline' && each.valve === valve)?.centreline ?? NaN;
  expect(Math.abs(centre('intake') - LOBE.nose)).toBeLessThan(0.3);
  expect(Math.abs(centre('exhaust') + EXHAUST.nose)).toBeLessThan(0.3);
});
