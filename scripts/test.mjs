import { spawn } from 'node:child_process';
import { Buffer } from 'node:buffer';
import os from 'node:os';
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
  ...(needsDatabase ? ['chromium', 'chromedriver', 'certutil'] : []),
);
ensurePackages();
ensureState();

const began = performance.now();
const failures = [];

/**
 * Runs one check. Where others run beside it, what it says is kept together and printed when it has ended.
 * @param behind it takes only what processor the others leave.
 * @returns when it has ended, well or not.
 */
function check(what, command, args, { env = {}, behind = false } = {}) {
  const started = performance.now();
  const alone = only !== null;
  say(what);
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: ROOT,
      stdio: ['ignore', alone ? 'inherit' : 'pipe', alone ? 'inherit' : 'pipe'],
      env: { ...process.env, FORCE_COLOR: process.stdout.isTTY ? '1' : '0', ...env },
    });
    if (behind && child.pid !== undefined) os.setPriority(child.pid, os.constants.priority.PRIORITY_BELOW_NORMAL);
    const said = [];
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (text) => said.push(text));
    child.on('close', (status) => {
      process.stdout.write(Buffer.concat(said));
      const seconds = ((performance.now() - started) / 1000).toFixed(0);
      say(`${what}: ${status === 0 ? 'good' : 'FAILED'} (${seconds} s)`);
      if (status !== 0) failures.push(what);
      resolve();
    });
  });
}

const patterns = named.flatMap((name) => ['--testPathPattern', name]);
const bin = (name) => path.join(ROOT, 'node_modules/.bin', name);
const jest = (what, projects, more = [], how = {}) =>
  check(what, bin('jest'), ['--selectProjects', ...projects, '--passWithNoTests', ...more, ...patterns], how);

/**
 * Several checks at a time: machines that run this have two cores, and what waits for databases and servers leaves a third of them idle.
 * @param lanes of each the checks that are done in this order; it goes on with what is free.
 * @param free done in any order: the longest first.
 */
async function sideBySide(lanes, free) {
  const left = [...free];
  await Promise.all(
    lanes.map(async (lane) => {
      for (const work of lane) await work();
      for (let work = left.shift(); work; work = left.shift()) await work();
    }),
  );
}

const BEHIND = { behind: true };
const style = [
  () => check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.'], BEHIND),
  () => check('lint', bin('eslint'), ['.', '--max-warnings', '0'], BEHIND),
  () => check('unused', bin('knip'), [], BEHIND),
  () => check('house', process.execPath, ['scripts/house.mjs'], BEHIND),
];
const TYPED = [
  'packages/core',
  'apps/server',
  'apps/app',
  'apps/app/service-worker',
  'apps/app/first-page',
  'e2e',
  'scripts',
  'bench',
];
/** The native compiler, for a fifth of the processor. `typescript` itself stays for those who ask it things: the lint, the bundler. */
const TSC = path.join(ROOT, 'node_modules/typescript-native/bin/tsc');
// In one thread: its usual four, on two cores that do other things besides, take two to three times the processor for the same answer.
const types = TYPED.map((place) => () => check(`types of ${place}`, TSC, ['-p', place, '--singleThreaded'], BEHIND));

if (wants('types') && only !== null) await sideBySide([[], []], types);
if (wants('unit') && only !== null) await jest('unit tests', ['core', 'logic', 'app']);

if (needsDatabase) {
  const { withDatabaseForChecks } = await import('./throwaway.mjs');
  const { ensureBuilt, ensureWorker, MIGRATIONS_DIR, SERVER_FILE, WEB_DIR, WORKER_FILE } = await import('./build.mjs');
  await ensureWorker();
  // Each browser has a server and databases of its own.
  const browsers = [1, 2];
  const bases = browsers.flatMap((browser) => [`e2e${browser}`, `empty${browser}`]);
  await withDatabaseForChecks(['api', 'spare', ...bases], async (urls) => {
    const api = () =>
      jest('API on MariaDB', ['api'], ['--runInBand'], {
        env: { TEST_DATABASE_URL: urls.api, SPARE_DATABASE_URL: urls.spare, MIGRATIONS_DIR, WORKER_FILE },
      });
    const commands = () => jest('commands', ['commands'], ['--runInBand']);
    const starting = () =>
      jest('starting and stopping', ['commands'], ['--runInBand', '--testPathIgnorePatterns', 'every-script']);
    const everyScript = () => jest('every script', ['commands'], ['--runInBand', '--testPathPattern', 'every-script']);
    const inBrowser = () =>
      jest('the app in a browser', ['e2e'], [`--maxWorkers=${browsers.length}`], {
        env: {
          DEMO_DATABASE_URLS: browsers.map((browser) => urls[`e2e${browser}`]).join(' '),
          EMPTY_DATABASE_URLS: browsers.map((browser) => urls[`empty${browser}`]).join(' '),
          MIGRATIONS_DIR,
          WEB_DIR,
          SERVER_FILE,
          WORKER_FILE,
        },
      });
    if (only === null) {
      const core = () => jest('unit tests of the core', ['core'], ['--maxWorkers=1'], BEHIND);
      const app = () => jest('unit tests of the app', ['logic', 'app'], ['--maxWorkers=1'], BEHIND);
      // Before the API's checks, which use the worker that is built too, and those of the commands, which start what was built. In a process of its
      // own: what waits for it would keep this one from beginning anything else.
      let building;
      const built = () => (building ??= check('build', process.execPath, ['scripts/build.mjs']));
      // The browser's are the longest, and wait for screens and servers a part of their time: the others fill that. Not starting and stopping: that kills and
      // stops servers whose workers stand behind everything else, and two busy browsers would leave those nothing.
      await sideBySide([[built, starting, inBrowser], [built, api, everyScript], []], [core, app, ...style, ...types]);
      return;
    }
    if (wants('api')) await api();
    await ensureBuilt();
    if (wants('api')) await commands();
    if (wants('e2e')) await inBrowser();
  });
}

const minutes = ((performance.now() - began) / 60_000).toFixed(1);
if (failures.length > 0) {
  console.error(`Failed: ${failures.join(', ')} (${minutes} min)`);
  process.exit(1);
}
console.log(`All good (${minutes} min).`);
