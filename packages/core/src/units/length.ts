import type { Checked } from '../problem';
import { Big } from 'big.js';
import { decimal } from './decimal';

declare const unit: unique symbol;
/** A length in millimetres, the core's only unit of length. */
export type Millimetres = number & { readonly [unit]: 'millimetres' };
export type LengthUnit = 'in' | 'mm';
/**
 * What a typed inch figure means. `lift`: lifts, drops and clearances, where 50, .050 and 0.050 are the same thing.
 * `dimension`: bore, stroke, rod, diameters, which are always whole inches.
 */
export type LengthFamily = 'lift' | 'dimension';

export type ParsedLength = Checked<{ readonly mm: Millimetres; readonly understood: string }>;

/** 1 in = 25.4 mm exactly (NIST SP 811, appendix B.8). */
export const MM_PER_INCH = 25.4;
/** Kept to a nanometre: the database column is DECIMAL(10,6). */
const KEPT_PLACES = 6;
const LARGEST_MM = 5000;
const SUFFIXES: Readonly<Record<string, 'in' | 'mm' | 'thou'>> = {
  mm: 'mm',
  millimetre: 'mm',
  millimetres: 'mm',
  millimeter: 'mm',
  millimeters: 'mm',
  in: 'in',
  ins: 'in',
  inch: 'in',
  inches: 'in',
  '"': 'in',
  '”': 'in',
  '″': 'in',
  "''": 'in',
  thou: 'thou',
  th: 'thou',
};

const refuse = (message: string): ParsedLength => ({ ok: false, message });

/** Names a plain number as millimetres. */
export const millimetres = (mm: number): Millimetres => mm as Millimetres;

/** Inches to millimetres from the decimal digits, exact to six places. `inches('0.050')` is 1.27. */
export const inches = (digits: string): Millimetres =>
  millimetres(new Big(digits).times(MM_PER_INCH).round(KEPT_PLACES).toNumber());

/** Fractions that have a character of their own. */
const VULGAR: Readonly<Record<string, string>> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
};
const FINEST_FRACTION = 128;

/** As it was typed, with one kind of minus, of stroke and of fraction. */
const plainly = (typed: string): string =>
  typed
    .trim()
    .replace(/[−–]/g, '-')
    .replace('⁄', '/')
    .replace(/\s*([½¼¾⅛⅜⅝⅞])/, (_all, vulgar: string) => ` ${VULGAR[vulgar] ?? ''}`)
    .trim();

/**
 * Reads a length as a builder types it.
 * @param typed digits with a decimal point or comma, or a fraction, and optionally `mm`, `in`, `"` or `thou`, which win over `unit`.
 * @param as the family of the field and the unit the build is measured in.
 * @returns millimetres and what was understood, to be echoed; or what was expected.
 * @example parseLength('50', { family: 'lift', unit: 'in' }) // 1.27 mm, "0.050 in"
 * @example parseLength('3 31/64', { family: 'dimension', unit: 'mm' }) // 88.50 mm: a fraction counts inches
 * Source: 1 or more = thou, below 1 = inch is common practice, no source.
 */
export function parseLength(
  typed: string,
  as: { readonly family: LengthFamily; readonly unit: LengthUnit },
): ParsedLength {
  const text = plainly(typed);
  const fractional = /^(-)?(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)\s*([a-z"”″']*)$/i.exec(text);
  if (fractional) return parseFraction(fractional, typed, as.family);
  const match = /^(-)?(\d*)(?:[.,](\d*))?\s*([a-z"”″']*)$/i.exec(text);
  const [, minus, whole = '', fraction = '', suffixText = ''] = match ?? [];
  if (!match || whole + fraction === '') return refuse('Type a length in figures, like 0.050 in or 1.27 mm.');
  if (minus) return refuse('A length here cannot be negative. Type it without the minus sign.');
  const suffix = suffixText === '' ? undefined : SUFFIXES[suffixText.toLowerCase()];
  if (suffixText !== '' && !suffix) return refuse(notAUnit(suffixText));

  const figure = new Big(`${whole || '0'}.${fraction || '0'}`);
  const bare = as.unit === 'in' && as.family === 'lift' && figure.gte(1) ? 'thou' : as.unit;
  const unit = suffix ?? bare;
  const inch = unit === 'thou' ? figure.div(1000) : figure;
  const mm = unit === 'mm' ? figure : inch.times(MM_PER_INCH);
  if (mm.gt(LARGEST_MM)) return refuse(`${typed.trim()} is longer than any part of an engine. Check the unit.`);
  const value = millimetres(mm.round(KEPT_PLACES).toNumber());
  return { ok: true, mm: value, understood: formatLength(value, unit === 'mm' ? 'mm' : 'in', as.family) };
}

const notAUnit = (suffix: string): string => `“${suffix}” is not a unit here. Use mm, in or thou.`;

/** "3 31/64 in": a fraction counts inches, unless it says millimetres; never thou. */
function parseFraction(
  [, minus, whole = '0', above = '', below = '', suffixText = '']: RegExpExecArray,
  typed: string,
  family: LengthFamily,
): ParsedLength {
  if (minus) return refuse('A length here cannot be negative. Type it without the minus sign.');
  const suffix = suffixText === '' ? 'in' : SUFFIXES[suffixText.toLowerCase()];
  if (!suffix) return refuse(notAUnit(suffixText));
  if (suffix === 'thou') return refuse('A fraction of a thou is finer than anything here. Type inches or millimetres.');
  if (Number(below) === 0 || Number(below) > FINEST_FRACTION || Number(above) >= Number(below))
    return refuse(`“${above}/${below}” is no fraction of a rule. Type it like 3 31/64, or in decimals.`);
  const figure = new Big(whole).plus(new Big(above).div(below));
  const mm = suffix === 'mm' ? figure : figure.times(MM_PER_INCH);
  if (mm.gt(LARGEST_MM)) return refuse(`${typed.trim()} is longer than any part of an engine. Check the unit.`);
  const value = millimetres(mm.round(KEPT_PLACES).toNumber());
  return { ok: true, mm: value, understood: formatLength(value, suffix, family) };
}

/**
 * A length as the trade writes it: inches to a thousandth (more only where there is more), millimetres to a hundredth.
 * `formatLength(1.27, 'in')` is "0.050 in"; `formatLength(1.27, 'mm')` is "1.27 mm".
 */
export function formatLength(mm: number, unit: LengthUnit, family: LengthFamily = 'lift'): string {
  if (unit === 'mm') return `${atLeast(mm, family === 'lift' ? 2 : 1, 3)} mm`;
  // To six places: one more than any inch figure that can be typed, and free of the division's binary dust.
  const inch = Math.round((mm / Number(MM_PER_INCH)) * 1e6) / 1e6;
  return `${atLeast(inch, 3, 4)} in`;
}

/**
 * A whole number of 64ths of an inch as it stands on a rule; null for anything else.
 * `inchFraction(47.625)` is "1⅞ in"; `inchFraction(50)` is null.
 */
export function inchFraction(mm: number): string | null {
  const parts = Math.round((mm / MM_PER_INCH) * 64);
  if (Math.abs(parts * (MM_PER_INCH / 64) - mm) > 1e-4) return null;
  const [whole, rest] = [Math.floor(parts / 64), parts % 64];
  if (rest === 0) return `${whole} in`;
  let [above, below] = [rest, 64];
  while (above % 2 === 0) [above, below] = [above / 2, below / 2];
  const text = `${above}/${below}`;
  const sign = Object.entries(VULGAR).find(([, each]) => each === text)?.[0];
  return `${whole === 0 ? '' : sign ? whole : `${whole} `}${sign ?? text} in`;
}

/**
 * A kept length as it would be typed: as it is shown, unless that would be read back as another length; then in the other unit, or to the
 * last digit. `typedLength(0.1524, 'mm')` is "0.006 in": "0.152 mm" would be less.
 */
export function typedLength(mm: number, unit: LengthUnit, family: LengthFamily = 'lift'): string {
  for (const tried of [unit, unit === 'mm' ? 'in' : 'mm'] as const) {
    const shown = formatLength(mm, tried, family);
    const parsed = parseLength(shown, { family, unit });
    if (parsed.ok && parsed.mm === mm) return shown;
  }
  return `${mm} mm`;
}

/**
 * A computed length: always a thousandth of an inch or a hundredth of a millimetre, since more would be pretence.
 * `formatComputedLength(4.843, 'in')` is "0.191 in".
 */
export const formatComputedLength = (mm: number, unit: LengthUnit): string =>
  unit === 'mm' ? `${decimal(mm, 2)} mm` : `${decimal(mm / Number(MM_PER_INCH), 3)} in`;

/** Shows `least` decimals, and up to `most` when the value really has them. */
function atLeast(value: number, least: number, most: number): string {
  const full = decimal(value, most);
  let end = full.length;
  while (end > full.length - (most - least) && full[end - 1] === '0') end -= 1;
  return full.slice(0, end);
}
