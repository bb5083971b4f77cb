import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Key } from 'selenium-webdriver';
import { type Browser, PHONE, type Viewport, WIDE, axeViolations, ownersDevice } from './browser';
import { answer, goTo, openBuild } from './places';

let browser: Browser;
const device = ownersDevice();
const folder = mkdtempSync(path.join(os.tmpdir(), 'yosoku-valves-'));
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await device.close();
});

const open = async (size: Viewport): Promise<void> => {
  browser = await device.open(size);
};

/** The keypad alone: digits where the lash was measured first, then the one large key. Counts the taps. */
async function takeValve(figures: string): Promise<number> {
  for (const figure of figures) await browser.press(`key-${figure}`);
  await browser.press('record');
  return figures.length + 1;
}

test('phone: the lash of an eight, once through and once more, by the keypad alone, at most four taps a valve', async () => {
  await open(PHONE);
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

test('wide: from rockers on studs through two trials to the order line of the pushrods', async () => {
  await open(WIDE);
  await openBuild(browser, 'Quarry Hill', 'engine');
  await browser.press('engine-more');
  await browser.fill('engine-ratioIntake', '1.55');
  await browser.fill('engine-ratioExhaust', '1.55');
  await browser.press('engine-save');
  await browser.find('[data-testid="sentence"]');
  await goTo(browser, 'rockers');
  await browser.press('rockers-keep');
  await browser.seeMain(/Say what they stand on/);
  await answer(browser, 'rockers-mounted', 'Stud');
  await browser.fill('rockers-arm', '1.45');
  await browser.fill('rockers-tip', '0.340');
  await browser.fill('rockers-step', '0.050');
  await browser.press('rockers-keep');
  await browser.seeText('sentence', /^Intake: try an adjustable pushrod/);

  // The pattern alone cannot say which way; the arm at mid-lift can.
  await browser.fill('trial-length-intake', '7.6');
  await browser.fill('trial-pattern-intake', '58');
  await browser.press('trial-keep-intake');
  await browser.seeText('sentence', /two would leave such a pattern/);
  await browser.fill('trial-length-intake', '7.85');
  await browser.fill('trial-pattern-intake', '25');
  await browser.fill('trial-lift-intake', '492');
  await answer(browser, 'trial-seen-intake', 'Square');
  await browser.press('trial-keep-intake');
  await browser.seeText('sentence', /^Intake: this geometry is right/);
  await browser.find('[data-testid="rocker-picture"]');
  expect(await axeViolations(browser)).toEqual([]);

  await browser.fill('pushrod-length-intake', '7.862');
  await browser.fill('pushrod-preload-intake', '0');
  await answer(browser, 'pushrod-lifter-intake', 'The one that will run');
  await browser.press('pushrod-keep-intake');
  await browser.seeText('pushrod-words-intake', /^Intake pushrods: order 7\.850 in\. Measured 7\.862 in/);
  await browser.seeText('sentence', /^Exhaust: try/);
  await browser.seeText('sync-sign', /Saved/);
  await goTo(browser, 'sheet');
  await browser.seeText('sheet', /Rockers and pushrods[^]*order 7\.850 in/);
});

test('practice: a valve set where it rests, another on its lobe, and the truth of both', async () => {
  await open(PHONE);
  await browser.visit('/practice?begin=lash-partner&seed=5');
  await browser.press('show-engine');
  await browser.seeText('advice', /^Open Lash/);
  // Cylinder 1 stands some way past its bottom: its exhaust is at work there, its intake rests.
  await browser.seeText('blade', /Cylinder 1, intake: the 0\.010 in blade/);
  await browser.press('tool-set');
  await browser.seeText('blade', /the 0\.010 in blade slides/);
  await browser.press('tool-thicker');
  await browser.seeText('blade', /the 0\.011 in blade does not slide/);
  await browser.press('tool-cylinder');
  await browser.press('tool-valve');
  await browser.seeText('blade', /Cylinder 2, exhaust/);
  expect(await axeViolations(browser)).toEqual([]);

  await browser.press('show-station');
  await browser.press('lash-begin');
  await browser.press('record');
  await browser.seeText('lash-counts', /1 of 12 set/);
  await browser.press('show-engine');
  await browser.press('finish');
  await browser.seeText('so-far', /1 of 12 set/);
  await browser.press('show-truth');
  await browser.seeText('truth', /The valves, as you left them[^]*The second round/);
  await browser.seeText('readings', /Lash, .* of cylinder/);
});

/** A drawn photo of a tip: its disc, and a pattern an eighth of it wide, a little inward. */
async function drawTip(): Promise<string> {
  const text = await browser.driver.executeScript<string>(
    `const canvas = Object.assign(document.createElement('canvas'), { width: 1600, height: 1000 });
     const context = canvas.getContext('2d');
     context.fillStyle = '#777';
     context.fillRect(0, 0, 1600, 1000);
     context.fillStyle = '#ddd';
     context.beginPath();
     context.arc(800, 500, 400, 0, 7);
     context.fill();
     context.fillStyle = '#333';
     context.fillRect(720, 200, 100, 600);
     return canvas.toDataURL('image/jpeg').split(',')[1];`,
  );
  const file = path.join(folder, 'tip.jpg');
  writeFileSync(file, Buffer.from(text, 'base64'));
  return file;
}

test('wide: the pattern is measured on a photo of the tip by four touches or by keys, kept over a reload, and stands in the record', async () => {
  await open(WIDE);
  await openBuild(browser, 'Sorrel', 'rockers');
  await browser.press('pattern-more-exhaust');
  const field = await browser.driver.findElement({ css: '[data-testid="pattern-photo-exhaust"]' });
  await field.sendKeys(await drawTip());
  await browser.seeText('pattern-ask-exhaust', /edge of the tip that lies toward the pivot/);
  const photo = await browser.find('[data-testid="photo-marks"]');
  const { width } = await photo.getRect();
  /** @param x a place of the photo, of its 1600 pixels. */
  const touch = async (x: number): Promise<void> => {
    const at = Math.round((x / 1600 - 0.5) * width);
    await browser.driver.actions().move({ origin: photo, x: at, y: 0 }).click().perform();
  };
  for (const x of [400, 1200, 720]) await touch(x);
  await browser.seeText('pattern-ask-exhaust', /other edge of the pattern/);
  await touch(820);
  // The tip is 0.340 in across: an eighth of it.
  await browser.seeText('pattern-ask-exhaust', /The pattern is 0\.04[123] in wide, ±0\.00\d in/);
  expect(await axeViolations(browser)).toEqual([]);
  // By keys: from the middle, 10 shown pixels a press. What a pointer presses next has not moved under it when the keys' hint goes.
  await browser.press('mark-back-exhaust');
  await browser.driver.executeScript('arguments[0].focus()', photo);
  await browser.keys(Key.ARROW_LEFT, Key.ARROW_RIGHT);
  await browser.seeText('photo-keys', /Enter marks/);
  await answer(browser, 'pattern-zoom-exhaust', '2 ×');
  await browser.find('[data-testid="pattern-zoom-exhaust"] [role=radio][aria-checked=true]:nth-child(2)');
  await answer(browser, 'pattern-zoom-exhaust', 'As it fits');
  await browser.driver.executeScript('arguments[0].focus()', photo);
  await browser.keys(Key.ARROW_RIGHT, Key.ENTER);
  await browser.seeText('pattern-ask-exhaust', /The pattern is 0\.04\d in wide/);
  await browser.visit(new URL(await browser.driver.getCurrentUrl()).pathname);
  await browser.press('pattern-more-exhaust');
  await browser.seeText('pattern-ask-exhaust', /The pattern is 0\.04\d in wide/);
  await browser.press('pattern-use-exhaust');
  await browser.fill('trial-length-exhaust', '7.9');
  await browser.press('trial-keep-exhaust');
  await browser.seeMain(/7\.900 in[^]*Pattern 0\.04\d in on a photo/);
});

test('practice: a tip that is turned over tells the length; a cam that is pulled hard shows what is no play', async () => {
  await open(PHONE);
  await browser.visit('/practice?begin=right-pushrod&seed=9');
  await browser.press('show-engine');
  await browser.seeText('pushrod-shows', /the tip is freshly marked/);
  await browser.press('tool-over');
  await browser.find('[data-testid="tip-picture"]');
  await browser.seeText('pushrod-shows', /at mid-lift/);
  expect(await axeViolations(browser)).toEqual([]);
  await browser.press('tool-longer');
  await browser.seeText('pushrod-shows', /the tip is freshly marked/);
  await browser.press('finish');
  await browser.seeText('so-far', /No pushrod is ordered yet/);
  await browser.press('show-truth');
  await browser.seeText('told', /stood square at mid-lift with/);

  await browser.visit('/practice?begin=end-play&seed=9');
  await browser.press('show-engine');
  await browser.press('tool-hard');
  await browser.seeText('play-shows', /pulled hard: its dial shows 0\.0\d\d in/);
  await browser.press('tool-let-go');
  await browser.seeText('play-shows', /let go: its dial shows 0\.00[1-9] in/);
  await browser.press('tool-gentle');
  await browser.seeText('play-shows', /pulled gently/);
  expect(await axeViolations(browser)).toEqual([]);
  await browser.press('show-station');
  await browser.seeMain(/Cam end play/);
});
