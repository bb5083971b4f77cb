import { readFileSync } from 'node:fs';
import path from 'node:path';
import { MIGRATIONS_DIR } from './build.mjs';

/** What this program knows of the form of the database, oldest first. */
export const knownMigrations = () =>
  JSON.parse(readFileSync(path.join(MIGRATIONS_DIR, 'meta/_journal.json'), 'utf8')).entries.map(({ tag }) => tag);

/** How a database stands: which migrations it has had whole, and whether it holds a shop. All empty where there is nothing yet. */
export async function schemaOf(connection) {
  const [rows] = await connection.query('show tables');
  const tables = new Set(rows.map((row) => Object.values(row)[0]));
  const done = [];
  if (tables.has('schema_step')) {
    const [steps] = await connection.query(
      'select tag, sum(done_at is null) as open from schema_step group by tag order by tag',
    );
    for (const { tag, open } of steps) if (Number(open) === 0) done.push(tag);
  }
  const holds = tables.has('shop') && (await connection.query('select id from shop limit 1'))[0].length > 0;
  return { done, holds };
}
