import { renewSummary } from '../src/builds/summary';
import { openDatabase } from '../src/db/database';
import { build } from '../src/db/schema';

/** Renews the summary of every build of the database at DATABASE_URL from its entries. */
const database = openDatabase(process.env.DATABASE_URL ?? '');
await database.migrate(process.env.MIGRATIONS_DIR ?? '');
const builds = await database.db.select({ id: build.id }).from(build);
for (const { id } of builds) await renewSummary(database.db, id);
console.log(`${builds.length} ${builds.length === 1 ? 'build' : 'builds'} worked out anew`);
await database.close();
