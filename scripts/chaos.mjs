import { Buffer } from 'node:buffer';
import { spawnSync } from 'node:child_process';
import { randomInt } from 'node:crypto';
import { closeSync, existsSync, mkdirSync, mkdtempSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import { setTimeout as wait } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import { ROOT, ensurePackages, ensurePrograms, fail, say } from './setup.mjs';

/**
 * `npm run chaos`: writes readings as fast as it can while server, database or both are killed, the database is frozen, its disk is full, two servers
 * work on one database, and migrations are killed at every step. Prints what was acknowledged, stored and lost, and how long it took to come back. On
 * loopback, in a folder of its own. `-- --kills 10 --parts kills` is a short form. Ends with 1 when anything was lost.
 */

const { values } = parseArgs({
  options: {
    kills: { type: 'string', default: '200' },
    parts: { type: 'string', default: '' },
    pause: { type: 'string', default: '600' },
  },
});
const KILLS = Number(values.kills);
/** Load between two kills, ms. */
const PAUSE_MS = Number(values.pause);
const BACK_WITHIN_MS = 60_000;
const TMPFS_MB = 400;

ensurePrograms('mariadbd');
ensurePackages();
const { ensureBuilt, MIGRATIONS_DIR } = await import('./build.mjs');
await ensureBuilt();
const { freePort, startDatabase } = await import('./database.mjs');
const { startServer } = await import('./server-process.mjs');
const { keepRunning } = await import('./supervise.mjs');
const { v7: uuidv7 } = await import('uuid');
const { ROUND, headersFor, load, openingOf, signIn } = await import('./chaos-load.mjs');

const folder = mkdtempSync(path.join(os.tmpdir(), 'yosoku-chaos-'));
process.on('exit', () => rmSync(folder, { recursive: true, force: true }));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => process.exit(1));

/** Database and servers, kept running as `npm start` does, but without an end to its patience. */
async function standUp(at, servers = 1) {
  const database = await startDatabase(path.join(at, 'db'), ['chaos']);
  const running = [];
  let stopping = false;
  const patient = { say: () => {}, most: Infinity, longest: 250 };
  let first = true;
  void keepRunning(
    'database',
    async () => {
      if (!first) await database.start();
      first = false;
      return database.ended();
    },
    () => stopping,
    patient,
  );
  const bases = [];
  for (let n = 0; n < servers; n += 1) {
    const port = await freePort();
    bases.push(`http://127.0.0.1:${port}`);
    const settings = {
      DATABASE_URL: database.urls.chaos,
      DEMO: '1',
      PORT: String(port),
      HOST: '127.0.0.1',
      LOG_DIR: path.join(at, `log-${n}`),
    };
    void keepRunning(
      'server',
      () => {
        running[n] = startServer(settings, () => {});
        return running[n].done;
      },
      () => stopping,
      patient,
    );
  }
  const healthy = async () => {
    for (const base of bases) {
      const answer = await fetch(`${base}/api/health`, { signal: AbortSignal.timeout(3_000) }).catch(() => null);
      if (answer?.status !== 200) return false;
    }
    return true;
  };
  /** How long until all of it answers again, ms. */
  const back = async () => {
    const began = performance.now();
    while (!(await healthy())) {
      if (performance.now() - began > BACK_WITHIN_MS) throw new Error('It did not come back within a minute.');
      await wait(25);
    }
    return performance.now() - began;
  };
  await back();
  return {
    bases,
    back,
    databasePid: () => Number(readFileSync(path.join(at, 'db/pid'), 'utf8')),
    serverPid: (n = 0) => running[n].pid,
    async stop() {
      stopping = true;
      await Promise.all(running.map((server) => server.stop()));
      await database.stop();
    },
  };
}

let bad = false;
function tell({ acknowledged, stored, lost, gaps, halves, refused, passing, cut, failed, last }) {
  console.log(
    `  acknowledged ${acknowledged}, stored ${stored}, lost ${lost}; gaps ${gaps}, half batches ${halves}; refused ${refused}, “busy” ${passing}, cut off ${cut}, failed (500) ${failed}`,
  );
  if (last) console.log(`  refused or failed last: ${last}`);
  if (lost + gaps + halves + failed + refused > 0 || acknowledged === 0) bad = true;
}
const median = (numbers) => numbers.toSorted((a, b) => a - b)[Math.floor(numbers.length / 2)] ?? NaN;
const seconds = (ms) => `${(ms / 1000).toFixed(2)} s`;

const PARTS = {
  async kills() {
    const up = await standUp(path.join(folder, 'kills'));
    const work = load(up.bases, await signIn(up.bases[0]));
    const times = { server: [], database: [], both: [] };
    const kinds = Object.keys(times);
    for (let n = 0; n < KILLS; n += 1) {
      await wait(PAUSE_MS / 2 + randomInt(PAUSE_MS + 1));
      const kind = kinds[n % kinds.length];
      if (kind !== 'database') process.kill(up.serverPid(), 'SIGKILL');
      if (kind !== 'server') process.kill(up.databasePid(), 'SIGKILL');
      await wait(10);
      times[kind].push(await up.back());
    }
    await wait(PAUSE_MS);
    await up.back();
    const found = await work.settle();
    say(`${KILLS} kills under load`);
    tell(found);
    for (const kind of kinds)
      if (times[kind].length > 0)
        console.log(
          `  ${kind} killed ${times[kind].length} times: back in ${seconds(median(times[kind]))} (median), ${seconds(Math.max(...times[kind]))} at most`,
        );
    await up.stop();
  },

  async frozen() {
    const up = await standUp(path.join(folder, 'frozen'));
    const work = load(up.bases, await signIn(up.bases[0]));
    await wait(1_000);
    const before = work.acknowledged();
    process.kill(up.databasePid(), 'SIGSTOP');
    await wait(15_000);
    const health = await fetch(`${up.bases[0]}/api/health`).then(({ status }) => status);
    process.kill(up.databasePid(), 'SIGCONT');
    const took = await up.back();
    await wait(1_500);
    const found = await work.settle();
    say(
      `a database frozen for 15 s: health said ${health}; slowest answer ${seconds(found.slowest)}; back in ${seconds(took)}`,
    );
    tell(found);
    if (health !== 503 || found.slowest > 10_000 || found.acknowledged <= before) bad = true;
    await up.stop();
  },

  async disk() {
    const at = path.join(folder, 'disk');
    mkdirSync(at);
    if (spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${TMPFS_MB}m`, 'tmpfs', at]).status !== 0) {
      say('a full disk: left out, no small disk can be mounted here');
      return;
    }
    try {
      const up = await standUp(at);
      const who = await signIn(up.bases[0]);
      const work = load(up.bases, who);
      await wait(1_000);
      const filler = path.join(at, 'filler');
      const file = openSync(filler, 'w');
      try {
        for (;;) writeSync(file, Buffer.alloc(1 << 20));
      } catch {
        // Full.
      }
      closeSync(file);
      await wait(8_000);
      const full = { ...work.count };
      rmSync(filler);
      const began = performance.now();
      const before = work.acknowledged();
      while (work.acknowledged() <= before + ROUND && performance.now() - began < BACK_WITHIN_MS) await wait(25);
      const took = performance.now() - began;
      await up.back();
      const found = await work.settle();
      say(
        `a full disk for 8 s: “busy” ${full.passing}, failed ${full.failed}; writing again ${seconds(took)} after there was room`,
      );
      tell(found);
      await up.stop();
    } finally {
      spawnSync('umount', ['-l', at]);
    }
  },

  async two() {
    const up = await standUp(path.join(folder, 'two'), 2);
    const who = await signIn(up.bases[0]);
    const buildId = uuidv7();
    const opening = openingOf(buildId, who.builderId, 'Chaos for two');
    await fetch(`${up.bases[0]}/api/builds`, {
      method: 'POST',
      headers: headersFor(up.bases[0], who.cookie),
      body: JSON.stringify({ entry: opening }),
    });
    const work = load(up.bases, who, buildId);
    for (let n = 0; n < 6; n += 1) {
      await wait(1_500);
      process.kill(up.serverPid(n % 2), 'SIGKILL');
      await up.back();
    }
    const found = await work.settle();
    say('two servers on one database, all devices on one build, six kills');
    // The opening itself is not of the load.
    tell(found);
    await up.stop();
  },

  async migrations() {
    const database = await startDatabase(path.join(folder, 'migrations'), ['chaos', 'whole']);
    const migrate = (name, killAt = '') =>
      spawnSync(process.execPath, ['--import', 'tsx', 'bench/migrate-and-die.mts'], {
        cwd: ROOT,
        env: { ...process.env, DATABASE_URL: database.urls[name], MIGRATIONS_DIR, KILL_AT: killAt },
        encoding: 'utf8',
      });
    const { form, steps } = JSON.parse(migrate('whole').stdout);
    let same = 0;
    for (let step = 1; step <= steps; step += 1) {
      const killed = migrate('chaos', String(step));
      if (killed.signal !== 'SIGKILL') throw new Error(`it was to be killed at step ${step}: ${killed.stderr}`);
      const done = migrate('chaos');
      if (done.status === 0 && JSON.parse(done.stdout).form === form) same += 1;
      migrate('chaos', 'empty');
    }
    say(`migrations killed at each of ${steps} steps: ${same} came to the same form when started again`);
    if (same !== steps) bad = true;
    await database.stop();
  },
};

const wanted = values.parts === '' ? Object.keys(PARTS) : values.parts.split(',');
const unknown = wanted.filter((part) => !(part in PARTS));
if (unknown.length > 0 || !(KILLS >= 0))
  fail(`There is no part ${unknown.join(', ')}. Known are ${Object.keys(PARTS).join(', ')}.`);
for (const part of wanted) {
  if (!existsSync(folder)) break;
  await PARTS[part]();
}
process.exit(bad ? 1 : 0);
