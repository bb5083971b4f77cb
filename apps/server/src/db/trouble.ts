import { setTimeout as wait } from 'node:timers/promises';

/** The code of the database's own error, from under whatever wraps it. */
function codeOf(error: unknown): string | null {
  for (let at: unknown = error; at instanceof Error; at = at.cause)
    if ('code' in at && typeof at.code === 'string') return at.code;
    // What was asked of a connection that was being closed just then: the driver says no more than that it is the end of it.
    else if ('fatal' in at && at.fatal === true) return 'PROTOCOL_CONNECTION_LOST';
  return null;
}

/** Did the database refuse a row because its id or its place is taken? */
export const isDuplicate = (error: unknown): boolean => codeOf(error) === 'ER_DUP_ENTRY';

/** Two writers stood in each other's way: nothing was written, and the next try will most likely do. */
const COLLIDED = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);

/** The line to the database broke, or never came about. Whether the last statement was carried out is not known. */
const LOST = new Set([
  'ECONNRESET',
  'ECONNREFUSED',
  'EPIPE',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_ENQUEUE_AFTER_FATAL_ERROR',
  'ER_SERVER_SHUTDOWN',
  'ER_CONNECTION_KILLED',
]);

/** Nothing was heard of it for as long as anybody waits: another try would only wait as long again. */
const SILENT = new Set(['ETIMEDOUT', 'PROTOCOL_SEQUENCE_TIMEOUT']);

/** The database is there and cannot take more for now: its disk is full, or all its lines are in use. */
const EXHAUSTED = new Set([
  'ER_DISK_FULL',
  'ER_RECORD_FILE_FULL',
  'ER_ERROR_ON_WRITE',
  'ER_CON_COUNT_ERROR',
  'ER_TOO_MANY_USER_CONNECTIONS',
  'ER_OUT_OF_RESOURCES',
  'ER_OPTION_PREVENTS_STATEMENT',
]);

const DISK_FULL_WORDS = /No space left|disk full|errno: 28/i;

/** Trouble of the moment, which says nothing about what was asked for: asked again later, it may well be done. */
export function isPassing(error: unknown): boolean {
  const code = codeOf(error);
  if (code !== null && [COLLIDED, LOST, SILENT, EXHAUSTED].some((kind) => kind.has(code))) return true;
  for (let at: unknown = error; at instanceof Error; at = at.cause) if (DISK_FULL_WORDS.test(at.message)) return true;
  return false;
}

const MOST_TRIES = 5;
const FIRST_PAUSE_MS = 20;

/**
 * Does work on the database that may be done twice without harm, and again where two writers collided or the line broke. What it says at last
 * is thrown. `again` names further errors that are worth another try.
 */
export async function retried<T>(work: () => Promise<T>, again: (error: unknown) => boolean = () => false): Promise<T> {
  for (let tries = 1; ; tries += 1) {
    try {
      return await work();
    } catch (error) {
      const code = codeOf(error);
      const worth = (code !== null && (COLLIDED.has(code) || LOST.has(code))) || again(error);
      if (tries === MOST_TRIES || !worth) throw error;
      // Not all at the same moment again.
      await wait(FIRST_PAUSE_MS * 2 ** (tries - 1) * (0.5 + Math.random()));
    }
  }
}
