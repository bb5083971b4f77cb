import path from 'node:path';
import { checkBackup, keepBackup, readBackup } from './backup-files.mjs';
import { backupsOf, withOwnDatabase } from './own-database.mjs';
import { fail, say } from './setup.mjs';

/**
 * `npm run restore -- FILE [--demo] [--overwrite]`: brings a backup back into an empty database. One that holds anything is left alone unless
 * `--overwrite` is given; what it held is backed up first.
 */

const FLAGS = ['--demo', '--overwrite'];
const given = process.argv.slice(2).filter((each) => !FLAGS.includes(each));
if (given.length !== 1 || given[0].startsWith('--')) fail('usage: npm run restore -- FILE [--demo] [--overwrite]');
const file = path.resolve(given[0]);
await checkBackup(file).catch((error) => fail(error.message));
await withOwnDatabase(
  async (url, name) => {
    const { createConnection } = await import('mysql2/promise');
    const connection = await createConnection({ uri: url });
    try {
      const [rows] = await connection.query('show tables');
      const tables = rows.map((row) => Object.values(row)[0]);
      if (tables.length > 0 && !process.argv.includes('--overwrite'))
        fail(
          `The database ${name} is not empty. Nothing was changed. To put the backup in its place: ` +
            `npm run restore -- ${given[0]} --overwrite (what it holds now is backed up first)`,
        );
      if (tables.length > 0) {
        say(`what the database held is kept in ${await keepBackup(url, path.join(backupsOf(name), 'before-restore'))}`);
        await connection.query('set foreign_key_checks = 0');
        for (const table of tables) await connection.query('drop table ??', [table]);
      }
      await readBackup(url, file);
      say(`restored from ${file}`);
    } catch (error) {
      fail(error.message);
    } finally {
      await connection.end();
    }
  },
  { demo: process.argv.includes('--demo'), stopped: true, programs: ['mariadb-dump'] },
);
