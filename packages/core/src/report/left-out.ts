import type { TrialFinding } from '../findings/derive-trial';
import type { ZeroFinding } from '../findings/derive-zero';
import type { Problem } from '../problem';
import type { Build } from '../record/fold';
import { remember } from '../record/remember';
import { LEFT_OUT } from './reading-words';
import type { Report } from './report-schema';

type ReportedTrial = Report['trials'][number];

/** Passes and pairs that cannot be right, with the entries that they consist of. */
export function troubledGroups(zero: ZeroFinding, trials: readonly TrialFinding[]): TroubledGroup[] {
  const groups: TroubledGroup[] = [];
  for (const { problem, readings } of zero.passes)
    if (problem) groups.push({ entries: readings.map(({ entry }) => entry), ...problem });
  for (const trial of trials) groups.push(...sameTroubles(trial, [], () => troublesOf(trial)));
  return groups;
}

const sameTroubles = remember<TrialFinding, readonly TroubledGroup[]>();

function troublesOf({ rounds, traces }: TrialFinding): TroubledGroup[] {
  const groups: TroubledGroup[] = [];
  for (const { problem, readings, lacking } of rounds) {
    if (problem) groups.push({ entries: readings.map(({ entry }) => entry), ...problem });
    if (problem === null && lacking === 0 && readings.length <= 2) continue;
    const aside = readings.filter((reading) => reading.aside !== null);
    if (aside[0]?.aside)
      groups.push({
        entries: aside.map(({ entry }) => entry),
        message: LEFT_OUT[aside[0].aside],
        remedy: 'Come again the way it runs.',
      });
  }
  for (const { problem, dots, typed, id } of traces)
    if (problem) groups.push({ entries: typed ? dots.map(({ entry }) => entry) : [id], ...problem });
  return groups;
}

export interface TroubledGroup extends Problem {
  readonly entries: string[];
}

/** Why an entry is kept but left out: entry id → reason. */
export function asideNotes(
  build: Build,
  zero: Report['zero'],
  trials: readonly ReportedTrial[],
  troubled: readonly TroubledGroup[],
): Map<string, string> {
  const notes = new Map(build.unlinked);
  for (const { entries, message, remedy } of troubled) for (const id of entries) notes.set(id, `${message} ${remedy}`);
  for (const trial of trials) {
    const asides = sameAsides(trial, [build.ground, zero.state], () => asidesOf(trial, build, zero));
    for (const [entry, reason] of asides) if (!notes.has(entry)) notes.set(entry, reason);
  }
  return notes;
}

type Asides = readonly (readonly [entry: string, reason: string])[];
const sameAsides = remember<ReportedTrial, Asides>();

/** Readings of a trial that are left out by themselves, or lean on a zero that has fallen. */
const asidesOf = ({ rounds }: ReportedTrial, build: Build, zero: Report['zero']): Asides =>
  rounds.flatMap(({ readings, zeroProved }) =>
    readings.flatMap(({ entry, aside, setting }) => {
      const reason = aside ?? (zeroProved || setting === null ? null : fallenZero(setting, build, zero));
      return reason === null ? [] : [[entry, reason] as const];
    }),
  );

/** Why the zero of a position of the wheel has fallen, or null. */
function fallenZero(setting: string, build: Build, zero: Report['zero']): string | null {
  if (build.disturbed.has(setting)) return 'The TDC that it depends on is no longer valid.';
  const failed = zero.state === 'failed' && setting === build.zero?.current.id;
  return failed ? 'A later proof of the TDC that it depends on failed.' : null;
}
