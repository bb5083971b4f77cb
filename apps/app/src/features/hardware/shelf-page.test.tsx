import { act, fireEvent, screen } from '@testing-library/react-native';
import type { Piece } from '@/forms/hardware/use-shelf';
import { openPage } from '@/testing/open-page';
import { ShelfPage } from './shelf-page';

jest.mock('expo-router', () => ({ Link: 'Link', useRouter: () => ({ replace: () => undefined }) }));

const KNOWN: Piece = {
  id: '00000000-0000-4000-8000-00000000aaaa',
  name: 'Slotted wheel, left',
  hardware: { kind: 'slotted-pulley', stamped: 'cam', range: 6, scale: true },
  experience: [],
};

/** The shelf as a server keeps it, and what was sent to it. null: there is no server. */
async function open(pieces: readonly Piece[] | null) {
  const sent: { readonly method: string; readonly body: unknown }[] = [];
  globalThis.fetch = (async (input: URL | string, { method = 'GET', body }: RequestInit = {}) => {
    if (pieces === null) throw new TypeError('no network');
    if (method !== 'GET') sent.push({ method, body: JSON.parse(String(body)) as unknown });
    return Response.json(String(input).endsWith('/hardware') && method === 'GET' ? { pieces } : {});
  }) as typeof fetch;
  await openPage(<ShelfPage />);
  return sent;
}
const press = (testID: string) => act(async () => void fireEvent.press(screen.getByTestId(testID)));
const type = (testID: string, text: string) =>
  act(async () => void fireEvent.changeText(screen.getByTestId(testID), text));

test('a kind asks for its own figures, says what they make possible, and goes to the shelf as they were read', async () => {
  const sent = await open([]);
  expect(screen.getByText(/The shelf is empty/)).toBeTruthy();
  await press('shelf-new');
  await press('kind-hole-circle');
  await type('hardware-name', 'Vernier of the twin');
  await type('hardware-gear', '12');
  await type('hardware-hub', '13');
  // 720 / (12 · 13) is 4.62 crank degrees a step.
  expect(screen.getByTestId('understood')).toHaveTextContent(/\+1: \+4\.62 crank = \+2\.31 cam/);
  expect(screen.queryByTestId('hardware-stamped')).toBeNull();
  await press('shelf-keep');
  expect(sent).toEqual([
    {
      method: 'PUT',
      body: expect.objectContaining({
        name: 'Vernier of the twin',
        hardware: { kind: 'hole-circle', gear: 12, hub: 13 },
      }),
    },
  ]);
});

test('what is missing or cannot be is said at its field once it is to be saved, and nothing is sent', async () => {
  const sent = await open([]);
  await press('shelf-new');
  await press('kind-hole-circle');
  await type('hardware-gear', '12');
  await type('hardware-hub', '12');
  expect(screen.queryByText(/Give it a name/)).toBeNull();
  await press('shelf-keep');
  expect(screen.getByText(/Give it a name, as it hangs on the shelf/)).toBeTruthy();
  expect(screen.getByText(/same count give no finer step/)).toBeTruthy();
  expect(sent).toEqual([]);
});

test('a piece is corrected from what it is, under the id that it has', async () => {
  const sent = await open([KNOWN]);
  await act(async () => void fireEvent.press(screen.getByText('Correct Slotted wheel, left')));
  expect(screen.getByTestId('hardware-range').props.value).toBe('6');
  await type('hardware-range', '8');
  await press('shelf-keep');
  expect(sent[0]).toMatchObject({ method: 'PUT', body: { id: KNOWN.id, hardware: { ...KNOWN.hardware, range: 8 } } });
});

test('without a server it says so, and what was typed stays typed when it cannot be saved', async () => {
  await open(null);
  expect(screen.getByText(/The server cannot be reached just now/)).toBeTruthy();
  await press('shelf-new');
  await press('kind-taper');
  await type('hardware-name', 'Friction gear');
  await press('shelf-keep');
  expect(screen.getByRole('alert')).toHaveTextContent(/Nothing was changed on the shelf/);
  expect(screen.getByTestId('hardware-name').props.value).toBe('Friction gear');
});
