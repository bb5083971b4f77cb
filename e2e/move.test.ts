import { Key } from 'selenium-webdriver';
import { type Browser, PHONE, WIDE, axeViolations, ownersDevice } from './browser';
import { goTo as toPlace, openBuild } from './places';
import { provedBuild, tapReading } from './proved-build';

let browser: Browser;
const device = ownersDevice();
afterAll(device.close);

const expectAccessible = async (): Promise<void> => expect(await axeViolations(browser)).toEqual([]);
const goTo = (place: string): Promise<void> => toPlace(browser, place);

async function tapCentreline(opening: string, closing: string): Promise<void> {
  await browser.seeText('sentence', /Zero the indicator at peak lift/);
  await tapReading(browser, opening, 'after');
  await browser.seeText('sentence', /Over the nose/);
  await tapReading(browser, closing, 'after');
  await browser.seeText('sentence', /ATDC/);
}

test('phone: a multi-keyway gear from verdict to signed sheet, and open again', async () => {
  browser = await device.open(PHONE);
  await provedBuild(browser, 'Plover Weir four');
  for (const [field, figures] of [
    ['centreline', '107'],
    ['ex centreline', '111'],
    ['lobeLift', '330'],
    ['ex lobeLift', '330'],
    ['opens0', '3'],
    ['closes0', '37'],
    ['ex opens0', '45'],
    ['ex closes0', '3'],
  ] as const)
    await browser.fill(`card-${field}`, figures);
  await browser.press('card-save');
  await tapCentreline('70', '155');
  await browser.press('next');
  await browser.seeText('verdict', /^The cam sits 5\.[45]° late/);

  // What is on the drive: half described, it says what is missing; reloaded, it is still there.
  await browser.press('plan-move');
  await browser.seeText('sentence', /Say what timing hardware is on the drive/);
  await browser.press('add-part');
  await browser.press('describe-part');
  await browser.press('kind-keyways');
  await browser.fill('hardware-name', 'Seven-way gear of Plover');
  await browser.fill('hardware-marks', '0');
  await browser.press('describe-keep');
  expect(await (await browser.find('[data-testid="drive"]')).getText()).toMatch(
    /at least two positions[\s\S]*|crank or cam degrees/,
  );
  await expectAccessible();
  await browser.reload();
  await browser.press('add-part');
  await browser.fill('hardware-marks', '-6 -4 -2 0 2 4 6');
  await browser.pressText('Crank degrees');
  await browser.seeText('understood', /7 positions:[\s\S]*\+6: \+6 crank = \+3 cam degrees/);
  await browser.press('describe-keep');
  await browser.press('part-fit');

  await browser.seeText('sentence', /^Set the seven-way gear of Plover to the \+6 keyway\.$/);
  await browser.seeText('then', /is advanced 6\.0° and should then sit 0\.[56]° early/);
  await browser.seeText('plan-1', /the \+4 keyway/);
  await browser.seeText(
    'steps',
    /degree wheel off[\s\S]*the \+6 keyway[\s\S]*engine maker’s manual[\s\S]*two full turns/,
  );
  await browser.press('predicted-more');
  await browser.seeText('predicted', /Intake centreline, 0\.050 in drop[\s\S]*106\.5° ATDC; on the wheel near/);
  await expectAccessible();

  // The gear takes the wheel off: that is the button, and the zero falls.
  await browser.press('move-next');
  await browser.press('set-touched');
  await browser.seeText('sentence', /TDC is no longer valid/);
  await goTo('prove');
  await browser.seeText('sentence', /Find TDC again first/);
  await browser.press('prove-next');
  await browser.press('zero-begin');
  for (const pass of [1, 2]) {
    await tapReading(browser, '20', 'before');
    await browser.seeText('sentence', /Turn it backwards/);
    await tapReading(browser, '20', 'after');
    if (pass === 1) await browser.press('wheel-set');
  }
  await browser.seeText('sentence', /TDC is proved/);
  await goTo('prove');
  await browser.seeText('sentence', /^2 readings show whether it worked\. Read the intake centreline\.$/);
  await browser.press('prove-next');
  // It gave 5¼ of its 6.
  await tapCentreline('64¾', '149¾');
  await goTo('prove');
  await browser.seeText('sentence', /^Proved\. The cam sits 0\.[12345]° late/);
  await browser.seeText('gave', /went 5\.3° earlier.*its label says 6\.0° earlier/);
  await browser.seeText('comparison', /107\.25° ATDC; 0\.8° later than predicted/);
  await expectAccessible();

  // Clear: without stroke and rod it says so; nothing typed is lost on the way.
  await browser.press('prove-next');
  await browser.fill('gap-intake-10', '5000');
  await browser.seeText('clearance-intake', /No clearance was measured yet/);
  await browser.seeMain(/Check the unit/);
  await browser.fill('gap-intake-10', '130');
  await browser.press('gaps-record-intake');
  await browser.seeText('clearance-intake', /Stroke and rod are not known/);
  await goTo('engine');
  await browser.fill('engine-stroke', '3.4');
  await browser.fill('engine-rod', '5.7');
  await browser.press('engine-save');
  await browser.find('[data-testid="sentence"]');
  await goTo('clear');
  await browser.press('facing-intake');
  await browser.fill('angle-intake', '15');
  await browser.press('facing-keep-intake');
  await browser.seeText('clearance-intake', /The rocker ratio is not known/);
  await goTo('engine');
  await browser.press('engine-more');
  await browser.fill('engine-ratioIntake', '1.5');
  await browser.press('engine-save');
  await browser.find('[data-testid="sentence"]');
  await goTo('clear');
  await browser.seeText('clearance-intake', /at the tightest.*0\.080 in is wanted.*may still be advanced/);
  await browser.find('[data-testid="gap-plot-intake"]');
  await expectAccessible();

  // Sign: nothing is signed before every check is answered.
  await browser.press('clear-next');
  await browser.press('rockers-next');
  await browser.press('lash-next');
  await browser.press('sign');
  await browser.seeText('sign-trouble', /done, or why it is skipped/);
  for (const check of ['fasteners', 'locking', 'trigger', 'tools-out', 'turned-over', 'lash'])
    await browser.press(`sign-done-${check}`);
  await browser.press('sign-skip-clearance');
  await browser.fill('sign-reason-clearance', 'Exhaust to follow.');
  await browser.press('sign-skip-clearance');
  await browser.press('sign');
  await browser.seeText('sentence', /^Signed by Mara Quill on \d+ \w+ 20\d\d$/);
  await browser.seeText('closed', /and closed/);
  await expectAccessible();

  await goTo('sheet');
  expect(await browser.seeText('sheet', /Signed by Mara Quill/)).toMatch(
    /Set: Seven-way gear of Plover[\s\S]*What it gave/,
  );
  await browser.seeText('sheet', /skipped[\s\S]*Exhaust to follow/);
  const address = (await browser.driver.getCurrentUrl()).replace(/.*\/builds\/([^/]+)\/.*/, '$1');
  const head = await browser.driver.executeAsyncScript<string>(
    `const done = arguments[arguments.length - 1];
     fetch('/api/builds/' + arguments[0] + '/sheet.pdf').then((answer) => answer.text()).then((text) => done(text.slice(0, 5)));`,
    address,
  );
  expect(head).toBe('%PDF-');
  await goTo('read');
  expect(await browser.driver.findElements({ css: '[data-testid="record"]' })).toEqual([]);
  await browser.press('reopen');
  await browser.press('reopen');
  await browser.seeText('closed', /Say why/);
  await browser.fill('reopen-reason', 'Exhaust clearance.');
  await browser.press('reopen');
  await browser.find('[data-testid="choose-method"]');
  await goTo('sign');
  await browser.seeText('sentence', /^Reopened: Exhaust clearance\.$/);
});

test('wide: twin cams, each with its move; set by the indicator and proved by keys', async () => {
  browser = await device.open(WIDE);
  await openBuild(browser, 'Gannet', 'move');
  await browser.seeText('sentence', /^Set the slotted pulley of the intake cam to \+1\.6 on its scale\.$/);
  await browser.seeText('then', /The intake cam is advanced 3\.2°.*The exhaust cam stays where it is/);
  await browser.seeText(
    'steps',
    /to 68° and hold it there[\s\S]*the indicator on the intake shows 1\.00 mm before peak[\s\S]*belt is taut/,
  );
  await expectAccessible();
  await browser.press('move-next');
  await browser.press('set-untouched');
  // The surest of what was read before: each flank at 1 mm, IVO and IVC 3¼° earlier.
  await browser.seeText(
    'sentence',
    /Read opening and closing of the intake\. Read opening and closing of the exhaust\.$/,
  );
  const readPair = async (opening: string, closing: string, done: RegExp): Promise<void> => {
    await browser.press('prove-next');
    await browser.find('[data-testid="reading"]');
    await browser.keys(opening, Key.ENTER);
    await browser.seeText('sentence', /Over the nose/);
    await browser.keys(closing, Key.ENTER);
    await browser.seeText('sentence', done);
  };
  await readPair('353.75', '222.25', /IVO 6¼° BTDC, IVC 42¼° ABDC/);
  await goTo('prove');
  await browser.seeText('sentence', /^2 readings show whether it worked\. Read opening and closing of the exhaust\.$/);
  await readPair('134', '2', /EVO 46° BBDC, EVC 2° ATDC/);
  await goTo('prove');
  await browser.seeText('sentence', /^Proved\. The intake cam sits.*The exhaust cam sits/);
  await browser.seeText('gave', /The intake cam went 3\.\d° earlier.*its label says 3\.2° earlier/);
  await expectAccessible();
  // The old school’s two marks.
  await goTo('move');
  await browser.press('two-marks-more');
  for (const [field, figure] of [
    ['specFirst', '10'],
    ['specSecond', '20'],
    ['foundFirst', '13'],
    ['foundSecond', '23'],
  ] as const)
    await browser.fill(`two-${field}`, figure);
  await browser.seeText('two-marks', /first to 12\.0° and the second to 24\.0°/);
});
