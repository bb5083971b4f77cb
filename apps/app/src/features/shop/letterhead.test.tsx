import { act, fireEvent, screen } from '@testing-library/react-native';
import { LOGO_BYTES } from '@yosoku/core/paper/letterhead';
import type { Store } from '@/store/store';
import { ACCOUNT } from '@/testing/account';
import { openPage } from '@/testing/open-page';
import { Letterhead } from './letterhead';

let mockFile: object = {};
// The browser's own field cannot be drawn here: pressed, it hands over what was chosen.
jest.mock('@/ui/file-field', () => {
  const { Text } = jest.requireActual<typeof import('react-native')>('react-native');
  return {
    FileField: ({ testID, onFile }: { testID: string; onFile: (file: unknown) => void }) => (
      <Text testID={testID} onPress={() => onFile(mockFile)}>
        choose
      </Text>
    ),
  };
});

/** A server that keeps lines, and answers to a logo as it is told; what it was sent. */
function serverWith(words: string, logo = 200) {
  const kept = { words };
  const sent: string[] = [];
  globalThis.fetch = (async (input: URL | string, init?: RequestInit) => {
    const path = new URL(String(input), 'http://localhost').pathname;
    if (init?.method !== undefined && init.method !== 'GET') sent.push(`${init.method} ${path}`);
    if (path === '/api/shop/logo') return Response.json({ detail: 'There is script in it.' }, { status: logo });
    if (init?.method === 'PUT') kept.words = (JSON.parse(String(init.body)) as { words: string }).words;
    return Response.json({ ...kept, logo: { kind: 'svg', width: 40, height: 30 } });
  }) as typeof fetch;
  return sent;
}

const open = (role: 'owner' | 'builder' = 'owner', store?: Store) =>
  openPage(<Letterhead />, { ...ACCOUNT, role }, store);
const press = (testID: string) => act(async () => void fireEvent.press(screen.getByTestId(testID)));
const type = (text: string) => act(async () => void fireEvent.changeText(screen.getByTestId('letterhead-words'), text));

test('lines that were half typed stand there again; five are refused at the field, and what is saved is seen as on paper', async () => {
  const sent = serverWith('Lower Sallow');
  const first = await open();
  await press('more-letterhead');
  await type('a\nb\nc\nd\ne');
  await press('letterhead-save');
  screen.getByText('at most 4 lines have room');
  expect(sent).toEqual([]);
  await type('Under the clock\nBracken');
  await act(async () => first.close());
  await open('owner', first.store);
  await press('more-letterhead');
  expect(screen.getByTestId('letterhead-words').props.value).toBe('Under the clock\nBracken');
  await press('letterhead-save');
  expect(sent).toEqual(['PUT /api/shop/letterhead']);
  expect(screen.getByTestId('letterhead-paper')).toHaveTextContent(/Fennel Yard\s*Under the clock\s*Bracken/);
  expect(first.store.getState().drafts.letterhead).toBeUndefined();
});

test('a logo that is too large is not even sent; what the server says against one stands there; a builder only looks', async () => {
  const sent = serverWith('Lower Sallow', 422);
  const { close } = await open();
  await press('more-letterhead');
  mockFile = { name: 'large.png', size: 30 * LOGO_BYTES };
  await press('logo-file');
  expect(screen.getByTestId('logo-trouble')).toHaveTextContent(/“large\.png” has 30\.0 MB, and a logo at most 1/);
  expect(sent).toEqual([]);
  mockFile = { name: 'small.svg', size: 200 };
  await press('logo-file');
  expect(sent).toEqual(['PUT /api/shop/logo']);
  expect(screen.getByTestId('logo-trouble')).toHaveTextContent('There is script in it.');
  await act(async () => close());
  await open('builder');
  expect(screen.getByTestId('letterhead-paper')).toHaveTextContent(/Lower Sallow/);
  expect(screen.queryByTestId('more-letterhead')).toBeNull();
});
