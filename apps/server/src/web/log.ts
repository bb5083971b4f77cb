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

/**
 * The log of the server: one line of JSON for each thing that happened. Never an entry's body, a password, a cookie or a key: only what is named here
 * is written, and requests are written by path, status and time.
 * @param folder where `server.log` is kept; without one nothing is written but what is grave, to the terminal.
 */
export function openLog(folder: string | undefined) {
  const options = { base: undefined, timestamp: pino.stdTimeFunctions.isoTime };
  if (folder === undefined) return pino({ ...options, level: 'error' }, pino.destination(2));
  const file = path.join(folder, 'server.log');
  putAside(file);
  const to = pino.destination({ dest: file, mkdir: true, append: true, sync: false });
  setInterval(() => {
    if (putAside(file)) to.reopen();
  }, LOOK_MS).unref();
  return pino(options, to);
}

export type Log = ReturnType<typeof openLog>;
