import { type LengthUnit, formatLength, inches } from '../units/length';

/** What holds the cam endways. */
export type ThrustKind = 'plate' | 'button';

/** Usual end play, mm: a thrust plate 0.004 to 0.005 in, a button with a roller cam 0.005 to 0.010 in. Common practice, no source. */
export const END_PLAY: Readonly<Record<ThrustKind, { readonly from: number; readonly to: number }>> = {
  plate: { from: inches('0.004'), to: inches('0.005') },
  button: { from: inches('0.005'), to: inches('0.010') },
};

const ROUNDING = 1e-6;

/**
 * A cam's end play against what is usual.
 * @param play mm.
 * @example judgeEndPlay('plate', 0.1143, 'in') // inside
 */
export function judgeEndPlay(
  thrust: ThrustKind,
  play: number,
  unit: LengthUnit,
): { readonly state: 'inside' | 'tight' | 'loose'; readonly words: string } {
  const { from, to } = END_PLAY[thrust];
  const range = `${formatLength(from, unit)} to ${formatLength(to, unit)}`;
  const shown = formatLength(play, unit);
  if (play < from - ROUNDING)
    return {
      state: 'tight',
      words: `${shown} is tight: ${range} is usual. It can seize endways as it warms. Take off what the manual allows.`,
    };
  if (play > to + ROUNDING)
    return {
      state: 'loose',
      words: `${shown} is loose: ${range} is usual. The cam can walk. Shim it, or fit a thicker plate or button.`,
    };
  return { state: 'inside', words: `${shown} is inside the usual ${range}.` };
}
