import path from 'node:path';
import { STATE, ensurePackages, ensurePrograms, ensureState, fail, say } from './setup.mjs';

/** `npm start`: sets up what is missing, starts database and server, stops both on Ctrl-C. `--no-demo` begins with an empty shop. */

const [major, minor] = process.versions.node.split('.').map(Number);
if (major !== 20 || minor < 19) fail(`Yosoku runs on Node 20.19 or a later 20; this is ${process.versions.node}.`);
const unknown = process.argv.slice(2).filter((argument) => !['--no-demo', '--demo'].includes(argument));
if (unknown.length > 0) fail(`Unknown: ${unknown.join(' ')}. Known are --no-demo and, with DATABASE_URL, --demo.`);

const own = process.env.DATABASE_URL === undefined;
const demo = own ? !process.argv.includes('--no-demo') : process.argv.includes('--demo');
if (own) ensurePrograms('mariadbd');
ensurePackages();
ensureState();
const { ensureBuilt } = await import('./build.mjs');
await ensureBuilt();
const { startDatabase } = await import('./database.mjs');
const { startServer } = await import('./server-process.mjs');

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

// The demo lives in a database of its own: its passwords, which everybody knows, never open a real shop.
const name = demo ? 'yosoku_demo' : 'yosoku';
if (own) {
  say('starting the database');
  database = await startDatabase(path.join(STATE, 'db'), ['yosoku', 'yosoku_demo']).catch((error) =>
    fail(error.message),
  );
}
const DATABASE_URL = process.env.DATABASE_URL ?? database.urls[name];
server = startServer({ DATABASE_URL, DEMO: demo ? '1' : '0' }, (line) => console.log(line));
if (await server.ready) console.log('Stop with Ctrl-C.');
await stop(await server.done);
