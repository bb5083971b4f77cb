import { screen } from '@testing-library/react-native';
import { paperWish } from '@yosoku/core/paper/wish';
import { TRUE_PRINTER } from '@yosoku/core/paper/printer';
import { book } from '@yosoku/core/testing/book';
import { openPdf } from '@/sheets/open-pdf';
import { openStation } from '@/testing/open-station';
import { printForm, readPrint } from './print-form';
import { PrintPage } from './print-page';

jest.mock('@/sheets/open-pdf', () => ({ openPdf: jest.fn(async () => null) }));
const opened = jest.mocked(openPdf);
beforeEach(() => opened.mockClear());

/** What the server was asked for, as it understands it. */
function asked() {
  const address = opened.mock.calls.at(-1)?.[0];
  if (!address) throw new Error('nothing was printed');
  return { path: address.pathname, wish: paperWish.parse(Object.fromEntries(address.searchParams)) };
}

test('a wheel of this build: its size as it is typed, its bolts, what is marked on it', async () => {
  const here = await openStation('print', PrintPage, book().entries);
  await here.type('print-diameter', '14 in');
  await here.type('print-circle', '2.5 in');
  await here.type('print-bolts', '3');
  await here.choose('print-places', 'Firing TDCs too');
  await here.choose('print-paper', 'A3');
  await here.press('print-go');
  const { path, wish } = asked();
  expect(path).toMatch(/^\/api\/builds\/[0-9a-f-]+\/paper\.pdf$/);
  expect(wish).toMatchObject({
    what: 'wheel',
    paper: 'a3',
    diameter: expect.closeTo(355.6, 6),
    circle: expect.closeTo(63.5, 6),
    bolts: 3,
    places: 'tdcs',
    across: 1,
  });
});

test('a wheel that nobody can print is refused in words, and nothing is asked of the server', async () => {
  const here = await openStation('print', PrintPage, book().entries);
  await here.type('print-diameter', '70 in');
  await here.press('print-go');
  expect(screen.getByTestId('print-trouble')).toHaveTextContent(/at most 1200 mm/);
  await here.type('print-diameter', '7 in');
  await here.type('print-hole', '6 in');
  await here.press('print-go');
  expect(screen.getByTestId('print-trouble')).toHaveTextContent(/leaves no room for the numbers/);
  expect(opened).not.toHaveBeenCalled();
  // What was typed stays.
  expect(screen.getByTestId('print-hole').props.value).toBe('6 in');
});

test('a tape by its diameter or once round; a rim that is none is said', async () => {
  const here = await openStation('print', PrintPage, book().entries);
  await here.choose('print-what', 'Rim tape');
  await here.press('print-go');
  expect(screen.getByTestId('print-trouble')).toHaveTextContent('Say how large the rim is.');
  await here.type('print-rim', '7 in');
  await here.choose('print-span', 'All round');
  await here.press('print-go');
  expect(asked().wish).toMatchObject({
    what: 'tape',
    round: expect.closeTo(Math.PI * 177.8, 4),
    span: '180',
    thickness: 0.1,
  });
  await here.choose('print-measured', 'Round it, with a tape');
  await here.type('print-rim', '22 in');
  await here.press('print-go');
  expect(asked().wish).toMatchObject({ round: expect.closeTo(558.8, 6) });
  await here.type('print-rim', '1 in');
  await here.press('print-go');
  expect(screen.getByTestId('print-trouble')).toHaveTextContent(/No balancer or flywheel is that size/);
});

test('a printer is checked once, kept by its name, and everything after comes out true', async () => {
  const here = await openStation('print', PrintPage, book().entries);
  expect(screen.getByTestId('printer-error')).toHaveTextContent(/off by up to 0\.2[89]° .* 3\.6° round a rim tape/);
  await here.choose('print-what', 'Printer check');
  await here.press('printer-keep');
  expect(here.words()).toMatch(/Give it a name\.[^]*Measure it\./);
  await here.type('printer-name', 'Office');
  await here.type('printer-across', '50 mm');
  await here.type('printer-along', '100.5 mm');
  expect(screen.getByTestId('printer-trouble')).toHaveTextContent(/No printer errs by more than a tenth/);
  await here.type('printer-across', '99 mm');
  await here.press('printer-keep');
  expect(screen.getByTestId('printer-error')).toHaveTextContent(/−1\.0 % across and 0\.5 % along, which is put right/);
  // The check itself is printed as the printer does it.
  await here.press('print-go');
  expect(asked().wish).toMatchObject({ what: 'check', across: 1, along: 1 });
  await here.choose('print-what', 'Worksheet');
  await here.choose('print-method', 'Full trace');
  await here.press('print-go');
  expect(asked().wish).toMatchObject({ which: 'readings', method: 'trace' });
  await here.choose('print-which', 'Pushrod trials');
  await here.press('print-go');
  expect(asked().wish).toMatchObject({
    what: 'worksheet',
    which: 'pushrods',
    across: expect.closeTo(0.99, 9),
    along: expect.closeTo(1.005, 9),
  });
  await here.press('printer-forget');
  expect(screen.getByTestId('printer-error')).toHaveTextContent(/No printer is checked/);
});

test('what the server says against it stands there', async () => {
  opened.mockResolvedValueOnce('That would be more than 24 sheets.');
  const here = await openStation('print', PrintPage, book().entries);
  await here.press('print-go');
  expect(screen.getByTestId('print-trouble')).toHaveTextContent('That would be more than 24 sheets.');
});

test('without a build the wheel says itself how it is numbered; letter paper where inches are used', () => {
  const read = readPrint(
    printForm({ ring: '0-360', sense: 'falling', rotation: 'counter-clockwise' }, 'mm'),
    TRUE_PRINTER,
    false,
  );
  expect(read).toMatchObject({
    ok: true,
    query: { paper: 'a4', ring: '0-360', sense: 'falling', rotation: 'counter-clockwise', diameter: '180' },
  });
  expect(printForm({}, 'in').paper).toBe('letter');
  // A word that no version knows is as nothing typed.
  expect(printForm({ what: 'poster', paper: 'a0' }, 'mm')).toMatchObject({ what: 'wheel', paper: 'a4' });
});
