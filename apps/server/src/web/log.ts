import pino from 'pino';

/**
 * The log of the server: one line of JSON for each thing that happened. Never an entry's body, a password, a cookie or a key: only what is named here
 * is written, and requests are written by path, status and time.
 * @param folder where `server.log` is kept; without one nothing is written but what is grave, to the terminal.
 */
export function openLog(folder: string | undefined) {
  const options = { base: undefined, timestamp: pino.stdTimeFunctions.isoTime };
  if (folder === undefined) return pino({ ...options, level: 'error' }, pino.destination(2));
  return pino(options, pino.destination({ dest: `${folder}/server.log`, mkdir: true, append: true, sync: false }));
}

export type Log = ReturnType<typeof openLog>;
