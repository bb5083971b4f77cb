import type { Context } from 'hono';
import type { Log } from '../web/log';
import { Problem } from '../web/problem';
import type { CallerOf } from '../web/proxy';
import type { Attempt, Attempts } from './attempts';
import type { Sessions } from './session';

interface AttemptedParts {
  readonly sessions: Sessions;
  readonly attempts: Attempts;
  readonly callerOf: CallerOf;
  readonly log: Log;
}

/** What may be guessed at is counted, and written down. */
export function makeAttempted({ sessions, attempts, callerOf, log }: AttemptedParts) {
  const attemptOf = async (c: Context, name: string): Promise<Attempt> => ({
    name,
    address: callerOf(c).address,
    device: await sessions.knownDevice(c, name),
  });

  /** Does `work` as an attempt of that name: counted before, and forgiven where it succeeds. */
  return async function attempted<T>(c: Context, name: string, what: string, work: () => Promise<T>): Promise<T> {
    const attempt = await attemptOf(c, name);
    const said = { name, address: attempt.address, device: attempt.device ? 'known' : 'new' };
    try {
      await attempts.count(attempt);
      const done = await work();
      await attempts.forgive(attempt);
      log.info(said, what);
      return done;
    } catch (error) {
      if (error instanceof Problem) log.warn({ ...said, status: error.status }, `${what} refused: ${error.title}`);
      throw error;
    }
  };
}

export type Attempted = ReturnType<typeof makeAttempted>;
