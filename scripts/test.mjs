import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import { ROOT, ensurePackages, ensurePrograms, ensureState, fail, say } from './setup.mjs';

/**
 * `npm test`: style, types, unit tests, the API on a real MariaDB, the app in a real browser.
 * Its database and ports are its own, so it can run beside `npm start`. `--only types`, `unit`, `api` or `e2e` runs one part, and a word after
 * it (`npm run e2e -- read`) only the files that are called so.
 */

const only = process.argv.includes('--only') ? process.argv[process.argv.indexOf('--only') + 1] : null;
const named = only === null ? [] : process.argv.slice(process.argv.indexOf('--only') + 2);
const wants = (part) => only === null || only === part;

const PARTS = ['types', 'unit', 'api', 'e2e'];
if (only !== null && !PARTS.includes(only)) fail(`There is no part ${only}. Known are ${PARTS.join(', ')}.`);
const needsDatabase = wants('api') || wants('e2e');
ensurePrograms(
  ...(needsDatabase ? ['mariadbd', 'mariadb-dump', 'pdftotext'] : []),
  ...(needsDatabase ? ['chromium', 'chromedriver'] : []),
);
ensurePackages();
ensureState();

const began = performance.now();
const failures = [];
function check(what, command, args, env = {}) {
  say(what);
  const started = performance.now();
  const { status } = spawnSync(command, args, {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, FORCE_COLOR: process.stdout.isTTY ? '1' : '0', ...env },
  });
  const seconds = ((performance.now() - started) / 1000).toFixed(0);
  say(`${what}: ${status === 0 ? 'good' : 'FAILED'} (${seconds} s)`);
  if (status !== 0) failures.push(what);
}

const patterns = named.flatMap((name) => ['--testPathPattern', name]);
const bin = (name) => path.join(ROOT, 'node_modules/.bin', name);
const node = process.execPath;

if (only === null) {
  check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']);
  check('lint', bin('eslint'), ['.', '--max-warnings', '0']);
}
if (wants('types'))
  for (const place of ['packages/core', 'apps/server', 'apps/app', 'e2e', 'scripts'])
    check(`types of ${place}`, bin('tsc'), ['-p', place]);
if (wants('unit')) check('unit tests', bin('jest'), ['--selectProjects', 'core', 'app', ...patterns]);

if (wants('api') || wants('e2e')) {
  const { withDatabase } = await import('./throwaway.mjs');
  const { ensureBuilt, ensureWorker, MIGRATIONS_DIR, SERVER_FILE, WEB_DIR, WORKER_FILE } = await import('./build.mjs');
  await ensureWorker();
  await withDatabase(['api', 'spare', 'e2e', 'empty'], async (urls) => {
    if (wants('api'))
      check(
        'API on MariaDB',
        bin('jest'),
        ['--selectProjects', 'api', '--runInBand', '--passWithNoTests', ...patterns],
        {
          TEST_DATABASE_URL: urls.api,
          SPARE_DATABASE_URL: urls.spare,
          MIGRATIONS_DIR,
          WORKER_FILE,
        },
      );
    await ensureBuilt();
    if (wants('api'))
      check('commands', bin('jest'), ['--selectProjects', 'commands', '--runInBand', '--passWithNoTests', ...patterns]);
    if (wants('e2e')) {
      check('the app in a browser', node, [bin('jest'), '--selectProjects', 'e2e', '--runInBand', ...patterns], {
        TEST_DATABASE_URL: urls.e2e,
        EMPTY_DATABASE_URL: urls.empty,
        MIGRATIONS_DIR,
        WEB_DIR,
        SERVER_FILE,
        WORKER_FILE,
      });
    }
  });
}

const minutes = ((performance.now() - began) / 60_000).toFixed(1);
if (failures.length > 0) {
  console.error(`Failed: ${failures.join(', ')} (${minutes} min)`);
  process.exit(1);
}
console.log(`All good (${minutes} min).`);
