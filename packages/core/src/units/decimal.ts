import Big from 'big.js';

const HALF_UP = 1;

/**
 * A number as text with a fixed count of decimals, rounded half-up on its decimal digits (not on its binary float).
 * Zero never carries a sign. `decimal(2.45, 1)` is "2.5"; `decimal(-0.04, 1)` is "0.0".
 */
export function decimal(value: number, places: number): string {
  const text = new Big(value).round(places, HALF_UP).toFixed(places);
  const signed = text.replace('-', '−');
  return /[1-9]/.test(signed) ? signed : signed.replace('−', '');
}
