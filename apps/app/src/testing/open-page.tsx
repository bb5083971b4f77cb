import { act, render } from '@testing-library/react-native';
import type { ReactElement } from 'react';
import { Provider } from 'react-redux';
import { type Account, signedIn } from '@/store/session-slice';
import { makeStore } from '@/store/store';
import { ACCOUNT } from './account';

/**
 * Opens a page that is no station, and lets what it asks the server for be answered.
 * @param account who is signed in; null: nobody is.
 * @param store that of an earlier visit, where the page is opened again.
 */
export async function openPage(page: ReactElement, account: Account | null = ACCOUNT, store = makeStore()) {
  if (account) store.dispatch(signedIn(account));
  const { unmount } = render(<Provider store={store}>{page}</Provider>);
  await act(async () => undefined);
  return { store, close: unmount };
}
