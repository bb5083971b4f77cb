import { screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { openStation } from '@/testing/open-station';
import { PrepareStation } from './prepare-station';

test('how the engine is set up is confirmed once, then its checks are listed', async () => {
  const here = await openStation('prepare', PrepareStation, book().entries);
  expect(screen.getByTestId('sentence')).toHaveTextContent(/how the engine stands|how the engine is set up/);
  await here.press('stands');
  expect(here.last()?.kind).toBe('engine.as-it-stands');
  expect(screen.getAllByTestId(/^check-/).length).toBe(here.report().prepare.checks.length);
});

test('a check is done, or skipped with a reason that stands on the sheet; never skipped without one', async () => {
  const here = await openStation('prepare', PrepareStation, book().entries);
  await here.press('stands');
  const open = () => here.report().prepare.checks.filter(({ state }) => state === 'due').length;
  const before = open();
  await here.press('done-made-safe');
  expect(open()).toBe(before - 1);
  expect(here.last()?.body).toMatchObject({ check: 'made-safe', result: 'done' });
  await here.press('skip-turns-freely');
  await here.press('skip-turns-freely');
  expect(here.words()).toMatch(/Say why: it stands on the sheet\./);
  await here.type('reason-turns-freely', 'Short block on the stand');
  await here.press('skip-turns-freely');
  expect(here.last()?.body).toMatchObject({ result: 'skipped', reason: 'Short block on the stand' });
});

test('springs off a roller lifter change what has to be looked at', async () => {
  const here = await openStation('prepare', PrepareStation, book().entries);
  await here.press('stands');
  const titles = () => here.report().prepare.checks.map(({ check }) => check);
  const solid = titles();
  await here.choose('stands-lifter', 'Roller');
  await here.choose('stands-springs', 'Nothing');
  expect(titles()).not.toEqual(solid);
});

test('what the cam drives is asked, and clocked again before signing', async () => {
  const here = await openStation('prepare', PrepareStation, book().entries);
  await here.press('stands');
  const clocked = () => here.report().sign.checks.find(({ check }) => check === 'trigger')?.title;
  expect(clocked()).toMatch(/distributor or cam sensor/);
  await here.choose('stands-camDrives', 'Distributor');
  expect(clocked()).toMatch(/^Distributor clocked again/);
  // Said once, it stays when something else is said.
  await here.choose('stands-lifter', 'Roller');
  expect(here.report().prepare.asItStands).toMatchObject({ lifter: 'roller', camDrives: 'distributor' });
  await here.choose('stands-camDrives', 'Neither');
  expect(clocked()).toMatch(/^Trigger teeth of the crank/);
});
