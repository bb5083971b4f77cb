import type { Valve } from '../../cam/card';
import type { Outcome } from '../../problem';
import type { FlankPair, PairEvents } from './flank-pair';

export type Flank = 'opening' | 'closing';

/** One reading of a method: which side, from which direction, and what has to be typed. */
export interface Slot {
  readonly shows: 'below-peak' | 'above-base' | 'peak-lift' | 'tdc-lift' | 'trace-point' | 'by-feel';
  readonly flank: Flank | null;
  readonly approach: 'forward' | 'backward';
  /** wheel: the indicator is brought to the chosen figure, the wheel is read. lift: the indicator is read. both: both are. */
  readonly asks: 'wheel' | 'lift' | 'both';
  /** What the hands do. `{at}` is the chosen height, `{valve}` the valve. */
  readonly turn: string;
  /** The same the other way round, the indicator zeroed where it was read before; for engines that are turned back, and for those that are not. */
  readonly otherWay?: { readonly back: string; readonly on: string };
  readonly label: string;
  readonly record: string;
  /** Its turn where the other side of the pair was read before it; null where it is never the second. */
  readonly again: string | null;
}

/** The readings of a whole round: where the wheel stood on each flank and what true TDC shows, crank degrees; and the indicator, mm. */
export interface WholeRound {
  readonly valve: Valve;
  readonly flanks: FlankPair;
  readonly zero: number;
  readonly figure: number;
  readonly onWheel: boolean;
}

/** What a whole round gives, angles as a card prints them. */
export interface RoundGives {
  readonly centreline?: number;
  readonly events?: PairEvents;
  readonly opens?: number;
  /** At the peak, or at TDC, mm. */
  readonly lift?: number;
  /** How far past TDC the crank stood for a lift at TDC, crank degrees; null without a wheel. */
  readonly pastTdc?: number | null;
}

interface Described {
  readonly name: string;
  /** The same where there is room for two or three words. */
  readonly tab: string;
  /** In one line: when it is the right one. */
  readonly why: string;
  /** The figure that the indicator is brought to, where there is one. */
  readonly height: {
    readonly noun: 'drop' | 'height';
    readonly label: string;
    readonly usual: { readonly in: string; readonly mm: string };
  } | null;
  /** What the indicator's figure is counted from, where it is brought to one. */
  readonly from: 'peak' | 'base' | null;
  /** Is it told by the fingers, at the valve, where its lash is just taken up? */
  readonly isFelt?: boolean;
  /** What is asked for in a sentence: "the intake centreline". */
  readonly asked: (valve: string) => string;
  /** In a sentence: "by the rule of the shop from the events". */
  readonly short: string;
  /** What it measures of a valve, at a figure in words or at none: "the intake events at 0.050 in". */
  readonly named: (valve: string, at: string | null) => string;
  /** Can it be done where the lifter does not follow the lobe down? */
  readonly followsDown: boolean;
  readonly needsWheel: boolean;
  readonly prepare: string;
  readonly cautions: readonly string[];
  /** What a whole round gives, or why it cannot be right; null where nothing follows from one round alone. */
  readonly solve: ((round: WholeRound) => Outcome<{ readonly gives: RoundGives }>) | null;
  /** The readings of one round, in their order. A trace has no end: its one slot repeats. */
  readonly slots: readonly Slot[];
}

/**
 * What is read, and what its figure is. flanks: where the wheel stands at a lift, each way on or off the lobe; they give where the nose is, the middle and ends of
 * the events, or one end of them. Or a lift, the whole curve, the slack in the timing drive.
 */
type Reads =
  | { readonly reads: 'flanks'; readonly gives: 'centreline' | 'events' | 'opening' }
  | { readonly reads: 'curve'; readonly gives: 'centreline' }
  | { readonly reads: 'tdc-lift' | 'peak-lift'; readonly gives: 'lift' }
  | { readonly reads: 'slack'; readonly gives: 'slack' };

export type ReadMethod = Described & Reads;
