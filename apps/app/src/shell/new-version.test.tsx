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

/** A page of one version while the next one waits. */
async function open(path: string) {
  mockPath = path;
  const waiting = new Version();
  const registration = Object.assign(new Tells(), { waiting, installing: null, update: async () => undefined });
  const serviceWorker = Object.assign(new Tells(), { controller: new Version(), register: async () => registration });
  const reload = jest.fn();
  Object.assign(globalThis, { __DEV__: false, location: { reload }, navigator: { serviceWorker } });
  render(
    <Provider store={makeStore()}>
      <NewVersion />
    </Provider>,
  );
  await act(async () => undefined);
  return { waiting, serviceWorker, reload };
}
beforeEach(() => jest.useFakeTimers());
afterEach(() => {
  jest.useRealTimers();
  Object.assign(globalThis, { __DEV__: true });
});

test('a version is taken by its own word, whether or not the browser hands this page over to it', async () => {
  const { waiting, reload } = await open('/builds/a/sheet');
  await act(async () => void fireEvent.press(screen.getByTestId('take-version')));
  expect(waiting.heard).toEqual([{ type: 'take-over' }]);
  // A browser that is busy may lose it: it is said again.
  await act(async () => void jest.advanceTimersByTime(7_000));
  expect(waiting.heard).toHaveLength(3);
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
