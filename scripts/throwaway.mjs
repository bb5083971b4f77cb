import { mkdtempSync, rmSync } from 'node:fs';
import path from 'node:path';
import { freePort, startDatabase } from './database.mjs';
import { startServer } from './server-process.mjs';
import { STATE, ensureState } from './setup.mjs';

/**
 * Gives `work` the addresses of empty databases of its own, and removes them afterwards.
 * @param waitsForDisk commits are on the disk before they are answered, as in use: what is measured would be too good otherwise.
 */
export async function withDatabase(names, work, waitsForDisk = true) {
  ensureState();
  const folder = mkdtempSync(path.join(STATE, 'throwaway-'));
  const database = await startDatabase(path.join(folder, 'db'), names, waitsForDisk);
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => process.exit(1));
  process.on('exit', () => rmSync(folder, { recursive: true, force: true, maxRetries: 40, retryDelay: 50 }));
  try {
    return await work(database.urls);
  } finally {
    await database.stop();
  }
}

/** The same where nothing is measured: no commit waits for a disk that something else keeps busy. */
export const withDatabaseForChecks = (names, work) => withDatabase(names, work, false);

/** Gives `work` the address of the built application with the demo shop, on a database of its own. */
export const withDemo = (work) =>
  withDatabase(['demo'], async ({ demo }) => {
    const port = await freePort();
    const settings = { DATABASE_URL: demo, DEMO: '1', PORT: String(port), HOST: '127.0.0.1' };
    const server = startServer(settings, () => {});
    if (!(await server.ready)) throw new Error('The server did not start.');
    try {
      return await work(`http://127.0.0.1:${port}`);
    } finally {
      await server.stop();
    }
  });
