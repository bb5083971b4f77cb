import { act, screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { WIDE, openStation } from '@/testing/open-station';
import { ReadStation } from '@/features/read/read-station';
import { ZeroStation } from '@/features/zero/zero-station';

/** What the browser's own voice was given to say, and how often it was cut short. */
const said: string[] = [];
let buzzed = 0;
class Utterance {
  lang = '';
  constructor(readonly text: string) {}
}
beforeAll(() => {
  Object.assign(globalThis, { SpeechSynthesisUtterance: Utterance });
  Object.assign(window, {
    speechSynthesis: { speak: ({ text }: Utterance) => said.push(text), cancel: () => undefined },
  });
  Object.assign(globalThis, { navigator: { vibrate: () => (buzzed += 1) } });
});
afterAll(() => {
  Reflect.deleteProperty(window, 'speechSynthesis');
  Reflect.deleteProperty(globalThis, 'navigator');
});
beforeEach(() => {
  said.length = 0;
  buzzed = 0;
});
const spoken = async (): Promise<readonly string[]> => {
  await act(async () => void jest.runOnlyPendingTimers());
  return said.splice(0);
};

function proved() {
  const job = book();
  job.proved();
  job.card();
  return job;
}

test('what to do is spoken, what was kept is read back first, and V says it once more', async () => {
  const here = await openStation('read', ReadStation, proved().entries, { settings: { spoken: true } });
  expect(await spoken()).toEqual(['Fifty thou before peak, coming forward. Read the wheel.']);
  await here.reads('69½', 'after');
  expect(await spoken()).toEqual([
    'Sixty-nine and a half after, kept.',
    'Fifty thou after peak, coming forward. Read the wheel.',
  ]);
  expect(buzzed).toBe(1);
  await here.keys('v');
  expect(await spoken()).toEqual(['Fifty thou after peak, coming forward. Read the wheel.']);
});

test('a device that was told nothing stays silent; with the buzz off nothing buzzes', async () => {
  const here = await openStation('read', ReadStation, proved().entries, { settings: { buzz: false } });
  await here.reads('69', 'after');
  expect(await spoken()).toEqual([]);
  expect(buzzed).toBe(0);
});

test('readings that were there before are not read back, nor those of another device', async () => {
  const job = proved();
  const { setting } = job.report().zero;
  job.pair(setting, 66, 153);
  const before = job.entries.length;
  const here = await openStation('read', ReadStation, [...job.entries], { settings: { spoken: true } });
  job.pair(setting, 66, 153);
  await here.receives(job.entries.slice(before));
  expect(here.report().trials[0]?.rounds).toHaveLength(2);
  expect((await spoken()).filter((each) => each.includes('kept'))).toEqual([]);
  expect(buzzed).toBe(0);
});

test('from afar there is one instruction and one figure, larger than anything else, and the keys are still there', async () => {
  const here = await openStation('zero', ZeroStation, book().entries, { settings: { fromAfar: true } });
  expect(screen.getByTestId('from-afar')).toBeOnTheScreen();
  expect(screen.getAllByTestId('sentence')).toHaveLength(1);
  expect(screen.getByTestId('afar-figure')).toHaveTextContent('–');
  await here.press('key-2');
  await here.press('key-6');
  await here.press('side-before');
  expect(screen.getByTestId('afar-figure')).toHaveTextContent('26°');
  expect(String(screen.getByTestId('afar-figure').props.className)).toMatch(/text-\[1\d\dpx\]/);
  await here.press('record');
  expect(here.last()?.body).toMatchObject({ side: 'before', wheel: { shows: 26 } });
  await here.press('from-afar-key');
  expect(screen.queryByTestId('from-afar')).toBeNull();
});

test('F at the bench is the same switch; a station that is not glanced at has none', async () => {
  const here = await openStation('zero', ZeroStation, book().entries, { size: WIDE });
  await here.keys('f');
  expect(screen.getByTestId('from-afar')).toBeOnTheScreen();
  await here.keys('f');
  expect(screen.queryByTestId('from-afar')).toBeNull();
});

test('the keypad of a left hand has its fractions on the left, and its figures in their order', async () => {
  await openStation('zero', ZeroStation, book().entries, { settings: { hand: 'left' } });
  const keys = screen.getAllByTestId(/^key-|^undo$/).map(({ props }) => String(props.testID));
  expect(keys.slice(0, 4)).toEqual(['key-¼', 'key-7', 'key-8', 'key-9']);
  expect(keys.slice(-4)).toEqual(['undo', 'key-.', 'key-0', 'key-back']);
});
