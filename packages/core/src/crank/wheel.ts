import { z } from 'zod';
import { type CrankDeg, type RingDeg, crankDeg, wrap180, wrap360 } from '../units/angle';
import { wheelDegrees } from '../units/degrees';
import { formatComputedLength, inchFraction } from '../units/length';
import { rimDegrees, rimDistance, rimTrouble } from './rim';

/**
 * A reading is kept exactly as it stood under the pointer. Its **ring position** is the same place counted in crank degrees
 * from the ring's 0, growing as the engine is turned the way it runs: [0, 360). On a wheel that has not been set
 * to zero yet, a ring position says nothing about the piston; only the difference of two does.
 */
const shows = (most: number, ring: string): z.ZodNumber =>
  z
    .number({ error: 'Type the degrees under the pointer.' })
    .min(0, { error: (issue) => offRing(issue.input, ring, most) })
    .max(most, { error: (issue) => offRing(issue.input, ring, most) });

function offRing(typed: unknown, ring: string, most: number): string {
  const figure = typeof typed === 'number' ? String(typed).replace('-', '−') : 'such figure';
  return `A ${ring} ring has no ${figure}. Type what is under the pointer, 0 to ${most}.`;
}

const rimRound = z
  .number({ error: 'Type the way round the rim.' })
  .refine((round) => rimTrouble(round) === null, { error: (issue) => rimTrouble(Number(issue.input)) ?? '' })
  .describe('Once round the rim, millimetres.');

export const wheelReadingSchema = z
  .discriminatedUnion('ring', [
    z.strictObject({
      ring: z.literal('0-360'),
      sense: z.enum(['rising', 'falling']).describe('Turned the way the engine runs, do the numbers rise or fall?'),
      shows: shows(360, '0–360'),
    }),
    z.strictObject({
      ring: z.literal('0-180'),
      shows: shows(180, '0–180'),
      side: z.enum(['before', 'after']).describe('Before or after the TDC mark of the ring.'),
    }),
    z.strictObject({
      ring: z.literal('0-90'),
      shows: shows(90, '0–90'),
      side: z
        .enum(['before-tdc', 'after-tdc', 'before-bdc', 'after-bdc'])
        .describe('Before or after the TDC or the BDC mark of the ring.'),
    }),
    z.strictObject({
      ring: z.literal('rim'),
      round: rimRound,
      unit: z.enum(['in', 'mm']),
      shows: z
        .number({ error: 'Type the distance along the rim.' })
        .min(0, { error: 'A distance along the rim cannot be negative. Say before or after instead.' })
        .describe('Millimetres along the rim from the mark to the pointer.'),
      side: z
        .enum(['before', 'after'])
        .describe('Before or after the mark has come to the pointer, as the engine runs.'),
    }),
  ])
  .refine((reading) => reading.ring !== 'rim' || reading.shows <= reading.round / 2, {
    path: ['shows'],
    error: 'That is more than half-way round the rim. Measure the short way, and say before or after.',
  })
  .describe('What stood under the pointer, as read.');

export type WheelReading = z.infer<typeof wheelReadingSchema>;

export const wheelRingSchema = z
  .discriminatedUnion('ring', [
    z.strictObject({ ring: z.literal('0-360'), sense: z.enum(['rising', 'falling']) }),
    z.strictObject({ ring: z.literal('0-180') }),
    z.strictObject({ ring: z.literal('0-90') }),
    z.strictObject({
      ring: z.literal('rim'),
      round: rimRound,
      unit: z.enum(['in', 'mm']).describe('What the tape is in.'),
    }),
  ])
  .describe(
    'How the degree wheel is numbered; or, without a wheel, a rim that is measured with a tape from a mark on it.',
  );

export type WheelRing = z.infer<typeof wheelRingSchema>;

/** Do two rings carry the same numbers? Which way they count is part of a ring that goes all round. */
export const isSameRing = (one: WheelRing, other: WheelRing): boolean =>
  one.ring === other.ring && (one.ring !== '0-360' || other.ring !== '0-360' || one.sense === other.sense);

/**
 * Does a wheel have the ring that a reading names? A tape along the rim is no ring of a wheel.
 * @example hasRing([{ ring: '0-180' }], { ring: '0-90', shows: 55, side: 'after-bdc' }) // false
 */
export const hasRing = (rings: readonly WheelRing[], reading: WheelReading): boolean =>
  reading.ring === 'rim' || rings.some((ring) => isSameRing(ring, reading));
export type RingName = WheelRing['ring'];
export type WheelSide = Extract<WheelReading, { side: string }>['side'];

/** What a builder sees of each ring. */
export const RINGS: Readonly<
  Record<
    RingName,
    { readonly label: string; readonly short: string; readonly most: number; readonly sides: readonly WheelSide[] }
  >
> = {
  '0-360': { label: '0 to 360 all round', short: '0–360', most: 360, sides: [] },
  '0-180': { label: '0 to 180 each side of TDC', short: '0–180', most: 180, sides: ['before', 'after'] },
  '0-90': {
    label: '0 to 90 four times',
    short: '0–90',
    most: 90,
    sides: ['before-tdc', 'after-tdc', 'before-bdc', 'after-bdc'],
  },
  rim: { label: 'No wheel: a mark on the rim', short: 'rim', most: Infinity, sides: ['before', 'after'] },
};

/** A ring among those of its wheel: `ringWords({ ring: '0-360', sense: 'falling' })` is "0–360, falling"; the others count one way only. */
export const ringWords = (ring: WheelRing): string =>
  ring.ring === '0-360' ? `${RINGS[ring.ring].short}, ${ring.sense}` : RINGS[ring.ring].short;

const SIDE_WORDS: Readonly<Record<WheelSide, string>> = {
  before: 'before',
  after: 'after',
  'before-tdc': 'before TDC',
  'after-tdc': 'after TDC',
  'before-bdc': 'before BDC',
  'after-bdc': 'after BDC',
};

/** `sideWords('before-bdc')` is "before BDC". */
export const sideWords = (side: WheelSide): string => SIDE_WORDS[side];

/**
 * Where on the ring a reading stands: crank degrees from the ring's 0 in the running direction, [0, 360).
 * @example ringPosition({ ring: '0-180', shows: 10, side: 'before' }) // 350
 * @example ringPosition({ ring: '0-90', shows: 30, side: 'before-bdc' }) // 150
 */
export function ringPosition(reading: WheelReading): CrankDeg & RingDeg {
  if (reading.ring === '0-360') return wrap360(reading.sense === 'rising' ? reading.shows : -reading.shows);
  if (reading.ring === 'rim') {
    const size = rimDegrees(reading.shows, reading.round);
    return wrap360(reading.side === 'after' ? size : -size);
  }
  switch (reading.side) {
    case 'after':
    case 'after-tdc':
      return wrap360(reading.shows);
    case 'before':
    case 'before-tdc':
      return wrap360(-reading.shows);
    case 'before-bdc':
      return wrap360(180 - reading.shows);
    case 'after-bdc':
      return wrap360(180 + reading.shows);
  }
}

/**
 * The inverse: what a wheel shows under the pointer at a ring position (any crank degrees).
 * @example readingAt({ ring: '0-180' }, 350) // 10 before
 */
export function readingAt(ring: WheelRing, position: RingDeg): WheelReading {
  const at = wrap180(position);
  const size = Math.abs(at);
  switch (ring.ring) {
    case '0-360':
      return { ...ring, shows: wrap360(ring.sense === 'rising' ? at : -at) };
    case '0-180':
      return { ring: '0-180', shows: size, side: at < 0 ? 'before' : 'after' };
    case 'rim':
      return { ...ring, shows: rimDistance(size, ring.round), side: at < 0 ? 'before' : 'after' };
    case '0-90':
      if (size <= 90) return { ring: '0-90', shows: size, side: at < 0 ? 'before-tdc' : 'after-tdc' };
      return { ring: '0-90', shows: crankDeg(180 - size), side: at < 0 ? 'after-bdc' : 'before-bdc' };
  }
}

/** A reading in words, as read: `formatReading({ ring: '0-180', shows: 26.5, side: 'after' })` is "26½° after". */
export function formatReading(reading: WheelReading): string {
  if (reading.ring === 'rim') {
    const ruled = reading.unit === 'in' ? inchFraction(reading.shows) : null;
    return `${ruled ?? formatComputedLength(reading.shows, reading.unit)} ${sideWords(reading.side)}`;
  }
  const degrees = wheelDegrees(reading.shows);
  if (reading.ring === '0-360') return degrees;
  if (reading.shows === 0) return reading.side.endsWith('bdc') ? `${degrees} (BDC)` : degrees;
  return `${degrees} ${sideWords(reading.side)}`;
}
