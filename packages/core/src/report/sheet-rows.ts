import { computedDegrees, wheelDegrees } from '../units/degrees';
import { type LengthUnit, formatLength } from '../units/length';
import { formatReading } from '../crank/wheel';
import { figureOfReading } from '../findings/readings/round-trouble';
import { readingLabel } from './reading-words';
import { PREPARE_CHECKS } from '../prepare/checks';
import type { Entry, EntryKind, EntryOf } from '../record/entry';
import { LASH_ORDER_NAME, turnsWords } from './report-lash';
import type { Report } from './report-schema';
import { SIGN_CHECKS } from '../sign/sign-checks';
import { ZERO_METHODS, type ZeroMethodName } from '../tdc/zero-methods';
import { settingLabel } from '../timing-set/hardware';
import { signed } from '../timing-set/kinds/kind';
import { capital } from './capital';

/** A line of the running record. `entry` is what can be undone; results have none. */
export interface SheetRow {
  readonly entry: string | null;
  readonly label: string;
  readonly value: string;
  /** counts: used. voided: undone, shown struck through. aside: kept but left out. result: worked out. card: given. */
  readonly standing: 'counts' | 'voided' | 'aside' | 'result' | 'card';
  readonly note: string | null;
  /** The picture that the line is about. */
  readonly photo?: Report['photos']['taken'][number];
}

/** A line that is worked out. */
export const result = (label: string, value: string, note: string | null = null): SheetRow => ({
  entry: null,
  label,
  value,
  standing: 'result',
  note,
});

/** A day as it is written on paper: "2026-03-14". The device's clock, for people. */
const dateOf = (time: string): string => time.slice(0, 10);
/** `timeOf('2026-03-14T09:26:53.000Z')` is "09:26 UTC". */
const timeOf = (time: string): string => `${new Date(time).toISOString().slice(11, 16)} UTC`;

/** A line of a trial, or the entry that makes one. */
export type Line = SheetRow | EntryOf<'reading.taken' | 'trial.begun'>;

/** The sheet while it is being written, entry by entry. */
export interface Written {
  readonly prepare: SheetRow[];
  readonly zero: SheetRow[];
  readonly crank: Entry[];
  readonly clear: SheetRow[];
  readonly rockers: SheetRow[];
  readonly lash: SheetRow[];
  readonly sign: SheetRow[];
  /** Readings and moves, by trial. Readings are thousands in a long build: their lines are written where their trial has anything new to say. */
  readonly trials: Map<string, Line[]>;
  readonly starts: Map<string, EntryOf<'trial.begun'>>;
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

/** The side of the engine, where it is not the one that stands there without saying. */
const exhaustFirst = (valve: 'intake' | 'exhaust'): string => (valve === 'exhaust' ? 'Exhaust, ' : '');
const placeOf = (at: number): string =>
  at === 0 ? 'at TDC' : `${wheelDegrees(Math.abs(at))} ${at < 0 ? 'before' : 'after'} TDC`;

/** What the writers of entries share while a sheet is written. */
interface Pen {
  readonly written: Written;
  readonly units: LengthUnit;
  /** Makes the line of an entry, with how it stands. */
  readonly row: (entry: Entry, label: string, value: string) => SheetRow;
  /** One that opens a part of the sheet, or closes it: it is no reading, and not undone here. */
  readonly heading: (entry: Entry, label: string, value?: string) => SheetRow;
  /** A check that was answered: its reason stands beside it. */
  readonly answered: (
    entry: Entry,
    title: string,
    answer: { readonly result: string; readonly reason?: string | undefined },
  ) => SheetRow;
  /** Settings of the wheel that the cam has been read on. */
  readonly readOn: Set<string | null>;
}

/** What an entry writes; null where it writes nothing. A kind that is forgotten is a type error. */
type Writers = { readonly [Kind in EntryKind]: ((entry: EntryOf<Kind>) => void) | null };

function penFor(written: Written, units: LengthUnit, row: Pen['row']): Pen {
  return {
    written,
    units,
    row,
    heading: (entry, label, value = '') => ({ ...row(entry, label, value), entry: null }),
    answered: (entry, title, { result: answer, reason }) => {
      const line = row(entry, title, answer);
      return { ...line, note: line.note ?? reason ?? null };
    },
    readOn: new Set(),
  };
}

/** What stands at the head of the sheet, on the card, or nowhere. */
const NOWHERE = {
  'build.described': null,
  'engine.as-it-stands': null,
  'card.entered': null,
  'target.set': null,
  'clearance.set-up': null,
  'rockers.set-up': null,
  'entry.voided': null,
  // Beside what it belongs to, see `report-photos.ts`.
  'photo.taken': null,
} as const;

/** Zero, and what hangs on it: the identity of TDC, the engine's own mark. */
function zeroWriters({ written, units, row, heading, readOn }: Pen) {
  const methods = new Map<string, ZeroMethodName>();
  return {
    'zero.begun': (entry) => {
      methods.set(entry.id, entry.body.method);
      written.zero.push({ ...heading(entry, ZERO_METHODS[entry.body.method].name), standing: 'card' });
    },
    'zero.reading': (entry) => {
      const { side, setting, indicator, closing, zero } = entry.body;
      const words = ZERO_METHODS[methods.get(zero) ?? 'positive-stop'].label[side];
      const at = indicator === undefined ? '' : `${formatLength(indicator, units)}, `;
      // Files older than the mark: a contact after the cam was read can only be one.
      const what = closing || readOn.has(setting) ? ', closing check' : ', proof';
      written.zero.push(row(entry, `${at}${words}${setting === null ? '' : what}`, formatReading(entry.body.wheel)));
    },
    'zero.set': (entry) => void written.zero.push(row(entry, SET_LABEL[entry.body.moved], '')),
    'zero.disturbed': (entry) => void written.zero.push(row(entry, DISTURBED_LABEL[entry.body.what], 'zero void')),
    'readings.rebased': (entry) => {
      const label = `Re-based: ${entry.body.readings.length} readings, only the wheel had moved`;
      written.zero.push(row(entry, label, computedDegrees(entry.body.by, 2)));
    },
    'tdc.identified': (entry) => void written.crank.push(entry),
    'mark.checked': (entry) => void written.crank.push(entry),
  } satisfies Partial<Writers>;
}

/** A reading of the cam, or what was done to it before a trial, as the sheet has it: "0.050 in before peak", "65°". */
export function lineWords(
  entry: EntryOf<'reading.taken' | 'trial.begun'>,
  units: LengthUnit,
): Pick<SheetRow, 'label' | 'value'> {
  if (entry.kind === 'trial.begun') {
    const said = entry.body.why === 'checked' ? 'Measured again, nothing moved' : 'Cam moved';
    return { label: entry.body.note ?? said, value: '' };
  }
  const { shows, wheel, valve, sitsOn, cylinder } = entry.body;
  const figure = formatLength(figureOfReading(entry.body), units);
  const other = cylinder === 1 ? '' : `Cylinder ${cylinder}, `;
  const where = `${other}${exhaustFirst(valve)}${sitsOn === 'valve' ? 'at the valve, ' : ''}`;
  const words = readingLabel(entry.body);
  const brought = shows.kind === 'below-peak' || shows.kind === 'above-base';
  const label = brought ? `${figure} ${words}` : shows.kind === 'by-feel' ? words : `${words}, ${figure}`;
  return wheel === null || shows.kind === 'tdc-lift'
    ? { label: `${where}${words}`, value: figure }
    : { label: `${where}${label}`, value: formatReading(wheel) };
}

/** Readings, and what was done to the cam between them. */
function trialWriters({ written, row, readOn }: Pen, entries: readonly Entry[]) {
  const { trials, starts } = written;
  const traceTrials = new Map<string, string>();
  for (const entry of entries) if (entry.kind === 'trace.recorded') traceTrials.set(entry.id, entry.body.trial);
  const inTrial = (trial: string, ...lines: Line[]): void => {
    const known = trials.get(trial);
    if (known) known.push(...lines);
    else trials.set(trial, lines);
  };
  return {
    'reading.taken': (entry) => {
      const { trial, setting } = entry.body;
      if (setting !== null) readOn.add(setting);
      inTrial(trial, entry);
    },
    'trace.recorded': (entry) => {
      const { trial, valve, points, name, setting } = entry.body;
      if (setting !== null) readOn.add(setting);
      inTrial(trial, row(entry, `Trace, ${valve}${name === undefined ? '' : `, ${name}`}`, `${points.length} points`));
    },
    'trace.points-voided': (entry) => {
      const trial = traceTrials.get(entry.body.trace);
      if (trial !== undefined)
        inTrial(trial, row(entry, 'Left out of the trace', `${entry.body.points.length} points`));
    },
    'trial.begun': (entry) => {
      if (entry.body.after !== null) starts.set(entry.id, entry);
    },
    'verdict.accepted': (entry) => inTrial(entry.body.trial, row(entry, `Left as it is: ${entry.body.reason}`, '')),
    'drive.fitted': (entry) =>
      inTrial(
        entry.body.trial,
        ...entry.body.parts.map(({ name, hardware, at }) =>
          row(entry, `On the drive: ${name}`, settingLabel(hardware, at)),
        ),
      ),
    'phaser.read': (entry) =>
      inTrial(
        entry.body.trial,
        row(entry, `Angle of the phaser, nominal ${signed(entry.body.nominal)}`, signed(entry.body.shows)),
      ),
  } satisfies Partial<Writers>;
}

/** What was looked at, measured for clearance, and signed. */
function checkWriters({ written, units, row, heading, answered }: Pen) {
  return {
    'prepare.checked': (entry) =>
      void written.prepare.push(answered(entry, PREPARE_CHECKS[entry.body.check].title, entry.body)),
    'end-play.measured': (entry) =>
      void written.prepare.push(row(entry, `Cam end play, ${entry.body.thrust}`, formatLength(entry.body.play, units))),
    'clearance.measured': (entry) =>
      void written.clear.push(
        ...entry.body.gaps.map(({ at, gap }) =>
          row(entry, `${capital(entry.body.valve)} to piston, ${placeOf(at)}`, formatLength(gap, units)),
        ),
      ),
    'sign.checked': (entry) => void written.sign.push(answered(entry, SIGN_CHECKS[entry.body.check].title, entry.body)),
    'build.signed': (entry) => {
      written.sign.push(heading(entry, `Signed by ${entry.body.name}`, dateOf(entry.takenAt)));
      if (entry.receivedAt)
        written.sign.push(
          result('Received, by the server’s clock', dateOf(entry.receivedAt), timeOf(entry.receivedAt)),
        );
      if (entry.body.note) written.sign.push(result(entry.body.note, ''));
    },
    'build.reopened': (entry) =>
      void written.sign.push(heading(entry, `Reopened: ${entry.body.reason}`, dateOf(entry.takenAt))),
  } satisfies Partial<Writers>;
}

/** Rockers, pushrods and lash. */
function trainWriters({ written, units, row }: Pen) {
  return {
    'rocker.tried': (entry) => {
      const { valve, length, pattern, lift } = entry.body;
      const what = [
        pattern === undefined ? null : `pattern ${formatLength(pattern, units)}`,
        lift === undefined ? null : `lifts ${formatLength(lift, units)}`,
      ].filter((each) => each !== null);
      const line = row(entry, `${capital(valve)}, tried`, formatLength(length, units, 'dimension'));
      written.rockers.push({ ...line, note: line.note ?? (what.join(', ') || null) });
    },
    'pushrod.measured': (entry) =>
      void written.rockers.push(
        row(
          entry,
          `${capital(entry.body.valve)} pushrod, zero lash`,
          formatLength(entry.body.length, units, 'dimension'),
        ),
      ),
    'lash.begun': (entry) => {
      const line = row(entry, LASH_ORDER_NAME[entry.body.order], entry.body.engine);
      written.lash.push(line.standing === 'counts' ? { ...line, standing: 'card' } : line);
    },
    'lash.taken': (entry) => {
      const { cylinder, valve, which, found, set, go, noGo, turns } = entry.body;
      const name = `Cylinder ${cylinder}, ${valve}${which === undefined ? '' : ` ${which}`}`;
      const was = found === undefined ? null : `found ${formatLength(found, units)}`;
      const left = set === undefined ? null : `set to ${formatLength(set, units)}`;
      const turned = turns === undefined ? null : turnsWords(turns);
      const line = row(entry, name, [was, left, turned].filter((each) => each !== null).join(', '));
      const blades =
        go === undefined || noGo === undefined
          ? null
          : `${formatLength(go, units)} goes, ${formatLength(noGo, units)} does not`;
      written.lash.push({ ...line, note: line.note ?? blades });
    },
  } satisfies Partial<Writers>;
}

/**
 * Writes what was recorded, in its order.
 * @param row makes the line of an entry, with how it stands
 */
export function writeEntries(entries: readonly Entry[], units: LengthUnit, row: Pen['row']): Written {
  const written: Written = {
    prepare: [],
    zero: [],
    crank: [],
    clear: [],
    rockers: [],
    lash: [],
    sign: [],
    trials: new Map(),
    starts: new Map(),
  };
  const pen = penFor(written, units, row);
  const write: Writers = {
    ...NOWHERE,
    ...zeroWriters(pen),
    ...trialWriters(pen, entries),
    ...checkWriters(pen),
    ...trainWriters(pen),
  };
  // Each kind has the writer of its own kind, which an indexed access cannot say.
  for (const entry of entries) (write[entry.kind] as ((entry: Entry) => void) | null)?.(entry);
  return written;
}
