import { cylinderTrouble } from '../../crank/firing-order';
import type { Valve } from '../../cam/card';
import { formatReading, ringPosition } from '../../crank/wheel';
import type { PairEvents } from '../../measure/methods/flank-pair';
import { type Flank, READ_METHODS, type ReadMethodName, readMethod } from '../../measure/read-methods';
import type { Problem } from '../../problem';
import { formatLength } from '../../units/length';
import type { EntryOf } from '../../record/entry';
import type { Ground, Round } from '../../record/parts';
import {
  figureOfReading,
  heightTrouble,
  lashTrouble,
  otherMethodTrouble,
  pairTrouble,
  twiceTrouble,
  zeroTrouble,
} from './round-trouble';
import { type SettingFinding, type ZeroOfReading, offsetOf, zeroOfReading } from './zero-passes';

export type SitsOn = EntryOf<'reading.taken'>['body']['sitsOn'];

/** A reading as recorded. */
export interface ReadingFinding {
  readonly entry: string;
  readonly flank: Flank | null;
  /** What was read: the wheel, or the indicator where there is no wheel to it. */
  readonly shows: string;
  /** Ring position, crank degrees; null where no wheel was read. */
  readonly at: number | null;
  /** What the indicator showed, mm. */
  readonly figure: number;
  /** The zero.set entry that it leans on. */
  readonly setting: string | null;
  /** Why it is kept but not used in its round: turned the wrong way, or one of another method; null where it counts. */
  readonly aside: 'backward' | 'other-method' | null;
  /** Place among the method’s readings that it fills, or null. */
  readonly slot: number | null;
}

/** One round of a method and what it gives. Angles as a card prints them. */
export interface RoundFinding {
  readonly id: string;
  readonly method: ReadMethodName;
  readonly cylinder: number;
  /** Bank of cylinders; 1 where there is only one. */
  readonly bank: 1 | 2;
  readonly valve: Valve;
  readonly sitsOn: SitsOn;
  /** The drop or the checking height, mm; null for methods without one. */
  readonly height: number | null;
  readonly centreline: number | null;
  readonly events: PairEvents | null;
  /** Where the valve opens, where only that is read. */
  readonly opens: number | null;
  /** Lift read, mm: at the peak, or at TDC. */
  readonly lift: number | null;
  /** How far past TDC the crank stood for a lift at TDC, crank degrees; null without a wheel. */
  readonly pastTdc: number | null;
  /** Does it lean on a proved zero that still holds? */
  readonly zeroProved: boolean;
  readonly zero: ZeroOfReading | null;
  readonly rebasedBy: number | null;
  readonly problem: Problem | null;
  /** Does each of its readings hold by itself, whatever the round makes of them? */
  readonly holds: boolean;
  readonly readings: readonly ReadingFinding[];
  /** Slots of the method that have no reading yet. */
  readonly lacking: number;
}

type Reading = EntryOf<'reading.taken'>;

export const methodOf = (round: Round): ReadMethodName => round.readings[0]?.body.method ?? 'centreline';

const flankOf = ({ shows }: Reading['body']): Flank | null => ('flank' in shows ? shows.flank : null);

/** Place of a reading among those of its method; −1 where it is none of them, or was turned the wrong way. */
export function slotOf(method: ReadMethodName, { shows, approach }: Reading['body']): number {
  const flank = 'flank' in shows ? shows.flank : null;
  return READ_METHODS[method].slots.findIndex(
    (slot) => slot.shows === shows.kind && slot.flank === flank && slot.approach === approach,
  );
}

function lackingOf(method: ReadMethodName, places: readonly number[]): number {
  let lacking = 0;
  for (let slot = 0; slot < READ_METHODS[method].slots.length; slot += 1) if (!places.includes(slot)) lacking += 1;
  return lacking;
}

type Finding = { -readonly [Field in keyof RoundFinding]: RoundFinding[Field] };

/** What a round of readings gives, or why it gives nothing. */
export function findRound(round: Round, build: Ground, settings: ReadonlyMap<string, SettingFinding>): RoundFinding {
  const { readings } = round;
  const method = methodOf(round);
  const { slots, reads, solve } = readMethod(method);
  const places: number[] = [];
  let used = 0;
  let zero: ZeroOfReading | null = null;
  let [zeroProved, oneZero] = [true, true];
  for (const reading of readings) {
    const place = slotOf(method, reading.body);
    places.push(place);
    if (place === -1) continue;
    const its = zeroOfReading(reading, build, settings);
    if (used === 0) zero = its;
    used += 1;
    zeroProved &&= its?.proved ?? false;
    oneZero &&= its?.proved === zero?.proved && its?.rebasedBy === zero?.rebasedBy;
  }
  const finding = asRecorded(round, method, places, build);
  finding.zero = zero;
  finding.zeroProved = used > 0 && zeroProved;
  finding.rebasedBy = zero?.rebasedBy ?? null;
  const nowhere = cylinderTrouble(finding.cylinder, build.description.body.engine.cylinders);
  if (nowhere) return withTrouble(finding, nowhere);
  if (reads === 'curve') return finding;
  if (used === 0) {
    const foreign = readings.find((_, at) => finding.readings[at]?.aside === 'other-method');
    return foreign ? withTrouble(finding, otherMethodTrouble(method, foreign.body)) : finding;
  }

  const twice = new Set(places).size < places.length && used > slots.length - finding.lacking;
  const spoiled =
    heightTrouble(finding, build) ?? lashTrouble(method, finding.valve, build) ?? (twice ? twiceTrouble(method) : null);
  if (spoiled) return withTrouble(finding, spoiled);
  const [first, second] = [readings[places.indexOf(0)], readings[places.indexOf(1)]];
  if (!first || (slots.length > 1 && !second)) return finding;
  const torn =
    (second ? pairTrouble(method, first.body, second.body) : null) ?? zeroTrouble(method, first.body, zero, oneZero);
  if (torn) return withTrouble(finding, torn);
  const at = (reading: Reading | undefined): number => (reading?.body.wheel ? ringPosition(reading.body.wheel) : 0);
  const solved = solve?.({
    valve: finding.valve,
    flanks: { opening: at(first), closing: at(second) },
    zero: offsetOf(zero),
    figure: figureOfReading(first.body),
    onWheel: first.body.wheel !== null,
  });
  if (!solved) return finding;
  if (solved.ok) return Object.assign(finding, solved.gives);
  finding.problem = solved.problem;
  // Each reading of a pair may be right where both together are not; a single one is then wrong itself.
  finding.holds = slots.length > 1;
  return finding;
}

/** A round with nothing worked out yet. */
function asRecorded({ id: round, readings }: Round, method: ReadMethodName, places: readonly number[], build: Ground) {
  const first = readings[0]?.body;
  const { units } = build.description.body;
  const finding: Finding = {
    id: round,
    method,
    cylinder: first?.cylinder ?? 1,
    bank: bankOf(first?.cylinder ?? 1, build),
    valve: first?.valve ?? 'intake',
    sitsOn: first?.sitsOn ?? 'lifter',
    height: heightOf(readings, method),
    centreline: null,
    events: null,
    opens: null,
    lift: null,
    pastTdc: null,
    zeroProved: false,
    zero: null,
    rebasedBy: null,
    problem: null,
    holds: true,
    readings: readings.map(({ id, body }, at) => ({
      entry: id,
      flank: flankOf(body),
      shows: body.wheel ? formatReading(body.wheel) : formatLength(figureOfReading(body), units),
      at: body.wheel ? ringPosition(body.wheel) : null,
      figure: figureOfReading(body),
      setting: body.setting,
      aside: places[at] !== -1 ? null : body.approach === 'backward' ? 'backward' : 'other-method',
      slot: places[at] === -1 ? null : (places[at] ?? null),
    })),
    lacking: lackingOf(method, places),
  };
  return finding;
}

/** The drop or height of a round: that of its first reading which the indicator took as the method does. */
function heightOf(readings: Round['readings'], method: ReadMethodName): number | null {
  const { height, slots, isFelt } = readMethod(method);
  if (isFelt) return 0;
  const fits = height && readings.find(({ body }) => slots.some(({ shows }) => shows === body.shows.kind));
  return fits ? figureOfReading(fits.body) : null;
}

/** A round whose readings cannot be right. */
function withTrouble(finding: Finding, trouble: Problem): Finding {
  finding.problem = trouble;
  finding.holds = false;
  return finding;
}

/** The bank whose cams are measured at a cylinder. */
export const bankOf = (cylinder: number, { description }: Ground): 1 | 2 =>
  cylinder === description.body.engine.secondBank ? 2 : 1;
