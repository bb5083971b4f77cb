import { type WheelRing, formatReading, ringPosition } from '../crank/wheel';
import { type Valve, noseAt } from '../cam/card';
import type { Rotation } from '../crank/rotation';
import { READ_METHODS } from '../measure/read-methods';
import { ENTRIES, type Entry } from '../record/entry';
import type { Station } from '../record/entries/stations';
import { nextReading } from './reading-words';
import type { Report } from './report-schema';

/** What a screen across the shop shows of a build: read-only, and legible at five metres. */
export interface Board {
  readonly name: string;
  readonly station: Station;
  /** What to do now. */
  readonly now: string;
  /** What was read last, as it was read and as it is called. */
  readonly last: { readonly figure: string; readonly word: string; readonly label: string } | null;
  /** `action` is null where it stands in `now` already, or nothing is to be done any more. */
  readonly verdict: { readonly headline: string; readonly action: string | null } | null;
  readonly wheel: {
    readonly ring: WheelRing;
    readonly rotation: Rotation;
    /** Under the pointer, crank degrees from the ring's 0. */
    readonly position: number;
    /** Ring position of true TDC, where it is proved. */
    readonly tdc: number | null;
    /** Where the peaks of the lobes shall come, ring positions. */
    readonly wanted: readonly { readonly at: number; readonly valve: Valve }[];
  };
}

/** What stands on the board for a build. */
export function boardOf(report: Report, entries: readonly Entry[]): Board {
  const { build, zero, verdict, target, sign } = report;
  const station = stationNow(report, entries);
  const now = nowWords(report, station);
  const last = lastReading(report, entries);
  const tdc = zero.state === 'proved' ? (zero.result?.tdc ?? null) : null;
  const peaks = [
    ['intake', target.intakeCentreline],
    ['exhaust', target.exhaustCentreline],
  ] as const;
  return {
    name: build.name,
    station,
    now,
    last: last && last.words,
    verdict:
      verdict.kind === 'waiting'
        ? null
        : { headline: verdict.headline, action: sign.closed || verdict.action === now ? null : verdict.action },
    wheel: {
      ring: zero.ring,
      rotation: build.engine.rotation,
      position: last?.position ?? tdc ?? 0,
      tdc,
      wanted: peaks.flatMap(([valve, centre]) =>
        centre === null || tdc === null ? [] : [{ at: noseAt(valve, centre) + tdc, valve }],
      ),
    },
  };
}

/** Where the work is: where the last entry was written, or where it leads to when that station is done. */
function stationNow({ stations, sign }: Report, entries: readonly Entry[]): Station {
  if (sign.closed) return 'sign';
  const last = entries.findLast(({ kind }) => ENTRIES[kind].station !== null);
  const from = (last && ENTRIES[last.kind].station) ?? 'prepare';
  // Not every engine has all of them.
  const ahead = stations.slice(
    Math.max(
      0,
      stations.findIndex(({ station }) => station === from),
    ),
  );
  return ahead.find(({ state }) => state !== 'done')?.station ?? 'sign';
}

const left = (count: number, what: string): string => `${count} ${count === 1 ? what : `${what}s`}`;

function nowWords(report: Report, station: Station): string {
  const { prepare, zero, read, verdict, proof, sign, build } = report;
  switch (station) {
    case 'prepare':
      return `Prepare: ${left(prepare.checks.filter(({ state }) => state === 'due').length, 'check')} to make.`;
    case 'zero':
      return zero.sentence;
    case 'card':
      return 'Enter the cam card and the target.';
    case 'read': {
      const open = read.open.at(-1);
      if (open) return nextReading(read, open, build.units).sentence;
      const { method, valve } = read.proposal;
      return `Read ${READ_METHODS[method].asked(valve)}.`;
    }
    case 'decide':
    case 'move':
      return verdict.action;
    case 'prove':
      return proof.sentence;
    case 'clear':
      return 'Measure the valve-to-piston clearance.';
    case 'rockers':
      return report.rockers.sentence;
    case 'lash':
      return report.lash.sentence;
    case 'sign': {
      const due = sign.checks.filter(({ state }) => state === 'due').length;
      if (sign.closed && sign.signed) return `Signed by ${sign.signed.name}.`;
      return due === 0 ? 'Sign it.' : `Before it runs: ${left(due, 'check')} to make.`;
    }
  }
}

/** The newest reading that was not taken back. */
function lastReading({ sheet }: Report, entries: readonly Entry[]) {
  const rows = new Map(sheet.flatMap(({ rows: all }) => all.map((row) => [row.entry, row] as const)));
  for (const entry of entries.toReversed()) {
    if (entry.kind !== 'zero.reading' && entry.kind !== 'reading.taken') continue;
    const row = rows.get(entry.id);
    if (!row || row.standing === 'voided') continue;
    const { wheel } = entry.body;
    const [figure = '', ...rest] = (wheel ? formatReading(wheel) : row.value).split(' ');
    return {
      words: { figure, word: rest.join(' '), label: row.label },
      position: wheel ? ringPosition(wheel) : null,
    };
  }
  return null;
}
