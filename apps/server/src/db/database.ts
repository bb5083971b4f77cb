import type { Socket } from 'node:net';
import { drizzle } from 'drizzle-orm/mysql2';
import mysql from 'mysql2/promise';
import { type MigrateHooks, migrate } from './migrate';
import * as schema from './schema';
import { retried } from './trouble';

const CONNECT_MS = 4_000;
/** A database that says nothing for so long has frozen, or the network to it has: the line is cut, and what waits on it fails. */
const SILENCE_MS = 6_000;

const cutWhenSilent = (stream: Socket | undefined): void => {
  stream?.setTimeout(SILENCE_MS, () =>
    stream.destroy(Object.assign(new Error('the database has gone silent'), { code: 'ETIMEDOUT' })),
  );
};

/** Opens a pool on a `mysql://` address. Times are UTC throughout. A frozen database fails what is asked of it within seconds. */
export function openDatabase(url: string, connectionLimit = 10) {
  const pool = mysql.createPool({
    uri: url,
    connectionLimit,
    timezone: 'Z',
    connectTimeout: CONNECT_MS,
    enableKeepAlive: true,
  });
  // The library's type of a connection leaves its socket out; every connection has one.
  pool.pool.on('connection', (connection) => cutWhenSilent((connection as unknown as { stream?: Socket }).stream));
  // A statement that stands alone may be said again: where two writers collided, nothing of it was done; what was done when the line broke
  // is done once by its id or its place.
  const [query, execute] = [pool.query.bind(pool), pool.execute.bind(pool)];
  pool.query = ((...said: Parameters<typeof query>) => retried(() => query(...said))) as typeof pool.query;
  pool.execute = ((...said: Parameters<typeof execute>) => retried(() => execute(...said))) as typeof pool.execute;
  const db = drizzle({ client: pool, schema, mode: 'default' });
  return {
    pool,
    url,
    name: new URL(url).pathname.slice(1),
    db,
    migrate: (folder: string, hooks?: MigrateHooks) => migrate(pool, folder, hooks),
    close: () => pool.end(),
  };
}

export type OpenDatabase = ReturnType<typeof openDatabase>;
export type Db = OpenDatabase['db'];
