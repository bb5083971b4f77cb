import type { Entry } from '@yosoku/core/record/entry';
import { derive } from '@yosoku/core/report/report';
import { inches } from '@yosoku/core/units/length';
import { type Pen, openLogbook } from './demo-logbook';

/** An engine with solid lifters that comes every winter to have its valves set: half of them are, one exhaust tightens by itself; new pushrods are being measured. */
export function sorrelCrossEight(pen: Pen): Entry[] {
  const book = openLogbook(pen);
  book.write('build.described', {
    replaces: null,
    name: 'Sorrel Cross eight',
    engine: {
      cylinders: 8,
      firingOrder: [1, 6, 2, 5, 8, 3, 7, 4],
      rotation: 'clockwise',
      stroke: inches('3.3'),
      rod: inches('5.8'),
      rockerRatio: { intake: 1.55, exhaust: 1.55 },
    },
    wheel: { ring: '0-180' },
    units: 'in',
  });
  book.write('engine.as-it-stands', {
    replaces: null,
    head: 'on',
    plugHole: true,
    wheel: true,
    indicator: true,
    lifter: 'solid',
    springs: 'valve',
    drive: 'chain',
  });
  book.write('card.entered', {
    replaces: null,
    name: 'Sorrel 272-108',
    intake: {
      centreline: 104,
      lobeLift: inches('0.345'),
      lashHot: inches('0.018'),
      timing: [
        { height: inches('0.020'), at: 'lobe', duration: 272 },
        { height: inches('0.050'), at: 'lobe', duration: 238 },
      ],
    },
    exhaust: {
      centreline: 112,
      lobeLift: inches('0.345'),
      lashHot: inches('0.020'),
      timing: [
        { height: inches('0.020'), at: 'lobe', duration: 276 },
        { height: inches('0.050'), at: 'lobe', duration: 242 },
      ],
    },
  });
  book.write('rockers.set-up', {
    replaces: null,
    mounted: 'stud',
    arm: inches('1.420'),
    tip: inches('0.340'),
    step: inches('0.025'),
  });
  const tried = (valve: 'intake' | 'exhaust', length: string, pattern: string, more: object = {}): string =>
    book.write('rocker.tried', { valve, cylinder: 1, length: inches(length), pattern: inches(pattern), ...more });
  tried('intake', '7.700', '0.058', { seen: 'above' });
  tried('intake', '7.925', '0.029', { seen: 'right', lift: inches('0.531') });
  book.write('pushrod.measured', {
    replaces: null,
    valve: 'intake',
    length: inches('7.931'),
    lifter: 'own',
    preload: 0,
    clears: true,
  });
  tried('exhaust', '7.700', '0.060');
  const wanted = { kind: 'lash', intake: inches('0.018'), exhaust: inches('0.020'), noGo: inches('0.002') } as const;
  const thou = inches('0.001');
  const job = (after: string | null): string =>
    book.write('lash.begun', { after, order: 'fewest', engine: 'hot', wanted });
  const take = (of: string, { cylinder, valve, at }: Place, found: number | null, set: number | null): void => {
    book.write('lash.taken', {
      job: of,
      cylinder,
      valve,
      at,
      ...(found === null ? {} : { found: found * thou }),
      ...(set === null ? {} : { set: set * thou, go: set * thou, noGo: (set + 2) * thou }),
    });
  };
  const lash = { intake: 18, exhaust: 20 };
  const first = job(null);
  const places = placesOf(book.entries);
  for (const place of places) take(first, place, null, lash[place.valve]);
  for (const place of places) take(first, place, lash[place.valve], null);
  const second = job(first);
  for (const place of places) take(second, place, foundAfter(place, 1), lash[place.valve]);
  for (const place of places) take(second, place, lash[place.valve], null);
  const now = job(second);
  for (const [at, place] of places.entries()) if (at < DONE) take(now, place, foundAfter(place, 2), lash[place.valve]);
  return book.entries;
}

/** So many valves are set this winter; the rest waits. */
const DONE = 11;

interface Place {
  readonly cylinder: number;
  readonly valve: 'intake' | 'exhaust';
  readonly at: number;
}

/** The valves in the order in which they are set, and where. */
function placesOf(entries: readonly Entry[]): Place[] {
  const stops = derive(entries)?.lash.job?.stops ?? [];
  return stops.flatMap(({ at, valves }) => valves.map(({ cylinder, valve }) => ({ cylinder, valve, at: at ?? 0 })));
}

/** What a winter later shows: most as they were, cylinder 5's exhaust tighter each time. */
function foundAfter({ cylinder, valve }: Place, winters: number): number {
  if (valve === 'intake') return 18 + (cylinder % 3 === 0 ? 1 : 0);
  return cylinder === 5 ? 18 - (winters - 1) : 20 + (cylinder % 4 === 0 ? 1 : 0);
}
