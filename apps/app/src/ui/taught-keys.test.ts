import { pressedBy, teach } from './taught-keys';

const key = (code: string, at: number, more = {}): KeyboardEvent =>
  ({ code, key: code.replace('Key', ''), timeStamp: at, repeat: false, ...more }) as KeyboardEvent;

afterEach(() => teach({}));

test('a taught key does what its bench key does; every other stays what it is', () => {
  teach({ record: 'PageDown', undo: 'KeyB' });
  expect(pressedBy(key('PageDown', 1_000))).toEqual({ key: 'Enter', taught: true });
  expect(pressedBy(key('KeyB', 2_000))).toEqual({ key: 'u', taught: true });
  expect(pressedBy(key('KeyN', 3_000))).toEqual({ key: 'n', taught: false });
});

test('a pedal that sends two keys, or is held down, acts once; whoever asks twice hears the same', () => {
  teach({ record: 'PageDown' });
  const first = key('PageDown', 10_000);
  expect(pressedBy(first)).toEqual(pressedBy(first));
  expect(pressedBy(key('Enter', 10_020))).toBeNull();
  expect(pressedBy(key('PageDown', 10_600, { repeat: true }))).toBeNull();
  expect(pressedBy(key('PageDown', 11_000))).toEqual({ key: 'Enter', taught: true });
});
