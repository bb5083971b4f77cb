import path from 'node:path';
import { ROOT, STATE, ensurePackages, ensurePrograms, ensureState, fail, run, say } from './setup.mjs';

/** `npm run rebuild-summaries`: works out anew, from the entries, everything that the database keeps beside them. */

const own = process.env.DATABASE_URL === undefined;
if (own) ensurePrograms('mariadbd');
ensurePackages();
ensureState();
const { startDatabase } = await import('./database.mjs');
const database = own
  ? await startDatabase(path.join(STATE, 'db'), ['yosoku', 'yosoku_demo']).catch((error) => fail(error.message))
  : { urls: { given: process.env.DATABASE_URL }, stop: async () => {} };
for (const [name, DATABASE_URL] of Object.entries(database.urls)) {
  say(`database ${name}`);
  const env = { ...process.env, DATABASE_URL, MIGRATIONS_DIR: path.join(ROOT, 'apps/server/drizzle') };
  run(process.execPath, ['--import', 'tsx', 'apps/server/bin/rebuild-summaries.ts'], { env });
}
await database.stop();
