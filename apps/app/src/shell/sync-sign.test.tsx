import { act, fireEvent, render, screen } from '@testing-library/react-native';
import { Provider } from 'react-redux';
import { book } from '@yosoku/core/testing/book';
import { keptOnDevice, reached, recorded, refused } from '@/store/outbox-slice';
import { lapsed, signedIn } from '@/store/session-slice';
import { type Store, makeStore } from '@/store/store';
import { ACCOUNT } from '@/testing/account';
import { keepWaiting } from '@/store/outbox-storage';
import { SyncSign } from './sync-sign';

jest.mock('expo-router', () => ({ Link: 'Link' }));
jest.mock('@/store/outbox-storage', () => ({
  ...jest.requireActual('@/store/outbox-storage'),
  keepWaiting: jest.fn(async () => undefined),
}));

const [entry] = book().entries;
if (!entry) throw new Error('a book opens with its description');

/** The sign on a device to which these things happened. */
async function signAfter(...happened: readonly Parameters<Store['dispatch']>[0][]) {
  const store = makeStore();
  render(
    <Provider store={store}>
      <SyncSign />
    </Provider>,
  );
  await act(async () => {
    store.dispatch(signedIn(ACCOUNT));
    for (const each of happened) store.dispatch(each);
  });
  return { store, sign: screen.getByTestId('sync-sign') };
}
const waiting = { shopId: ACCOUNT.shopId, entry };

test('what the server has is saved; what it has not is counted', async () => {
  const { sign, store } = await signAfter(reached(true));
  expect(sign).toHaveTextContent('Saved');
  await act(async () => void store.dispatch(recorded([waiting])));
  expect(screen.getByTestId('sync-sign')).toHaveTextContent('1 not sent yet');
});

test('what the device has not written down yet is not counted: a page that is left then would lose it', async () => {
  let write = (): void => undefined;
  jest.mocked(keepWaiting).mockReturnValueOnce(new Promise((done) => (write = done)));
  const { sign } = await signAfter(reached(false), recorded([waiting]));
  expect(sign).toHaveTextContent('Saving · working offline');
  await act(async () => write());
  expect(sign).toHaveTextContent('1 not sent yet · working offline');
});

test('a sign-in that has expired leads back to it, and says what waits', async () => {
  const { sign } = await signAfter(recorded([waiting]), lapsed());
  expect(sign).toHaveTextContent('1 not sent yet · sign in again');
});

test('a device that is full says so before anything is lost', async () => {
  const { store } = await signAfter(recorded([waiting]));
  await act(async () => void store.dispatch(keptOnDevice(false)));
  expect(screen.getByTestId('sync-sign')).toHaveTextContent(
    /This device is full: 1 unsent entry is kept only while this page stays open\./,
  );
});

test('an entry that was refused says why, and is tried again at a press', async () => {
  const { sign, store } = await signAfter(
    recorded([waiting]),
    refused({ id: entry.id, reason: 'This build is signed.' }),
  );
  expect(sign).toHaveTextContent('1 refused: This build is signed. Try again');
  await act(async () => void fireEvent.press(sign));
  expect(store.getState().outbox.waiting).toEqual([waiting]);
});
