import { act, screen } from '@testing-library/react-native';
import { openPage } from '@/testing/open-page';
import { FileField } from '@/ui/file-field';
import { TakeInFile } from './import-file';

const mockWent: string[] = [];
jest.mock('expo-router', () => ({ Link: 'Link', useRouter: () => ({ push: (to: string) => mockWent.push(to) }) }));
jest.mock('@/sync/fetch-builds', () => ({ fetchBuilds: async () => undefined }));

const BUILD = '00000000-0000-4000-8000-00000000b17d';
const fileOf = (name: string, text: string, size = text.length): File =>
  ({ name, size, text: async () => text }) as unknown as File;

/** Chooses a file, as a builder does. @returns what was sent to the server */
async function choose(file: File, answer: () => Response): Promise<readonly string[]> {
  mockWent.length = 0;
  const sent: string[] = [];
  globalThis.fetch = (async (_input: URL | string, { body }: RequestInit = {}) => {
    sent.push(String(body));
    return answer();
  }) as typeof fetch;
  await openPage(<TakeInFile />);
  await act(async () => (screen.UNSAFE_getByType(FileField).props as { onFile: (file: File) => void }).onFile(file));
  return sent;
}
const said = (): string => JSON.stringify(screen.toJSON());

test('a build file goes to the server as it is, and its sheet is opened', async () => {
  const sent = await choose(fileOf('tansy.yosoku.json', '{"format":"yosoku"}'), () =>
    Response.json({ buildId: BUILD }),
  );
  expect(sent).toEqual(['{"format":"yosoku"}']);
  expect(mockWent).toEqual([`/builds/${BUILD}/sheet`]);
  expect(screen.queryByTestId('take-in-trouble')).toBeNull();
});

test('what the server refuses is said in its words, and nothing is opened', async () => {
  await choose(fileOf('tansy.json', '{'), () =>
    Response.json({ detail: 'Line 1, column 2: the file ends in the middle.' }, { status: 422 }),
  );
  expect(said()).toMatch(/“tansy\.json” was not imported\./);
  expect(said()).toMatch(/Line 1, column 2: the file ends in the middle\./);
  expect(mockWent).toEqual([]);
});

test('without a network it says that, and that nothing was changed', async () => {
  await choose(fileOf('tansy.json', '{}'), () => {
    throw new TypeError('no network');
  });
  expect(said()).toMatch(/the server cannot be reached/);
  expect(said()).toMatch(/Nothing was changed\./);
});

test.each([
  ['film.json', 17 * 1024 * 1024],
  ['film.zip', 300 * 1024 * 1024],
])('%s is larger than any build: it is not even read', async (name, size) => {
  const sent = await choose(fileOf(name, '', size), () => Response.json({}));
  expect(said()).toMatch(/no build is that large/);
  expect(sent).toEqual([]);
});
