import { performance } from 'node:perf_hooks';
import { setTimeout as wait } from 'node:timers/promises';
import { v7 as uuidv7 } from 'uuid';

/** What `npm run chaos` writes while things are killed, and how it looks at what is left of it. */

const SIGN_IN = { signInName: 'mara', password: 'layout-dye-demo' };
const WRITERS = 6;
const BATCH = 5;
/** Entries of one round of all writers. */
export const ROUND = BATCH * WRITERS;

export const headersFor = (base, cookie = '') => ({
  'content-type': 'application/json',
  origin: base,
  ...(cookie ? { cookie } : {}),
});

export async function signIn(base) {
  const answer = await fetch(`${base}/api/session`, {
    method: 'POST',
    headers: headersFor(base),
    body: JSON.stringify(SIGN_IN),
  });
  if (answer.status !== 201) throw new Error(`sign-in: ${answer.status}`);
  const cookie = answer.headers.get('set-cookie').split(';')[0];
  const account = await (await fetch(`${base}/api/session`, { headers: headersFor(base, cookie) })).json();
  return { cookie, builderId: account.builderId };
}

const entryOf = (buildId, builderId, kind, body) => ({
  id: uuidv7(),
  buildId,
  kind,
  body,
  takenAt: new Date().toISOString(),
  builderId,
});

export const openingOf = (buildId, builderId, name) =>
  entryOf(buildId, builderId, 'build.described', {
    replaces: null,
    name,
    engine: { cylinders: 4, firingOrder: [1, 3, 4, 2], rotation: 'clockwise' },
    wheel: { ring: '0-180' },
    units: 'in',
  });

/** Devices that write batches into a build each, as an outbox does: what was not acknowledged is sent again as it was. */
export function load(bases, { cookie, builderId }, sameBuild = null) {
  const acknowledged = new Map();
  const batches = [];
  const count = { refused: 0, passing: 0, cut: 0, failed: 0 };
  let slowest = 0;
  let over = false;
  const send = async (base, where, body) => {
    const began = performance.now();
    try {
      const answer = await fetch(`${base}/api${where}`, {
        method: 'POST',
        headers: headersFor(base, cookie),
        body: JSON.stringify(body),
        signal: AbortSignal.timeout(9_900),
      });
      const json = await answer.json();
      if (answer.status === 201) return json.placed;
      if (answer.status === 503) count.passing += 1;
      else {
        if (answer.status >= 500) count.failed += 1;
        else count.refused += 1;
        count.last = `${answer.status} ${json.detail}`;
      }
    } catch {
      count.cut += 1;
    } finally {
      slowest = Math.max(slowest, performance.now() - began);
    }
    return null;
  };
  const write = async (n) => {
    const base = bases[n % bases.length];
    const buildId = sameBuild ?? uuidv7();
    const opening = openingOf(buildId, builderId, `Chaos ${n}`);
    const until = async (where, body) => {
      for (;;) {
        const placed = await send(base, where, body);
        if (placed) return placed;
        if (over) return null;
        await wait(40);
      }
    };
    const keep = (placed) => {
      for (const { id, seq } of placed ?? []) acknowledged.set(id, { buildId, seq });
    };
    if (!sameBuild) keep(await until('/builds', { entry: opening }));
    while (!over) {
      const entries = Array.from({ length: BATCH }, () => entryOf(buildId, builderId, 'trial.begun', { after: null }));
      batches.push({ buildId, ids: entries.map(({ id }) => id) });
      keep(await until(`/builds/${buildId}/entries`, { entries }));
      await wait(5);
    }
  };
  const writers = Array.from({ length: WRITERS }, (_, n) => write(n));
  return {
    count,
    slowest: () => slowest,
    acknowledged: () => acknowledged.size,
    /** Ends the load and looks at what the database has. */
    async settle() {
      over = true;
      await Promise.all(writers);
      const stored = new Map();
      let gaps = 0;
      for (const buildId of new Set([...acknowledged.values()].map((each) => each.buildId))) {
        const answer = await fetch(`${bases[0]}/api/builds/${buildId}/entries`, {
          headers: headersFor(bases[0], cookie),
        });
        const { entries } = await answer.json();
        entries.forEach(({ id, seq }, at) => {
          if (seq !== at + 1) gaps += 1;
          stored.set(id, seq);
        });
      }
      const lost = [...acknowledged].filter(([id, { seq }]) => stored.get(id) !== seq).length;
      const halves = batches.filter(({ ids }) => {
        const there = ids.filter((id) => stored.has(id)).length;
        return there > 0 && there < ids.length;
      }).length;
      return { acknowledged: acknowledged.size, stored: stored.size, lost, gaps, halves, ...count, slowest };
    },
  };
}
