import { photosWait } from '@/store/photos-slice';
import { selectOwnPhotosWaiting } from '@/store/selectors';
import { signedIn } from '@/store/session-slice';
import { makeStore } from '@/store/store';
import { ACCOUNT } from '@/testing/account';
import { postPhotos } from './post-photos';

const kept = new Map<string, Blob>();
const mockKept = kept;
jest.mock('@/store/photo-storage', () => ({
  readWaitingPhotos: async () => [],
  readPhoto: async ({ picture }: { picture: string }) => mockKept.get(picture) ?? null,
  photoArrived: async () => undefined,
  forgetSeenPhotos: async () => undefined,
}));

const name = (picture: string, shopId: string = ACCOUNT.shopId) => ({ shopId, buildId: 'b', picture });

/** A server that answers to each picture as it is told; what it got, in order. */
function serverThat(answers: Readonly<Record<string, number>>) {
  const sent: string[] = [];
  globalThis.fetch = (async (input: URL | string, init?: RequestInit) => {
    const picture = String(input).split('/').at(-1) ?? '';
    sent.push(`${init?.method} ${picture}`);
    const status = answers[picture] ?? 204;
    const detail = JSON.stringify({ detail: `no to ${picture}` });
    return new Response(status === 204 ? null : detail, { status });
  }) as typeof fetch;
  return sent;
}

function storeWith(...pictures: readonly string[]) {
  const store = makeStore();
  store.dispatch(signedIn(ACCOUNT));
  for (const picture of pictures) kept.set(picture, new Blob([picture]));
  store.dispatch(photosWait([...pictures.map((picture) => name(picture)), name('theirs', 'other-shop')]));
  return { store, waiting: () => selectOwnPhotosWaiting(store.getState()) };
}

test('pictures are sent one by one; one that is refused, or gone from the device, is put aside with its reason', async () => {
  const sent = serverThat({ two: 422 });
  const { store, waiting } = storeWith('one', 'two', 'three');
  store.dispatch(photosWait([name('gone')]));
  expect(await postPhotos(store)).toBe('done');
  expect(sent).toEqual(['PUT one', 'PUT two', 'PUT three']);
  expect(waiting()).toMatchObject([
    { picture: 'two', refused: 'no to two' },
    { picture: 'gone', refused: expect.stringContaining('no longer on this device') },
  ]);
  // What was put aside is not tried again by itself.
  expect(await postPhotos(store)).toBe('done');
  expect(sent).toHaveLength(3);
});

test('a server that fails at one gets the others, and is asked again; one that asks who is there ends the round', async () => {
  const sent = serverThat({ one: 500 });
  const { store, waiting } = storeWith('one', 'two');
  expect(await postPhotos(store)).toBe('unreachable');
  expect(sent).toEqual(['PUT one', 'PUT two']);
  expect(waiting()).toEqual([name('one')]);

  serverThat({ one: 401 });
  expect(await postPhotos(store)).toBe('signed-out');
  expect(store.getState().session.lapsed).toBe(true);
  expect(waiting()).toEqual([name('one')]);
});
