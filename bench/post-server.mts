import { serve } from '@hono/node-server';
import { Hono } from 'hono';
import { v7 as uuidv7 } from 'uuid';
import { createApi } from '../apps/server/src/api';
import { openDatabase } from '../apps/server/src/db/database';
import { shop } from '../apps/server/src/db/schema';
import { openLog } from '../apps/server/src/web/log';
import { addBuilder } from '../apps/server/src/sign-in/accounts';

/** Serves the real API beside a bare route that does one INSERT, on the same pool, and prints what a client needs. */

const database = openDatabase(process.env.DATABASE_URL ?? '');
await database.migrate(process.env.MIGRATIONS_DIR ?? '');
const { db, pool } = database;
await pool.query('create table if not exists bare (id char(36) primary key, body json not null)');
const shopId = uuidv7();
await db.insert(shop).values({ id: shopId, name: 'Bench', createdAt: new Date() });
const signInName = `bench${shopId.slice(-12)}`;
const builderId = await addBuilder(db, shopId, 'owner', {
  builderName: 'Bench',
  signInName,
  password: 'a-bench-password',
});

const root = new Hono();
root.post('/bare', async (c) => {
  const body = await c.req.json();
  await pool.execute('insert into bare (id, body) values (?, ?)', [body.id, JSON.stringify(body)]);
  return c.json({ ok: true }, 201);
});
root.route('/', createApi(database, { workerFile: process.env.WORKER_FILE ?? '', log: openLog(process.env.LOG_DIR) }));
serve({ fetch: root.fetch, port: Number(process.env.PORT), hostname: '127.0.0.1' }, () =>
  console.log(JSON.stringify({ builderId, signInName })),
);
process.on('SIGTERM', () => process.exit(0));
