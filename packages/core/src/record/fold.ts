import type { Valve } from '../cam/card';
import type { CheckName } from '../prepare/checks';
import type { SignCheckName } from '../sign/sign-checks';
import { type ReadTo, readTo } from '../crank/read-to';
import type { WheelReading } from '../crank/wheel';
import type { Ground, LashJob, Round, Stage, Trial, Zero } from './parts';
import { afterSignature, findVoided } from './counted';
import type { Entry, EntryKind, EntryOf } from './entry';
import { besideOf, groupBy, inOrder, lastOf, lastOfEach, sortById, unreplaced } from './links';
import { remember } from './remember';

/** What a logbook says, before any arithmetic: links followed, voided entries out, corrections applied. */
export interface Build extends Ground {
  /** The part of it that all trials lean on: the same object for as long as nothing in it changes, as each trial is. */
  readonly ground: Ground;
  /** Cards that neither `card` nor what it corrects has replaced: entered on two devices, or written into a file. */
  readonly otherCards: readonly EntryOf<'card.entered'>[];
  readonly zero: Zero | null;
  readonly checks: ReadonlyMap<CheckName, EntryOf<'prepare.checked'>>;
  readonly endPlay: EntryOf<'end-play.measured'> | null;
  readonly identified: EntryOf<'tdc.identified'> | null;
  readonly mark: EntryOf<'mark.checked'> | null;
  readonly trials: readonly Trial[];
  readonly trial: Trial | null;
  readonly clearance: EntryOf<'clearance.set-up'> | null;
  readonly photos: readonly EntryOf<'photo.taken'>[];
  readonly rockers: EntryOf<'rockers.set-up'> | null;
  readonly rockerTrials: readonly EntryOf<'rocker.tried'>[];
  /** By kind of valve: the last, and those beside it that it does not replace. */
  readonly pushrods: ReadonlyMap<Valve, readonly EntryOf<'pushrod.measured'>[]>;
  /** The valves set, once and again over the years, in their order. */
  readonly lashJobs: readonly LashJob[];
  readonly signChecks: ReadonlyMap<SignCheckName, EntryOf<'sign.checked'>>;
  /** The last signature, and the reopening that ended it. */
  readonly signature: EntryOf<'build.signed'> | null;
  readonly reopened: EntryOf<'build.reopened'> | null;
  readonly voided: ReadonlyMap<string, string>;
  /** Entries that name something which is not in the logbook, or has been voided: entry id → what is missing. */
  readonly unlinked: ReadonlyMap<string, string>;
  readonly entryCount: number;
}

/**
 * Folds a logbook into a build. Order of arrival and clocks do not matter: only the ids that entries name do.
 * @param entries of one build, in any order (rows are listed in the order given).
 * @returns null when nothing in it says what engine this is.
 */
export function fold(entries: readonly Entry[]): Build | null {
  const late = afterSignature(entries);
  const counted = late.size === 0 ? entries : entries.filter((entry) => !late.has(entry.id));
  const voided = findVoided(counted);
  const live = counted.filter((entry) => !voided.has(entry.id));
  const byKind = groupByKind(live);
  const all = <K extends EntryKind>(kind: K): readonly EntryOf<K>[] =>
    (byKind.get(kind) ?? []) as unknown as readonly EntryOf<K>[];

  const description = lastOf(all('build.described'), (body) => body.replaces);
  if (!description) return null;

  const unlinked = new Map(
    [...late].map((entry) => [entry, 'It came after the signature: kept, and no part of what was signed.']),
  );
  const begun = inOrder(all('zero.begun'), (body) => body.after);
  const settings = inOrder(all('zero.set'), (body) => body.after);
  const trialsBegun = inOrder(all('trial.begun'), (body) => body.after);
  const zeroIds = new Set(begun.map((entry) => entry.id));
  const settingIds = new Set(settings.map((entry) => entry.id));
  const trialIds = new Set(trialsBegun.map((entry) => entry.id));

  const taken = all('zero.reading').filter(({ id, body }) => {
    const lost = !zeroIds.has(body.zero) || (body.setting !== null && !settingIds.has(body.setting));
    if (lost) unlinked.set(id, 'It belongs to a zero that has been undone or is not in the logbook.');
    return !lost;
  });
  const ofTrial = <E extends EntryOf<TrialKind>>({ id, body }: E): boolean => {
    const lost = !trialIds.has(body.trial);
    if (lost) unlinked.set(id, 'It belongs to a trial that has been undone or is not in the logbook.');
    return !lost;
  };
  const readings = all('reading.taken').filter(ofTrial);
  const inTrial = <K extends TrialKind>(kind: K): Map<string, EntryOf<K>[]> =>
    groupBy(all(kind).filter(ofTrial) as EntryOf<K>[], (entry) => (entry as EntryOf<TrialKind>).body.trial);
  const readingsByTrial = groupBy(readings, (entry) => entry.body.trial);
  const rest = {
    traces: inTrial('trace.recorded'),
    drives: inTrial('drive.fitted'),
    phasers: inTrial('phaser.read'),
    gaps: inTrial('clearance.measured'),
    accepted: inTrial('verdict.accepted'),
  };
  const trials = trialsBegun.map((entry) => foldTrial(entry, readingsByTrial.get(entry.id) ?? [], rest));
  const card = lastOf(all('card.entered'), (body) => body.replaces);
  const ground = foldGround(description, {
    card,
    target: lastOf(all('target.set'), (body) => body.replaces),
    asItStands: lastOf(all('engine.as-it-stands'), (body) => body.replaces),
    begun,
    settings,
    taken,
    readTo: readTo(wheelsOf(taken, readings)),
    disturbed: all('zero.disturbed'),
    rebased: all('readings.rebased'),
    pointsVoided: all('trace.points-voided'),
  });
  const signature = lastOf(all('build.signed'), (body) => body.after);

  return {
    ...ground,
    ground,
    otherCards: card ? besideOf(all('card.entered'), card, (body) => body.replaces) : [],
    zero: ground.zeros.at(-1) ?? null,
    checks: lastOfEach(all('prepare.checked'), (entry) => entry.body.check),
    clearance: lastOf(all('clearance.set-up'), (body) => body.replaces),
    photos: sortById(all('photo.taken')),
    rockers: lastOf(all('rockers.set-up'), (body) => body.replaces),
    rockerTrials: sortById(all('rocker.tried')),
    pushrods: groupBy(unreplaced(all('pushrod.measured')), (entry) => entry.body.valve),
    lashJobs: lashJobsOf(all('lash.begun'), all('lash.taken'), unlinked),
    signChecks: lastOfEach(all('sign.checked'), (entry) => entry.body.check),
    signature,
    reopened: (signature && all('build.reopened').find(({ body }) => body.signature === signature.id)) ?? null,
    endPlay: lastOf(all('end-play.measured'), (body) => body.replaces),
    identified: lastOf(all('tdc.identified'), (body) => body.replaces),
    mark: lastOf(all('mark.checked'), (body) => body.replaces),
    trials,
    trial: trials.at(-1) ?? null,
    voided,
    unlinked,
    entryCount: entries.length,
  };
}

const sameGround = remember<EntryOf<'build.described'>, Ground>();

/** What all trials lean on, from the entries that count. */
function foldGround(
  description: EntryOf<'build.described'>,
  said: Pick<Ground, 'card' | 'target' | 'asItStands'> & {
    readonly begun: readonly EntryOf<'zero.begun'>[];
    readonly settings: readonly EntryOf<'zero.set'>[];
    readonly taken: readonly EntryOf<'zero.reading'>[];
    readonly readTo: ReadTo;
    readonly disturbed: readonly EntryOf<'zero.disturbed'>[];
    readonly rebased: readonly EntryOf<'readings.rebased'>[];
    readonly pointsVoided: readonly EntryOf<'trace.points-voided'>[];
  },
): Ground {
  const { card, target, asItStands, begun, settings, taken, disturbed, rebased, pointsVoided } = said;
  const { wheel, tape } = said.readTo;
  const links = [...begun, ...settings, ...taken, ...disturbed, ...rebased, ...pointsVoided];
  return sameGround(description, [card, target, asItStands, wheel, tape, ...links], () => {
    const takenByZero = groupBy(taken, (entry) => entry.body.zero);
    const settingsByZero = groupBy(settings, (entry) => entry.body.zero);
    return {
      description,
      card,
      target,
      asItStands,
      zeros: begun.map((entry) => ({
        ...buildZero(entry, settingsByZero.get(entry.id) ?? [], takenByZero.get(entry.id) ?? []),
        readTo: said.readTo,
      })),
      disturbed: new Map(disturbed.map((entry) => [entry.body.setting, entry])),
      rebased: new Map(rebased.flatMap((entry) => entry.body.readings.map((reading) => [reading, entry] as const))),
      voidedPoints: voidedPointsOf(pointsVoided),
    };
  });
}

const sameTrial = remember<EntryOf<'trial.begun'>, Trial>();

/** A trial with what was read and done in it. */
function foldTrial(
  entry: EntryOf<'trial.begun'>,
  readings: readonly EntryOf<'reading.taken'>[],
  rest: {
    readonly traces: ReadonlyMap<string, readonly EntryOf<'trace.recorded'>[]>;
    readonly drives: ReadonlyMap<string, readonly EntryOf<'drive.fitted'>[]>;
    readonly phasers: ReadonlyMap<string, readonly EntryOf<'phaser.read'>[]>;
    readonly gaps: ReadonlyMap<string, readonly EntryOf<'clearance.measured'>[]>;
    readonly accepted: ReadonlyMap<string, readonly EntryOf<'verdict.accepted'>[]>;
  },
): Trial {
  const { id, body, takenAt } = entry;
  const traces = rest.traces.get(id) ?? [];
  const drives = rest.drives.get(id) ?? [];
  const phasers = rest.phasers.get(id) ?? [];
  const gaps = rest.gaps.get(id) ?? [];
  const accepted = rest.accepted.get(id) ?? [];
  return sameTrial(entry, [...readings, ...traces, ...drives, ...phasers, ...gaps, ...accepted], () => ({
    id,
    note: body.note,
    begunAt: takenAt,
    why: body.why ?? 'moved',
    move: body.move,
    rounds: [...groupBy(readings, (reading) => reading.body.round)].map(([round, members]): Round => ({
      id: round,
      readings: members,
    })),
    traces,
    drive: lastOf(drives, (before) => before.replaces),
    phasers: sortById(phasers),
    gaps: sortById(gaps),
    accepted: inOrder(accepted, (before) => before.replaces),
  }));
}

/** Every setting of the valves with what was taken in it; what belongs to none is named. */
function lashJobsOf(
  begun: readonly EntryOf<'lash.begun'>[],
  taken: readonly EntryOf<'lash.taken'>[],
  unlinked: Map<string, string>,
): LashJob[] {
  const byJob = groupBy(taken, (entry) => entry.body.job);
  const jobs = inOrder(begun, (body) => body.after).map((entry) => ({
    begun: entry,
    taken: sortById(byJob.get(entry.id) ?? []),
  }));
  for (const { begun: known } of jobs) byJob.delete(known.id);
  for (const { id } of [...byJob.values()].flat())
    unlinked.set(id, 'It belongs to a setting of the lash that has been undone or is not in the logbook.');
  return jobs;
}

const voidedPointsOf = (entries: readonly EntryOf<'trace.points-voided'>[]): Build['voidedPoints'] =>
  new Map(
    [...groupBy(entries, (entry) => entry.body.trace)].map(([trace, members]) => [
      trace,
      new Set(members.flatMap((entry) => entry.body.points)),
    ]),
  );

/** Everything that was read off a wheel or a tape. */
function* wheelsOf(
  taken: readonly EntryOf<'zero.reading'>[],
  readings: readonly EntryOf<'reading.taken'>[],
): Iterable<WheelReading> {
  for (const { body } of taken) yield body.wheel;
  for (const { body } of readings) if (body.wheel) yield body.wheel;
}

type TrialKind =
  'reading.taken' | 'trace.recorded' | 'drive.fitted' | 'phaser.read' | 'clearance.measured' | 'verdict.accepted';

function buildZero(
  { id, body: begun }: EntryOf<'zero.begun'>,
  settings: readonly EntryOf<'zero.set'>[],
  taken: readonly EntryOf<'zero.reading'>[],
): Omit<Zero, 'readTo'> {
  const byStage = groupBy(taken, (entry) => entry.body.setting);
  const stage = (stageId: string | null): Stage => ({
    id: stageId,
    passes: [...groupBy(byStage.get(stageId) ?? [], (entry) => entry.body.pass)].map(([passId, members]) => ({
      id: passId,
      before: members.filter((entry) => entry.body.side === 'before'),
      after: members.filter((entry) => entry.body.side === 'after'),
    })),
  });
  const first = stage(null);
  const stages = [first, ...settings.map((entry) => stage(entry.id))];
  return { id, begun, stages, current: stages.at(-1) ?? first };
}

const groupByKind = (entries: readonly Entry[]): Map<EntryKind, Entry[]> => groupBy(entries, (entry) => entry.kind);
