import { wheelDegrees } from '../units/degrees';
import { type LengthUnit, formatLength } from '../units/length';
import { SIDE_WORDS, type TimingLine, type Valve } from './card';

/** How a checking height is written: "0.050 in", or "advertised". */
export const heightWords = (line: Pick<TimingLine, 'height' | 'at'>, units: LengthUnit): string =>
  line.height === null
    ? 'advertised'
    : `at ${formatLength(line.height, units)}${line.at === 'valve' ? ' of the valve' : ''}`;

/** `lineKey({ height: 1.27, at: 'lobe' })` is "1.27". */
export const lineKey = ({ height, at }: Pick<TimingLine, 'height' | 'at'>): string =>
  `${height ?? 'advertised'}${at === 'valve' ? 'v' : ''}`;

const OTHER_SIDE = { BTDC: 'ATDC', ABDC: 'BBDC', BBDC: 'ABDC', ATDC: 'BTDC' } as const;

/** An event with the side that it lies on. `eventWords(-5, 'intake', 'opens')` is "5° ATDC"; of 0 it is "at TDC". */
export function eventWords(value: number, valve: Valve, which: 'opens' | 'closes'): string {
  const side = SIDE_WORDS[valve][which];
  if (Math.abs(value) < 0.005) return `at ${side.slice(1)}`;
  return `${wheelDegrees(Math.round(Math.abs(value) * 100) / 100)} ${value < 0 ? OTHER_SIDE[side] : side}`;
}
