import { rimTrouble, roundOf } from '@yosoku/core/crank/rim';
import { type LengthUnit, parseLength } from '@yosoku/core/units/length';

/** A rim's diameter as typed: once round it in mm, what was understood, or what is wrong. Empty text is neither. */
export function readDiameter(text: string, unit: LengthUnit) {
  if (text.trim() === '') return { round: null, trouble: undefined, echo: undefined };
  const parsed = parseLength(text, { family: 'dimension', unit });
  if (!parsed.ok) return { round: null, trouble: parsed.message, echo: undefined };
  const round = roundOf(parsed.mm);
  const trouble = rimTrouble(round) ?? undefined;
  return { round: trouble ? null : round, trouble, echo: parsed.understood };
}
