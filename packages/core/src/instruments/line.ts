import type { Result } from '../problem';
import { MM_PER_INCH } from '../units/length';
import crc32 from 'crc-32';
import { z } from 'zod';

/** What a bench box measured at one moment. */
export interface Sample {
  /** What the box calls itself. */
  readonly box: string;
  /** Counts every line, the lost ones too. */
  readonly seq: number;
  /** The clock of the box, milliseconds. */
  readonly ms: number;
  /** Of its encoder, degrees of the crank: not wrapped, its 0 anywhere. */
  readonly angle: number;
  /** Of its indicators, mm; null where none is plugged in. */
  readonly lifts: readonly [number | null, number | null];
}

/** garbage: not of this form. checksum: of this form, and damaged. figure: undamaged, and says what cannot be. */
export type Spoken = Result<{ readonly sample: Sample }, { readonly why: 'garbage' | 'checksum' | 'figure' }>;

/** First word of every line: the protocol, and its version. */
export const SIGN = 'yb1';
export const LONGEST_LINE = 120;
const MM: Readonly<Record<'mm' | 'in', number>> = { mm: 1, in: MM_PER_INCH };
const COUNTER = 2 ** 32;
const FIELDS = 9;

export const boxName = z
  .string({ error: 'the name of the box must be text' })
  .regex(/^[A-Za-z0-9-]{1,24}$/, { error: 'the name of a box is 1 to 24 letters, digits and hyphens' });

/** CRC-32 (ISO-HDLC, as in ISO 3309 and PNG) as eight hex digits. Its published check value: "123456789" gives cbf43926. */
export const checksum = (text: string): string => (crc32.str(text) >>> 0).toString(16).padStart(8, '0');

/** Three decimals of a degree, four of a millimetre. @example "yb1 crank-1 1207 60350 69.250 1.2700 - mm 6714b5f1" */
export function formatLine({ box, seq, ms, angle, lifts }: Sample, unit: 'mm' | 'in' = 'mm'): string {
  const lift = (mm: number | null): string => (mm === null ? '-' : (mm / MM[unit]).toFixed(unit === 'mm' ? 4 : 5));
  const words = [SIGN, box, seq % COUNTER, ms % COUNTER, angle.toFixed(3), lift(lifts[0]), lift(lifts[1]), unit];
  const text = words.join(' ');
  return `${text} ${checksum(text)}`;
}

const WHOLE = /^\d{1,10}$/;
const DECIMAL = /^-?\d{1,7}(\.\d{1,6})?$/;
/** Further no encoder counts on an engine that is turned by hand, degrees; further no indicator goes, mm. */
const FARTHEST = { angle: 1_000_000, lift: 110 } as const;

/** One line of a bench box, without its line end. Never throws, whatever comes. */
export function parseLine(line: string): Spoken {
  const garbage = { ok: false, why: 'garbage' } as const;
  if (line.length > LONGEST_LINE || !line.startsWith(`${SIGN} `)) return garbage;
  const words = line.split(' ');
  if (words.length !== FIELDS) return garbage;
  const [, box = '', seq = '', ms = '', angle = '', first = '', second = '', unit = '', sum = ''] = words;
  if (sum.toLowerCase() !== checksum(line.slice(0, line.length - sum.length - 1)))
    return { ok: false, why: 'checksum' };
  const figure = { ok: false, why: 'figure' } as const;
  if (!boxName.safeParse(box).success || !WHOLE.test(seq) || !WHOLE.test(ms) || !DECIMAL.test(angle)) return figure;
  if ((unit !== 'mm' && unit !== 'in') || Number(seq) >= COUNTER || Number(ms) >= COUNTER) return figure;
  const lifts: (number | null)[] = [];
  for (const text of [first, second]) {
    if (text !== '-' && !DECIMAL.test(text)) return figure;
    const mm = text === '-' ? null : Number(text) * MM[unit];
    if (mm !== null && Math.abs(mm) > FARTHEST.lift) return figure;
    lifts.push(mm);
  }
  if (Math.abs(Number(angle)) > FARTHEST.angle) return figure;
  return {
    ok: true,
    sample: {
      box,
      seq: Number(seq),
      ms: Number(ms),
      angle: Number(angle),
      lifts: [lifts[0] ?? null, lifts[1] ?? null],
    },
  };
}

/** By how much a 32-bit counter has gone on, in [−2³¹, 2³¹). */
export const counted = (from: number, to: number): number => (to - from) | 0;
