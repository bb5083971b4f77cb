import { Big } from 'big.js';

const HALF_UP = 1;
/** Closer than this to a half, the binary fraction may lie on the wrong side of it. */
const NEAR_A_HALF = 1e-6;
/** Above this the float itself no longer holds the decimals. */
const LARGE = 1e9;

/**
 * A number as text with a fixed count of decimals, rounded half-up on its decimal digits (not on its binary float).
 * Zero never carries a sign. `decimal(2.45, 1)` is "2.5"; `decimal(-0.04, 1)` is "0.0".
 */
export function decimal(value: number, places: number): string {
  const size = Math.abs(value);
  const scaled = size * 10 ** places;
  const isClear = scaled < LARGE && Math.abs((scaled % 1) - 0.5) > NEAR_A_HALF;
  // Only a tie needs exact decimals, which cost fifty times as much.
  const text = isClear ? (Math.round(scaled) / 10 ** places).toFixed(places) : exact(size, places);
  return value < 0 && /[1-9]/.test(text) ? `−${text}` : text;
}

/** The same with as few decimals as it takes. `shortDecimal(107, 2)` is "107"; `shortDecimal(2.5, 2)` is "2.5". */
export const shortDecimal = (value: number, most: number): string => decimal(value, most).replace(/\.?0+$/, '');

const exact = (size: number, places: number): string => new Big(size).round(places, HALF_UP).toFixed(places);
