import { wrap180 } from '../units/angle';
import type { Valve } from '../cam/card';
import { formatReading, ringPosition } from '../crank/wheel';
import { type PairEvents, centreline, events, opensOnly } from '../measure/flank-pair';
import { type Flank, READ_METHODS, type ReadMethodName } from '../measure/read-methods';
import type { Problem } from '../problem';
import { formatLength } from '../units/length';
import type { EntryOf } from '../record/entry';
import type { Build, Round } from '../record/fold';
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
  /** Why it is kept but not used in its round, or null. */
  readonly aside: string | null;
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

/** The drop, height or lift that the indicator showed, mm. */
export const figureOfReading = ({ shows }: Reading['body']): number =>
  shows.kind === 'below-peak' ? shows.drop : shows.lift;
const flankOf = ({ shows }: Reading['body']): Flank | null => ('flank' in shows ? shows.flank : null);

const FLANK_WORDS: Readonly<Record<Reading['body']['shows']['kind'], Readonly<Record<Flank | 'none', string>>>> = {
  'below-peak': { opening: 'before peak', closing: 'after peak', none: '' },
  'above-base': { opening: 'opening', closing: 'closing', none: '' },
  'peak-lift': { opening: '', closing: '', none: 'peak lift' },
  'tdc-lift': { opening: '', closing: '', none: 'lift at TDC' },
  'trace-point': { opening: '', closing: '', none: 'trace' },
};

/** A reading in words: "before peak", "opening, turning back", "peak lift". */
export function readingLabel({ shows, approach }: Reading['body']): string {
  const side = FLANK_WORDS[shows.kind]['flank' in shows ? shows.flank : 'none'];
  return approach === 'backward' ? `${side}, turning back` : side;
}

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

/** What a round of readings gives, or why it gives nothing. */
export function findRound(round: Round, build: Build, settings: ReadonlyMap<string, SettingFinding>): RoundFinding {
  const { readings } = round;
  const method = methodOf(round);
  const { units } = build.description.body;
  const first = readings[0]?.body;
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
  const valve = first?.valve ?? 'intake';
  const height = READ_METHODS[method].height && first ? figureOfReading(first) : null;
  const finding: { -readonly [Field in keyof RoundFinding]: RoundFinding[Field] } = {
    id: round.id,
    method,
    cylinder: first?.cylinder ?? 1,
    bank: bankOf(first?.cylinder ?? 1, build),
    valve,
    sitsOn: first?.sitsOn ?? 'lifter',
    height,
    centreline: null,
    events: null,
    opens: null,
    lift: null,
    pastTdc: null,
    zeroProved: used > 0 && zeroProved,
    zero,
    rebasedBy: zero?.rebasedBy ?? null,
    problem: null,
    holds: true,
    readings: readings.map(({ id, body }, at) => ({
      entry: id,
      flank: flankOf(body),
      shows: body.wheel ? formatReading(body.wheel) : formatLength(figureOfReading(body), units),
      at: body.wheel ? ringPosition(body.wheel) : null,
      figure: figureOfReading(body),
      setting: body.setting,
      aside: places[at] === -1 ? asideWords(body) : null,
      slot: places[at] === -1 ? null : (places[at] ?? null),
    })),
    lacking: lackingOf(method, places),
  };
  const trouble = (message: string, remedy: string): RoundFinding => {
    finding.problem = { message, remedy };
    finding.holds = false;
    return finding;
  };
  if (used === 0 || method === 'trace') return finding;
  const pair = READ_METHODS[method].slots.length > 1;
  const noun = pair ? 'pair' : 'reading';

  const lift = build.card?.body[valve]?.lobeLift;
  if (height !== null && lift !== undefined && finding.sitsOn !== 'valve' && height >= lift) {
    const inUnits = (mm: number): string => formatLength(mm, units);
    return trouble(
      `${method === 'centreline' ? 'A drop' : 'A height'} of ${inUnits(height)} is not less than the whole lobe lift, ${inUnits(lift)} on the card.`,
      `Undo the ${noun} and read it at a smaller ${method === 'centreline' ? 'drop' : 'height'}, or correct the card.`,
    );
  }
  if (new Set(places).size < places.length && used > READ_METHODS[method].slots.length - finding.lacking)
    return method === 'centreline'
      ? trouble('The same side of the nose was recorded twice in one pair.', 'Undo the one that is wrong.')
      : trouble(`The same reading was recorded twice in one ${noun}.`, 'Undo the one that is wrong.');
  const [before, after] = [readings[places.indexOf(0)], readings[places.indexOf(1)]];
  if (!before || (pair && !after)) return finding;
  if (after) {
    if (figureOfReading(before.body) !== figureOfReading(after.body))
      return trouble(
        `The two sides were read at different ${method === 'centreline' ? 'drops' : 'heights'}.`,
        `Undo one of them and read it at the same ${method === 'centreline' ? 'drop' : 'height'}.`,
      );
    if (before.body.valve !== after.body.valve || before.body.sitsOn !== after.body.sitsOn)
      return trouble('The indicator was moved between the two readings.', 'Undo the pair and read both again.');
    if (before.body.setting !== after.body.setting)
      return trouble('The wheel was set anew between the two readings.', 'Undo the pair and read both again.');
  }
  if (before.body.setting !== null && !zero)
    return trouble('The zero that it leans on has been undone or is not in the logbook.', `Read the ${noun} again.`);
  if (!oneZero)
    return trouble('The zero was disturbed between the two readings.', 'Read the pair again on a proved zero.');

  const at = (reading: Reading | undefined): number => (reading?.body.wheel ? ringPosition(reading.body.wheel) : 0);
  const offset = offsetOf(zero);
  const flanks = { opening: at(before), closing: at(after) };
  switch (method) {
    case 'centreline': {
      const found = centreline(valve, flanks, offset);
      if (found.ok) finding.centreline = found.centreline;
      else finding.problem = found.problem;
      return finding;
    }
    case 'events': {
      const found = events(valve, flanks, offset);
      if (found.ok) finding.events = found.events;
      else finding.problem = found.problem;
      return finding;
    }
    case 'opening-only':
      finding.opens = opensOnly(valve, flanks.opening, offset);
      return finding;
    case 'identity':
      finding.lift = figureOfReading(before.body);
      return finding;
    case 'lift-at-tdc': {
      const { wheel } = before.body;
      const past = wheel ? wrap180(at(before) - offset) : null;
      if (past !== null && Math.abs(past) > NEAR_TDC)
        return trouble(
          `The wheel stood ${Math.round(Math.abs(past))}° from TDC.`,
          'The lift is read at TDC. Undo it, come forward to TDC and read again.',
        );
      finding.lift = figureOfReading(before.body);
      finding.pastTdc = past;
      return finding;
    }
    case 'backlash':
      return finding;
  }
}

/** A lift at TDC is carried over a wheel that stands this far off at most, crank degrees. */
const NEAR_TDC = 5;

/** The bank whose cams are measured at a cylinder. */
export const bankOf = (cylinder: number, { description }: Build): 1 | 2 =>
  cylinder === description.body.engine.secondBank ? 2 : 1;

const asideWords = ({ approach }: Reading['body']): string =>
  approach === 'backward'
    ? 'Read turning backwards, so the slack of the drive is in it: used for the slack only.'
    : 'It belongs to another method.';
