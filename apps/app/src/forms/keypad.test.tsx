import { act, fireEvent, screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { openStation } from '@/testing/open-station';
import { ZeroStation } from '@/features/zero/zero-station';

test('keys that come faster than the screen can follow are all kept', async () => {
  const here = await openStation('zero', ZeroStation, book().entries);
  await act(async () => {
    for (const key of ['key-2', 'key-6', 'key-½', 'side-before', 'record']) fireEvent.press(screen.getByTestId(key));
  });
  expect(here.last()?.body).toMatchObject({ side: 'before', wheel: { shows: 26.5, side: 'before' } });
});
