import { type LengthFamily, type LengthUnit, inches, parseLength, typedLength } from '@yosoku/core/units/length';

export type TypedLength =
  | { readonly state: 'empty' }
  | { readonly state: 'good'; readonly mm: number; readonly understood: string }
  | { readonly state: 'wrong'; readonly message: string };

interface LengthAsked {
  readonly units: LengthUnit;
  readonly family: LengthFamily;
  /** Larger ones have the wrong unit, mm. */
  readonly most?: number;
  /** Why a length that can be read is none that fits here; null where it does. @param understood how it was read, in words. */
  readonly misfit?: (mm: number, understood: string) => string | null;
}

/** A length as it is typed, in millimetres, or what is wrong with it. */
export function typedLengthOf(text: string, { units, family, most = Infinity, misfit }: LengthAsked): TypedLength {
  if (text.trim() === '') return { state: 'empty' };
  const parsed = parseLength(text, { family, unit: units });
  if (!parsed.ok) return { state: 'wrong', message: parsed.message };
  const { mm, understood } = parsed;
  const wrong = mm > most ? `${understood} is too much. Check the unit.` : misfit?.(mm, understood);
  return wrong ? { state: 'wrong', message: wrong } : { state: 'good', mm, understood };
}

/** The length where it is good. */
export const lengthIn = (typed: TypedLength): number | null => (typed.state === 'good' ? typed.mm : null);

/** What is wrong with it, where something is. */
export const troubleIn = (typed: TypedLength): string | null => (typed.state === 'wrong' ? typed.message : null);

/** What is left of a product of decimals is no figure. */
const MICRO = 1e6;

/** A small length to be filled in, as it is told: whole thousandths of an inch, or hundredths of a millimetre. `wholeLength(1.4951, 'in')` is "0.059 in". */
export function wholeLength(mm: number, units: LengthUnit): string {
  const step = units === 'in' ? inches('0.001') : 0.01;
  return typedLength(Math.round(Math.round(mm / step) * step * MICRO) / MICRO, units);
}
