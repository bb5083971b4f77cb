import path from 'node:path';
import { STATE, ensurePackages, ensurePrograms, ensureState, fail } from './setup.mjs';

/** Databases that `npm start` works on: the demo lives in one of its own. */
export const NAMES = ['yosoku', 'yosoku_demo'];
export const DATABASE_FOLDER = path.join(STATE, 'db');
/** Where the nightly backups of a database lie. */
export const backupsOf = (name) => path.join(STATE, 'backups', name);

/**
 * Gives `work` the database that a command is for: the one at DATABASE_URL, else this folder's own, of the shop or (`--demo`) of the demo. Where
 * the application is running, its database is used as it is; where not, it is started for as long as the work takes.
 * @param stopped true for work that must not meet the running application.
 */
export async function withOwnDatabase(work, { demo = false, stopped = false, programs = [] } = {}) {
  const name = demo ? 'yosoku_demo' : 'yosoku';
  const given = process.env.DATABASE_URL;
  ensurePrograms(...(given === undefined ? ['mariadbd'] : []), ...programs);
  ensurePackages();
  ensureState();
  if (given !== undefined) return work(given, new URL(given).pathname.slice(1));
  const { findDatabase, startDatabase } = await import('./database.mjs');
  const running = await findDatabase(DATABASE_FOLDER, NAMES);
  if (running && stopped)
    fail('Yosoku is running from this folder. Stop it first, with Ctrl-C: this changes what is under its feet.');
  if (running) return work(running[name], name);
  const database = await startDatabase(DATABASE_FOLDER, NAMES).catch((error) => fail(error.message));
  try {
    return await work(database.urls[name], name);
  } finally {
    await database.stop();
  }
}
