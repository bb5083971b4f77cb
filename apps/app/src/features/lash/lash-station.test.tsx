import { screen } from '@testing-library/react-native';
import type { BodyOf } from '@yosoku/core/record/entry';
import { book } from '@yosoku/core/testing/book';
import { inches } from '@yosoku/core/units/length';
import { WIDE, openStation } from '@/testing/open-station';
import { LashStation } from './lash-station';

const THOU = inches('0.001');

/** A six whose card prints its seat events and its lash for a hot engine. */
function carded() {
  const job = book();
  const lobe = (centreline: number) => ({
    centreline,
    lobeLift: 8,
    ratio: 1.5,
    lashHot: 17 * THOU,
    timing: [{ height: null, at: 'lobe' as const, duration: 282 }],
  });
  job.write('card.entered', { replaces: null, intake: lobe(106), exhaust: lobe(113) });
  return job;
}

/** The same with its valves begun, by firing order unless told otherwise. */
function begun(more: Partial<BodyOf<'lash.begun'>> = {}) {
  const job = carded();
  const wanted = { kind: 'lash', intake: 17 * THOU, exhaust: 17 * THOU, noGo: 2 * THOU } as const;
  job.write('lash.begun', { after: null, order: 'firing', engine: 'hot', wanted, ...more });
  return job;
}

test('with nothing known it asks, says what would be enough, and offers the orders that need no seat events', async () => {
  const here = await openStation('lash', LashStation, book().entries);
  expect(screen.getByTestId('sentence')).toHaveTextContent(/what is wanted, cold or hot/);
  expect(screen.getByTestId('seats-unknown')).toHaveTextContent(/advertised duration with its centreline/);
  expect(here.words()).not.toMatch(/Fewest stops/);
  // Nothing typed: refused at the field, and nothing is written.
  const before = here.entries().length;
  await here.press('lash-begin');
  expect(here.entries()).toHaveLength(before);
  expect(here.words()).toMatch(/Say what is wanted\./);
});

test('the card’s lash for the hot engine stands there; for the cold one nothing is converted', async () => {
  const here = await openStation('lash', LashStation, carded().entries);
  expect(screen.getByTestId('lash-intake').props.value).toBe('0.017 in');
  await here.choose('lash-engine', 'Cold');
  expect(screen.getByTestId('lash-intake').props.value).toBe('');
  expect(here.words()).toMatch(/nothing is converted/);
  await here.choose('lash-engine', 'Hot');
  await here.choose('lash-order', 'By firing order');
  await here.press('lash-begin');
  expect(here.last()).toMatchObject({
    kind: 'lash.begun',
    body: {
      order: 'firing',
      engine: 'hot',
      wanted: { kind: 'lash', intake: expect.closeTo(17 * THOU, 6), noGo: expect.closeTo(2 * THOU, 6) },
    },
  });
  expect(screen.getByTestId('sentence')).toHaveTextContent(
    /cylinder 1 at its firing TDC\. Set the intake of cylinder 1/,
  );
});

test('a negative lash, and one that no valve has, are refused in words', async () => {
  const here = await openStation('lash', LashStation, carded().entries);
  const before = here.entries().length;
  await here.type('lash-intake', '-0.010');
  await here.press('lash-begin');
  await here.type('lash-intake', '20 mm');
  await here.press('lash-begin');
  expect(here.entries()).toHaveLength(before);
  expect(here.words()).toMatch(/too much\. Check the unit/);
});

test('four valves in a cylinder: each has its own key in the row, and the number stands in the entry', async () => {
  const here = await openStation('lash', LashStation, carded().entries);
  await here.choose('lash-valves', 'Four');
  await here.press('lash-begin');
  expect(here.last()?.body).toMatchObject({ count: { intake: 2, exhaust: 2 } });
  await here.press('valve-3-exhaust-2');
  expect(screen.getByTestId('sentence')).toHaveTextContent(/the exhaust 2 of cylinder 3/);
  await here.press('record');
  expect(here.last()?.body).toMatchObject({ cylinder: 3, valve: 'exhaust', which: 2 });
  expect(screen.getByTestId('lash-counts')).toHaveTextContent(/1 of 24 set/);
});

test('one press where it is as wanted; at most four where it was measured first', async () => {
  const here = await openStation('lash', LashStation, begun().entries);
  await here.press('record');
  expect(here.last()?.body).toMatchObject({
    cylinder: 1,
    valve: 'intake',
    at: 0,
    set: expect.closeTo(17 * THOU, 6),
    go: expect.closeTo(17 * THOU, 6),
    noGo: expect.closeTo(19 * THOU, 6),
  });
  for (const key of ['2', '1']) await here.press(`key-${key}`);
  expect(screen.getByTestId('record')).toHaveTextContent('Found 0.021 in, set to 0.017 in');
  await here.press('record');
  expect(here.last()?.body).toMatchObject({
    cylinder: 1,
    valve: 'exhaust',
    found: expect.closeTo(21 * THOU, 6),
    set: expect.closeTo(17 * THOU, 6),
  });
  expect(screen.getByTestId('sentence')).toHaveTextContent(/Turn to 120° after, cylinder 5 at its firing TDC/);
});

test('typed what it was set to, and found and left alone', async () => {
  const here = await openStation('lash', LashStation, begun().entries);
  await here.choose('meaning', 'Set to');
  for (const key of ['1', '6']) await here.press(`key-${key}`);
  await here.press('record');
  expect(here.last()?.body).toMatchObject({ set: expect.closeTo(16 * THOU, 6) });
  for (const key of ['1', '8']) await here.press(`key-${key}`);
  await here.press('leave');
  expect(here.last()?.body).toMatchObject({ valve: 'exhaust', found: expect.closeTo(18 * THOU, 6) });
  expect(here.last()?.body).not.toHaveProperty('set');
});

test('keys of the bench: digits, Enter, L, undo', async () => {
  const here = await openStation('lash', LashStation, begun().entries, { size: WIDE });
  await here.keys('2', '0', 'Enter');
  expect(here.last()?.body).toMatchObject({ found: expect.closeTo(20 * THOU, 6), set: expect.closeTo(17 * THOU, 6) });
  const count = here.entries().length;
  await here.keys('1', '8', 'l');
  expect(here.entries()).toHaveLength(count + 1);
  await here.keys('u');
  expect(here.last()?.kind).toBe('entry.voided');
});

test('the second round: still as it was by one press; one that is loose is named, with what probably happened', async () => {
  const job = begun();
  const of = job.entries.at(-1)?.id ?? '';
  for (const cylinder of [1, 5, 3, 6, 2, 4])
    for (const valve of ['intake', 'exhaust'] as const)
      job.write('lash.taken', { job: of, cylinder, valve, set: 17 * THOU, at: 0 });
  const here = await openStation('lash', LashStation, job.entries);
  expect(screen.getByTestId('sentence')).toHaveTextContent(
    /Second round: is the intake of cylinder 1 still at 0\.017 in\?/,
  );
  await here.press('record');
  expect(here.last()?.body).toMatchObject({ found: expect.closeTo(17 * THOU, 6) });
  // Cylinder 5 was set with cylinder 1 at its TDC: its exhaust then stands 120° before its own firing TDC, and rests; its intake does not.
  await here.press('valve-5-intake');
  for (const key of ['2', '9']) await here.press(`key-${key}`);
  await here.press('record');
  expect(screen.getByTestId('lash-trouble-5-intake')).toHaveTextContent(
    /0\.012 in looser than it was left\. It stood .* when it was set/,
  );
  expect(screen.getByTestId('sentence')).toHaveTextContent(/Set the intake of cylinder 5 to 0\.017 in again/);
});

test('with a long cam the two stops say whom they would catch on a ramp', async () => {
  const job = carded();
  const [described] = job.entries;
  const card = job.entries.at(-1);
  if (described?.kind !== 'build.described') throw new Error('a book opens with its description');
  job.write('build.described', {
    ...described.body,
    replaces: described.id,
    engine: { cylinders: 8, firingOrder: [1, 5, 4, 2, 6, 3, 7, 8], rotation: 'clockwise' },
  });
  if (card?.kind !== 'card.entered') throw new Error('the card was written last');
  const long = (centreline: number) => ({
    centreline,
    lobeLift: 9,
    ratio: 1.5,
    timing: [{ height: null, at: 'lobe' as const, duration: 358 }],
  });
  job.write('card.entered', { replaces: card.id, intake: long(104), exhaust: long(108) });
  const here = await openStation('lash', LashStation, job.entries);
  await here.choose('lash-order', 'Two stops, a turn apart');
  expect(screen.getByTestId('order-words')).toHaveTextContent(
    /not with this cam: .* would be set on or too near their ramp/,
  );
});

test('hydraulic: zero lash and so many turns, by one press each', async () => {
  const job = begun({ engine: 'cold', wanted: { kind: 'preload', turns: 0.75 } });
  const here = await openStation('lash', LashStation, job.entries);
  expect(screen.getByTestId('sentence')).toHaveTextContent(/to zero lash, then ¾ turn more/);
  await here.press('record');
  expect(here.last()?.body).toMatchObject({ valve: 'intake', turns: 0.75 });
  await here.choose('turns', '1¼');
  expect(here.last()?.body).toMatchObject({ valve: 'exhaust', turns: 1.25 });
});

test('a signed build shows its valves and takes nothing', async () => {
  const job = begun();
  job.write('build.signed', { after: null, name: 'Mara Quill' });
  const here = await openStation('lash', LashStation, job.entries);
  expect(screen.queryByTestId('record')).toBeNull();
  expect(
    screen.getByTestId('valve-1-intake').props.accessibilityState?.disabled ??
      screen.getByTestId('valve-1-intake').props['aria-disabled'],
  ).toBeTruthy();
  expect(here.words()).toMatch(/Mara Quill/);
});
