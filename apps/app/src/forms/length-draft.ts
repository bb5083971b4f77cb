import { type LengthUnit, type ParsedLength, parseLength } from '@yosoku/core/units/length';

export type LengthKey = '0' | '1' | '2' | '3' | '4' | '5' | '6' | '7' | '8' | '9' | '.' | 'thou' | 'in' | 'mm' | 'back';

const MOST_FIGURES = 7;
const UNIT = / (thou|in|mm)$/;

/** One key of the length pad. A unit key puts its unit behind the figures; pressed again it takes it off. */
export function pressLengthKey(text: string, key: LengthKey): string {
  const figures = text.replace(UNIT, '');
  const unit = text.slice(figures.length);
  if (key === 'back') return unit === '' ? text.slice(0, -1) : figures;
  if (key === 'thou' || key === 'in' || key === 'mm') return unit === ` ${key}` ? figures : `${figures} ${key}`;
  if (key === '.' && figures.includes('.')) return text;
  if (figures.length >= MOST_FIGURES) return text;
  return `${figures === '0' && key !== '.' ? '' : figures}${key}${unit}`;
}

/** What a typed lift amounts to; null while nothing stands there. */
export const readLength = (text: string, unit: LengthUnit): ParsedLength | null =>
  text.trim() === '' ? null : parseLength(text, { family: 'lift', unit });
