import { screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { WIDE, openStation } from '@/testing/open-station';
import { ReadStation } from './read-station';

/** A proved zero and a card, and the lift at TDC is to be read: with the piston at the top, whatever says so. */
async function atTdc(how: Parameters<typeof openStation>[3] = {}) {
  const job = book();
  const setting = job.proved();
  job.card();
  const here = await openStation('read', ReadStation, job.entries, how);
  await here.press('choose-method');
  await here.press('read-lift-at-tdc');
  await here.press('method-go');
  return { here, setting };
}
const tap = async (here: Awaited<ReturnType<typeof openStation>>, figures: string): Promise<void> => {
  for (const figure of figures) await here.press(`key-${figure}`);
  await here.press('record');
};

test('by a proved wheel: what stands under the pointer goes with the lift, from the zero that it leans on', async () => {
  const { here, setting } = await atTdc();
  expect(here.words()).toMatch(/The rule below says true TDC/);
  await tap(here, '100');
  expect(here.last()?.body).toMatchObject({
    method: 'lift-at-tdc',
    shows: { kind: 'tdc-lift', lift: 2.54 },
    wheel: { ring: '0-180', shows: 0 },
    setting,
  });
});

test('by the piston alone: no wheel is recorded, and none is shown to be turned', async () => {
  const { here } = await atTdc();
  await here.choose('tdc-by', 'The piston, no wheel');
  expect(here.words()).toMatch(/coarser, and the answer says by how much/);
  await tap(here, '100');
  expect(here.last()?.body).toMatchObject({ shows: { kind: 'tdc-lift', lift: 2.54 }, wheel: null });
});

test('the wheel is turned by the keys of a bench to where it stands, and says how far that is from TDC', async () => {
  const { here } = await atTdc({ size: WIDE });
  await here.keys(']', ']');
  expect(here.words()).toMatch(/says 0\.50° after TDC/);
  await here.type('reading', '100');
  await here.keys('Enter');
  expect(here.last()?.body).toMatchObject({ wheel: { shows: 0.5, side: 'after' } });
});

test('as much as the whole lobe is no lift at TDC: it is said, and nothing is recorded', async () => {
  const { here } = await atTdc();
  const before = here.entries().length;
  await tap(here, '330');
  expect(screen.getByTestId('reading-trouble')).toHaveTextContent(
    /not less than the whole lift, 0\.330+ in on the card/,
  );
  expect(here.entries()).toHaveLength(before);
});

test('zeroed at TDC, the base circle is looked for instead, and the reading is the same lift', async () => {
  const { here } = await atTdc();
  await here.choose('zeroed', 'At TDC');
  expect(screen.getByTestId('sentence')).toHaveTextContent(/zero the indicator on the intake there.*the base circle/);
  await tap(here, '100');
  expect(here.last()?.body).toMatchObject({ shows: { kind: 'tdc-lift', lift: 2.54 } });
});
