import { sharedServer } from './app-server';
import { type Browser, PHONE, WIDE, axeViolations, openBrowser, ownersDevice, signIn } from './browser';
import { goTo, openBuild } from './places';

const { base } = sharedServer();
const device = ownersDevice();
let phone: Browser;
let bench: Browser;
beforeAll(async () => {
  phone = await device.open(PHONE);
  bench = await openBrowser(base, WIDE);
});
afterAll(async () => {
  await device.close();
  await bench.close();
});

test('phone at the crank, wide screen at the bench: each shows what the other writes, without a touch', async () => {
  await signIn(bench, 'tobin', 'grease-pencil-demo');
  await openBuild(bench, 'Quarry Hill', 'read');
  await bench.find('[data-testid="sheet"]');
  await openBuild(phone, 'Quarry Hill', 'prepare');
  await phone.press('skip-made-safe');
  await phone.fill('reason-made-safe', 'On the stand, nothing fitted.');
  await phone.press('skip-made-safe');
  await bench.seeText('sheet', /Battery, ignition and fuel off[\s\S]*skipped[\s\S]*On the stand, nothing fitted/);
  // And the other way round.
  await goTo(bench, 'prepare');
  await bench.press('done-wheel-tight');
  await phone.seeText('check-wheel-tight', /done/);
});

test('a board without a sign-in follows the build that is put on it, until its link is taken back', async () => {
  const screen = await openBrowser(base, WIDE);
  try {
    await bench.visit('/shop');
    await bench.fill('board-name', 'Over the dyno');
    await bench.press('board-add');
    const link = await bench.text('board-link-value');
    await screen.visit(link.slice(link.indexOf('/board')));
    await screen.seeText('board-said', /No build is shown here/);

    await openBuild(bench, 'Quarry Hill', 'sheet');
    await bench.press('show-on-Over the dyno');
    const before = await screen.seeText('board-now', /^Prepare: \d+ checks to make/);
    const left = Number(/\d+/.exec(before)?.[0]);
    await goTo(bench, 'prepare');
    await bench.press('done-pointer-rigid');
    await screen.seeText('board-now', `Prepare: ${left - 1} check`);
    expect(await axeViolations(screen)).toEqual([]);

    await bench.visit('/shop');
    await bench.press('board-remove-Over the dyno');
    await screen.seeText('board-said', /was taken back/);
  } finally {
    await screen.close();
  }
});
