import path from 'node:path';
import { STATE, ensurePackages, ensurePrograms, ensureState, fail, say } from './setup.mjs';

/**
 * `npm start`: sets up what is missing, starts database and server, keeps them running, takes a backup every night, stops all of it on Ctrl-C.
 * `--no-demo` begins with an empty shop; `--lan` lets phones in the same network in, over https.
 */

const [major, minor] = process.versions.node.split('.').map(Number);
if (major !== 20 || minor < 19) fail(`Yosoku runs on Node 20.19 or a later 20; this is ${process.versions.node}.`);
const unknown = process.argv.slice(2).filter((argument) => !['--no-demo', '--demo', '--lan'].includes(argument));
if (unknown.length > 0)
  fail(`Unknown: ${unknown.join(' ')}. Known are --lan, --no-demo and, with DATABASE_URL, --demo.`);

const own = process.env.DATABASE_URL === undefined;
const demo = own ? !process.argv.includes('--no-demo') : process.argv.includes('--demo');
ensurePrograms(...(own ? ['mariadbd'] : []), 'mariadb-dump');
ensurePackages();
ensureState();
const { ensureBuilt } = await import('./build.mjs');
await ensureBuilt();
const { startDatabase } = await import('./database.mjs');
const { startServer } = await import('./server-process.mjs');
const { keepRunning } = await import('./supervise.mjs');
const { keepBackup, listBackups } = await import('./backup-files.mjs');
const { DATABASE_FOLDER, NAMES, backupsOf } = await import('./own-database.mjs');

const LOOK_MS = 15 * 60_000;
const A_DAY_MS = 24 * 3600_000;

let database;
let server;
let stopping = false;
async function stop(code) {
  if (stopping) return;
  stopping = true;
  await server?.stop();
  await database?.stop();
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));

if (own) {
  say('starting the database');
  database = await startDatabase(DATABASE_FOLDER, NAMES).catch((error) => fail(error.message));
}
// The demo lives in a database of its own: its passwords, which everybody knows, never open a real shop.
const DATABASE_URL = process.env.DATABASE_URL ?? database.urls[demo ? 'yosoku_demo' : 'yosoku'];
const backups = backupsOf(new URL(DATABASE_URL).pathname.slice(1));
const settings = {
  DATABASE_URL,
  DEMO: demo ? '1' : '0',
  BACKUPS_DIR: backups,
  LOG_DIR: path.join(STATE, 'log'),
  TLS_DIR: path.join(STATE, 'tls'),
  ...(process.argv.includes('--lan') ? { LAN: '1' } : {}),
};

/** Before the server changes the form of a database that holds something, all of it is kept. */
async function backUpBeforeUpgrade() {
  const { createConnection } = await import('mysql2/promise');
  const { knownMigrations, schemaOf } = await import('./schema.mjs');
  const connection = await createConnection({ uri: DATABASE_URL });
  const { done, holds } = await schemaOf(connection).finally(() => connection.end());
  if (!holds || knownMigrations().every((tag) => done.includes(tag))) return;
  say(`kept before the upgrade: ${await keepBackup(DATABASE_URL, path.join(backups, 'before-upgrade'))}`);
}
await backUpBeforeUpgrade().catch((error) =>
  fail(`Nothing was changed: a backup before the upgrade failed. ${error.message}`),
);

let told = false;
let databaseStarts = 0;
const isStopping = () => stopping;
const ends = [
  keepRunning(
    'server',
    async () => {
      server = startServer(settings, (line) => console.log(line));
      if ((await server.ready) && !told) {
        console.log('Stop with Ctrl-C.');
        told = true;
      }
      return server.done;
    },
    isStopping,
  ),
];
if (own)
  ends.push(
    keepRunning(
      'database',
      async () => {
        if (databaseStarts > 0) await database.start();
        databaseStarts += 1;
        return database.ended();
      },
      isStopping,
    ),
  );

/** Every night, or as soon as the program runs again after one that was missed. */
async function backUp() {
  const last = listBackups(backups).at(-1);
  if (stopping || !told || (last && Date.now() - last.at.getTime() < A_DAY_MS)) return;
  await keepBackup(DATABASE_URL, backups).catch((error) =>
    console.error(`The nightly backup failed. ${error.message}`),
  );
}
setInterval(() => void backUp(), LOOK_MS).unref();

const why = await Promise.race(ends.map((end) => end.then((words) => words ?? new Promise(() => undefined))));
console.error(why);
await stop(1);
