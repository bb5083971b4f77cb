import type { Checked } from '../problem';
import { VALVES, type Valve } from '../cam/card';
import { lobeAt } from '../cam/lobe';
import { READ_METHODS } from '../measure/read-methods';
import { openedBy } from '../clearance/valve-to-piston';
import { pistonDrop } from '../crank/slider-crank';
import type { Report } from './report-schema';

/** Where a lift comes from: read there, the traced curve, the lobe through the readings, that lobe carried on by a move that was not measured, or the card's as printed. */
export type LiftFrom = 'read' | 'trace' | 'measured' | 'carried' | 'card';

export interface PistonRow {
  /** Crank degrees after the TDC between exhaust and intake; negative before. */
  readonly at: number;
  /** Below the top, mm; null without stroke and rod. */
  readonly piston: number | null;
  readonly intake: PistonLift | null;
  readonly exhaust: PistonLift | null;
}

/** Lift at the lobe (or lifter), and at the valve where ratio and lash are known, mm. */
export interface PistonLift {
  readonly lobe: number;
  readonly valve: number | null;
  readonly from: LiftFrom;
}

/** Most angles on one sheet, and how far from TDC anybody asks: beyond it the piston is out of reach. Crank degrees. */
const MOST_ANGLES = 25;
const FURTHEST = 90;
/** A lift was read "there" within this of the angle, crank degrees. */
const SAME_PLACE = 0.25;

/** What a piston maker asks for unless told otherwise. Common practice, no source. */
export const USUAL_ANGLES: readonly number[] = [-15, 0, 15];

/**
 * Angles as they are typed: "−15, 0, 15" or "-15 TDC 15". In their order, each once.
 * @returns the angles, or what is wrong.
 */
export function parseAngles(typed: string): Checked<{ readonly angles: readonly number[] }> {
  const parts = typed
    .replaceAll('−', '-')
    .replaceAll(/tdc/gi, '0')
    .split(/[\s;,]+/)
    .filter((part) => part !== '');
  if (parts.length === 0)
    return { ok: false, message: 'Type crank degrees: before TDC with a minus, like −15, 0, 15.' };
  const angles = parts.map((part) => (/^[-+]?\d+(\.\d+)?$/.test(part) ? Number(part) : NaN));
  const stray = parts[angles.findIndex((angle) => !(Math.abs(angle) <= FURTHEST))];
  if (stray !== undefined) return { ok: false, message: `“${stray}” is no angle from −${FURTHEST} to ${FURTHEST}.` };
  const each = [...new Set(angles)].sort((a, b) => a - b);
  return each.length > MOST_ANGLES
    ? { ok: false, message: `At most ${MOST_ANGLES} angles.` }
    : { ok: true, angles: each };
}

/**
 * Where the pistons and valves stand about the TDC between exhaust and intake, for who cuts the pockets: as the cam stands now.
 * @param angles crank degrees after that TDC.
 */
export function pistonTable(report: Report, angles: readonly number[]): PistonRow[] {
  const { stroke, rod, pinOffset } = report.build.engine;
  const crank = stroke === null || rod === null ? null : { stroke, rod, pinOffset: pinOffset ?? 0 };
  return angles.map((at) => ({
    at,
    piston: crank && pistonDrop(crank, at),
    intake: liftAt(report, 'intake', at),
    exhaust: liftAt(report, 'exhaust', at),
  }));
}

function liftAt(report: Report, valve: Valve, at: number): PistonLift | null {
  const found = ofLobe(report, valve, at);
  if (!found) return null;
  const travel = report.clearance.valves.find((each) => each.valve === valve);
  const { ratio = null, through = null } = travel ?? {};
  return {
    ...found,
    valve: ratio === null ? null : openedBy({ ratio, through, lash: report.lash.here[valve] }, found.lobe),
  };
}

/** The lift of the lobe as the cam stands now, by the best that is known of it. Only what was read since the last move speaks for itself. */
function ofLobe({ trials, standing, card }: Report, valve: Valve, at: number): Omit<PistonLift, 'valve'> | null {
  const trial = trials.at(-1);
  const read = trial?.rounds.findLast(
    (round) =>
      READ_METHODS[round.method].reads === 'tdc-lift' &&
      round.valve === valve &&
      round.cylinder === trial.cylinder &&
      round.sitsOn !== 'valve' &&
      round.problem === null &&
      round.lift !== null &&
      Math.abs(at - (round.pastTdc ?? 0)) <= SAME_PLACE,
  );
  if (read?.lift != null) return { lobe: read.lift, from: 'read' };
  const trace = trial?.traces.findLast(
    (each) => each.valve === valve && each.bank === 1 && each.placed && each.sitsOn !== 'valve',
  );
  const traced = trace ? onCurve(trace.curve, at) : null;
  if (traced !== null) return { lobe: traced, from: 'trace' };
  const now = standing[valve];
  if (now) return { lobe: lobeAt(now.lobe, at).lift, from: now.isCarried ? 'carried' : 'measured' };
  const printed = card.lobes[valve];
  return printed ? { lobe: lobeAt(printed, at).lift, from: 'card' } : null;
}

/** Between two points of a curve; on the base circle outside it. null without a curve. */
function onCurve(curve: readonly (readonly [number, number])[], at: number): number | null {
  const [first, last] = [curve[0], curve.at(-1)];
  if (!first || !last) return null;
  if (at <= first[0] || at >= last[0]) return 0;
  const after = curve.findIndex(([angle]) => angle >= at);
  const [a, b] = [curve[after - 1] ?? first, curve[after] ?? last];
  return a[1] + ((at - a[0]) / (b[0] - a[0] || 1)) * (b[1] - a[1]);
}

const FROM_WORDS: Readonly<Record<LiftFrom, string>> = {
  read: 'read there',
  trace: 'from the trace',
  measured: 'from the lobe through the readings',
  carried: 'from the lobe as it was measured before the last move, carried on by what that should have given',
  card: 'from the card’s lobe, as printed: not measured',
};
/** `liftFromWords('trace')` is "from the trace". */
export const liftFromWords = (from: LiftFrom): string => FROM_WORDS[from];

/** `angleWords(-15)` is "15° before". */
export const angleWords = (at: number): string =>
  at === 0 ? 'TDC' : `${Math.abs(at)}° ${at < 0 ? 'before' : 'after'}`;

/** Where the lifts of a table come from, each source once: "Intake: read there. Exhaust: from the trace." */
export function sourcesOf(rows: readonly PistonRow[]): string {
  return VALVES.map((valve) => {
    const from = [...new Set(rows.flatMap((row) => row[valve]?.from ?? []))];
    const name = valve === 'intake' ? 'Intake' : 'Exhaust';
    return `${name}: ${from.length > 0 ? from.map(liftFromWords).join(', ') : 'not known'}.`;
  }).join(' ');
}

const MM_PLACES = 1e3;
const rounded = (mm: number | null | undefined): number | '' =>
  mm == null ? '' : Math.round(mm * MM_PLACES) / MM_PLACES;

/** As columns of a table, millimetres to a thousandth. */
export const PISTON_COLUMNS = [
  'crank_degrees_after_overlap_tdc',
  'piston_below_top_mm',
  'intake_lobe_lift_mm',
  'intake_valve_lift_mm',
  'intake_from',
  'exhaust_lobe_lift_mm',
  'exhaust_valve_lift_mm',
  'exhaust_from',
] as const;

/** Rows under `PISTON_COLUMNS`. */
export const pistonCsv = (rows: readonly PistonRow[]): (string | number)[][] =>
  rows.map(({ at, piston, intake, exhaust }) => [
    at,
    rounded(piston),
    ...[intake, exhaust].flatMap((lift) => [
      rounded(lift?.lobe),
      rounded(lift?.valve),
      lift ? liftFromWords(lift.from) : '',
    ]),
  ]);
