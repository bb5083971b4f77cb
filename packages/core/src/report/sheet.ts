import { formatReading } from '../crank/wheel';
import { ZERO_METHODS, type ZeroMethodName } from '../tdc/zero-methods';
import type { CompletedCard } from '../cam/complete-card';
import { READ_METHODS } from '../measure/read-methods';
import { PREPARE_CHECKS } from '../prepare/checks';
import type { Problem } from '../problem';
import { computedDegrees, wheelDegrees } from '../units/degrees';
import { formatLength } from '../units/length';
import { SIGN_CHECKS } from '../sign/sign-checks';
import { settingLabel } from '../timing-set/hardware';
import { signed } from '../timing-set/kinds/kind';
import type { ClearanceFinding } from '../findings/derive-clearance';
import type { CrankFinding } from '../findings/derive-crank';
import type { DriveFinding } from '../findings/derive-drive';
import type { PrepareFinding } from '../findings/derive-prepare';
import type { ProofFinding } from '../findings/derive-proof';
import type { SignFinding } from '../findings/derive-sign';
import type { TrialFinding } from '../findings/derive-trial';
import { targetInForce } from '../findings/derive-trial';
import type { ZeroFinding } from '../findings/derive-zero';
import { figureOfReading, readingLabel } from '../findings/readings/read-rounds';
import type { View } from '../findings/views/view';
import type { WearFinding } from '../findings/derive-wear';
import type { Entry } from '../record/entry';
import type { Build } from '../record/fold';

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
    readonly card: CompletedCard;
    readonly trials: readonly TrialFinding[];
    readonly troubled: readonly TroubledGroup[];
    readonly wear: readonly WearFinding[];
    readonly drive: DriveFinding;
    readonly proof: ProofFinding;
    readonly clearance: readonly ClearanceFinding[];
    readonly sign: SignFinding;
  },
): SheetSection[] {
  const { prepare, zero, crank, card, trials, troubled, wear, drive, proof, clearance, sign } = findings;
  const { units } = build.description.body;
  const aside = asideNotes(build, zero, trials, troubled);
  const standing = (entry: Entry): Pick<SheetRow, 'standing' | 'note'> => {
    const voided = build.voided.get(entry.id);
    if (voided !== undefined) return { standing: 'voided', note: voided };
    const reason = aside.get(entry.id);
    return reason === undefined ? { standing: 'counts', note: boxNote(entry) } : { standing: 'aside', note: reason };
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
  const clearRows: SheetRow[] = [];
  const signRows: SheetRow[] = [];
  const readingRows = new Map<string, SheetRow[]>();
  // Drops and heights are few and come again in every reading.
  const lengths = new Map<number, string>();
  const lengthWords = (mm: number): string => {
    const before = lengths.get(mm);
    if (before !== undefined) return before;
    const words = formatLength(mm, units);
    lengths.set(mm, words);
    return words;
  };
  const rowsOf = (trial: string): SheetRow[] => {
    const known = readingRows.get(trial);
    if (known) return known;
    const fresh: SheetRow[] = [];
    readingRows.set(trial, fresh);
    return fresh;
  };
  const traceTrials = new Map(
    entries.flatMap((entry) => (entry.kind === 'trace.recorded' ? [[entry.id, entry.body.trial] as const] : [])),
  );
  const trialStarts = new Map<string, SheetRow>();
  /** Settings of the wheel that the cam has been read on. */
  const readOn = new Set<string>();
  for (const entry of entries) {
    switch (entry.kind) {
      case 'zero.begun':
        methods.set(entry.id, entry.body.method);
        zeroRows.push({ ...row(entry, ZERO_METHODS[entry.body.method].name, ''), entry: null, standing: 'card' });
        break;
      case 'zero.reading': {
        const { side, setting, indicator, closing, zero: of } = entry.body;
        const words = ZERO_METHODS[methods.get(of) ?? 'positive-stop'].label[side];
        const at = indicator === undefined ? '' : `${formatLength(indicator, units)}, `;
        // Files older than the mark: a contact after the cam was read can only be one.
        const what = setting === null ? '' : closing || readOn.has(setting) ? ', closing check' : ', proof';
        zeroRows.push(row(entry, `${at}${words}${what}`, formatReading(entry.body.wheel)));
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
        if (entry.body.setting !== null) readOn.add(entry.body.setting);
        const { shows, wheel, trial, valve, sitsOn } = entry.body;
        const figure = lengthWords(figureOfReading(entry.body));
        const where = `${valve === 'exhaust' ? 'Exhaust, ' : ''}${sitsOn === 'valve' ? 'at the valve, ' : ''}`;
        const words = readingLabel(entry.body);
        const brought = shows.kind === 'below-peak' || shows.kind === 'above-base' || wheel === null;
        rowsOf(trial).push(
          wheel === null || shows.kind === 'tdc-lift'
            ? row(entry, `${where}${words}`, figure)
            : row(entry, brought ? `${where}${figure} ${words}` : `${where}${words}, ${figure}`, formatReading(wheel)),
        );
        break;
      }
      case 'trace.recorded': {
        if (entry.body.setting !== null) readOn.add(entry.body.setting);
        const { trial, valve, points, name } = entry.body;
        rowsOf(trial).push(
          row(entry, `Trace, ${valve}${name === undefined ? '' : `, ${name}`}`, `${points.length} points`),
        );
        break;
      }
      case 'trace.points-voided': {
        const trial = traceTrials.get(entry.body.trace);
        if (trial !== undefined)
          rowsOf(trial).push(row(entry, 'Left out of the trace', `${entry.body.points.length} points`));
        break;
      }
      case 'trial.begun': {
        if (entry.body.after === null) break;
        const said = entry.body.why === 'checked' ? 'Measured again, nothing moved' : 'Cam moved';
        trialStarts.set(entry.id, row(entry, entry.body.note ?? said, ''));
        break;
      }
      case 'drive.fitted':
        for (const { name, hardware, at } of entry.body.parts)
          rowsOf(entry.body.trial).push(row(entry, `On the drive: ${name}`, settingLabel(hardware, at)));
        break;
      case 'phaser.read':
        rowsOf(entry.body.trial).push(
          row(entry, `Angle of the phaser, nominal ${signed(entry.body.nominal)}`, signed(entry.body.shows)),
        );
        break;
      case 'clearance.measured':
        for (const { at, gap } of entry.body.gaps)
          clearRows.push(
            row(
              entry,
              `${entry.body.valve === 'intake' ? 'Intake' : 'Exhaust'} to piston, ${at === 0 ? 'at TDC' : `${wheelDegrees(Math.abs(at))} ${at < 0 ? 'before' : 'after'} TDC`}`,
              formatLength(gap, units),
            ),
          );
        break;
      case 'sign.checked': {
        const { check, result: answer, reason } = entry.body;
        const line = row(entry, SIGN_CHECKS[check].title, answer);
        signRows.push({ ...line, note: line.note ?? reason ?? null });
        break;
      }
      case 'build.signed':
        signRows.push({ ...row(entry, `Signed by ${entry.body.name}`, dateOf(entry.takenAt)), entry: null });
        if (entry.receivedAt)
          signRows.push(result('Received, by the server’s clock', dateOf(entry.receivedAt), timeOf(entry.receivedAt)));
        if (entry.body.note) signRows.push(result(entry.body.note, ''));
        break;
      case 'build.reopened':
        signRows.push({ ...row(entry, `Reopened: ${entry.body.reason}`, dateOf(entry.takenAt)), entry: null });
        break;
      case 'build.described':
      case 'engine.as-it-stands':
      case 'card.entered':
      case 'target.set':
      case 'clearance.set-up':
      case 'entry.voided':
        break;
    }
  }
  if (zero.result && zero.state === 'proved')
    zeroRows.push(
      result(`TDC proved, ${zero.uncertainty?.words ?? ''}`, '', [zero.remark, zero.odd].filter(Boolean).join(' ')),
    );
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
    cardSection(build, card),
  ];
  const known = new Set(trials.map((trial) => trial.id));
  for (const trial of trials) {
    const start = trialStarts.get(trial.id);
    const rows = [...(start ? [start] : []), ...movedRows(drive, trial, result), ...(readingRows.get(trial.id) ?? [])];
    for (const view of trial.views) rows.push(result(view.title, view.shows, viewNote(view, trial)));
    if (trial.decision.verdict)
      rows.push(
        result(
          trial.decision.verdict.headline,
          '',
          [trial.decision.verdict.action, ...trial.decision.verdict.beside].join(' '),
        ),
      );
    for (const { words, check } of trial.decision.faults.slice(1)) rows.push(result(`Or: ${words}`, '', check));
    if (trial === trials.at(-1) && proof.state === 'proved') rows.push(result('The move is proved', '', proof.gave));
    sections.push({ title: trialTitle(trial.number), rows });
  }
  if (wear.length > 0)
    sections.push({ title: 'Since it was measured before', rows: wear.map(({ words }) => result(words, '')) });
  for (const { state, valve, words } of clearance)
    if (state !== 'unknown')
      clearRows.push(result(`${valve === 'intake' ? 'Intake' : 'Exhaust'}, valve to piston`, '', words));
  sections.push({ title: 'Clear', rows: clearRows });
  if (sign.signed) for (const { words } of sign.baselines) signRows.push(result(`Baseline: ${words}`, ''));
  sections.push({ title: 'Sign', rows: signRows });
  const sent = entries.filter(({ postedBy, builderId }) => postedBy !== undefined && postedBy !== builderId).length;
  if (sent > 0)
    sections.push({
      title: 'Sent by somebody else',
      rows: [
        result(
          `${sent === 1 ? 'An entry' : 'Entries'} sent under another sign-in than that of the builder named`,
          String(sent),
        ),
      ],
    });
  const loose = [...readingRows].filter(([trial]) => !known.has(trial)).flatMap(([, rows]) => rows);
  if (loose.length > 0) sections.push({ title: 'Without a trial', rows: loose });
  return sections.filter((section) => section.rows.length > 0);
}

/** What was set before a trial, and what it gave. */
function movedRows(
  { moves }: DriveFinding,
  { id }: TrialFinding,
  result: (label: string, value: string, note?: string | null) => SheetRow,
): SheetRow[] {
  const move = moves.get(id);
  if (!move) return [];
  const set = move.parts.map(({ name, from, to }) => result(`Set: ${name}`, to, `was ${from}`));
  return move.words ? [...set, result('What it gave', '', move.words)] : set;
}

/** A day as it is written on paper: "2026-03-14". The device's clock, for people. */
const dateOf = (time: string): string => time.slice(0, 10);
/** `timeOf('2026-03-14T09:26:53.000Z')` is "09:26 UTC". */
const timeOf = (time: string): string => `${new Date(time).toISOString().slice(11, 16)} UTC`;

/** Heading of a trial on the sheet. */
export const trialTitle = (number: number): string => `Trial ${number}`;

/** What a view makes of the cam's place, and its share in the verdict: "2.5° late ±0.7°, 62 % of the result". */
export function placeWords({ delta, deltaExpanded, weight }: Pick<View, 'delta' | 'deltaExpanded' | 'weight'>): string {
  const size = computedDegrees(Math.abs(delta ?? 0));
  const off = size === '0.0°' ? 'on the target' : `${size} ${(delta ?? 0) < 0 ? 'late' : 'early'}`;
  const share = weight === null ? '' : `, ${Math.max(0, Math.round(100 * weight))} % of the result`;
  return `${off} ±${computedDegrees(deltaExpanded ?? 0)}${share}`;
}

/** What a view's figure rests on, and what there is to say of it. */
function viewNote(view: View, trial: TrialFinding): string | null {
  const rebased = trial.rounds.find((round) => round.method === view.method && round.rebasedBy !== null)?.rebasedBy;
  const good = view.unit === 'crank degrees' && view.expanded !== null ? `±${computedDegrees(view.expanded)}` : null;
  return (
    [
      good,
      view.delta === null ? null : placeWords(view),
      view.method === 'identity' || view.valve === 'both' ? view.against : view.detail,
      rebased === undefined || rebased === null ? null : `re-based by ${computedDegrees(rebased, 2)}`,
      view.remark,
    ]
      .filter((each) => each !== null)
      .join('; ') || null
  );
}

function cardSection(build: Build, card: CompletedCard): SheetSection {
  const rows: SheetRow[] = [];
  const given = (label: string, value: string, note: string | null = null): void => {
    rows.push({ entry: null, label, value, standing: 'card', note });
  };
  if (build.card) {
    const { name } = build.card.body;
    if (name) given('Card', name);
    for (const { label, shows, from, disputed } of card.figures)
      given(label, shows, disputed ? 'disputed: left out' : from);
    for (const { crank, label } of card.overlaps)
      given(`Overlap ${label}`, `${computedDegrees(crank)} crank`, `${computedDegrees(crank / 2)} cam`);
  }
  if (build.card || build.target) {
    const { target, exhaust, limit, judgedBy } = targetInForce(build);
    given('Target', targetWords(target));
    if (exhaust) given('Target of the exhaust', targetWords(exhaust, 'BTDC'));
    given('Limit', `±${wheelDegrees(limit)}`);
    if (judgedBy) given('Judged by', READ_METHODS[judgedBy].name);
  }
  return { title: 'Card', rows };
}

/** `targetWords({ kind: 'ahead-of-card', advance: 2 })` is "2° ahead of card". */
export function targetWords(
  target: ReturnType<typeof targetInForce>['target'],
  side: 'ATDC' | 'BTDC' = 'ATDC',
): string {
  switch (target.kind) {
    case 'card':
      return 'as the card';
    case 'centreline':
      return `${wheelDegrees(target.centreline)} ${side}`;
    case 'ahead-of-card':
      return target.advance < 0
        ? `${wheelDegrees(-target.advance)} behind card`
        : `${wheelDegrees(target.advance)} ahead of card`;
  }
}

/** Passes and pairs that cannot be right, with the entries that they consist of. */
export function troubledGroups(zero: ZeroFinding, trials: readonly TrialFinding[]): TroubledGroup[] {
  const groups: TroubledGroup[] = [];
  for (const { problem, readings } of zero.passes)
    if (problem) groups.push({ entries: readings.map(({ entry }) => entry), ...problem });
  for (const { rounds, traces } of trials) {
    for (const { problem, readings, lacking } of rounds) {
      if (problem) groups.push({ entries: readings.map(({ entry }) => entry), ...problem });
      if (problem === null && lacking === 0 && readings.length <= 2) continue;
      const aside = readings.filter((reading) => reading.aside !== null);
      if (aside[0]?.aside)
        groups.push({
          entries: aside.map(({ entry }) => entry),
          message: aside[0].aside,
          remedy: 'Come again the way it runs.',
        });
    }
    for (const { problem, dots, typed, id } of traces)
      if (problem) groups.push({ entries: typed ? dots.map(({ entry }) => entry) : [id], ...problem });
  }
  return groups;
}

export interface TroubledGroup extends Problem {
  readonly entries: string[];
}

/** Why an entry is kept but left out: entry id → reason. */
function asideNotes(
  build: Build,
  zero: ZeroFinding,
  trials: readonly TrialFinding[],
  troubled: readonly TroubledGroup[],
): Map<string, string> {
  const notes = new Map(build.unlinked);
  for (const { entries, message, remedy } of troubled) for (const id of entries) notes.set(id, `${message} ${remedy}`);
  for (const { rounds } of trials)
    for (const { readings, zeroProved } of rounds)
      for (const { entry, aside, setting } of readings) {
        if (notes.has(entry)) continue;
        const reason = aside ?? (zeroProved || setting === null ? null : fallenZero(setting, build, zero));
        if (reason !== null) notes.set(entry, reason);
      }
  return notes;
}

/** Why the zero of a position of the wheel has fallen, or null. */
function fallenZero(setting: string, build: Build, zero: ZeroFinding): string | null {
  if (build.disturbed.has(setting)) return 'The TDC that it depends on is no longer valid.';
  const failed = zero.state === 'failed' && setting === build.zero?.current.id;
  return failed ? 'A later proof of the TDC that it depends on failed.' : null;
}

/** Where a reading came from that nobody typed. */
function boxNote(entry: Entry): string | null {
  if (entry.kind !== 'zero.reading' && entry.kind !== 'reading.taken') return null;
  return entry.body.from ? `Taken from ${entry.body.from.box}.` : null;
}
