import { existsSync, readFileSync, statfsSync } from 'node:fs';
import path from 'node:path';
import { listBackups } from './backup-files.mjs';
import { DATABASE_FOLDER, NAMES, backupsOf } from './own-database.mjs';
import { ROOT, STATE, ensurePackages } from './setup.mjs';

/** `npm run -s check [--demo]`: how it stands, on one page. Changes nothing, and starts nothing. */

const LINES = 20_000;
const SLOW_MS = 500;
const DAY_MS = 24 * 3600_000;

ensurePackages();
const { findDatabase } = await import('./database.mjs');
const { knownMigrations, schemaOf } = await import('./schema.mjs');
const { createConnection } = await import('mysql2/promise');

const name = process.argv.includes('--demo') ? 'yosoku_demo' : 'yosoku';
const given = process.env.DATABASE_URL;
const url = given ?? (await findDatabase(DATABASE_FOLDER, NAMES))?.[name];
const { version } = JSON.parse(readFileSync(path.join(ROOT, 'package.json'), 'utf8'));
const line = (what, words) => console.log(`${what.padEnd(20)}${words}`);
const gigabytes = (bytes) => `${(bytes / 1e9).toFixed(1)} GB`;

line('Yosoku', `${version}, Node ${process.versions.node}`);
if (!url) line('database', 'not running: start Yosoku, or set DATABASE_URL');
else {
  const connection = await createConnection({ uri: url, connectTimeout: 4000 }).catch((error) => error);
  if (connection instanceof Error) line('database', `cannot be reached: ${connection.message}`);
  else {
    const one = async (sql) => Object.values((await connection.query(sql))[0][0])[0];
    const known = knownMigrations();
    const { done, holds } = await schemaOf(connection);
    const open = known.filter((tag) => !done.includes(tag));
    const size = await one(
      'select coalesce(sum(data_length + index_length), 0) from information_schema.tables where table_schema = database()',
    );
    line('database', `${await one('select version()')}, ${gigabytes(Number(size))}`);
    line('schema', open.length === 0 ? `${known.at(-1)}, up to date` : `not brought up to date: ${open.join(', ')}`);
    if (open.length === 0 && holds) {
      line('builds', `${await one('select count(*) from build')}, ${await one('select count(*) from entry')} entries`);
      const behind = await one(
        'select count(*) from build b where b.summary_seq <> (select coalesce(max(e.seq), 0) from entry e where e.build_id = b.id)',
      );
      line('summaries', Number(behind) === 0 ? 'all worked out' : `${behind} still to be worked out`);
      line('signed in', `${await one('select count(*) from session where expires_at > utc_timestamp()')} sessions`);
    }
    await connection.end();
  }
}
const { bavail, bsize } = statfsSync(existsSync(STATE) ? STATE : ROOT);
line('free disk', gigabytes(bavail * bsize));
const last = listBackups(backupsOf(given ? new URL(given).pathname.slice(1) : name)).at(-1);
const age = last ? Date.now() - last.at.getTime() : null;
line(
  'last backup',
  age === null
    ? 'none yet'
    : `${last.at.toISOString().slice(0, 16).replace('T', ' ')} UTC${age > 2 * DAY_MS ? ', which is too long ago' : ''}`,
);

const log = path.join(STATE, 'log/server.log');
if (existsSync(log)) {
  const said = readFileSync(log, 'utf8')
    .split('\n')
    .slice(-LINES)
    .flatMap((text) => {
      try {
        return [JSON.parse(text)];
      } catch {
        return [];
      }
    })
    .filter(({ time }) => Date.now() - new Date(time).getTime() < DAY_MS);
  const requests = said.filter(({ msg }) => msg === 'request');
  line(
    'requests, one day',
    `${requests.length}, of them ${requests.filter(({ status }) => status >= 500).length} failed`,
  );
  line('sign-ins refused', String(said.filter(({ msg }) => /^sign-in refused/.test(msg)).length));
  line('starts', String(said.filter(({ msg }) => msg === 'ready').length));
  const slow = requests
    .filter(({ ms, path: at }) => ms >= SLOW_MS && !/\/stream$/.test(at))
    .sort((a, b) => b.ms - a.ms);
  line('slow requests', slow.length === 0 ? 'none' : String(slow.length));
  for (const { time, method, path: at, ms } of slow.slice(0, 5)) line('', `${ms} ms  ${method} ${at}  ${time}`);
} else line('log', 'none yet');
