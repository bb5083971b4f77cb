import { createHash } from 'node:crypto';
import type { RowDataPacket } from 'mysql2';
import { openDatabase } from '../apps/server/src/db/database';
import { readMigrations } from '../apps/server/src/db/migrate';

/**
 * Brings the database at DATABASE_URL up to date and prints a hash of its form and the number of steps; with `KILL_AT=7` it kills itself after the seventh
 * statement, before that is marked as done; with `KILL_AT=empty` it empties the database.
 */
const database = openDatabase(process.env.DATABASE_URL ?? '');
const folder = process.env.MIGRATIONS_DIR ?? '';
const killAt = process.env.KILL_AT ?? '';
const tables = async (): Promise<string[]> =>
  (await database.pool.query<RowDataPacket[]>('show tables'))[0].map((row) => String(Object.values(row)[0])).sort();

if (killAt === 'empty') {
  const connection = await database.pool.getConnection();
  await connection.query('set foreign_key_checks = 0');
  for (const table of await tables()) await connection.query('drop table ??', [table]);
  connection.release();
} else {
  let done = 0;
  await database.migrate(folder, {
    afterStep: () => {
      done += 1;
      if (String(done) === killAt) process.kill(process.pid, 'SIGKILL');
    },
  });
  const hash = createHash('sha256');
  for (const table of await tables())
    hash.update(JSON.stringify((await database.pool.query<RowDataPacket[]>('show create table ??', [table]))[0]));
  const steps = readMigrations(folder).reduce((sum, each) => sum + each.steps.length, 0);
  console.log(JSON.stringify({ form: hash.digest('hex'), steps }));
}
await database.close();
