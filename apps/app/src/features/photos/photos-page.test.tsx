import { act, fireEvent, screen } from '@testing-library/react-native';
import { book, id } from '@yosoku/core/testing/book';
import { makePhoto } from '@/photos/make-photo';
import { keepPhoto } from '@/store/photo-storage';
import { openStation } from '@/testing/open-station';
import { PhotosPage } from './photos-page';

jest.mock('@/photos/make-photo', () => ({ makePhoto: jest.fn() }));
jest.mock('@/photos/use-picture', () => ({ usePicture: () => ({ state: 'offline' }) }));
jest.mock('@/store/photo-storage', () => ({
  readWaitingPhotos: async () => [],
  keepPhoto: jest.fn(async () => undefined),
  forgetSeenPhotos: async () => undefined,
}));
// The browser's own field cannot be drawn here: pressed, it hands over what was chosen.
jest.mock('@/ui/file-field', () => {
  const { Text } = jest.requireActual<typeof import('react-native')>('react-native');
  return {
    FileField: ({ testID, onFile }: { testID: string; onFile: (file: unknown) => void }) => (
      <Text testID={testID} onPress={() => onFile({ name: 'a.jpg' })}>
        choose
      </Text>
    ),
  };
});
const PICTURE = 'ab'.repeat(32);
const made = { ok: true, picture: PICTURE, bytes: new Blob(['x']), width: 20, height: 10 } as const;

function readJob() {
  const job = book();
  const reading = job.reading(job.proved(), id(), 'opening', 64);
  return { ...job, reading };
}
const add = () => act(async () => void fireEvent.press(screen.getByTestId('add-photo')));

test('a photo of the wheel belongs to the newest reading until it is said otherwise; it can be described anew and taken out', async () => {
  jest.mocked(makePhoto).mockResolvedValue(made);
  const job = readJob();
  const at = await openStation('photos', PhotosPage, job.entries);
  expect(at.words()).toContain('No photos yet');
  await at.choose('photo-shows', 'Wheel');
  await at.type('photo-words', 'Second opening');
  await add();
  expect(at.last()).toMatchObject({
    kind: 'photo.taken',
    body: {
      picture: PICTURE,
      width: 20,
      height: 10,
      bytes: 1,
      shows: 'wheel',
      of: job.reading,
      words: 'Second opening',
    },
  });
  expect(keepPhoto).toHaveBeenCalledWith(expect.objectContaining({ picture: PICTURE }), made.bytes, true);
  // The form is empty for the next one; the photo says where it is.
  expect(screen.getByTestId('photo-words').props.value).toBe('');
  expect(at.words()).toContain('The photo is on the server, which cannot be reached.');

  await at.press('photo-change');
  const [, inCard] = screen.getAllByTestId('photo-words');
  if (!inCard) throw new Error('the photo has no fields of its own');
  await act(async () => void fireEvent.changeText(inCard, ''));
  await at.press('photo-changed');
  expect(at.report().photos.taken).toMatchObject([{ picture: PICTURE, words: null, of: job.reading }]);
  await at.press('photo-out');
  expect(at.report().photos.taken).toEqual([]);
});

test('a file that is no photo, and a device without room, are said and nothing is written; what was typed stays', async () => {
  const job = readJob();
  const at = await openStation('photos', PhotosPage, job.entries);
  const before = at.entries().length;
  await at.type('photo-words', 'Scored');
  jest.mocked(makePhoto).mockResolvedValue({ ok: false, message: '“a.jpg” is no picture.' });
  await add();
  expect(at.words()).toContain('“a.jpg” is no picture.');
  jest.mocked(makePhoto).mockResolvedValue(made);
  jest.mocked(keepPhoto).mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'));
  await add();
  expect(at.words()).toContain('no room for the photo');
  expect(at.entries()).toHaveLength(before);
  expect(screen.getByTestId('photo-words').props.value).toBe('Scored');
});
