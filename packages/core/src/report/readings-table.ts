import { ringPosition } from '../crank/wheel';
import type { Entry, EntryOf } from '../record/entry';
import { fold } from '../record/fold';
import { methodOf } from '../findings/readings/read-rounds';
import { figureOfReading } from '../findings/readings/round-trouble';
import { readingLabel } from './reading-words';

/** Headings of the table, units in them. */
export const READING_COLUMNS = [
  'trial',
  'taken at (UTC)',
  'kind',
  'cylinder',
  'valve',
  'method',
  'indicator on',
  'shows',
  'figure (mm)',
  'wheel as read',
  'ring position (crank degrees)',
  'approach',
  'read by',
  'counts',
  'why not',
] as const;

export type ReadingRow = Readonly<Record<(typeof READING_COLUMNS)[number], string | number>>;

const EMPTY: ReadingRow = {
  trial: '',
  'taken at (UTC)': '',
  kind: '',
  cylinder: '',
  valve: '',
  method: '',
  'indicator on': '',
  shows: '',
  'figure (mm)': '',
  'wheel as read': '',
  'ring position (crank degrees)': '',
  approach: '',
  'read by': 'eye',
  counts: 'yes',
  'why not': '',
};

const readBy = (from: { readonly box: string } | undefined): Partial<ReadingRow> =>
  from ? { 'read by': from.box } : {};

/**
 * Every reading of a build as rows of a table: contacts of the zero, readings of the cam, the points of its traces, clearances, lash. What was undone or left out stands in it too,
 * and says so.
 */
export function readingsTable(entries: readonly Entry[]): ReadingRow[] {
  const build = fold(entries);
  if (!build) return [];
  const numbers = new Map(build.trials.map(({ id }, at) => [id, at + 1]));
  const methods = new Map(
    build.trials.flatMap(({ rounds }) => rounds.map((round) => [round.id, methodOf(round)] as const)),
  );
  return entries.flatMap((entry): ReadingRow[] => {
    const left = build.voided.get(entry.id) ?? build.unlinked.get(entry.id);
    const common = {
      ...EMPTY,
      'taken at (UTC)': new Date(entry.takenAt).toISOString(),
      counts: left === undefined ? 'yes' : 'no',
      'why not': left ?? '',
    };
    switch (entry.kind) {
      case 'zero.reading': {
        const { side, indicator, wheel, from } = entry.body;
        return [
          {
            ...common,
            kind: 'zero',
            shows: `${side} TDC`,
            'figure (mm)': indicator ?? '',
            'wheel as read': wheel.shows,
            'ring position (crank degrees)': ringPosition(wheel),
            ...readBy(from),
          },
        ];
      }
      case 'reading.taken': {
        const { trial, cylinder, valve, round, method, sitsOn, wheel, approach, from } = entry.body;
        return [
          {
            ...common,
            trial: numbers.get(trial) ?? '',
            kind: 'cam',
            cylinder,
            valve,
            method: method ?? methods.get(round) ?? 'centreline',
            'indicator on': sitsOn,
            shows: readingLabel(entry.body),
            'figure (mm)': figureOfReading(entry.body),
            'wheel as read': wheel?.shows ?? '',
            'ring position (crank degrees)': wheel ? ringPosition(wheel) : '',
            approach,
            ...readBy(from),
          },
        ];
      }
      case 'trace.recorded': {
        const { trial, cylinder, valve, sitsOn, approach, points, source, name } = entry.body;
        const without = build.voidedPoints.get(entry.id);
        return points.map(([angle, lift], place) => ({
          ...common,
          trial: numbers.get(trial) ?? '',
          kind: 'trace',
          cylinder,
          valve,
          method: 'trace',
          'indicator on': sitsOn,
          'figure (mm)': lift,
          'ring position (crank degrees)': angle,
          approach,
          'read by': source === 'instrument' ? (name ?? source) : source,
          ...(without?.has(place) ? { counts: 'no', 'why not': 'left out of the trace' } : {}),
        }));
      }
      case 'clearance.measured': {
        const { trial, cylinder, valve, gaps } = entry.body;
        return gaps.map(({ at, gap }) => ({
          ...common,
          trial: numbers.get(trial) ?? '',
          kind: 'clearance',
          cylinder,
          valve,
          shows: 'valve to piston, past overlap TDC',
          'figure (mm)': gap,
          'ring position (crank degrees)': at,
        }));
      }
      case 'rocker.tried':
      case 'pushrod.measured':
      case 'lash.taken':
        return valveTrainRows(entry, common);
      default:
        return [];
    }
  });
}

/** What was found, set and tried at the valves: a row for each figure. */
function valveTrainRows(
  entry: EntryOf<'rocker.tried' | 'pushrod.measured' | 'lash.taken'>,
  common: ReadingRow,
): ReadingRow[] {
  const rows = (
    kind: string,
    more: Partial<ReadingRow>,
    figures: readonly (readonly [shows: string, figure: number | undefined])[],
  ): ReadingRow[] =>
    figures.flatMap(([shows, figure]) =>
      figure === undefined ? [] : [{ ...common, ...more, kind, shows, 'figure (mm)': figure }],
    );
  switch (entry.kind) {
    case 'rocker.tried': {
      const { cylinder, valve, length, lift, pattern, offset } = entry.body;
      return rows('rocker', { cylinder, valve }, [
        ['length tried', length],
        ['lift at the valve', lift],
        ['width of the pattern', pattern],
        ['pattern from the middle', offset],
      ]);
    }
    case 'pushrod.measured':
      return rows('pushrod', { valve: entry.body.valve }, [['length at zero lash', entry.body.length]]);
    case 'lash.taken': {
      const { cylinder, valve, which, found, set, turns, at } = entry.body;
      const where = { cylinder, valve, 'ring position (crank degrees)': at ?? '' };
      // As with clearances, the place is counted from where the line says.
      const of = which === undefined ? '' : ` of ${valve} ${which}`;
      const from = at === undefined ? '' : ', past firing TDC of cylinder 1';
      const turned =
        turns === undefined ? [] : [{ ...common, ...where, kind: 'lash', shows: `${turns} turns past zero lash${of}` }];
      return [
        ...rows('lash', where, [
          [`lash found${of}${from}`, found],
          [`lash set${of}${from}`, set],
        ]),
        ...turned,
      ];
    }
  }
}
