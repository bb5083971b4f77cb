import { act, fireEvent, screen } from '@testing-library/react-native';
import { ACCOUNT } from '@/testing/account';
import { openPage } from '@/testing/open-page';
import { Pair } from './pair';

const mockWent: string[] = [];
jest.mock('expo-router', () => ({
  Link: 'Link',
  useRouter: () => ({ replace: (to: string) => mockWent.push(to) }),
  useLocalSearchParams: () => ({}),
}));

type Answers = Readonly<Record<string, () => Response>>;

/** A phone whose camera has read an address; the server answers by the end of the path that is asked. */
async function open(token: string, answers: Answers, someoneHere = false) {
  jest.useFakeTimers({ doNotFake: ['nextTick', 'queueMicrotask', 'setImmediate'] });
  mockWent.length = 0;
  Object.assign(globalThis, { location: { hash: token === '' ? '' : `#${token}`, origin: 'http://127.0.0.1' } });
  const asked: string[] = [];
  const now = { ...answers };
  globalThis.fetch = (async (input: URL | string) => {
    const path = String(input).split('/').at(-1) ?? '';
    asked.push(path);
    const answer = now[path];
    if (!answer) throw new TypeError('no network');
    return answer();
  }) as typeof fetch;
  const { store } = await openPage(<Pair />, someoneHere ? ACCOUNT : null);
  return {
    asked,
    store,
    nowAnswers: (more: Answers) => Object.assign(now, more),
    later: (ms: number) => act(async () => void (await jest.advanceTimersByTimeAsync(ms))),
  };
}
const CLAIMED: Answers = {
  claim: () =>
    Response.json({ secret: 's'.repeat(32), figure: '482', builderName: 'Mara', shopName: ACCOUNT.shopName }),
  finish: () => Response.json({ at: null }),
};
afterEach(() => Reflect.deleteProperty(globalThis, 'location'));

test('the number of the bench is shown until it lets the phone in; then the page of the bench opens, signed in', async () => {
  const { later, nowAnswers, store } = await open('token', CLAIMED);
  expect(screen.getByTestId('pair-waiting')).toHaveTextContent(/Mara, Fennel Yard.*same number/);
  await later(2100);
  expect(mockWent).toEqual([]);
  nowAnswers({ finish: () => Response.json({ at: '/builds/x/read' }), session: () => Response.json(ACCOUNT) });
  await later(1100);
  expect(mockWent).toEqual(['/builds/x/read']);
  expect(store.getState().session.account?.builderName).toBe('Mara');
});

test('a code that is used up is refused in the server’s words, and the other way in is offered', async () => {
  const { asked, later } = await open('token', {
    claim: () => Response.json({ detail: 'This code was used already.' }, { status: 410 }),
  });
  expect(screen.getByTestId('pair-refused')).toHaveTextContent(/This code was used already\./);
  await later(5000);
  // It is of one use: it is not tried again by itself.
  expect(asked).toEqual(['claim']);
});

test('without the network of the shop it says so, and tries again at a press', async () => {
  const { nowAnswers } = await open('token', {});
  expect(screen.getByText('The server cannot be reached.')).toBeTruthy();
  nowAnswers(CLAIMED);
  await act(async () => void fireEvent.press(screen.getByTestId('claim-again')));
  expect(screen.getByTestId('pair-waiting')).toBeTruthy();
});

test('an address without a code, and a phone on which somebody is signed in, ask the server nothing', async () => {
  const { asked } = await open('', CLAIMED);
  expect(screen.getByText('There is no code in this address.')).toBeTruthy();
  screen.unmount();
  const other = await open('token', CLAIMED, true);
  expect(screen.getByTestId('other-account')).toHaveTextContent(/Mara of Fennel Yard is signed in on this phone/);
  expect([...asked, ...other.asked]).toEqual([]);
});
