import { spawn } from 'node:child_process';
import path from 'node:path';
import { ROOT, STATE, ensurePackages, ensurePrograms, ensureState, fail, say } from './setup.mjs';

/** `npm run dev`: the demo database, the server started anew at every change, and the app rebuilt in the browser as it is edited. */

const API_PORT = process.env.API_PORT ?? '8788';
const WEB_PORT = process.env.WEB_PORT ?? '8081';

ensurePrograms('mariadbd');
ensurePackages();
ensureState();
const { startDatabase } = await import('./database.mjs');
const { WORKER_FILE, ensureWorker } = await import('./build.mjs');
await ensureWorker();
const database = await startDatabase(path.join(STATE, 'db'), ['yosoku', 'yosoku_demo']).catch((error) =>
  fail(error.message),
);

const start = (command, args, options) =>
  spawn(path.join(ROOT, 'node_modules/.bin', command), args, { stdio: ['ignore', 'inherit', 'inherit'], ...options });
const children = [
  start('tsx', ['watch', '--clear-screen=false', 'src/main.ts'], {
    cwd: path.join(ROOT, 'apps/server'),
    env: {
      ...process.env,
      DATABASE_URL: database.urls.yosoku_demo,
      MIGRATIONS_DIR: path.join(ROOT, 'apps/server/drizzle'),
      WEB_DIR: path.join(ROOT, 'apps/app/dist'),
      WORKER_FILE,
      DEMO: '1',
      PORT: API_PORT,
    },
  }),
  start('expo', ['start', '--web', '--port', WEB_PORT], {
    cwd: path.join(ROOT, 'apps/app'),
    env: { ...process.env, API_PORT, EXPO_NO_TELEMETRY: '1', EXPO_OFFLINE: '1', BROWSER: 'none' },
  }),
];
say(`the app is served at http://127.0.0.1:${WEB_PORT} and asks the server at port ${API_PORT}. Stop with Ctrl-C.`);

let stopping = false;
async function stop() {
  if (stopping) return;
  stopping = true;
  for (const child of children) child.kill('SIGTERM');
  await database.stop();
  process.exit(0);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop());
for (const child of children) child.on('exit', () => void stop());
