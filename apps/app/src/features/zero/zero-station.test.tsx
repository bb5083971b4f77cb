import { screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { openStation } from '@/testing/open-station';
import { ZeroStation } from './zero-station';

test('empty', async () => {
  const here = await openStation('zero', ZeroStation, book().entries);
  console.log(here.words());
  expect(screen.getByTestId('sentence')).toBeTruthy();
});
