import path from 'node:path';
import { writeBackup } from './backup-files.mjs';
import { withOwnDatabase } from './own-database.mjs';
import { fail, say } from './setup.mjs';

/** `npm run backup -- FILE [--demo]`: writes everything that the database holds into one file, while everybody goes on working. */

const given = process.argv.slice(2).filter((each) => each !== '--demo');
if (given.length !== 1 || given[0].startsWith('--')) fail('usage: npm run backup -- FILE [--demo]');
const file = path.resolve(given[0]);
await withOwnDatabase(
  async (url) => {
    await writeBackup(url, file).catch((error) => fail(error.message));
    say(`backup written: ${file}`);
  },
  { demo: process.argv.includes('--demo'), programs: ['mariadb-dump'] },
);
