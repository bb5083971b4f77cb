import { type LengthUnit, formatComputedLength, formatLength, inches } from '../units/length';

/** What holds the cam endways. */
export type ThrustKind = 'plate' | 'button';

/** Usual end play, mm: a thrust plate 0.004 to 0.005 in, a button with a roller cam 0.005 to 0.010 in. Common practice, no source. */
export const END_PLAY: Readonly<Record<ThrustKind, { readonly from: number; readonly to: number }>> = {
  plate: { from: inches('0.004'), to: inches('0.005') },
  button: { from: inches('0.005'), to: inches('0.010') },
};

const ROUNDING = 1e-6;

/** How the play was measured, and what is wanted. */
export interface PlayMeasured {
  readonly thrust: ThrustKind;
  /** mm. */
  readonly play: number;
  /** What the maker wants, mm; left out: what is usual. */
  readonly wanted?: number | undefined;
  /** Did the needle come back to zero when the cam was let go? */
  readonly returns?: boolean | undefined;
  /** A button: was the cover bolted up with its gasket and every bolt? */
  readonly gasket?: boolean | undefined;
}

export interface PlayJudged {
  /** unsure: what was measured is not the play. */
  readonly state: 'inside' | 'tight' | 'loose' | 'unsure';
  /** How much is taken off, or added by a shim, mm: positive is taken off. 0 where it is right, or nobody can say. */
  readonly takeOff: number;
  readonly words: string;
}

/** What cures it, by what holds the cam. */
const CURE: Readonly<Record<ThrustKind, Readonly<Record<'tight' | 'loose', (by: string, to: string) => string>>>> = {
  plate: {
    tight: (by, to) => `Take ${by} off the plate, or fit a spacer longer by that, for ${to}, as the manual allows.`,
    loose: (by, to) => `Fit a plate thicker by ${by}, for ${to}.`,
  },
  button: {
    tight: (by, to) => `Take ${by} off the button for ${to}.`,
    loose: (by, to) => `Shim the button by ${by} for ${to}.`,
  },
};

/**
 * A cam's end play against what is wanted, and what to take off or to add.
 * Source: wanted − play is taken off, play − wanted is shimmed; common practice, no source.
 * @example judgeEndPlay({ thrust: 'button', play: 0.0762 }, 'in') // tight: take 0.0045 in off the button for 0.0075 in
 */
export function judgeEndPlay({ thrust, play, wanted, returns, gasket }: PlayMeasured, unit: LengthUnit): PlayJudged {
  const { from, to } = END_PLAY[thrust];
  const shown = formatLength(play, unit);
  if (returns === false)
    return {
      state: 'unsure',
      takeOff: 0,
      words: `${shown} is not the play: the needle does not come back to zero when the cam is let go. The cover or the plate flexes under the hand. Push more gently, let go, and read it again.`,
    };
  if (thrust === 'button' && gasket === false)
    return {
      state: 'unsure',
      takeOff: 0,
      words: `${shown} was measured without the gasket or with bolts missing: bolt the cover up as it will run, and read it again.`,
    };
  const range =
    wanted === undefined
      ? `${formatLength(from, unit)} to ${formatLength(to, unit)} is usual`
      : `${formatLength(wanted, unit)} is wanted`;
  const [least, most] = wanted === undefined ? [from, to] : [wanted - SLACK, wanted + SLACK];
  const aim = wanted ?? (from + to) / 2;
  const takeOff = aim - play;
  const cure = (way: 'tight' | 'loose'): string =>
    CURE[thrust][way](formatComputedLength(Math.abs(takeOff), unit), formatComputedLength(aim, unit));
  if (play < least - ROUNDING)
    return {
      state: 'tight',
      takeOff,
      words: `${shown} is tight: ${range}. It can seize endways as it warms. ${cure('tight')}`,
    };
  if (play > most + ROUNDING)
    return { state: 'loose', takeOff, words: `${shown} is loose: ${range}. The cam can walk. ${cure('loose')}` };
  return { state: 'inside', takeOff: 0, words: `${shown} is inside: ${range}.` };
}

/** A play that is wanted to the figure is met within this, mm: what an indicator tells. From memory. */
const SLACK = inches('0.001');
