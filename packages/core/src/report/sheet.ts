import { capital } from './capital';
import { type TroubledGroup, asideNotes } from './left-out';
import { type Line, type SheetRow, type Written, lineWords, result, writeEntries } from './sheet-rows';
import { lateOrEarly } from './place-words';
import type { CompletedCard } from '../cam/complete-card';
import { READ_METHODS } from '../measure/read-methods';
import { computedDegrees, wheelDegrees } from '../units/degrees';
import { targetInForce } from '../findings/derive-trial';
import type { View } from '../findings/views/view';
import type { Findings } from '../findings/find-all';
import type { Entry } from '../record/entry';
import { remember } from '../record/remember';
import type { Report } from './report-schema';
import type { Build } from '../record/fold';

type ReportedTrial = Report['trials'][number];

export interface SheetSection {
  readonly title: string;
  readonly rows: SheetRow[];
}

/** What the sheet quotes of the Report. */
type Told = Pick<
  Report,
  | 'prepare'
  | 'zero'
  | 'crank'
  | 'trials'
  | 'moves'
  | 'proof'
  | 'clearance'
  | 'rockers'
  | 'lash'
  | 'sign'
  | 'accepted'
  | 'wear'
>;

/** The sheet as on the clipboard: everything that was written down, in its order, and what follows from it. */
export function makeSheet(
  entries: readonly Entry[],
  { build, card }: Findings,
  told: Told,
  troubled: readonly TroubledGroup[],
): SheetSection[] {
  const { prepare, zero, crank, trials, wear, clearance, rockers, lash, sign, accepted } = told;
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
  const { units } = build.description.body;
  const written = writeEntries(entries, units, row);
  const lines: Lines = {
    leftOut: ({ id }) => [build.voided.get(id), aside.get(id)],
    write: (line) => ('body' in line ? { entry: line.id, ...lineWords(line, units), ...standing(line) } : line),
  };
  const known = new Set(trials.map((trial) => trial.id));
  const moved = new Map(told.moves.map((move) => [move.trial, move]));
  return [
    {
      title: 'Prepare',
      rows: [...written.prepare, ...(prepare.endPlay ? [result('End play', '', prepare.endPlay.words)] : [])],
    },
    { title: 'Zero', rows: [...written.zero, ...provedRow(zero)] },
    { title: 'The crank', rows: written.crank.map((entry) => crankRow(entry, crank, row)) },
    cardSection(build, card),
    ...trials.map((trial) => trialSection(trial, written, moved.get(trial.id), told, lines)),
    { title: 'Since it was measured before', rows: wear.map(({ words }) => result(words, '')) },
    { title: 'Clear', rows: [...written.clear, ...clearance.valves.flatMap(clearanceRow)] },
    { title: 'Rockers and pushrods', rows: [...written.rockers, ...rockers.valves.flatMap(pushrodRows)] },
    { title: 'Lash', rows: [...written.lash, ...lashRows(lash)] },
    {
      title: 'Sign',
      rows: [
        ...written.sign,
        ...(sign.signed ? accepted.map(({ words }) => result(words, '')) : []),
        ...(sign.signed ? sign.baselines.map(({ words }) => result(`Baseline: ${words}`, '')) : []),
      ],
    },
    { title: 'Sent by somebody else', rows: sentByOthers(entries) },
    {
      title: 'Without a trial',
      rows: [...written.trials].flatMap(([trial, rows]) => (known.has(trial) ? [] : rows.map(lines.write))),
    },
  ].filter((section) => section.rows.length > 0);
}

const provedRow = ({ result: found, state, uncertainty, remark, odd }: Report['zero']): SheetRow[] =>
  found && state === 'proved'
    ? [result(`TDC proved, ${uncertainty?.words ?? ''}`, '', [remark, odd].filter(Boolean).join(' '))]
    : [];

const clearanceRow = ({ state, valve, words, lifts, pumped }: Report['clearance']['valves'][number]): SheetRow[] =>
  state === 'unknown'
    ? []
    : [
        result(`${capital(valve)}, valve to piston`, '', words),
        ...(lifts === null ? [] : [result(`${capital(valve)}, lift at the valve`, '', lifts)]),
        ...(pumped === null ? [] : [result(`${capital(valve)}, lifter pumped up`, '', pumped.words)]),
      ];

/** What to order for the valves of one kind. */
const pushrodRows = ({ valve, order, theory }: Report['rockers']['valves'][number]): SheetRow[] => [
  ...(order ? [result(order.words, '', order.trouble.join(' ') || null)] : []),
  ...theory.map(({ words }) => result(`Lift at the ${valve} valve against theory`, '', words)),
];

/** Where the lash stands, what came out another, and what the years show. */
const lashRows = ({ job, history }: Report['lash']): SheetRow[] => [
  ...(job
    ? [
        result(
          'Lash wanted',
          job.wantedWords,
          `${job.counts.set} of ${job.counts.all} set, ${job.counts.good} found again as left`,
        ),
      ]
    : []),
  ...(job?.valves ?? []).flatMap(({ words }) => (words === null ? [] : [result(words, '')])),
  ...history.filter(({ trend }) => trend !== null).map(({ words }) => result(words, '')),
];

/** What was seen of the crank's own marks, as far as it still holds. */
function crankRow(
  entry: Entry,
  { identified, mark }: Report['crank'],
  row: (entry: Entry, label: string, value: string) => SheetRow,
): SheetRow {
  const now = [identified, mark].find((each) => each?.entry === entry.id)?.words ?? 'corrected';
  return row(entry, entry.kind === 'mark.checked' ? 'The engine’s own mark' : 'Which TDC', now);
}

/** How the lines of trials are written, and why those that do not count are left out. */
interface Lines {
  readonly leftOut: (entry: Entry) => readonly unknown[];
  readonly write: (line: Line) => SheetRow;
}

const sameSection = remember<ReportedTrial, SheetSection>();

/** One trial: what was set, what was read, what it showed, and the verdict. */
function trialSection(
  trial: ReportedTrial,
  { starts, trials: recorded }: Written,
  move: Moved | undefined,
  { proof, trials }: Told,
  { leftOut, write }: Lines,
): SheetSection {
  const start = starts.get(trial.id);
  const lines = [...(start ? [start] : []), ...(move ? movedRows(move) : []), ...(recorded.get(trial.id) ?? [])];
  const gave = trial === trials.at(-1) && proof.state === 'proved' ? [proof.gave] : [];
  const from: unknown[] = [...gave];
  for (const line of lines) {
    from.push(line);
    if ('body' in line) from.push(...leftOut(line));
  }
  return sameSection(trial, from, () => ({
    title: trialTitle(trial.number),
    rows: [...lines.map(write), ...shownRows(trial), ...gave.map((words) => result('The move is proved', '', words))],
  }));
}

/** What a trial showed, and the verdict. */
function shownRows(trial: ReportedTrial): SheetRow[] {
  const { verdict, faults } = trial;
  const rows: SheetRow[] = [];
  for (const view of trial.views) rows.push(result(view.title, view.shows, viewNote(view, trial)));
  for (const { valve, at, rows: lobes, words } of trial.everyLobe) {
    const told = lobes.map(({ cylinder, lift, centreline }) => {
      const figures = [lift?.shows, centreline?.shows].filter((each) => each !== undefined);
      return `cylinder ${cylinder}: ${figures.join(' at ')}`;
    });
    const title = `Every ${valve} ${at === 'valve' ? 'valve' : 'lobe'}`;
    rows.push(result(title, told.join(', '), words.join(' ')));
  }
  if (verdict) rows.push(result(verdict.headline, '', [verdict.action, ...verdict.beside].join(' ')));
  for (const { words, check } of faults.slice(1)) rows.push(result(`Or: ${words}`, '', check));
  return rows;
}

function sentByOthers(entries: readonly Entry[]): SheetRow[] {
  const sent = entries.filter(({ postedBy, builderId }) => postedBy !== undefined && postedBy !== builderId).length;
  if (sent === 0) return [];
  const what = sent === 1 ? 'An entry' : 'Entries';
  return [result(`${what} sent under another sign-in than that of the builder named`, String(sent))];
}

type Moved = Report['moves'][number];
const sameMoved = remember<Moved, readonly SheetRow[]>();

/** What was set before a trial, and what it gave. */
const movedRows = (move: Moved): readonly SheetRow[] =>
  sameMoved(move, [], () => {
    const set = move.parts.map(({ name, from, to }) => result(`Set: ${name}`, to, `was ${from}`));
    return move.words ? [...set, result('What it gave', '', move.words)] : set;
  });

/** Heading of a trial on the sheet. */
export const trialTitle = (number: number): string => `Trial ${number}`;

/** What a view makes of the cam's place, and its share in the verdict: "2.5° late, retarded ±0.7°, 62 % of the result". */
export function placeWords({ delta, deltaExpanded, weight }: Pick<View, 'delta' | 'deltaExpanded' | 'weight'>): string {
  const size = computedDegrees(Math.abs(delta ?? 0));
  const off = size === '0.0°' ? 'on the target' : `${size} ${lateOrEarly(delta ?? 0)}`;
  const share = weight === null ? '' : `, ${Math.max(0, Math.round(100 * weight))} % of the result`;
  return `${off} ±${computedDegrees(deltaExpanded ?? 0)}${share}`;
}

/** What a view's figure rests on, and what there is to say of it. */
function viewNote(view: ReportedTrial['views'][number], trial: ReportedTrial): string | null {
  const rebased = trial.rounds.find((round) => round.method === view.method && round.rebasedBy !== null)?.rebasedBy;
  const good = view.unit === 'crank degrees' && view.expanded !== null ? `±${computedDegrees(view.expanded)}` : null;
  return (
    [
      good,
      view.delta === null ? null : placeWords(view),
      READ_METHODS[view.method].reads === 'peak-lift' || view.valve === 'both' ? view.against : view.detail,
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
    // A figure that two disagreements name is left out for the one that no lean explains.
    const isOut = new Set(card.contradictions.flatMap(({ lean, figures }) => (lean === undefined ? figures : [])));
    const inDispute = (key: string): string =>
      isOut.has(key) ? 'disputed: left out' : 'disputed: compared with its like alone';
    for (const { key, label, shows, from, disputed } of card.figures)
      given(label, shows, disputed ? inDispute(key) : from);
    for (const { crank, label, from } of card.overlaps)
      given(`Overlap ${label}`, `${computedDegrees(crank)} crank`, `${computedDegrees(crank / 2)} cam; ${from}`);
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

/** Where a reading came from that nobody typed. */
function boxNote(entry: Entry): string | null {
  if (entry.kind !== 'zero.reading' && entry.kind !== 'reading.taken') return null;
  return entry.body.from ? `Taken from ${entry.body.from.box}.` : null;
}
