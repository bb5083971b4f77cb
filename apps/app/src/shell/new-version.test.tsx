import { act, fireEvent, render, screen } from '@testing-library/react-native';
import { Provider } from 'react-redux';
import { makeStore } from '@/store/store';
import { NewVersion } from './new-version';

let mockPath = '/builds/a/sheet';
jest.mock('expo-router', () => ({ usePathname: () => mockPath }));

/** Something of the browser that tells of itself, and that a check moves on. */
class Tells {
  readonly followers = new Map<string, Set<() => void>>();
  addEventListener(what: string, each: () => void): void {
    this.followers.set(what, (this.followers.get(what) ?? new Set()).add(each));
  }
  removeEventListener(what: string, each: () => void): void {
    this.followers.get(what)?.delete(each);
  }
  tell(what: string): void {
    for (const each of this.followers.get(what) ?? []) each();
  }
}
class Version extends Tells {
  state = 'installed';
  readonly heard: unknown[] = [];
  postMessage(message: unknown): void {
    this.heard.push(message);
  }
  become(state: string): void {
    this.state = state;
    this.tell('statechange');
  }
}

/** What the window keeps over its reloads. */
const kept = new Map<string, string>();
const sessionStorage = {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => void kept.set(key, value),
  removeItem: (key: string) => void kept.delete(key),
};

const store = makeStore();
const Page = () => (
  <Provider store={store}>
    <NewVersion />
  </Provider>
);

/** A page of one version while the next one waits. */
async function open(path: string) {
  mockPath = path;
  const waiting = new Version();
  const registration = Object.assign(new Tells(), { waiting, installing: null, update: async () => undefined });
  const serviceWorker = Object.assign(new Tells(), { controller: new Version(), register: async () => registration });
  const reload = jest.fn();
  Object.assign(globalThis, { __DEV__: false, location: { reload }, navigator: { serviceWorker }, sessionStorage });
  const { unmount } = render(<Page />);
  await act(async () => undefined);
  return { waiting, serviceWorker, reload, unmount };
}
beforeEach(() => {
  kept.clear();
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
  Object.assign(globalThis, { __DEV__: true });
});

test('a version is taken by its own word, whether or not the browser hands this page over to it', async () => {
  const { waiting, reload } = await open('/builds/a/sheet');
  await act(async () => void fireEvent.press(screen.getByTestId('take-version')));
  expect(waiting.heard).toEqual([{ type: 'take-over' }]);
  // A browser that is busy may lose it: it is said again.
  await act(async () => void jest.advanceTimersByTime(4_000));
  expect(waiting.heard).toHaveLength(2);
  await act(async () => waiting.become('activating'));
  expect(reload).not.toHaveBeenCalled();
  await act(async () => waiting.become('activated'));
  expect(reload).toHaveBeenCalled();
});

test('nothing is offered with hands on the engine; another window that takes it does not pull this page away', async () => {
  const { waiting, serviceWorker, reload } = await open('/builds/a/read');
  expect(screen.queryByTestId('new-version')).toBeNull();
  await act(async () => {
    waiting.become('activated');
    serviceWorker.tell('controllerchange');
  });
  expect(reload).not.toHaveBeenCalled();
});

test('where nobody stands to press it, it is taken when it comes', async () => {
  const { waiting, serviceWorker, reload } = await open('/board');
  expect(waiting.heard).toEqual([{ type: 'take-over' }]);
  await act(async () => serviceWorker.tell('controllerchange'));
  expect(reload).toHaveBeenCalled();
});

test('a version that something on this page holds back is taken by leaving the page, and gone on with after it', async () => {
  const before = await open('/builds/a/sheet');
  await act(async () => void fireEvent.press(screen.getByTestId('take-version')));
  await act(async () => void jest.advanceTimersByTime(6_000));
  expect(before.reload).toHaveBeenCalledTimes(1);
  before.unmount();

  // Came back, and it still waits: nobody has to press again.
  const after = await open('/builds/a/sheet');
  expect(after.waiting.heard).toEqual([{ type: 'take-over' }]);
  await act(async () => after.waiting.become('activated'));
  expect(after.reload).toHaveBeenCalledTimes(1);
});

test('a page that came back offers the version after that, and does not take it by itself; nor with hands on the engine', async () => {
  const before = await open('/builds/a/sheet');
  await act(async () => void fireEvent.press(screen.getByTestId('take-version')));
  await act(async () => void jest.advanceTimersByTime(6_000));
  before.unmount();
  const { waiting, reload } = await open('/builds/a/read');
  await act(async () => void jest.advanceTimersByTime(12_000));
  mockPath = '/builds/a/sheet';
  screen.rerender(<Page />);
  await act(async () => void jest.advanceTimersByTime(30_000));
  expect(waiting.heard).toEqual([]);
  expect(reload).not.toHaveBeenCalled();
  expect(screen.getByTestId('new-version')).toHaveTextContent(/A new version is here/);
});

test('what another window holds back is said; the page does not reload for ever', async () => {
  let reloads = 0;
  for (;;) {
    const { reload, unmount } = await open('/board');
    await act(async () => void jest.advanceTimersByTime(60_000));
    unmount();
    if (reload.mock.calls.length === 0) break;
    reloads += 1;
  }
  expect(reloads).toBe(3);
  for (let left = 0; left < 3; left += 1) {
    const { unmount } = await open('/builds/a/sheet');
    if (left === 0) await act(async () => void fireEvent.press(screen.getByTestId('take-version')));
    await act(async () => void jest.advanceTimersByTime(6_000));
    unmount();
  }
  await open('/builds/a/sheet');
  expect(screen.getByTestId('new-version')).toHaveTextContent(/Close the other windows/);
});
