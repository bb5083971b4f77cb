import { act, fireEvent, render, screen } from '@testing-library/react-native';
import { Provider } from 'react-redux';
import { selectSettings } from '@/store/settings-slice';
import { makeStore } from '@/store/store';
import { keyDown } from '@/testing/setup';
import { ThisDevice } from './this-device';

jest.mock('expo-router', () => ({ Link: () => null }));

function open() {
  jest.useFakeTimers();
  const store = makeStore();
  render(
    <Provider store={store}>
      <ThisDevice />
    </Provider>,
  );
  return { settings: () => selectSettings(store.getState()) };
}
const press = (testID: string): void => void act(() => void fireEvent.press(screen.getByTestId(testID)));
const key = (code: string): void => act(() => void keyDown(code, { code, timeStamp: 1 }));
const wait = (): void => act(() => void jest.advanceTimersByTime(400));

test('a pedal is taught by pressing it; one key does one thing', () => {
  const here = open();
  press('teach-record');
  key('PageDown');
  wait();
  expect(here.settings().keys).toEqual({ record: 'PageDown' });
  press('teach-undo');
  key('PageDown');
  wait();
  expect(here.settings().keys).toEqual({ undo: 'PageDown' });
  press('teach-undo');
  expect(here.settings().keys).toEqual({});
});

test('a pedal that sends two keys is said to, and works by the first', () => {
  const here = open();
  press('teach-take');
  key('KeyB');
  key('Enter');
  wait();
  expect(screen.getByTestId('taught-said')).toHaveTextContent(/sends two keys, KeyB and Enter/);
  expect(here.settings().keys).toEqual({ take: 'KeyB' });
});

test('a key that the browser needs is not taken, and Esc stops', () => {
  const here = open();
  press('teach-next');
  key('Tab');
  expect(screen.getByTestId('taught-said')).toHaveTextContent(/the browser needs it/);
  key('Escape');
  key('KeyB');
  wait();
  expect(here.settings().keys).toEqual({});
});

test('without a voice and without a way to stay awake it is said, and everything else can be set', () => {
  const here = open();
  expect(screen.getByTestId('not-awake')).toBeOnTheScreen();
  expect(screen.getByText('This browser has no voice.')).toBeOnTheScreen();
  expect(here.settings()).toMatchObject({ spoken: false, buzz: true, hand: 'right' });
});
