import { act, render, screen } from '@testing-library/react-native';
import { derive } from '@yosoku/core/report/report';
import { boardOf } from '@yosoku/core/report/board';
import { book } from '@yosoku/core/testing/book';
import { BoardPage } from './board-page';

jest.mock('expo-router', () => ({ Link: 'Link' }));

type Answer = () => Response | Promise<Response>;

/** What the server answers each time that it is asked; the last one from then on. */
async function open(...answers: readonly Answer[]) {
  jest.useFakeTimers({ doNotFake: ['nextTick', 'queueMicrotask', 'setImmediate'] });
  let asked = 0;
  globalThis.fetch = (async () => {
    const answer = answers[Math.min(asked, answers.length - 1)];
    asked += 1;
    return answer?.();
  }) as typeof fetch;
  render(<BoardPage />);
  await act(async () => undefined);
  return {
    /** Until it asks again. */
    later: (seconds: number) => act(async () => void (await jest.advanceTimersByTimeAsync(1000 * seconds))),
    asked: () => asked,
  };
}

const screenOf = (board: unknown): Response =>
  Response.json({ version: 'a', screen: { name: 'Back wall', shopName: 'Fennel Yard', board } });
const noNetwork: Answer = () => Promise.reject(new TypeError('no network'));

function atWork() {
  const job = book();
  const setting = job.proved();
  job.card();
  job.pair(setting, 66.5, 153);
  const report = derive(job.entries);
  if (!report) throw new Error('the logbook says what engine it is');
  return boardOf(report, job.entries);
}

test('a build at work: what to do now, what was read last, and how the cam sits, from afar', async () => {
  await open(() => screenOf(atWork()));
  expect(screen.getByTestId('board-last')).toHaveTextContent(/153.*after/);
  expect(screen.getByTestId('board-now').props.children).not.toBe('');
  expect(screen.getByText(/^Test six · /)).toBeTruthy();
  expect(screen.getByText('Fennel Yard · Back wall')).toBeTruthy();
  expect(screen.queryByTestId('board-said')).toBeNull();
});

test('a server that is lost leaves what it said last, and says so; it follows again by itself', async () => {
  const { later } = await open(
    () => screenOf(atWork()),
    noNetwork,
    () => screenOf(atWork()),
  );
  await later(1.3);
  expect(screen.getByTestId('board-lost')).toHaveTextContent(/this is what it said last/);
  expect(screen.getByTestId('board-last')).toHaveTextContent(/153/);
  await later(1.3);
  expect(screen.queryByTestId('board-lost')).toBeNull();
});

test('nothing on it, no server from the start, and a link that was taken back are three different things', async () => {
  await open(() => screenOf(null));
  expect(screen.getByTestId('board-said')).toHaveTextContent(/No build is shown here/);
  screen.unmount();
  await open(noNetwork);
  expect(screen.getByTestId('board-said')).toHaveTextContent('The server cannot be reached.');
  screen.unmount();
  const { later, asked } = await open(() => Response.json({ detail: 'gone' }, { status: 410 }));
  expect(screen.getByTestId('board-said')).toHaveTextContent(/taken back, or it is mistyped/);
  // It is not asked every second for something that is gone.
  await later(10);
  expect(asked()).toBe(1);
});
