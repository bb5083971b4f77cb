import { openLine } from './line';

/** A socket of the browser that a check opens and cuts. */
class Socket {
  static readonly OPEN = 1;
  static made: Socket[] = [];
  readyState = 0;
  readonly said: string[] = [];
  onopen = (): void => undefined;
  onmessage = (_event: { data: string }): void => undefined;
  onclose = (): void => undefined;
  constructor(readonly url: string) {
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
    this.onopen();
  }
  cut(): void {
    this.readyState = 3;
    this.onclose();
  }
}

beforeEach(() => {
  jest.useFakeTimers();
  Socket.made = [];
  Object.assign(globalThis, { WebSocket: Socket, location: { origin: 'https://bench.local:8787' } });
});
afterEach(() => jest.useRealTimers());

const newest = (): Socket => Socket.made.at(-1) as Socket;

test('a line that breaks comes back by itself, each time after a longer pause, at most five seconds; once closed it stays so', () => {
  const heard: string[] = [];
  let changes = 0;
  const line = openLine('/instruments/bench/listen', {
    onOpen: () => line.say({ begin: true }),
    onWords: (words) => heard.push(words),
    onChange: () => (changes += 1),
  });
  expect(newest().url).toBe('wss://bench.local:8787/api/instruments/bench/listen');
  line.say({ lost: true });
  expect(newest().said).toEqual([]);
  newest().open();
  newest().onmessage({ data: 'A 12.5\nA 12.6' });
  expect([line.link(), heard, newest().said, changes]).toEqual(['open', ['A 12.5', 'A 12.6'], ['{"begin":true}'], 2]);

  const pauses = [400, 800, 1600, 3200, 5000, 5000];
  for (const [times, pause] of pauses.entries()) {
    newest().cut();
    expect(line.link()).toBe('broken');
    jest.advanceTimersByTime(pause - 1);
    expect(Socket.made).toHaveLength(times + 1);
    jest.advanceTimersByTime(1);
    expect(Socket.made).toHaveLength(times + 2);
  }
  newest().open();
  expect(line.link()).toBe('open');
  // It was open again: the next break is the first one.
  newest().cut();
  jest.advanceTimersByTime(400);
  expect(Socket.made).toHaveLength(pauses.length + 2);
  line.close();
  jest.advanceTimersByTime(60_000);
  expect(Socket.made).toHaveLength(pauses.length + 2);
});
