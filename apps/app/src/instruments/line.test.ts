import { openLine } from './line';

/** A socket of the browser that a check opens and cuts. */
class Socket extends EventTarget {
  static readonly OPEN = 1;
  static made: Socket[] = [];
  readyState = 0;
  readonly said: string[] = [];
  constructor(readonly url: string) {
    super();
    Socket.made.push(this);
  }
  send(text: string): void {
    this.said.push(text);
  }
  close(): void {
    this.cut();
  }
  open(): void {
    this.readyState = Socket.OPEN;
    this.dispatchEvent(new Event('open'));
  }
  hear(data: string): void {
    this.dispatchEvent(new MessageEvent('message', { data }));
  }
  cut(): void {
    this.readyState = 3;
    this.dispatchEvent(Object.assign(new Event('close'), { code: 1006, reason: '' }));
  }
}

beforeEach(() => {
  jest.useFakeTimers();
  Socket.made = [];
  Object.assign(globalThis, { WebSocket: Socket, location: { origin: 'https://bench.local:8787' } });
});
afterEach(() => jest.useRealTimers());

const newest = (): Socket => Socket.made.at(-1) as Socket;

test('a line that breaks comes back by itself, each time after a longer pause, at most five seconds; an attempt that nobody answers is given up; once closed it stays so', async () => {
  const heard: string[] = [];
  let changes = 0;
  const line = openLine('/instruments/bench/listen', {
    onOpen: () => line.say({ begin: true }),
    onWords: (words) => heard.push(words),
    onChange: () => (changes += 1),
  });
  await jest.advanceTimersByTimeAsync(0);
  expect(newest().url).toBe('wss://bench.local:8787/api/instruments/bench/listen');
  line.say({ lost: true });
  expect(newest().said).toEqual([]);
  newest().open();
  newest().hear('A 12.5\nA 12.6');
  expect([line.link(), heard, newest().said, changes]).toEqual(['open', ['A 12.5', 'A 12.6'], ['{"begin":true}'], 2]);

  await jest.advanceTimersByTimeAsync(0);
  const pauses = [400, 800, 1600, 3200, 5000, 5000];
  for (const [times, pause] of pauses.entries()) {
    newest().cut();
    expect(line.link()).toBe('broken');
    await jest.advanceTimersByTimeAsync(pause - 1);
    expect(Socket.made).toHaveLength(times + 1);
    await jest.advanceTimersByTimeAsync(1);
    expect(Socket.made).toHaveLength(times + 2);
  }
  newest().open();
  expect(line.link()).toBe('open');
  // It was open again: the next break is the first one.
  await jest.advanceTimersByTimeAsync(0);
  newest().cut();
  await jest.advanceTimersByTimeAsync(400);
  expect(Socket.made).toHaveLength(pauses.length + 2);
  // That attempt is left hanging, as by a network that swallows it.
  await jest.advanceTimersByTimeAsync(10_000);
  expect(Socket.made.length).toBeGreaterThan(pauses.length + 2);
  const made = Socket.made.length;
  line.close();
  line.say({ late: true });
  await jest.advanceTimersByTimeAsync(60_000);
  expect([Socket.made.length, newest().said]).toEqual([made, []]);
});
