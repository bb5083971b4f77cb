import { Key } from 'selenium-webdriver';
import { type Browser, PHONE, WIDE, axeViolations, ownersDevice } from './browser';
import { goTo as toPlace, openBuild } from './places';
import { provedBuild, tapReading } from './proved-build';

let browser: Browser;
const device = ownersDevice();
afterAll(device.close);

const expectAccessible = async (): Promise<void> => expect(await axeViolations(browser)).toEqual([]);
const goTo = (place: string): Promise<void> => toPlace(browser, place);

const CARD = [
  ['centreline', '107'],
  ['ex centreline', '111'],
  ['lobeLift', '330'],
  ['ex lobeLift', '330'],
  ['opens0', '3'],
  ['closes0', '37'],
  ['ex opens0', '45'],
  ['ex closes0', '3'],
] as const;

/** Opening and closing of a valve at 0.050 in. */
async function readEvents(
  valve: 'intake' | 'exhaust',
  opening: readonly [string, 'before' | 'after'],
  closing: readonly [string, 'before' | 'after'],
) {
  await browser.press('choose-method');
  await browser.press('read-events');
  await browser.press('method-go');
  await browser.press(`valve-${valve}`);
  await browser.seeText('sentence', new RegExp(`base circle of the ${valve}`));
  await tapReading(browser, ...opening);
  await browser.seeText('sentence', /Over the nose and down/);
  await tapReading(browser, ...closing);
  await browser.seeText('sentence', valve === 'intake' ? /IVO .* IVC/ : /EVO .* EVC/);
}

async function readCentreline(opening: string, closing: string): Promise<void> {
  await browser.seeText('sentence', /Zero the indicator at peak lift/);
  await tapReading(browser, opening, 'after');
  await browser.seeText('sentence', /Over the nose/);
  await tapReading(browser, closing, 'after');
  await browser.seeText('sentence', /ATDC/);
}

test('phone: a healthy cam, weighed from all that was read; the interval is drawn; what a move would do; nothing moved, measured again', async () => {
  browser = await device.open(PHONE);
  await provedBuild(browser, 'Heron Sluice four');
  for (const [field, figures] of CARD) await browser.fill(`card-${field}`, figures);
  await browser.press('limit-2');
  await browser.seeText('aim', /107° ATDC, ±2°/);
  await browser.press('limit-1');
  await browser.press('card-save');
  await readCentreline('68', '151');
  await goTo('read');
  await readEvents('intake', ['½', 'before'], ['140½', 'before']);
  await browser.press('next');
  await browser.seeText('verdict', /^The cam sits 2\.[45]° late, retarded, ±0\.\d°\.$/);
  await browser.seeText(
    'action',
    /^First (read the pair once more, and )?make the closing check\. Then advance it 2\.[45]°: turn the cam the way it runs\.$/,
  );
  expect(await browser.driver.findElements({ css: '[data-testid="faults"]' })).toEqual([]);
  await browser.seeText(
    'views',
    /Intake centreline[\s\S]*\d+ % of the result[\s\S]*Intake events[\s\S]*\d+ % of the result/,
  );
  await browser.seeText('beside', /if nothing has moved since TDC: the closing check tells/);
  await expectAccessible();

  // The contact once more: what is expected is not shown before it is typed.
  await browser.press('closing');
  expect(await browser.seeText('sentence', /^Closing check\. The wheel as it is/)).not.toMatch(/20/);
  await expectAccessible();
  await tapReading(browser, '20', 'before');
  await browser.seeText('closing-same', /nothing has moved since TDC/);
  await browser.seeText('verdict', /^The cam sits 2\.[45]° late/);
  expect(await browser.driver.findElements({ css: '[data-testid="beside"]' })).toEqual([]);

  await browser.press('why');
  // The card’s centreline only repeats its events: the equal drop says nothing beside them.
  await browser.seeText('why-text', /From one measurement, against/);
  await browser.press('draw');
  await browser.seeText('drawn', /between −0\.\d+° and \+0\.\d+°.*They agree/);
  await expectAccessible();

  await browser.press('what-if');
  await (
    await browser.find('[data-testid="shift-intake"]')
  ).sendKeys(Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ARROW_LEFT, Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await browser.seeText('tried-intake', /1\.5° advanced/);
  await browser.press('try-single');
  await browser.seeText('tried-intake', /2\.5° advanced/);
  // Card 107, measured 109.5, tried 107.
  await browser.seeText('what-if-table', /ICL, °ATDC\s+107\.0°\s+109\.5°\s+107\.0°/);
  await browser.seeText('effects', /moves torque down the range/);
  await expectAccessible();

  // Nothing is moved; it is measured again later: the two trials stand side by side.
  await browser.pressText('Back to the verdict');
  await browser.press('moved');
  await browser.press('moved-nothing');
  await readCentreline('68', '151');
  await goTo('decide');
  expect(await browser.seeText('history', /Trial 2/)).toMatch(
    /sits where it did in trial 1[\s\S]*nothing moved[\s\S]*Trial 1/,
  );
  await expectAccessible();
});

test('phone: a wrong cam is told by its lift and its events, and nothing is moved', async () => {
  browser = await device.open(PHONE);
  await provedBuild(browser, 'Otter Lock four');
  for (const [field, figures] of CARD) await browser.fill(`card-${field}`, figures);
  await browser.press('card-save');
  // 16° longer than the card's, and 0.030 in more lift.
  await readEvents('intake', ['11', 'before'], ['135', 'before']);
  await browser.press('choose-method');
  await browser.press('read-identity');
  await browser.press('method-go');
  await browser.press('valve-intake');
  for (const key of '360') await browser.press(`key-${key}`);
  await browser.press('record');
  await browser.seeText('views', /0\.030 in more than the card’s: another cam/);
  await browser.press('next');
  await browser.seeText('verdict', /^Do not fit it: most likely this is not the cam of the card\.$/);
  await browser.seeText('action', /number stamped on the cam/);
  expect(await browser.driver.findElements({ css: '[data-testid="moved"]' })).toEqual([]);
  await expectAccessible();
});

test('wide: a wheel that slipped between the valves: nothing is moved, and the check that tells is named', async () => {
  browser = await device.open(WIDE);
  await openBuild(browser, 'Quarry Hill', 'decide');
  const said = await browser.seeText(
    'verdict',
    /most likely the wheel or the pointer moved by 6\.\d°, before the reading “exhaust/,
  );
  await browser.seeText('action', /^Turn to 0 and see whether the stop contacts are still equal/);
  await browser.seeText('faults', /the lobes are ground|The lobes are ground/);
  // The same words on the sheet.
  await browser.seeText('sheet', said);
  await expectAccessible();

  // At 0 the contacts are 6° apart: the zero falls, and nothing is judged from it.
  await goTo('zero');
  await browser.press('prove-again');
  await browser.find('[data-testid="reading"]');
  await browser.keys('17', 'b', Key.ENTER);
  await browser.seeText('sentence', /Turn it backwards/);
  await browser.keys('29¾'.replace('¾', '.75'), 'a', Key.ENTER);
  await browser.seeText('sentence', /Not proved/);
  await goTo('decide');
  await browser.seeText('verdict', /TDC is not proved/);
});

test('phone: a late cam is left as it is, knowingly, down to the signed sheet and the list', async () => {
  browser = await device.open(PHONE);
  await provedBuild(browser, 'Plover Ferry four');
  await browser.fill('card-centreline', '107');
  await browser.press('card-save');
  await readCentreline('66', '153');
  await browser.press('next');
  const said = await browser.seeText('verdict', /^The cam sits 2\.5° late, retarded, ±0\.\d°\.$/);
  await browser.press('leave-it');
  await browser.press('accept');
  await browser.find('[role="alert"]');
  await expectAccessible();
  await browser.fill('accept-reason', 'Mild street cam.');
  await browser.press('accept');
  await browser.seeText('accepted', /^Left as it is: Mild street cam\./);
  await expectAccessible();
  await browser.press('to-clear');
  await goTo('sign');
  await browser.seeText('accepted', /^Left as it is: Mild street cam\./);
  expect(await browser.text('open-points')).not.toContain(said);
  for (const check of ['fasteners', 'locking', 'trigger', 'tools-out', 'turned-over', 'lash', 'clearance'])
    await browser.press(`sign-done-${check}`);
  await browser.press('sign');
  await browser.seeText('sentence', /^Signed by Mara Quill/);
  await goTo('sheet');
  await browser.seeMain(
    /Left as it is: Mild street cam\.[\s\S]*Signed by Mara Quill[\s\S]*Left as it is: Mild street cam\./,
  );
  await browser.visit('/');
  await browser.seeMain(
    /Signed by Mara Quill\. The cam sits 2\.5° late, retarded, ±0\.\d°\. Left as it is: Mild street cam\./,
  );
});
