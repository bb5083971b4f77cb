import type { Entry } from '@yosoku/core/record/entry';
import { delivered, recorded } from './outbox-slice';
import { askToPersist, dropWaiting, keepWaiting } from './outbox-storage';
import { makeStore } from './store';

jest.mock('./outbox-storage', () => ({
  askToPersist: jest.fn(),
  keepWaiting: jest.fn(async () => undefined),
  dropWaiting: jest.fn(async () => undefined),
  readWaiting: jest.fn(async () => []),
}));
const keep = jest.mocked(keepWaiting);

const waiting = (id: string) => ({
  shopId: 'shop',
  entry: { id, buildId: 'b', builderId: 'me', takenAt: '', kind: 'trial.begun', body: { after: null } } as Entry,
});
const settled = () => new Promise((done) => setTimeout(done, 0));

test('a device that is full says so, and everything unkept is kept as soon as there is room', async () => {
  const store = makeStore();
  store.dispatch(recorded([waiting('a')]));
  await settled();
  expect(askToPersist).toHaveBeenCalled();
  expect(store.getState().outbox.unkept).toBe(false);

  keep.mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'));
  store.dispatch(recorded([waiting('b')]));
  await settled();
  expect(store.getState().outbox).toMatchObject({ unkept: true, waiting: [waiting('a'), waiting('b')] });

  store.dispatch(recorded([waiting('c')]));
  await settled();
  expect(keep).toHaveBeenLastCalledWith([waiting('a'), waiting('b'), waiting('c')]);
  expect(store.getState().outbox.unkept).toBe(false);

  // What the server has is no loss, however full the device is.
  keep.mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'));
  store.dispatch(recorded([waiting('d')]));
  await settled();
  store.dispatch(delivered(['a', 'b', 'c', 'd']));
  await settled();
  expect(dropWaiting).toHaveBeenCalled();
  expect(store.getState().outbox.unkept).toBe(false);
});
