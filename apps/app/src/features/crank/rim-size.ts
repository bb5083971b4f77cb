import { rimTrouble, roundOf } from '@yosoku/core/crank/rim';
import type { LengthUnit } from '@yosoku/core/units/length';
import { type TypedLength, lengthIn, typedLengthOf } from '@/forms/typed-length';

/** A rim's diameter as typed, and once round it in mm: null where it is none, or nothing stands there. */
export function readDiameter(
  text: string,
  units: LengthUnit,
): { readonly typed: TypedLength; readonly round: number | null } {
  const typed = typedLengthOf(text, { units, family: 'dimension', misfit: (mm) => rimTrouble(roundOf(mm)) });
  const diameter = lengthIn(typed);
  return { typed, round: diameter === null ? null : roundOf(diameter) };
}
