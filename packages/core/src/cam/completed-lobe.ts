import type { TimingLine } from './card';
import type { Lobe } from './lobe';

/** A figure and where it came from: null where the card prints it. */
export interface Fact {
  readonly value: number;
  readonly from: string | null;
}

export interface CompletedLobe {
  readonly centreline: number | null;
  /** Timing with what follows from it. `assumed`: the card does not say the height. */
  readonly lines: readonly (TimingLine & { readonly key: string; readonly assumed: boolean })[];
  readonly lobeLift: number | null;
  readonly valveLift: number | null;
  readonly ratio: number | null;
  /** The lobe as far as the card tells, lift at the lobe (at the valve where the card gives no ratio), null without a lift. */
  readonly curve: Lobe | null;
  /** Does the card say where the nose stands, if only in a figure that is disputed? */
  readonly placed: boolean;
  /** full: the durations shape it. usual: a common steepness is assumed. */
  readonly shape: 'full' | 'usual' | null;
}
