import { decimal } from './decimal';

const QUARTERS = ['', '¼', '½', '¾'] as const;

/**
 * Degrees as the trade writes a wheel reading: whole, quarter or half degrees as fractions, anything else in decimals.
 * `wheelDegrees(26.5)` is "26½°"; `wheelDegrees(0.25)` is "¼°"; `wheelDegrees(12.3)` is "12.3°".
 */
export function wheelDegrees(value: number): string {
  const quarters = value * 4;
  if (!Number.isInteger(quarters)) return `${decimal(value, Number.isInteger(value * 10) ? 1 : 2)}°`;
  const sign = value < 0 ? '−' : '';
  const whole = Math.floor(Math.abs(value));
  const fraction = QUARTERS[Math.abs(quarters) % 4] ?? '';
  return `${sign}${whole === 0 && fraction ? '' : whole}${fraction}°`;
}

/** A limit is never told larger than it is, nor what is needed smaller. `atMostDegrees(5.391)` is "5.3°". */
export const atMostDegrees = (limit: number): string => computedDegrees(Math.floor(10 * limit + 1e-6) / 10);
/** `atLeastDegrees(5.31)` is "5.4°". */
export const atLeastDegrees = (need: number): string => computedDegrees(Math.ceil(10 * need - 1e-6) / 10);

/** A computed angle in decimals, one unless said. `computedDegrees(109.06)` is "109.1°". */
export const computedDegrees = (value: number, places = 1): string => `${decimal(value, places)}°`;

/** With its sign, of a computed angle: `signedDegrees(-2.04)` is "−2.0°". */
export const signedDegrees = (value: number): string =>
  `${value > 0 ? '+' : value < 0 ? '−' : ''}${computedDegrees(Math.abs(value))}`;
