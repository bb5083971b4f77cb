import { act, fireEvent, screen } from '@testing-library/react-native';
import type { FirstTyped } from '@/shell/first-form';
import { drafted } from '@/store/drafts-slice';
import { lapsed } from '@/store/session-slice';
import { makeStore } from '@/store/store';
import { ACCOUNT } from '@/testing/account';
import { openPage } from '@/testing/open-page';
import { SetUp } from './set-up';
import { SignIn } from './sign-in';
import { UseCode } from './use-code';

const mockWent: string[] = [];
jest.mock('expo-router', () => {
  const { Text } = jest.requireActual<typeof import('react-native')>('react-native');
  return {
    Link: 'Link',
    Redirect: ({ href }: { href: string }) => <Text testID="sent-on">{href}</Text>,
    useRouter: () => ({ replace: (to: string) => mockWent.push(to) }),
  };
});

/** What was typed on the page before the program was there; most often nothing. */
let mockFirst: FirstTyped | null = null;
jest.mock('@/shell/first-form', () => ({
  takeOverFirstForm: (goOn: (first: FirstTyped) => void) => void (mockFirst && goOn(mockFirst)),
}));
beforeEach(() => void (mockFirst = null));

type Answer = () => Response | Promise<Response>;

/** A server with a shop, or none yet, that answers to what opens a session as it is told; what it was sent. */
function serverThat(answers: Answer, { needed = false }: { readonly needed?: boolean } = {}) {
  mockWent.length = 0;
  const sent: unknown[] = [];
  globalThis.fetch = (async (input: URL | string, init?: RequestInit) => {
    const { pathname } = new URL(String(input), 'http://localhost');
    if (pathname === '/api/setup' && init?.method !== 'POST') return Response.json({ needed });
    if (pathname === '/api/password') return Response.json({ trouble: null });
    if (init?.method !== 'POST') return Response.json(ACCOUNT);
    sent.push(JSON.parse(String(init.body)));
    return answers();
  }) as typeof fetch;
  return sent;
}

const refused = (detail: string, fields: readonly { field: string; message: string }[] = []): Response =>
  Response.json({ detail, fields }, { status: 401 });
const type = (testID: string, text: string) =>
  act(async () => void fireEvent.changeText(screen.getByTestId(testID), text));
const press = (testID: string) => act(async () => void fireEvent.press(screen.getByTestId(testID)));
const shown = (testID: string): unknown => screen.getByTestId(testID).props.value;

test('a wrong password is told, and the name stands there still; the right one leads to the builds', async () => {
  const answers = [() => refused('Name or password is wrong.'), () => Response.json({})];
  const sent = serverThat(() => (answers.shift() ?? (() => Response.json({})))());
  const { store } = await openPage(<SignIn />, null);
  await type('sign-in-name', 'mara');
  await type('password', 'the wrong one');
  await press('sign-in');
  expect(screen.getByTestId('sign-in-trouble')).toHaveTextContent(/Name or password is wrong\./);
  expect([shown('sign-in-name'), mockWent, store.getState().session.account]).toEqual(['mara', [], null]);
  await type('password', 'under the long bench');
  await press('sign-in');
  expect(sent.at(-1)).toEqual({ signInName: 'mara', password: 'under the long bench' });
  expect(mockWent).toEqual(['/']);
  expect(store.getState().session.account).toMatchObject({ builderName: 'Mara' });
});

test('while the server is asked a second press sends nothing; without a network that is what is said', async () => {
  let answer: (response: Response) => void = () => undefined;
  const sent = serverThat(() => new Promise((resolve) => (answer = resolve)));
  await openPage(<SignIn />, null);
  await type('sign-in-name', 'mara');
  await type('password', 'under the long bench');
  await press('sign-in');
  await press('sign-in');
  expect(sent).toHaveLength(1);
  expect(screen.getByTestId('sign-in')).toHaveTextContent('Signing in');
  await act(async () => answer(new Response('', { status: 503 })));
  expect(screen.getByTestId('sign-in-trouble')).toHaveTextContent(/The server cannot be reached/);
});

test('who is signed in is led on, unless the sign-in has expired: then it says that nothing is lost', async () => {
  serverThat(() => Response.json({}));
  const { store, close } = await openPage(<SignIn />);
  expect(screen.getByTestId('sent-on')).toHaveTextContent('/');
  await act(async () => void store.dispatch(lapsed()));
  screen.getByText('Nothing is lost: what waits on this device is sent when you have signed in again.');
  await act(async () => close());
  serverThat(() => Response.json({}), { needed: true });
  await openPage(<SignIn />, null);
  expect(screen.getByTestId('sent-on')).toHaveTextContent('/setup');
});

test('a first visit: what the server says against a field stands at that field, and nothing typed is gone', async () => {
  serverThat(() => refused('That does not do.', [{ field: 'code', message: 'This is not the code of the terminal.' }]));
  await openPage(<SetUp />, null);
  await type('setup-code', 'ABCD');
  await type('setup-shopName', 'Fennel Yard');
  await type('setup-builderName', 'Mara');
  await type('setup-signInName', 'mara');
  await type('setup-password', 'under the long bench');
  await press('setup');
  screen.getByText('This is not the code of the terminal.');
  expect(screen.queryByText('That does not do.')).toBeNull();
  expect(['code', 'shopName', 'password'].map((name) => shown(`setup-${name}`))).toEqual([
    'ABCD',
    'Fennel Yard',
    'under the long bench',
  ]);
  expect(mockWent).toEqual([]);
});

test('a new password against a code: a code that is used up is told; a good one signs in, and no draft is lost by it', async () => {
  const answers = [() => refused('This code is used up. Ask for another one.'), () => Response.json({})];
  const sent = serverThat(() => (answers.shift() ?? (() => Response.json({})))());
  const store = makeStore();
  store.dispatch(drafted({ place: 'card', draft: { centreline: '10' } }));
  await openPage(<UseCode />, null, store);
  await type('code-signInName', 'mara');
  await type('code-code', 'WXYZ');
  await type('code-password', 'under the long bench');
  await press('use-code');
  expect(screen.getByTestId('code-trouble')).toHaveTextContent(/used up/);
  await type('code-code', 'STUV');
  await press('use-code');
  expect(sent.at(-1)).toEqual({ signInName: 'mara', code: 'STUV', password: 'under the long bench' });
  expect(mockWent).toEqual(['/']);
  expect(store.getState().drafts).toEqual({ card: { centreline: '10' } });
});

test('what was typed and sent before the program was there is sent by it, once, and stands there if it is refused', async () => {
  mockFirst = { signInName: 'mara', password: 'under the long bench', at: null, sent: true };
  const sent = serverThat(() => refused('Name or password is wrong.'));
  await openPage(<SignIn />, null);
  expect(sent).toEqual([{ signInName: 'mara', password: 'under the long bench' }]);
  screen.getByText('Name or password is wrong.');
  expect([shown('sign-in-name'), shown('password')]).toEqual(['mara', 'under the long bench']);
});
