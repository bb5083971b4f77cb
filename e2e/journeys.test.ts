import { Key } from 'selenium-webdriver';
import { sharedServer } from './app-server';
import { type Browser, PHONE, WIDE, axeViolations, openBrowser, ownersDevice, pressUntil } from './browser';

const DEMO = ['mara', 'layout-dye-demo'] as const;

const { base } = sharedServer();
const device = ownersDevice();
let browser: Browser;
let newcomer: Browser | null = null;
afterAll(async () => {
  await device.close();
  await newcomer?.close();
});

async function expectAccessible(): Promise<void> {
  expect(await axeViolations(browser)).toEqual([]);
}

/** Types a reading on the app's own keypad, key by key, and records it. Returns the number of taps. */
async function tapReading(figures: string, side?: string): Promise<number> {
  const keys = [...figures];
  for (const key of keys) await browser.press(`key-${key}`);
  if (side) await browser.press(`side-${side}`);
  await browser.press('record');
  return keys.length + (side ? 2 : 1);
}

test('phone: from a new engine to a verdict, a moved cam and the proof, by thumb alone', async () => {
  browser = newcomer = await openBrowser(base, PHONE);
  await browser.visit('/');
  await browser.find('[data-testid="sign-in"]');
  await expectAccessible();
  await browser.fill('sign-in-name', DEMO[0]);
  await browser.fill('password', 'wrong');
  await browser.press('sign-in');
  await browser.seeText('sign-in-trouble', /do not belong together/);
  await browser.fill('password', DEMO[1]);
  await pressUntil(browser, 'sign-in', '[data-testid="build"]');
  await expectAccessible();

  await browser.press('new-build');
  await browser.fill('engine-name', 'Thistle Wharf four');
  await browser.fill('engine-cylinders', '4');
  await browser.fill('engine-firingOrder', '1-3-3-2');
  await browser.press('begin');
  await browser.find('input[aria-invalid="true"]');
  await browser.seeMain('Cylinder 3 stands twice');
  await browser.fill('engine-firingOrder', '1-3-4-2');
  await browser.fill('engine-stroke', '3.48');
  await browser.fill('engine-rod', '5.7');
  await expectAccessible();
  await browser.press('begin');

  // Zero: one tap takes the proposal. A figure that the ring does not have is refused and stays where it was typed.
  await browser.seeText('method', /bar across the bore/);
  await expectAccessible();
  await browser.press('zero-begin');
  await browser.seeText('sentence', /Turn it the way it runs/);
  await browser.press('key-2');
  await browser.press('key-0');
  await browser.press('key-0');
  await browser.press('record');
  await browser.seeText('reading-trouble', /has no 200/);
  for (let i = 0; i < 3; i += 1) await browser.press('key-back');
  let taps = await tapReading('10', 'before');
  await browser.seeText('sentence', /Turn it backwards/);
  await expectAccessible();
  taps += await tapReading('15', 'after');
  await browser.seeText('sentence', /Slip the wheel 2½° counter-clockwise, against the way it runs/);
  await expectAccessible();
  await browser.press('wheel-set');
  await browser.seeText('sentence', /prove it/);
  taps += 1 + (await tapReading('12½', 'before'));
  await browser.seeText('sentence', /Turn it backwards/);
  taps += await tapReading('12½', 'after');
  await browser.seeText('sentence', /TDC is proved/);
  await browser.press('next');

  // Card. An empty one is refused with a reason.
  await browser.press('card-save');
  await browser.seeText('card-empty', /card is empty/);
  await browser.fill('card-centreline', '107');
  await browser.fill('card-lobeLift', '330');
  await browser.seeText('aim', /107° ATDC, ±1°/);
  await expectAccessible();
  await browser.press('card-save');

  // Read. A drop over the lobe's lift is refused; the reading stays.
  await browser.fill('drop', '0.5');
  await browser.press('key-6');
  await browser.press('key-6');
  await browser.press('side-after');
  await browser.press('record');
  await browser.seeMain('not less than the whole lobe lift, 0.330 in');
  await browser.fill('drop', '50');
  await browser.press('record');
  taps += 4;
  await browser.seeText('sentence', /Over the nose and down to 0\.050 in/);
  await expectAccessible();
  taps += await tapReading('153', 'after');
  await browser.seeText('sentence', /Intake centreline.*109\.50° ATDC/);
  await browser.press('next');

  await browser.seeText('verdict', /^The cam sits 2\.5° late, retarded, ±0\.\d°\.$/);
  await browser.seeText('action', /^First .*Then advance it 2\.5°: turn the cam the way it runs\.$/);
  await expectAccessible();
  console.log(`taps on keypad and buttons from first contact to verdict: ${taps + 2}`);

  // The move ends the trial; the same readings again would now be the next one's.
  await browser.press('moved');
  await browser.fill('moved-note', 'crank gear one keyway on');
  await browser.press('moved-untouched');
  await browser.seeText('sentence', /Zero the indicator at peak lift/);
  await tapReading('63½', 'after');
  await browser.seeText('sentence', /Over the nose/);
  await tapReading('150½', 'after');
  await browser.press('next');
  await browser.seeText('verdict', /on the target/);
  await browser.seeText('action', /Then leave it/);

  // Undo takes the last reading back, and the sheet shows it struck through.
  await browser.press('undo');
  await browser.seeText('verdict', /No verdict yet/);
  await browser.visit((await browser.driver.getCurrentUrl()).replace(base, '').replace('decide', 'sheet'));
  // The page may have gone before the device had written the undoing down: then it comes from the server.
  expect(await browser.seeText('sheet', /150½° after\s+Undone/)).toMatch(/crank gear one keyway on/);
  await expectAccessible();
  await browser.seeText('sync-sign', /Saved/);
});

test('wide: by keyboard alone, on a falling 0–360 ring mounted anyhow', async () => {
  browser = await device.open(WIDE);
  await browser.press('new-build');
  await browser.fill('engine-name', 'Sedge Hollow single');
  await browser.fill('engine-cylinders', '1');
  await browser.pressText('Counter-clockwise');
  await browser.pressText('0 to 360 all round');
  await browser.pressText('The numbers fall');
  await browser.pressText('Millimetres');
  await browser.press('begin');
  await browser.seeText('method', /bar across the bore/);
  await browser.keys(Key.ENTER);
  await browser.find('[data-testid="reading"]');
  await expectAccessible();

  const record = async (figures: string): Promise<void> => {
    await browser.find('[data-testid="reading"]');
    await browser.keys(figures, Key.ENTER);
  };
  await record('361');
  await browser.seeText('reading-trouble', /has no 361/);
  await browser.keys(Key.BACK_SPACE, Key.BACK_SPACE, Key.BACK_SPACE);
  // The numbers fall as it runs: forward contact at 223, backward at 165, TDC at 194.
  await record('223');
  await browser.seeText('sentence', /Turn it backwards/);
  await record('165');
  await browser.seeText('sentence', /Slip the wheel 166° clockwise, against the way it runs/);
  await browser.keys(Key.ENTER);
  await browser.seeText('sentence', /prove it/);
  await record('29');
  await browser.seeText('sentence', /Turn it backwards/);
  await record('333');
  await browser.seeText('sentence', /Not proved: the sides differ by 2\.0°/);
  await browser.keys('u');
  await browser.seeText('sentence', /Turn it backwards/);
  await record('331');
  await browser.seeText('sentence', /TDC is proved/);
  await expectAccessible();

  await browser.keys('n');
  await browser.fill('card-centreline', '110');
  await browser.pressText('Ahead of card');
  await browser.fill('card-advance', '2');
  await browser.seeText('aim', /108° ATDC/);
  await browser.press('card-save');
  await browser.find('[data-testid="drop"]');
  await browser.press('reading');
  // 103 after TDC is the centre: 5° early of the target.
  await record('297');
  await browser.seeText('sentence', /Over the nose and down to 1\.00 mm/);
  await browser.keys('217', '[', '[', ']', ']', Key.ENTER);
  await browser.seeText('sentence', /Intake centreline.*103\.00° ATDC/);
  await browser.keys('n');
  await browser.seeText('verdict', /5\.0° early/);
  await browser.seeText('action', /^First .*Then retard it 5\.0°: turn the cam against the way it runs\.$/);
  await browser.seeText('sheet', /2° ahead of card[\s\S]*Intake centreline, 1\.00 mm drop\s+103\.00° ATDC/);
  await expectAccessible();
});
