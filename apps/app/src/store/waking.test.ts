import type { Entry } from '@yosoku/core/record/entry';
import { makeStore } from './store';

const waits = (id: string) => ({ shopId: 'shop', entry: { id, buildId: 'b', kind: 'trial.begun' } as Entry });
const mockWaiting = [waits('a')];
const mockPhotos = [{ shopId: 'shop', buildId: 'b', picture: 'p' }];
jest.mock('./outbox-storage', () => ({
  askToPersist: () => undefined,
  keepWaiting: async () => undefined,
  dropWaiting: async () => undefined,
  readWaiting: async () => mockWaiting,
}));
jest.mock('./photo-storage', () => ({
  readWaitingPhotos: async () => mockPhotos,
  forgetSeenPhotos: async () => undefined,
}));
// A device whose memory takes its time, while what waits to be sent is read at once.
jest.mock('idb-keyval', () => {
  const soon = <T>(value: T) => new Promise<T>((done) => setTimeout(() => done(value), 30));
  return {
    get: (key: string) => soon(key === 'yosoku-settings' ? JSON.stringify({ theme: 'dye' }) : undefined),
    set: async () => undefined,
    setMany: async () => undefined,
    delMany: async () => undefined,
  };
});

test('what waits to be sent is there when the memory has been read, however long that takes, and nothing is drawn before', async () => {
  Object.assign(globalThis, { indexedDB: {} });
  const store = makeStore();
  const seen: boolean[] = [];
  store.subscribe(() => {
    const { awake, outbox } = store.getState();
    if (awake) seen.push(outbox.waiting.length === 1);
  });
  expect(store.getState().awake).toBe(false);
  await new Promise((done) => setTimeout(done, 150));
  expect(store.getState()).toMatchObject({
    awake: true,
    settings: { theme: 'dye' },
    outbox: { waiting: mockWaiting },
    photos: { waiting: mockPhotos },
  });
  expect(seen.length).toBeGreaterThan(0);
  expect(seen).not.toContain(false);
});
