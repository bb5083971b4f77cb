import { type WheelRing, readingAt } from '../crank/wheel';
import type { BodyOf, Entry, EntryKind } from '../record/entry';
import { type Report, derive } from '../report/report';
import { reportSchema } from '../report/report-schema';
import type { ReadMethodName } from '../measure/read-methods';

export const BUILD = '00000000-0000-4000-8000-00000000b17d';
const BUILDER = '00000000-0000-4000-8000-0000000b0b0b';

let count = 0;
/** A fresh id. */
export const id = (): string => `00000000-0000-4000-8000-${String((count += 1)).padStart(12, '0')}`;

/** Writes entries the way a builder would make them. */
export function book(ring: WheelRing = { ring: '0-180' }, units: 'in' | 'mm' = 'in') {
  const entries: Entry[] = [];
  const write = <K extends EntryKind>(kind: K, body: BodyOf<K>): string => {
    const entryId = id();
    const takenAt = '2026-03-14T09:26:53Z';
    entries.push({ id: entryId, buildId: BUILD, kind, body, takenAt, builderId: BUILDER } as Entry);
    return entryId;
  };
  write('build.described', {
    replaces: null,
    name: 'Test six',
    engine: { cylinders: 6, firingOrder: [1, 5, 3, 6, 2, 4], rotation: 'clockwise', stroke: 88.392, rod: 144.78 },
    wheel: ring,
    units,
  });
  const trial = write('trial.begun', { after: null });
  const zero = write('zero.begun', { after: null, method: 'positive-stop', cylinder: 1 });
  const contact = (setting: string | null, pass: string, side: 'before' | 'after', at: number): string =>
    write('zero.reading', { zero, setting, pass, side, wheel: readingAt(ring, at) });
  const pass = (setting: string | null, forward: number, backward: number): void => {
    const passId = id();
    contact(setting, passId, 'before', forward);
    contact(setting, passId, 'after', backward);
  };
  const set = (after: string | null = null): string => write('zero.set', { zero, after, moved: 'wheel' });
  const reading = (
    setting: string | null,
    round: string,
    flank: 'opening' | 'closing',
    at: number,
    more: { drop?: number; approach?: 'forward' | 'backward'; trial?: string } = {},
  ): string =>
    write('reading.taken', {
      setting,
      trial: more.trial ?? trial,
      round,
      cylinder: 1,
      valve: 'intake',
      sitsOn: 'lifter',
      shows: { kind: 'below-peak', flank, drop: more.drop ?? 1.27 },
      approach: more.approach ?? 'forward',
      wheel: readingAt(ring, at),
    });
  const pair = (setting: string | null, opening: number, closing: number, more = {}): void => {
    const round = id();
    reading(setting, round, 'opening', opening, more);
    reading(setting, round, 'closing', closing, more);
  };
  /** A round of any method: each reading its figure, its flank, and the ring position where a wheel was read. */
  const round = (
    method: ReadMethodName,
    valve: 'intake' | 'exhaust',
    readings: readonly {
      readonly shows: BodyOf<'reading.taken'>['shows'];
      readonly at?: number;
      readonly approach?: 'forward' | 'backward';
    }[],
    more: {
      setting?: string | null;
      sitsOn?: BodyOf<'reading.taken'>['sitsOn'];
      trial?: string;
      cylinder?: number;
    } = {},
  ): string[] => {
    const roundId = id();
    return readings.map(({ shows, at, approach = 'forward' }) =>
      write('reading.taken', {
        setting: more.setting ?? null,
        trial: more.trial ?? trial,
        round: roundId,
        method,
        cylinder: more.cylinder ?? 1,
        valve,
        sitsOn: more.sitsOn ?? 'lifter',
        shows,
        approach,
        wheel: at === undefined ? null : readingAt(ring, at),
      }),
    );
  };
  const card = (centreline = 107): string =>
    write('card.entered', { replaces: null, intake: { centreline, lobeLift: 8.382 } });
  /** How the engine stands: head off, a wheel and an indicator, a solid lifter, a chain; unless told otherwise. */
  const stands = (more: Partial<BodyOf<'engine.as-it-stands'>> = {}): string =>
    write('engine.as-it-stands', {
      replaces: null,
      head: 'off',
      plugHole: true,
      wheel: true,
      indicator: true,
      lifter: 'solid',
      drive: 'chain',
      ...more,
    });
  const report = (): Report => {
    const derived = derive(entries);
    if (!derived) throw new Error('the logbook says what engine it is');
    return reportSchema.parse(derived);
  };
  /** The whole slice of work, with the wheel mounted `mount` degrees off. */
  const proved = (): string => {
    pass(null, -21, 26.5);
    const setting = set();
    pass(setting, -23.75, 23.75);
    return setting;
  };
  return { entries, write, contact, pass, set, reading, pair, round, card, stands, report, proved, zero, trial };
}
