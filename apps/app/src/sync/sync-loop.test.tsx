import { act, render } from '@testing-library/react-native';
import { Provider } from 'react-redux';
import type { Entry } from '@yosoku/core/record/entry';
import { recorded } from '@/store/outbox-slice';
import { signedIn } from '@/store/session-slice';
import { makeStore } from '@/store/store';
import { postWaiting } from './post-waiting';
import { SyncLoop } from './sync-loop';

jest.mock('./post-waiting', () => ({ postWaiting: jest.fn() }));
const post = jest.mocked(postWaiting);

const account = {
  builderId: 'me',
  builderName: 'Mara',
  role: 'owner',
  shopId: 'shop',
  shopName: 'Fennel Yard',
  zeroRule: null,
  readRule: null,
} as const;
const entry = {
  id: 'a',
  buildId: 'b',
  builderId: 'me',
  takenAt: '',
  kind: 'trial.begun',
  body: { after: null },
} as Entry;

// What a browser has and this environment lacks.
const listening = { addEventListener: jest.fn(), removeEventListener: jest.fn() };
Object.assign(window, listening);
Object.assign(globalThis, { document: listening });

test('a mistake of the program in a round of sending does not end the sending', async () => {
  jest.useFakeTimers();
  const complaint = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  const store = makeStore();
  store.dispatch(signedIn(account));
  post.mockRejectedValueOnce(new TypeError('undefined is not a function'));
  post.mockResolvedValue('unreachable');
  render(
    <Provider store={store}>
      <SyncLoop />
    </Provider>,
  );
  await act(async () => {
    store.dispatch(recorded([{ shopId: 'shop', entry }]));
  });
  expect(post).toHaveBeenCalledTimes(1);
  await act(() => jest.advanceTimersByTimeAsync(1_100));
  expect(post).toHaveBeenCalledTimes(2);
  expect(complaint).toHaveBeenCalledWith(expect.any(TypeError));
  complaint.mockRestore();
});
