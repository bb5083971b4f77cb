import { act, fireEvent, screen } from '@testing-library/react-native';
import { drafted } from '@/store/drafts-slice';
import { openPage } from '@/testing/open-page';
import { Shop } from './shop';

const mockWent: string[] = [];
jest.mock('expo-router', () => ({
  Link: 'Link',
  useRouter: () => ({ replace: (to: string) => mockWent.push(to) }),
}));

/** The page of the shop before the server has answered anything. */
async function open() {
  mockWent.length = 0;
  globalThis.fetch = (async (input: URL | string) =>
    String(input).endsWith('/api/session') ? Response.json({}) : new Promise(() => undefined)) as typeof fetch;
  return (await openPage(<Shop />)).store;
}
const press = (testID: string) => act(async () => void fireEvent.press(screen.getByTestId(testID)));

test('what arrives later stands below the way out, which would slide away under the finger otherwise', async () => {
  await open();
  const [first, ...later] = screen.getAllByText(/^Sign out|^Loading/).map(({ props }) => String(props.children));
  expect(first).toMatch(/^Sign out Mara/);
  expect(later.length).toBeGreaterThan(1);
});

test('who signs out with something half typed is asked first; what is not kept is gone', async () => {
  const store = await open();
  await act(async () => void store.dispatch(drafted({ place: 'card', draft: { centreline: '10' } })));
  await press('sign-out');
  expect(screen.getByTestId('half-typed')).toHaveTextContent(/Something is half typed on this device/);
  expect(mockWent).toEqual([]);
  await press('sign-out-forget');
  expect(mockWent).toEqual(['/sign-in']);
  expect(store.getState()).toMatchObject({ drafts: {}, session: { account: null } });
});
