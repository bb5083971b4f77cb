import { setTimeout as wait } from 'node:timers/promises';

/** A program that ends with this says that starting it again is no use: a port that is taken, a database that is too new. */
export const NO_USE = 2;

const WINDOW_MS = 60_000;
const MOST_IN_WINDOW = 5;
const FIRST_PAUSE_MS = 250;
const LONGEST_PAUSE_MS = 5_000;

/**
 * Keeps a program running: when it ends by itself it is started again, after a pause that doubles while it keeps ending.
 * @param name for what is said of it.
 * @param most ends within a minute after which it is left alone.
 * @param longest pause, ms.
 * @param run starts it; resolves when it has ended, with its exit code or signal.
 * @param isStopping true once it is meant to end.
 * @returns when it is meant to end, null; else why there is no use in going on, in words.
 */
export async function keepRunning(
  name,
  run,
  isStopping,
  { say = console.log, most = MOST_IN_WINDOW, longest = LONGEST_PAUSE_MS } = {},
) {
  const failures = [];
  for (;;) {
    let how;
    try {
      how = await run();
    } catch (error) {
      how = error.message;
    }
    if (isStopping()) return null;
    if (how === NO_USE) return `The ${name} cannot run here: its own words stand above.`;
    const now = Date.now();
    failures.push(now);
    while (failures[0] < now - WINDOW_MS) failures.shift();
    if (failures.length >= most)
      return `The ${name} ended ${failures.length} times within a minute, the last time with ${how}. Yosoku stops.`;
    const pause = Math.min(longest, FIRST_PAUSE_MS * 2 ** (failures.length - 1));
    say(`· the ${name} has ended by itself (${how}); it is started again`);
    await wait(pause);
    if (isStopping()) return null;
  }
}
