import { screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { openStation } from '@/testing/open-station';
import { SignStation } from './sign-station';

async function answered() {
  const here = await openStation('sign', SignStation, book().entries);
  for (const { check } of here.report().sign.checks) await here.press(`sign-done-${check}`);
  return here;
}

test('what is open is listed, and nothing is signed while a check has no answer', async () => {
  const here = await openStation('sign', SignStation, book().entries);
  expect(screen.getByTestId('open-points')).toHaveTextContent(/TDC is not proved now\./);
  const before = here.entries().length;
  await here.type('sign-name', 'Mara');
  await here.press('sign');
  expect(here.entries()).toHaveLength(before);
  expect(here.words()).toMatch(/Say of each check that it is done, or why it is skipped\. Then sign\./);
});

test('every check answered and a name given, the build is signed and closed', async () => {
  const here = await answered();
  await here.type('sign-name', 'Mara of Fennel Yard');
  await here.type('sign-note', 'Lash to be looked at after 500 miles');
  await here.press('sign');
  expect(here.last()?.body).toMatchObject({
    name: 'Mara of Fennel Yard',
    note: 'Lash to be looked at after 500 miles',
  });
  expect(screen.getByTestId('closed')).toHaveTextContent(/Signed by Mara of Fennel Yard/);
});

test('a signature without a name is refused', async () => {
  const here = await answered();
  await here.type('sign-name', '   ');
  await here.press('sign');
  expect(here.entries().some(({ kind }) => kind === 'build.signed')).toBe(false);
  expect(here.words()).toMatch(/Who signs\?/);
});
