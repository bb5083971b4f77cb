import { act, screen } from '@testing-library/react-native';
import { derive } from '@yosoku/core/report/report';
import { BUILD, book } from '@yosoku/core/testing/book';
import { provideArithmetic } from '@/store/arithmetic';
import { received } from '@/store/logbook-slice';
import type { Store } from '@/store/store';
import { openPage } from '@/testing/open-page';
import { EntriesPage } from './entries-page';

const mockBuild = BUILD;
jest.mock('expo-router', () => ({ Link: 'Link', useLocalSearchParams: () => ({ id: mockBuild }) }));
const mockFetch = jest.fn<Promise<string>, [Store]>();
jest.mock('@/sync/fetch-builds', () => ({ fetchEntries: (store: Store) => mockFetch(store) }));
jest.mock('@/sync/follow-build', () => ({ followBuild: () => () => undefined }));

test('opened by its address the logbook is fetched, and each entry stands with what it changed', async () => {
  const job = book();
  job.proved();
  provideArithmetic({ derive, checkEntry: () => null, isUndoable: () => false });
  let answer = (): void => undefined;
  mockFetch.mockImplementation(
    (store) =>
      new Promise((resolve) => {
        answer = () => {
          store.dispatch(
            received({ buildId: BUILD, entries: job.entries.map((each, at) => ({ ...each, seq: at + 1 })) }),
          );
          resolve('fresh');
        };
      }),
  );
  await openPage(<EntriesPage />);
  expect(screen.getByText('Loading the build')).toBeTruthy();
  await act(async () => answer());
  expect(screen.getByText('1 build.described')).toBeTruthy();
  expect(screen.getByText(`${job.entries.length} zero.reading`)).toBeTruthy();
  expect(screen.getByText(/^→ zero: .*proved/)).toBeTruthy();
});

test('a build of nobody here is said to be missing', async () => {
  provideArithmetic({ derive, checkEntry: () => null, isUndoable: () => false });
  mockFetch.mockResolvedValue('missing');
  await openPage(<EntriesPage />);
  expect(screen.getByText('There is no such build in your shop.')).toBeTruthy();
});
