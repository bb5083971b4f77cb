import { formatReading } from '../crank/wheel';
import { ZERO_METHODS, type ZeroMethodName } from '../crank/zero-methods';
import { PREPARE_CHECKS } from '../prepare/checks';
import { computedDegrees, wheelDegrees } from '../units/degrees';
import { formatLength } from '../units/length';
import type { CrankFinding } from './derive-crank';
import type { PrepareFinding } from './derive-prepare';
import type { TrialFinding } from './derive-trial';
import { targetInForce } from './derive-trial';
import type { ZeroFinding } from './derive-zero';
import type { Entry } from './entry';
import type { Build } from './fold';

/** A line of the running record. `entry` is what can be undone; results have none. */
export interface SheetRow {
  readonly entry: string | null;
  readonly label: string;
  readonly value: string;
  /** counts: used. voided: undone, shown struck through. aside: kept but left out. result: worked out. card: given. */
  readonly standing: 'counts' | 'voided' | 'aside' | 'result' | 'card';
  readonly note: string | null;
}

export interface SheetSection {
  readonly title: string;
  readonly rows: readonly SheetRow[];
}

const FLANK_LABEL = { opening: 'before peak', closing: 'after peak' } as const;
const SET_LABEL = {
  wheel: 'Wheel slipped',
  pointer: 'Pointer moved',
  mark: 'Mark made',
  nothing: 'Left as it was',
} as const;
const DISTURBED_LABEL = {
  wheel: 'The wheel was disturbed',
  pointer: 'The pointer was disturbed',
  fixing: 'The fixing was disturbed',
  'with-drive': 'Wheel or pointer touched with the drive',
} as const;

/** The sheet as on the clipboard: everything that was written down, in its order, and what follows from it. */
export function makeSheet(
  entries: readonly Entry[],
  build: Build,
  findings: {
    readonly prepare: PrepareFinding;
    readonly zero: ZeroFinding;
    readonly crank: CrankFinding;
    readonly trials: readonly TrialFinding[];
  },
): SheetSection[] {
  const { prepare, zero, crank, trials } = findings;
  const { units } = build.description.body;
  const aside = asideNotes(build, zero, trials);
  const standing = (entry: Entry): Pick<SheetRow, 'standing' | 'note'> => {
    const voided = build.voided.get(entry.id);
    if (voided !== undefined) return { standing: 'voided', note: voided };
    const reason = aside.get(entry.id);
    return reason === undefined ? { standing: 'counts', note: null } : { standing: 'aside', note: reason };
  };
  const row = (entry: Entry, label: string, value: string): SheetRow => ({
    entry: entry.id,
    label,
    value,
    ...standing(entry),
  });
  const result = (label: string, value: string, note: string | null = null): SheetRow => ({
    entry: null,
    label,
    value,
    standing: 'result',
    note,
  });

  const prepareRows: SheetRow[] = [];
  const zeroRows: SheetRow[] = [];
  const methods = new Map<string, ZeroMethodName>();
  const crankEntries: Entry[] = [];
  const readingRows = new Map<string, SheetRow[]>();
  const trialStarts = new Map<string, SheetRow>();
  for (const entry of entries) {
    switch (entry.kind) {
      case 'zero.begun':
        methods.set(entry.id, entry.body.method);
        zeroRows.push({ ...row(entry, ZERO_METHODS[entry.body.method].name, ''), entry: null, standing: 'card' });
        break;
      case 'zero.reading': {
        const { side, setting, indicator, zero: of } = entry.body;
        const words = ZERO_METHODS[methods.get(of) ?? 'positive-stop'].label[side];
        const at = indicator === undefined ? '' : `${formatLength(indicator, units)}, `;
        zeroRows.push(row(entry, `${at}${words}${setting === null ? '' : ', proof'}`, formatReading(entry.body.wheel)));
        break;
      }
      case 'zero.disturbed':
        zeroRows.push(row(entry, DISTURBED_LABEL[entry.body.what], 'zero void'));
        break;
      case 'readings.rebased':
        zeroRows.push(
          row(
            entry,
            `Re-based: ${entry.body.readings.length} readings, only the wheel had moved`,
            computedDegrees(entry.body.by, 2),
          ),
        );
        break;
      case 'prepare.checked': {
        const { check, result: answer, reason } = entry.body;
        const line = row(entry, PREPARE_CHECKS[check].title, answer);
        prepareRows.push({ ...line, note: line.note ?? reason ?? null });
        break;
      }
      case 'end-play.measured':
        prepareRows.push(row(entry, `Cam end play, ${entry.body.thrust}`, formatLength(entry.body.play, units)));
        break;
      case 'tdc.identified':
      case 'mark.checked':
        crankEntries.push(entry);
        break;
      case 'zero.set':
        zeroRows.push(row(entry, SET_LABEL[entry.body.moved], ''));
        break;
      case 'reading.taken': {
        const { shows, wheel, trial } = entry.body;
        const label = `${formatLength(shows.drop, units)} ${FLANK_LABEL[shows.flank]}`;
        const rows = readingRows.get(trial) ?? [];
        rows.push(row(entry, label, formatReading(wheel)));
        readingRows.set(trial, rows);
        break;
      }
      case 'trial.begun':
        if (entry.body.after !== null) trialStarts.set(entry.id, row(entry, entry.body.note ?? 'Cam moved', ''));
        break;
      case 'build.described':
      case 'engine.as-it-stands':
      case 'card.entered':
      case 'target.set':
      case 'entry.voided':
        break;
    }
  }
  if (zero.result && zero.state === 'proved')
    zeroRows.push(result(`TDC proved, ${zero.uncertainty?.words ?? ''}`, '', zero.remark));
  if (prepare.endPlay) prepareRows.push(result('End play', '', prepare.endPlay.words));
  const crankRows = crankEntries.map((entry) => {
    const now =
      entry.id === crank.identified?.entry
        ? crank.identified.words
        : entry.id === crank.mark?.entry
          ? crank.mark.words
          : 'corrected';
    return row(entry, entry.kind === 'mark.checked' ? 'The engine’s own mark' : 'Which TDC', now);
  });

  const sections: SheetSection[] = [
    { title: 'Prepare', rows: prepareRows },
    { title: 'Zero', rows: zeroRows },
    { title: 'The crank', rows: crankRows },
    cardSection(build),
  ];
  const known = new Set(trials.map((trial) => trial.id));
  for (const trial of trials) {
    const start = trialStarts.get(trial.id);
    const rows = [...(start ? [start] : []), ...(readingRows.get(trial.id) ?? [])];
    if (trial.centreline) {
      const rebased = trial.rounds.find((round) => round.rebasedBy !== null)?.rebasedBy;
      const repeats =
        trial.centreline.count > 1
          ? `mean of ${trial.centreline.count}, ${computedDegrees(trial.centreline.spread)} apart`
          : null;
      const shifted = rebased === undefined || rebased === null ? null : `re-based by ${computedDegrees(rebased, 2)}`;
      const note = [repeats, shifted].filter((each) => each !== null).join('; ') || null;
      rows.push(result('Intake centreline', computedDegrees(trial.centreline.mean, 2), note));
    }
    if (trial.verdict) rows.push(result(trial.verdict.headline, '', trial.verdict.action));
    sections.push({ title: `Trial ${trial.number}`, rows });
  }
  const loose = [...readingRows].filter(([trial]) => !known.has(trial)).flatMap(([, rows]) => rows);
  if (loose.length > 0) sections.push({ title: 'Without a trial', rows: loose });
  return sections.filter((section) => section.rows.length > 0);
}

function cardSection(build: Build): SheetSection {
  const { units } = build.description.body;
  const rows: SheetRow[] = [];
  const given = (label: string, value: string): void => {
    rows.push({ entry: null, label, value, standing: 'card', note: null });
  };
  if (build.card) {
    const { name, intake } = build.card.body;
    if (name) given('Card', name);
    if (intake.centreline !== undefined) given('Intake centreline', wheelDegrees(intake.centreline));
    if (intake.lobeLift !== undefined) given('Lobe lift, intake', formatLength(intake.lobeLift, units));
  }
  if (build.card || build.target) {
    const { target, limit } = targetInForce(build);
    given('Target', targetWords(target));
    given('Limit', `±${wheelDegrees(limit)}`);
  }
  return { title: 'Card', rows };
}

/** `targetWords({ kind: 'ahead-of-card', advance: 2 })` is "2° ahead of card". */
export function targetWords(target: ReturnType<typeof targetInForce>['target']): string {
  switch (target.kind) {
    case 'card':
      return 'as the card';
    case 'centreline':
      return `${wheelDegrees(target.centreline)} ATDC`;
    case 'ahead-of-card':
      return target.advance < 0
        ? `${wheelDegrees(-target.advance)} behind card`
        : `${wheelDegrees(target.advance)} ahead of card`;
  }
}

/** Passes and pairs that cannot be right, with the entries that they consist of. */
export const troubledGroups = (zero: ZeroFinding, trials: readonly TrialFinding[]) => [
  ...zero.passes.flatMap(({ problem, readings }) =>
    problem ? [{ entries: readings.map(({ entry }) => entry), ...problem }] : [],
  ),
  ...trials
    .flatMap((trial) => trial.rounds)
    .flatMap(({ problem, readings }) => (problem ? [{ entries: readings.map(({ entry }) => entry), ...problem }] : [])),
];

/** Why an entry is kept but left out: entry id → reason. */
function asideNotes(build: Build, zero: ZeroFinding, trials: readonly TrialFinding[]): Map<string, string> {
  const notes = new Map(build.adrift);
  for (const { entries, message, remedy } of troubledGroups(zero, trials))
    for (const id of entries) notes.set(id, `${message} ${remedy}`);
  for (const round of trials.flatMap((trial) => trial.rounds))
    if (!round.zeroProved)
      for (const { entry, setting } of round.readings) {
        const reason = setting === null ? null : fallenZero(setting, build, zero);
        if (reason !== null && !notes.has(entry)) notes.set(entry, reason);
      }
  return notes;
}

/** Why the zero of a position of the wheel has fallen, or null. */
function fallenZero(setting: string, build: Build, zero: ZeroFinding): string | null {
  if (build.disturbed.has(setting)) return 'The zero that it leans on is void.';
  const failed = zero.state === 'failed' && setting === build.zero?.current.id;
  return failed ? 'A later proof of the zero that it leans on failed.' : null;
}
