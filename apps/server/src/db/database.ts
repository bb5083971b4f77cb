import { drizzle } from 'drizzle-orm/mysql2';
import { migrate } from 'drizzle-orm/mysql2/migrator';
import mysql from 'mysql2/promise';
import * as schema from './schema';

/** Opens a pool on a `mysql://` address. Times are UTC throughout. */
export function openDatabase(url: string) {
  const pool = mysql.createPool({ uri: url, connectionLimit: 10, timezone: 'Z' });
  const db = drizzle({ client: pool, schema, mode: 'default' });
  return {
    pool,
    name: new URL(url).pathname.slice(1),
    db,
    migrate: (folder: string) => migrate(db, { migrationsFolder: folder }),
    close: () => pool.end(),
  };
}

export type OpenDatabase = ReturnType<typeof openDatabase>;
export type Db = OpenDatabase['db'];
