import { performance } from 'node:perf_hooks';
import { setTimeout as wait } from 'node:timers/promises';
import { v7 as uuidv7 } from 'uuid';

/** How long everybody else waits while one large file is taken in, its Report worked out and its sheet laid out, again and again. */

const SECONDS = 12;
const EVERY_MS = 15;
const TRACES = 34;
const POINTS = 7200;

const quantile = (values, q) => values.toSorted((a, b) => a - b)[Math.floor(values.length * q)] ?? NaN;

/** A file near the most that is worked through: so many of the longest traces, a lobe of our own invention with a little noise. */
function largeFile(builderId, buildId) {
  const entry = (kind, body) => ({ id: uuidv7(), buildId, kind, takenAt: '2026-03-14T09:00:00.000Z', builderId, body });
  const trial = entry('trial.begun', { after: null });
  const trace = (n) =>
    entry('trace.recorded', {
      setting: null,
      trial: trial.id,
      cylinder: 1,
      valve: n % 2 ? 'exhaust' : 'intake',
      sitsOn: 'lifter',
      approach: 'forward',
      source: 'file',
      counted: 'anyhow',
      points: Array.from({ length: POINTS }, (_, i) => {
        const from = (i / 10 - 360 - (n % 2 ? -113 : 104)) / 148;
        const lift = Math.abs(from) < 1 ? 8.2 * (1 - from * from) ** 3 : 0;
        return [i / 10 - 360, Math.round((lift + 0.004 * Math.sin(i * 12.9898 + n)) * 1e4) / 1e4];
      }),
    });
  const opening = entry('build.described', {
    replaces: null,
    name: 'A large file',
    engine: { cylinders: 4, firingOrder: [1, 3, 4, 2], rotation: 'clockwise' },
    wheel: { ring: '0-180' },
    units: 'mm',
  });
  const entries = [opening, trial, ...Array.from({ length: TRACES }, (_, n) => trace(n))];
  return JSON.stringify({ format: 'yosoku-build', version: 1, builders: [], entries });
}

export async function benchBeside(base) {
  const json = { 'content-type': 'application/json', origin: base };
  const body = JSON.stringify({ signInName: 'mara', password: 'layout-dye-demo' });
  const answer = await fetch(`${base}/api/session`, { method: 'POST', headers: json, body });
  const headers = { ...json, cookie: answer.headers.get('set-cookie').split(';')[0] };
  const { builds } = await (await fetch(`${base}/api/builds`, { headers })).json();

  /** Waiting times of a list, a logbook and a page, asked for in turn. */
  const places = ['/api/builds', `/api/builds/${builds[0].id}/entries`, '/', '/api/session'];
  async function others(until) {
    const took = [];
    const asked = [];
    for (let n = 0; performance.now() < until; n += 1) {
      const began = performance.now();
      asked.push(
        fetch(base + places[n % places.length], { headers: { ...headers, accept: 'text/html' } }).then(async (got) => {
          await got.arrayBuffer();
          took.push(performance.now() - began);
        }),
      );
      await wait(EVERY_MS);
    }
    await Promise.all(asked);
    return { p50: quantile(took, 0.5), p99: quantile(took, 0.99), most: Math.max(...took) };
  }

  // Made before anything is timed: making it would keep this process from hearing the answers. Only its build's id changes from import to import.
  const first = uuidv7();
  const file = largeFile(uuidv7(), first);
  const alone = await others(performance.now() + 3_000);
  const until = performance.now() + SECONDS * 1000;
  const heavy = { imports: 0, reports: 0, sheets: 0, longest: 0 };
  async function work() {
    while (performance.now() < until) {
      const buildId = uuidv7();
      const text = file.replaceAll(first, buildId);
      const began = performance.now();
      const taken = await fetch(`${base}/api/import`, { method: 'POST', headers, body: text });
      if (taken.status !== 201) throw new Error(`import: ${taken.status} ${await taken.text()}`);
      heavy.imports += 1;
      await (await fetch(`${base}/api/builds/${buildId}/report`, { headers })).arrayBuffer();
      heavy.reports += 1;
      await (await fetch(`${base}/api/builds/${buildId}/sheet.pdf`, { headers })).arrayBuffer();
      heavy.sheets += 1;
      heavy.longest = Math.max(heavy.longest, performance.now() - began);
    }
  }
  const [beside] = await Promise.all([others(until), work()]);
  return { alone, beside, heavy };
}
