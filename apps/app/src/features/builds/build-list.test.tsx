import { act, screen } from '@testing-library/react-native';
import { listed, type BuildSummary } from '@/store/logbook-slice';
import type { Store } from '@/store/store';
import type { FetchOutcome } from '@/sync/fetch-builds';
import { ACCOUNT } from '@/testing/account';
import { openPage } from '@/testing/open-page';
import { BuildList } from './build-list';

jest.mock('expo-router', () => {
  const { Text } = jest.requireActual<typeof import('react-native')>('react-native');
  return { Link: Text, useRouter: () => ({ push: () => undefined }) };
});
const mockFetch = jest.fn<Promise<FetchOutcome>, [Store]>();
jest.mock('@/sync/fetch-builds', () => ({ fetchBuilds: (store: Store) => mockFetch(store) }));

const build = (more: Partial<BuildSummary>): BuildSummary => ({
  id: '00000000-0000-4000-8000-00000000b17d',
  name: 'Tansy Bank four',
  headline: 'TDC is proved.',
  updatedAt: '2026-03-14T09:26:53Z',
  ...more,
});

/** @param answers what the server says each time: its list, or that it cannot be reached */
async function open(...answers: readonly (readonly BuildSummary[] | 'unreachable' | 'never')[]) {
  jest.useFakeTimers({ doNotFake: ['nextTick', 'queueMicrotask', 'setImmediate'] });
  let asked = 0;
  mockFetch.mockReset();
  mockFetch.mockImplementation(async (store) => {
    const answer = answers[Math.min(asked, answers.length - 1)];
    asked += 1;
    if (answer === 'never') return new Promise(() => undefined);
    if (answer === undefined || answer === 'unreachable') return 'unreachable';
    store.dispatch(listed({ shopId: ACCOUNT.shopId, builds: answer }));
    return 'fresh';
  });
  await openPage(<BuildList />);
  return { later: (ms: number) => act(async () => void (await jest.advanceTimersByTimeAsync(ms))), asked: () => asked };
}
const links = () => screen.getAllByTestId('build').map(({ props }) => props.href as string);

test('loading, a shop without a build, and a server that cannot be reached are three different things', async () => {
  await open('never');
  expect(screen.getByText('Loading the builds.')).toBeTruthy();
  screen.unmount();
  await open([]);
  expect(screen.getByTestId('first-practice').props.href).toBe('/practice?begin=find-tdc');
  screen.unmount();
  await open('unreachable');
  expect(screen.getByText(/You can begin a new one all the same/)).toBeTruthy();
  expect(screen.queryByTestId('first-practice')).toBeNull();
});

test('each build leads to where its work is, and says how it stands', async () => {
  await open([
    build({ place: 'read' }),
    build({ id: '00000000-0000-4000-8000-00000000b17e', name: 'Sedge twin', headline: 'Signed by Mara.' }),
  ]);
  // Without a place of its own, as an older server has it, the verdict is what one looks for.
  expect(links()).toEqual([
    '/builds/00000000-0000-4000-8000-00000000b17d/read',
    '/builds/00000000-0000-4000-8000-00000000b17e/decide',
  ]);
  expect(screen.getByText('Signed by Mara.')).toBeTruthy();
});

test('what the server still works out is said, and asked for again, more and more rarely, until it is there', async () => {
  const { later, asked } = await open([build({ behind: true })], [build({ behind: true })], [build({})]);
  expect(screen.getByText('TDC is proved. New entries are being worked out.')).toBeTruthy();
  await later(700);
  expect(asked()).toBe(2);
  await later(700);
  expect(asked()).toBe(2);
  await later(700);
  expect(screen.getByText('TDC is proved.')).toBeTruthy();
  await later(60_000);
  expect(asked()).toBe(3);
});
