import { act, screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { openStation } from '@/testing/open-station';
import { TraceImport } from './trace-import';

/** A lobe of 8 mm over 240 degrees about 108, every three degrees, in thousandths of a millimetre. */
const TABLE = Array.from({ length: 111 }, (_, at) => {
  const angle = -57 + 3 * at;
  const u = (angle - 108) / 120;
  return `${angle};${(Math.abs(u) < 1 ? 8 * (1 - u * u) ** 3 : 0).toFixed(3)}`;
}).join('\n');

async function opened() {
  const job = book({ ring: '0-180' }, 'mm');
  job.proved();
  return openStation('trace', TraceImport, job.entries);
}
/** The reader of tables comes when it is wanted. */
const settled = () => act(async () => void (await new Promise((done) => setImmediate(done))));

test('a pasted table is looked at before anything is kept, then kept whole', async () => {
  const here = await opened();
  await here.type('trace-paste', TABLE);
  await settled();
  expect(here.words()).toMatch(/Peak lift 8\.0\d mm, 111 points\./);
  expect(here.entries().some(({ kind }) => kind === 'trace.recorded')).toBe(false);
  await here.press('trace-keep');
  const last = here.last();
  expect(last?.kind).toBe('trace.recorded');
  expect(last?.body).toMatchObject({ source: 'pasted', valve: 'intake', counted: 'from-zero', sitsOn: 'lifter' });
  expect(here.report().trials.at(-1)?.traces).toHaveLength(1);
});

test('lifts in another unit are read as such, at a press', async () => {
  const here = await opened();
  await here.type('trace-paste', TABLE);
  await settled();
  await here.choose('trace-lift-in', 'thou');
  expect(here.words()).toMatch(/Peak lift 0\.20 mm, 111 points\./);
});

test('where TDC is unknown, it says what the trace then tells and what not', async () => {
  const here = await opened();
  await here.type('trace-paste', TABLE);
  await settled();
  await here.choose('trace-counted', 'Nobody knows');
  expect(here.words()).toMatch(/but not where the cam sits\./);
  await here.press('trace-keep');
  expect(here.last()?.body).toMatchObject({ counted: 'anyhow' });
});

test('a row that is no number is named with its place, and nothing can be kept', async () => {
  const here = await opened();
  await here.type('trace-paste', TABLE.replace('108;8.000', '108;eight'));
  await settled();
  expect(screen.getByTestId('trace-trouble')).toHaveTextContent(/Row 56, column 2: .*eight.* is not a number/);
  expect(screen.queryByTestId('trace-keep')).toBeNull();
});
