import { Bench } from 'tinybench';
import type { BodyOf, Entry, EntryKind } from '../packages/core/src/record/entry';
import { derive } from '../packages/core/src/report/report';

/** Prints how long a logbook of 50, 1,000 and 10,000 entries takes to derive, opened and at one reading more, as JSON: median and 99th percentile, ms. */

/** A long build: trials of ten repeated pairs each, one reading in twenty undone. */
function longLogbook(size: number): Entry[] {
  let count = 0;
  const id = (): string => `00000000-0000-4000-8000-${String((count += 1)).padStart(12, '0')}`;
  const entries: Entry[] = [];
  const [buildId, builderId] = [id(), id()];
  const write = <K extends EntryKind>(kind: K, body: BodyOf<K>): string => {
    const entryId = id();
    entries.push({ id: entryId, buildId, kind, body, takenAt: '2026-03-14T09:26:53Z', builderId } as Entry);
    return entryId;
  };
  write('build.described', {
    replaces: null,
    name: 'Long build',
    engine: { cylinders: 4, firingOrder: [1, 3, 4, 2], rotation: 'clockwise' },
    wheel: { ring: '0-180' },
    units: 'in',
  });
  const zero = write('zero.begun', { after: null, method: 'positive-stop', cylinder: 1 });
  const pass = (setting: string | null): void => {
    const passId = id();
    for (const side of ['before', 'after'] as const)
      write('zero.reading', {
        zero,
        setting,
        pass: passId,
        side,
        wheel: { ring: '0-180', shows: 25, side },
      });
  };
  pass(null);
  const setting = write('zero.set', { zero, after: null, moved: 'wheel' });
  pass(setting);
  write('card.entered', { replaces: null, intake: { centreline: 107, lobeLift: 8.4 } });
  let trial = write('trial.begun', { after: null });
  for (let pair = 0; entries.length < size - 1; pair += 1) {
    if (pair % 10 === 9) trial = write('trial.begun', { after: trial });
    const round = id();
    for (const flank of ['opening', 'closing'] as const) {
      const reading = write('reading.taken', {
        setting,
        trial,
        round,
        cylinder: 1,
        valve: 'intake',
        sitsOn: 'lifter',
        shows: { kind: 'below-peak', flank, drop: 1.27 },
        approach: 'forward',
        wheel: { ring: '0-180', shows: (flank === 'opening' ? 66 : 153) + (pair % 3) / 4, side: 'after' },
      });
      if (pair % 10 === 5 && flank === 'closing') write('entry.voided', { voids: reading });
    }
  }
  return entries.slice(0, size);
}

/** The next reading of the last trial, each time another. */
function nextReading(entries: readonly Entry[], count: number): Entry {
  const like = entries.findLast((entry) => entry.kind === 'reading.taken');
  const trial = entries.findLast((entry) => entry.kind === 'trial.begun');
  if (!like || !trial) throw new Error('nothing was read');
  const at = String(count).padStart(12, '0');
  return {
    ...like,
    id: `10000000-0000-4000-8000-${at}`,
    body: {
      ...like.body,
      trial: trial.id,
      round: `20000000-0000-4000-8000-${at}`,
      wheel: { ring: '0-180', shows: 66 + (count % 3) / 4, side: 'after' },
    },
  };
}

const bench = new Bench({ time: 1500, warmupTime: 500 });
for (const size of [50, 1_000, 10_000]) {
  const entries = longLogbook(size);
  let opened = entries;
  // As from the device's memory: nothing is known of any of it.
  bench.add(
    `${size} opened`,
    () => {
      if (!derive(opened)) throw new Error('nothing derived');
    },
    { beforeEach: () => void (opened = structuredClone(entries)) },
  );
  let count = 0;
  let more = entries;
  bench.add(
    `${size} reading`,
    () => {
      if (!derive(more)) throw new Error('nothing derived');
    },
    { beforeEach: () => void (more = [...entries, nextReading(entries, (count += 1))]) },
  );
}
await bench.run();
const figures = bench.tasks.map(({ name, result }) => {
  if (!('latency' in result)) throw new Error(`no figures for ${name}`);
  const [entries, what] = name.split(' ');
  return { entries: Number(entries), what, p50: result.latency.p50, p99: result.latency.p99 };
});
console.log(JSON.stringify(figures));
