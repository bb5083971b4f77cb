import type { Entry } from '@yosoku/core/record/entry';
import type { LogbookState } from './logbook-slice';
import { PART, readLogbooks, writeLogbooks } from './logbook-storage';

const mockKept = new Map<string, unknown>();
const mockWrites: string[] = [];
jest.mock('idb-keyval', () => ({
  get: async (key: string) => mockKept.get(key),
  getMany: async (keys: string[]) => keys.map((key) => mockKept.get(key)),
  setMany: async (pairs: [string, unknown][]) => {
    for (const [key, value] of pairs) {
      mockWrites.push(key);
      mockKept.set(key, structuredClone(value));
    }
  },
  delMany: async (keys: string[]) => keys.forEach((key) => mockKept.delete(key)),
}));

const entry = (n: number): Entry => ({ id: String(n), kind: 'trial.begun', body: { after: null } }) as Entry;
const long = Array.from({ length: 2 * PART + 3 }, (_, n) => entry(n));
const state = (known: LogbookState['known']): LogbookState => ({ known, lists: { shop: [] } });
beforeEach(() => {
  mockKept.clear();
  mockWrites.length = 0;
});

test('a reading that is added writes the last part of its build, and nothing of the others', async () => {
  await readLogbooks();
  const b = [entry(1)];
  await writeLogbooks(state({ a: long, b }));
  expect(mockWrites).toHaveLength(5);
  mockWrites.length = 0;
  const more = [...long, entry(-1)];
  await writeLogbooks(state({ a: more, b }));
  expect(mockWrites).toEqual(['yosoku-logbook/a/2', 'yosoku-logbook']);
  expect(await readLogbooks()).toEqual(state({ a: more, b }));
});

test('what an earlier version kept in one text is read, and written in parts; who signs out leaves nothing', async () => {
  mockKept.set('yosoku-logbook', JSON.stringify(state({ a: long })));
  const text = await readLogbooks();
  expect(typeof text).toBe('string');
  await writeLogbooks(JSON.parse(String(text)));
  expect(await readLogbooks()).toEqual(state({ a: long }));
  await writeLogbooks({ known: {}, lists: {} });
  expect([...mockKept.keys()]).toEqual(['yosoku-logbook']);
});

test('where a part is missing or cut short, what comes before stays: the rest is fetched anew', async () => {
  await readLogbooks();
  await writeLogbooks(state({ a: long }));
  mockKept.delete('yosoku-logbook/a/1');
  expect(await readLogbooks()).toEqual(state({ a: long.slice(0, PART) }));

  // Another window has put fewer entries into the middle.
  await writeLogbooks(state({ a: long }));
  mockKept.set('yosoku-logbook/a/1', JSON.stringify(long.slice(PART, PART + 2)));
  expect(await readLogbooks()).toEqual(state({ a: long.slice(0, PART + 2) }));
});
