import { execFileSync, spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import { setTimeout as wait } from 'node:timers/promises';
import { ROOT, ensurePackages, ensurePrograms, fail, say } from './setup.mjs';

/** `npm run bench`: prints every figure of the README. `npm run bench -- derive post` takes only those parts. Ends with 1 when a part failed. */

ensurePrograms('mariadbd', 'chromium', 'chromedriver');
ensurePackages();
const { bundleForNode, ensureBuilt, ensureWorker, MIGRATIONS_DIR, STAMP, WEB_DIR, WORKER_FILE } =
  await import('./build.mjs');
const { freePort } = await import('./database.mjs');
const { withDatabase, withDemo } = await import('./throwaway.mjs');

const asked = process.argv.slice(2);
const wants = (part) => asked.length === 0 || asked.includes(part);
const ms = (value) => `${value.toFixed(value < 10 ? 2 : 0)} ms`;
const kb = (bytes) => `${(bytes / 1024).toFixed(0)} KB`;

// Beneath the packages: what is not bundled is looked for from there upwards.
const cache = path.join(ROOT, 'node_modules/.cache');
mkdirSync(cache, { recursive: true });
const scratch = mkdtempSync(path.join(cache, 'yosoku-bench-'));
process.on('exit', () => rmSync(scratch, { recursive: true, force: true }));

/** Measured as it is delivered: bundled, not translated while it runs. */
async function bundled(file) {
  const outfile = path.join(scratch, `${path.basename(file)}.mjs`);
  await bundleForNode(path.join(ROOT, file), outfile);
  return outfile;
}

const json = (args, env = {}) =>
  JSON.parse(execFileSync(process.execPath, args, { cwd: ROOT, encoding: 'utf8', env: { ...process.env, ...env } }));

async function answerTime(state) {
  const port = await freePort();
  const began = performance.now();
  const command = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: ROOT,
    env: { ...process.env, YOSOKU_STATE: state, PORT: String(port), HOST: '127.0.0.1' },
    stdio: 'ignore',
  });
  for (;;) {
    const answer = await fetch(`http://127.0.0.1:${port}/api/health`).catch(() => null);
    if (answer?.ok) break;
    await wait(20);
  }
  const took = performance.now() - began;
  command.kill('SIGTERM');
  await new Promise((resolve) => command.on('exit', resolve));
  return took;
}

const PARTS = {
  async derive() {
    say('deriving a logbook, opened and at one reading more: median and 99th percentile');
    for (const { entries, what, p50, p99 } of json([await bundled('bench/derive.mts')]))
      console.log(`  ${entries} entries, ${what}: ${ms(p50)}, ${ms(p99)}`);
  },
  async zero() {
    const { microseconds } = json([await bundled('bench/zero.mts')]);
    say(`TDC and its uncertainty from one pass: ${microseconds.toFixed(1)} µs`);
  },
  async decide() {
    const { weigh, diagnose, million } = json([await bundled('bench/decide.mts')]);
    say(
      `ten readings weighed: ${ms(weigh)}; what went wrong, all faults: ${ms(diagnose)}; a million draws on one core: ${ms(million)}`,
    );
  },
  async move() {
    const { plan, room, sweep } = json([await bundled('bench/move.mts')]);
    say(
      `12,411 ways of setting a drive planned: ${ms(plan)}; room for a valve: ${ms(room)}; its clearance swept over crank and cam: ${ms(sweep)}`,
    );
  },
  async trace() {
    const { p50, p99 } = json([await bundled('bench/trace.mts')]);
    say(`a trace of 720 points, read: ${ms(p50)}, 99th percentile ${ms(p99)}`);
  },
  async wheel() {
    await ensureBuilt();
    say('the wheel turned by a finger, phone size, processor slowed four times, median of 5');
    await withDemo((base) => {
      const runs = Array.from({ length: 5 }, () => json(['--import', 'tsx', 'e2e/wheel-redraw.ts'], { BASE: base }));
      const median = (key) => runs.map((run) => run[key]).sort((a, b) => a - b)[2];
      console.log(
        `  ${median('fps').toFixed(0)} frames a second, of them ${median('redraws').toFixed(0)} with the wheel moved`,
      );
    });
  },
  async practice() {
    const { frame, line, grown, good } = json(['--expose-gc', await bundled('bench/practice.mts')]);
    say(
      `a frame of the practice engine: ${frame.toFixed(0)} µs of arithmetic; a line of an instrument: ${line.toFixed(1)} µs; a minute at 1,000 lines a second: ${(100 * good).toFixed(1)} % believed, heap ${grown < 0 ? 'shrunk' : 'grown'} by ${kb(Math.abs(grown))}`,
    );
    await ensureBuilt();
    say('the practice engine turned by a finger, phone size, processor slowed four times, median of 5');
    await withDemo((base) => {
      const runs = Array.from({ length: 5 }, () => json(['--import', 'tsx', 'e2e/practice-frames.ts'], { BASE: base }));
      const median = (key) => runs.map((run) => run[key]).sort((a, b) => a - b)[2];
      console.log(
        `  ${median('fps').toFixed(0)} frames a second, of them ${median('redraws').toFixed(0)} with piston and needle moved`,
      );
    });
  },
  async load() {
    await ensureBuilt();
    say('JavaScript of a page, cache empty');
    await withDemo((base) => {
      const pages = json(['--import', 'tsx', 'e2e/first-load.ts'], { BASE: base, WEB_DIR });
      for (const [page, { files, raw, gzip }] of Object.entries(pages))
        console.log(`  ${page}: ${files} files, ${kb(raw)} raw, ${kb(gzip)} gzipped`);
      say('the first page on an old phone: processor slowed four times, 1.6 Mbit/s, median of 3');
      const { never, been } = json(['--import', 'tsx', 'e2e/slow-start.ts'], { BASE: base });
      const start = ({ typed, there }) =>
        `sign-in can be typed in after ${ms(typed)}, program there after ${ms(there)}`;
      console.log(`  never been here: ${start(never)}; been here: ${start(been)}`);
    });
  },
  async start() {
    say('from the start command to the first answer, packages installed');
    const state = path.join(scratch, 'state');
    rmSync(STAMP, { force: true });
    console.log(`  nothing built, no database: ${ms(await answerTime(state))}`);
    const warm = [];
    for (let i = 0; i < 5; i += 1) warm.push(await answerTime(state));
    console.log(`  all there, median of 5: ${ms(warm.sort((a, b) => a - b)[2])}`);
  },
  async beside() {
    await ensureBuilt();
    const { benchBeside } = await import('../bench/beside.mjs');
    const { alone, beside, heavy } = await withDemo(benchBeside);
    say('what others wait for while large files are taken in, worked out and printed');
    console.log(`  nothing else going on: p50 ${ms(alone.p50)}, p99 ${ms(alone.p99)}`);
    console.log(
      `  beside ${heavy.imports} imports, ${heavy.reports} reports and ${heavy.sheets} sheets: p50 ${ms(beside.p50)}, p99 ${ms(beside.p99)}, at most ${ms(beside.most)}; each of the large ones ${(heavy.longest / 1000).toFixed(1)} s`,
    );
  },
  async post() {
    await ensureWorker();
    const { benchPosts } = await import('../bench/post.mjs');
    const port = await freePort();
    const program = await bundled('bench/post-server.mts');
    const figures = await withDatabase(['bench'], ({ bench }) =>
      benchPosts(program, bench, { MIGRATIONS_DIR, WORKER_FILE, LOG_DIR: path.join(scratch, 'log') }, port),
    );
    say(`posting one entry each over ${figures.connections} connections, median of ${figures.rounds} rounds in turn`);
    for (const [what, key] of [
      ['the entries route', 'real'],
      ['a bare route with one INSERT', 'bare'],
    ]) {
      const { perSecond, p50, p99 } = figures[key];
      console.log(`  ${what}: ${perSecond.toFixed(0)} a second, p50 ${p50} ms, p99 ${p99} ms`);
    }
    console.log(`  ratio round by round: median ${(100 * figures.ratio).toFixed(0)} %`);
  },
};

const wrong = asked.filter((part) => !(part in PARTS));
if (wrong.length > 0) fail(`There is no part ${wrong.join(', ')}. Known are ${Object.keys(PARTS).join(', ')}.`);
// One part that fails does not hide the others.
const failed = [];
for (const [part, measure] of Object.entries(PARTS)) {
  if (!wants(part)) continue;
  try {
    await measure();
  } catch (error) {
    failed.push(part);
    console.error(`  ${part} FAILED: ${error.message}`);
  }
}
if (failed.length > 0) fail(`Failed: ${failed.join(', ')}`);
