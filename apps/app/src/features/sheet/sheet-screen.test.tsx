import { act, fireEvent, screen, within } from '@testing-library/react-native';
import { buildFileSchema } from '@yosoku/core/record/file';
import { book, id } from '@yosoku/core/testing/book';
import { openStation, WIDE } from '@/testing/open-station';
import { SheetScreen } from './sheet-screen';

/** What was handed to the browser to keep. */
const mockSaved: { name: string; text: string }[] = [];
jest.mock('@/sheets/save-file', () => ({
  ...jest.requireActual<object>('@/sheets/save-file'),
  saveText: (name: string, text: string) => void mockSaved.push({ name, text }),
}));

beforeEach(() => {
  mockSaved.length = 0;
  globalThis.fetch = (async () => {
    throw new TypeError('there is no network');
  }) as typeof fetch;
});

/** TDC proved, one centreline read. */
function measured() {
  const job = book();
  job.card();
  job.pair(job.proved(), 64, 149);
  return job;
}

test('the verdict stands at the head, the record below it; a line that is undone is struck out, and counts no more', async () => {
  const here = await openStation('sheet', SheetScreen, measured().entries);
  expect(here.words()).toContain(here.report().verdict.headline);
  const sheet = () => within(screen.getByTestId('sheet'));
  const before = here.report().trials.at(-1)?.views.length;
  expect(before).toBe(1);
  const [undo] = sheet().getAllByLabelText(/^Undo .*before peak/);
  if (!undo) throw new Error('a reading can be undone');
  const label = String(undo.props['aria-label']);
  await act(async () => void fireEvent.press(undo));
  expect(here.last()).toMatchObject({ kind: 'entry.voided' });
  expect(sheet().queryByLabelText(label)).toBeNull();
  expect(here.report().trials.at(-1)?.views).toHaveLength(0);
});

test('a build that is signed is only read: nothing on its sheet can be undone', async () => {
  const job = measured();
  job.write('build.signed', { after: null, name: 'Mara' });
  const here = await openStation('sheet', SheetScreen, job.entries);
  expect(here.report().sign.closed).not.toBeNull();
  expect(screen.queryAllByLabelText(/^Undo /)).toEqual([]);
});

test('on a wide screen the sheet stands beside already, and is not told twice', async () => {
  await openStation('sheet', SheetScreen, measured().entries, { size: WIDE });
  expect(screen.getAllByTestId('sheet')).toHaveLength(1);
});

test('without a network the file still holds every entry and one’s own name; paper says that it needs the server', async () => {
  const here = await openStation('sheet', SheetScreen, measured().entries, { offline: true });
  await here.press('save-file');
  const [file] = mockSaved;
  expect(file?.name).toBe('test-six.yosoku.json');
  const read = buildFileSchema.parse(JSON.parse(file?.text ?? ''));
  expect(read.entries.map((each) => each.id)).toEqual(here.entries().map((each) => each.id));
  expect(read.builders).toEqual([{ id: here.entries()[0]?.builderId, name: 'Mara' }]);
  await here.press('print-a4');
  expect(screen.getByTestId('print-trouble')).toHaveTextContent(/laid out by the server, which cannot be reached/);
});

test('the readings as a table: one line each, undone ones among them, and no name that a spreadsheet would take for a formula', async () => {
  const job = measured();
  const [first] = job.entries.filter(({ kind }) => kind === 'reading.taken');
  job.write('entry.voided', { voids: first?.id ?? '' });
  const pass = id();
  for (const side of ['before', 'after'] as const)
    job.write('zero.reading', {
      zero: job.zero,
      setting: null,
      pass,
      side,
      wheel: { ring: '0-180', shows: 24, side },
      from: { box: '=2+5' },
    });
  const here = await openStation('sheet', SheetScreen, job.entries);
  await here.press('save-readings');
  const [table] = mockSaved;
  expect(table?.name).toBe('test-six.csv');
  const lines = (table?.text ?? '').trim().split('\r\n');
  const readings = job.entries.filter(({ kind }) => kind === 'reading.taken' || kind === 'zero.reading');
  expect(lines).toHaveLength(1 + readings.length);
  expect(lines.filter((line) => /,no,/.test(line))).toHaveLength(1);
  expect(lines.some((line) => /(^|,)[=+@]/.test(line))).toBe(false);
});

test('a practice is neither printed nor kept as a file', async () => {
  const job = measured();
  const entries = job.entries.map((entry) =>
    entry.kind === 'build.described' ? { ...entry, body: { ...entry.body, practice: true as const } } : entry,
  );
  const here = await openStation('sheet', SheetScreen, entries);
  expect(here.words()).toMatch(/A practice is not printed, and not kept as a file\./);
  expect(screen.queryByTestId('save-file')).toBeNull();
});
