import { randomInt } from 'node:crypto';
import { serve } from '@hono/node-server';
import { Hono } from 'hono';
import { WebSocketServer } from 'ws';
import { createApi } from './api';
import { openDatabase } from './db/database';
import { DEMO_SIGN_IN, loadDemoShop } from './demo/shop';
import { LARGEST_MESSAGE } from './instruments/exchange';
import { hasShop, renewSetupCode } from './sign-in/accounts';
import { createSite } from './web/site';

/** The server process. Settings come from the environment; `scripts/` sets them. */
function setting(name: string, fallback?: string): string {
  const value = process.env[name] ?? fallback;
  if (value === undefined) throw new Error(`The environment variable ${name} is missing.`);
  return value;
}

/** Eight signs that cannot be mistaken for one another on a terminal. */
function makeCode(): string {
  const signs = 'ABCDEFGHJKLMNPQRTUVWXY346789';
  return Array.from({ length: 8 }, () => signs[randomInt(signs.length)]).join('');
}

const port = Number(setting('PORT', '8787'));
const host = setting('HOST', '127.0.0.1');
const database = openDatabase(setting('DATABASE_URL'));
await database.migrate(setting('MIGRATIONS_DIR'));

const notes: string[] = [];
if (!(await hasShop(database.db))) {
  if (process.env.DEMO === '1') await loadDemoShop(database.db, new Date());
  else {
    const code = makeCode();
    await renewSetupCode(database.db, code);
    notes.push(`First visit: open the address and set up your shop with the code ${code}`);
  }
}
if (process.env.DEMO === '1')
  notes.push(`Demo sign-in: name ${DEMO_SIGN_IN.signInName}, password ${DEMO_SIGN_IN.password}`);

const root = new Hono();
root.route('/', createApi(database));
root.route('/', createSite(setting('WEB_DIR')));

const sockets = new WebSocketServer({ noServer: true, maxPayload: LARGEST_MESSAGE });
const server = serve({ fetch: root.fetch, port, hostname: host, websocket: { server: sockets } }, (info) => {
  console.log([`Yosoku is ready at http://${host}:${info.port}`, ...notes].join('\n'));
});
server.on('error', (error) => {
  console.error(
    'code' in error && error.code === 'EADDRINUSE'
      ? `Port ${port} is in use. Choose another: PORT=8790 npm start`
      : error.message,
  );
  process.exit(1);
});

let stopping = false;
function stop(): void {
  if (stopping) return;
  stopping = true;
  server.close(() => void database.close().then(() => process.exit(0)));
  for (const socket of sockets.clients) socket.terminate();
  if ('closeAllConnections' in server) server.closeAllConnections();
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, stop);
if (process.env.STOP_WITH_STDIN === '1') process.stdin.on('end', stop).resume();
