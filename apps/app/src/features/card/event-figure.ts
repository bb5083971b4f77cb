import { rimDegrees } from '@yosoku/core/crank/rim';
import { parseLength } from '@yosoku/core/units/length';

/** A figure as typed: decimal comma or point, minus sign or hyphen. NaN when it is none. */
export function figure(typed: string): number {
  const text = typed.trim().replace(',', '.').replace('−', '-').replace(/°$/, '');
  return /^-?(\d+\.?\d*|\.\d+)$/.test(text) ? Number(text) : NaN;
}

/** Sides that an event may be typed with, and whether they count as the card's own side (1) or the other (−1). */
const EVENT_SIDES: Readonly<Record<string, { readonly opens: 1 | -1; readonly closes: 1 | -1 }>> = {
  b: { opens: 1, closes: -1 },
  a: { opens: -1, closes: 1 },
};

/** Typed as a distance along a rim, not as degrees: a fraction, or with its unit. */
export const ALONG_RIM = /[/½¼¾⅛⅜⅝⅞"”″]|\d\s*(in|ins|inch|inches|mm)\b/i;

/**
 * An event as typed: "21", "-5", "5 ATDC", "5° after", or along the rim of the flywheel: "1 7/8 in before". As printed by its own side: opens before,
 * closes after.
 * @param round once round the flywheel, mm; null where it is not given.
 */
export function eventFigure(typed: string, which: 'opens' | 'closes', round: number | null = null): number {
  const match = /^(.*?)\s*(btdc|atdc|bbdc|abdc|before|after|b|a)?\.?$/i.exec(typed.trim());
  const value = ALONG_RIM.test(match?.[1] ?? '') ? alongRim(match?.[1] ?? '', round) : figure(match?.[1] ?? '');
  const side = match?.[2]?.[0]?.toLowerCase();
  return side === undefined ? value : value * (EVENT_SIDES[side]?.[which] ?? NaN);
}

function alongRim(typed: string, round: number | null): number {
  const parsed = parseLength(typed, { family: 'dimension', unit: 'in' });
  return parsed.ok && round !== null ? Math.round(100 * rimDegrees(parsed.mm, round)) / 100 : NaN;
}
