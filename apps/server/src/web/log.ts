import { existsSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import pino from 'pino';

/** A log of this size is put aside, bytes; so many of them are kept; looked at this often, ms. */
const LARGEST = 10 * 1024 * 1024;
const KEPT = 5;
const LOOK_MS = 10 * 60_000;

/** Puts a log that has grown large aside as `server.log.1`, and those before it one further. True when it did. */
export function putAside(file: string, largest = LARGEST): boolean {
  if (!existsSync(file) || statSync(file).size < largest) return false;
  rmSync(`${file}.${KEPT}`, { force: true });
  for (let n = KEPT - 1; n >= 1; n -= 1) if (existsSync(`${file}.${n}`)) renameSync(`${file}.${n}`, `${file}.${n + 1}`);
  renameSync(file, `${file}.1`);
  return true;
}

const FRAMES = /^\s+at .*$/gm;

/**
 * What is written of an error. The database's own errors repeat what was to be written, and their wrappers the whole statement: of those no more than the code is
 * kept, and where it happened.
 */
export function errorInLog(error: unknown): {
  readonly name: string;
  readonly what: string;
  readonly at: readonly string[];
} {
  if (!(error instanceof Error)) return { name: typeof error, what: '', at: [] };
  const codes: string[] = [];
  for (let each: unknown = error; each instanceof Error; each = each.cause)
    if ('code' in each && typeof each.code === 'string') codes.push(each.code);
  const wrapped = error.cause !== undefined || codes.length > 0;
  return { name: error.name, what: wrapped ? codes.join(', ') : error.message, at: error.stack?.match(FRAMES) ?? [] };
}

/**
 * The log of the server: one line of JSON for each thing that happened. Never an entry's body, a password, a cookie or a key: only what is named here
 * is written, and requests are written by path, status and time.
 * @param folder where `server.log` is kept; without one nothing is written but what is grave, to the terminal.
 */
export function openLog(folder: string | undefined) {
  const options = { base: undefined, timestamp: pino.stdTimeFunctions.isoTime, serializers: { err: errorInLog } };
  if (folder === undefined) return pino({ ...options, level: 'error' }, pino.destination(2));
  const file = path.join(folder, 'server.log');
  putAside(file);
  const to = pino.destination({ dest: file, mkdir: true, append: true, sync: false });
  // A disk that is full ends no server: what cannot be written is not.
  to.on('error', () => undefined);
  setInterval(() => {
    if (putAside(file)) to.reopen();
  }, LOOK_MS).unref();
  return pino(options, to);
}

export type Log = ReturnType<typeof openLog>;
