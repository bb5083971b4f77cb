import { act, fireEvent, screen } from '@testing-library/react-native';
import { checkEntry, isUndoable } from '@yosoku/core/record/check-entry';
import { derive } from '@yosoku/core/report/report';
import { provideArithmetic } from '@/store/arithmetic';
import { selectEntries } from '@/store/selectors';
import type { Store } from '@/store/store';
import { ACCOUNT } from '@/testing/account';
import { openPage } from '@/testing/open-page';
import { NewBuild } from './new-build';

const mockWent: string[] = [];
jest.mock('expo-router', () => ({ Link: 'Link', useRouter: () => ({ replace: (to: string) => mockWent.push(to) }) }));

function open(store?: Store) {
  mockWent.length = 0;
  provideArithmetic({ derive, checkEntry, isUndoable });
  return openPage(<NewBuild />, ACCOUNT, store);
}
const type = (field: string, text: string) =>
  act(async () => void fireEvent.changeText(screen.getByTestId(`engine-${field}`), text));
const begin = () => act(async () => void fireEvent.press(screen.getByTestId('begin')));
const written = (store: Store): number => store.getState().outbox.waiting.length;

test('a good form begins the build: its engine and its first trial are written, and the way leads to Zero', async () => {
  const { store } = await open();
  await type('name', ' Tansy Bank four ');
  await type('cylinders', '4');
  await type('firingOrder', '1-3-4-2');
  await type('stroke', '3.1 in');
  await type('rod', '5.2 in');
  await begin();
  const id = /^\/builds\/(.+)\/zero$/.exec(mockWent[0] ?? '')?.[1] ?? '';
  const [described, trial, ...more] = selectEntries(store.getState(), id);
  expect(described).toMatchObject({
    kind: 'build.described',
    builderId: ACCOUNT.builderId,
    body: { name: 'Tansy Bank four', engine: { firingOrder: [1, 3, 4, 2], stroke: 78.74, rod: 132.08 } },
  });
  expect([trial?.kind, more]).toEqual(['trial.begun', []]);
  // Nothing is left half typed for the next one.
  expect(store.getState().drafts).toEqual({});
});

test('what cannot be is said, nothing is written, and what was typed stays, also when the page is left and opened again', async () => {
  const { store, close } = await open();
  await type('name', 'Tansy Bank four');
  await type('cylinders', '4');
  await type('firingOrder', '1-3-3-2');
  await begin();
  expect(screen.getByText(/3 stands twice/)).toBeTruthy();
  expect([mockWent, written(store)]).toEqual([[], 0]);
  close();
  await open(store);
  expect(screen.getByTestId('engine-firingOrder').props.value).toBe('1-3-3-2');
  await type('firingOrder', '1-3-4-2');
  await begin();
  expect(mockWent).toHaveLength(1);
});
