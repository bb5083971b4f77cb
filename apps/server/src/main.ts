import { setTimeout as wait } from 'node:timers/promises';
import { serve } from '@hono/node-server';
import { Hono } from 'hono';
import { WebSocketServer } from 'ws';
import { createApi } from './api';
import { openDatabase } from './db/database';
import { NewerSchema } from './db/migrate';
import { isPassing } from './db/trouble';
import { DEMO_SIGN_IN, loadDemoShop } from './demo/shop';
import { LARGEST_MESSAGE } from './instruments/exchange';
import { hasShop, renewSetupCode } from './sign-in/accounts';
import { makeCode } from './sign-in/codes';
import { carriesSession } from './sign-in/session';
import { type Listening, listenOnLan } from './lan/listen';
import { type Reach, reachInWords } from './lan/reach';
import { errorInLog, openLog } from './web/log';
import { type CallerOf, makeCallerOf } from './web/proxy';
import { createSite } from './web/site';

/** The server process. Settings come from the environment; `scripts/` sets them. */
function setting(name: string, fallback?: string): string {
  const value = process.env[name] ?? fallback;
  if (value === undefined) throw new Error(`The environment variable ${name} is missing.`);
  return value;
}

/** Starting it again is no use: whoever started it must do something first. The same figure stands in scripts/supervise.mjs. */
const NO_USE = 2;
/** The database is asked for again after this, ms. */
const AGAIN_MS = 250;
/** Requests that are under way when the server is told to stop have so long, ms. */
const FINISH_WITHIN_MS = 10_000;

function giveUp(words: string): never {
  console.error(words);
  process.exit(NO_USE);
}

const port = Number(setting('PORT', '8787'));
const [tlsCert, tlsKey] = [process.env.TLS_CERT, process.env.TLS_KEY];
if ((tlsCert === undefined) !== (tlsKey === undefined))
  giveUp('TLS_CERT and TLS_KEY belong together: name the files of both, or of neither.');
const ownCertificate = tlsCert !== undefined && tlsKey !== undefined ? { cert: tlsCert, key: tlsKey } : null;
/** Reached from elsewhere over TLS: with the authority of this installation, or with the owner’s certificate. */
const onLan = process.env.LAN === '1' || ownCertificate !== null;
const host = process.env.HOST ?? (onLan ? undefined : '127.0.0.1');
const log = openLog(process.env.LOG_DIR);
const database = openDatabase(setting('DATABASE_URL'));
/** Brings the database up to date. One that cannot be reached just now is waited for: starting anew would not bring it sooner. */
async function bringUpToDate(): Promise<void> {
  for (let tries = 1; ; tries += 1)
    try {
      const done = await database.migrate(setting('MIGRATIONS_DIR'));
      if (done.length > 0) log.info({ migrations: done }, 'the database was brought up to date');
      return;
    } catch (error) {
      if (error instanceof NewerSchema) giveUp(error.message);
      if (!isPassing(error)) throw error;
      if (tries === 1) console.log('Waiting for the database.');
      log.warn({ err: error }, 'the database cannot be reached yet');
      await wait(AGAIN_MS);
    }
}
await bringUpToDate();

const notes: string[] = [];
/** Once there is a shop there is one for good: nobody waits for the database to hear that again. */
let shopIsThere = await hasShop(database.db);
const isShopThere = async (): Promise<boolean> => {
  shopIsThere ||= await hasShop(database.db).catch(() => false);
  return shopIsThere;
};
if (!shopIsThere) {
  if (process.env.DEMO === '1') await loadDemoShop(database.db, new Date());
  else {
    const code = makeCode();
    await renewSetupCode(database.db, code);
    notes.push(`First visit: open the address and set up your shop with the code ${code}`);
  }
}
if (process.env.DEMO === '1')
  notes.push(`Demo sign-in: name ${DEMO_SIGN_IN.signInName}, password ${DEMO_SIGN_IN.password}`);

let stopping = false;
let callerOf: CallerOf;
try {
  callerOf = makeCallerOf(process.env.TRUSTED_PROXIES ?? '');
} catch (error) {
  giveUp(error instanceof Error ? error.message : String(error));
}
let reach: () => Reach = () => ({ addresses: [], authority: null });
const api = createApi(database, { workerFile: setting('WORKER_FILE'), log, callerOf, reach: () => reach() });
const root = new Hono();
root.use(async (c, next) => {
  await next();
  // Whoever keeps a connection is told that this answer is the last on it.
  if (stopping) c.header('Connection', 'close');
});
root.route('/', api);
root.route(
  '/',
  createSite(setting('WEB_DIR'), async (c) => !carriesSession(c) && (await isShopThere())),
);

// The first trace of a mistake reads the map of the whole program, a quarter of a second: now, while nobody waits.
void new Error('the map is read').stack;

const sockets = new WebSocketServer({ noServer: true, maxPayload: LARGEST_MESSAGE });
function cannotListen(error: Error & { readonly code?: string }): never {
  if (error.code === 'EADDRINUSE') giveUp(`Port ${port} is in use. Choose another: PORT=8790 npm start`);
  console.error(error.message);
  process.exit(1);
}
function ready(address: string, at: number, more: readonly string[]): void {
  console.log([`Yosoku is ready at ${address}`, ...more, ...notes].join('\n'));
  log.info({ port: at, node: process.versions.node }, 'ready');
}
const listening = onLan ? await listenEverywhere() : listenHere();

/** On this machine alone, or wherever HOST says, without TLS. */
function listenHere(): Listening {
  const server = serve({ fetch: root.fetch, port, hostname: host ?? '', websocket: { server: sockets } }, (info) =>
    ready(`http://${host}:${info.port}`, info.port, []),
  );
  server.on('error', cannotListen);
  return {
    close: (over) => server.close(over),
    closeIdle: () => 'closeIdleConnections' in server && server.closeIdleConnections(),
    closeAll: () => 'closeAllConnections' in server && server.closeAllConnections(),
  };
}

async function listenEverywhere(): Promise<Listening> {
  const lan = await listenOnLan({
    fetch: root.fetch,
    sockets,
    port,
    host,
    folder: setting('TLS_DIR'),
    own: ownCertificate,
    name: process.env.LAN_NAME,
    onTrouble: cannotListen,
  }).catch((error: Error) => giveUp(error.message));
  reach = lan.reach;
  ready(`http://127.0.0.1:${port}`, port, await reachInWords(lan.reach()));
  return lan.listening;
}

/** Takes no new requests, lets those under way come to their end, closes every line that has none. */
function stop(): void {
  if (stopping) return;
  stopping = true;
  log.info('stopping');
  const over = (): void => {
    const ended = Promise.allSettled([api.close(), database.close()]);
    void Promise.race([ended, new Promise((resolve) => setTimeout(resolve, 2_000))]).then(() => process.exit(0));
  };
  listening.close(over);
  api.endLines();
  for (const socket of sockets.clients) socket.terminate();
  // A connection that has just brought its answer is idle from then on.
  setInterval(() => listening.closeIdle(), 50).unref();
  setTimeout(() => listening.closeAll(), FINISH_WITHIN_MS).unref();
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, stop);
if (process.env.STOP_WITH_STDIN === '1') process.stdin.on('end', stop).resume();
process.on('uncaughtException', (error) => {
  log.fatal({ err: error }, 'ended by a mistake of the program');
  console.error(errorInLog(error));
  process.exit(1);
});
