import type { LiftAtTdc, Valve } from '../cam/card';
import type { Lobe } from '../cam/lobe';
import type { Flank, ReadMethodName } from '../measure/read-methods';

interface Observed {
  /** The entry that holds it. */
  readonly entry: string;
  /** Readings of one round share the zero of the indicator. Each point of a curve is a round of its own. */
  readonly round: string;
  /** Key of the view that it belongs to: what was read at one height of one lobe, with the indicator on one thing. */
  readonly view: string;
  readonly valve: Valve;
  /** Was the indicator on the valve itself? */
  readonly atValve: boolean;
}

/** The wheel was read where the indicator showed a figure on a flank. Lengths mm, angles crank degrees. */
export interface FlankObservation extends Observed {
  readonly kind: 'flank';
  readonly method: ReadMethodName;
  readonly flank: Flank;
  /** Counted up from the base circle, or down from the peak. */
  readonly from: 'base' | 'peak';
  readonly figure: number;
  /** Ring position as it was read, and where that is past TDC; which turn does not matter. */
  readonly ring: number;
  readonly angle: number;
  /** The zero that it counts from. */
  readonly zero: string;
  /** Finest step that is read off the wheel. */
  readonly step: number;
  /** Of a point of a curve, which stands for many readings: its own uncertainty. null for a reading. */
  readonly standard: number | null;
  /** Was it felt with the fingers, without an indicator? */
  readonly felt: boolean;
}

/** Lift at overlap TDC, mm. */
export interface TdcLiftObservation extends Observed {
  readonly kind: 'tdc-lift';
  readonly method: ReadMethodName;
  readonly lift: number;
  /** How far past TDC the wheel stood; 0 without a wheel. */
  readonly past: number;
  readonly zero: string;
  readonly step: number;
}

/** Lift from the base circle to the peak, mm. It does not say where the cam sits, only which it is. */
export interface PeakLiftObservation extends Observed {
  readonly kind: 'peak-lift';
  readonly method: null;
  readonly lift: number;
}

export type Observation = FlankObservation | TdcLiftObservation | PeakLiftObservation;

/**
 * What a printed centreline is the middle of. nose: of an equal drop near the peak. events: of opening and closing. as-events: the card does not say, but
 * it is the middle of its own events. unsaid: nothing tells.
 */
export type CentreMeans = 'nose' | 'events' | 'as-events' | 'unsaid';

/**
 * A figure that the card prints of a lobe, with the standard uncertainty of its rounding. Angles as cycle angles, lengths mm at the lobe. Doubtful are a
 * centreline and events that lie further apart than lobes usually lean: each is compared with its like alone.
 */
export type CardFact =
  | {
      /** A printed centreline. */
      readonly of: 'centre';
      readonly valve: Valve;
      readonly value: number;
      readonly standard: number;
      readonly means: CentreMeans;
      readonly doubtful?: true;
    }
  | { readonly of: 'peak'; readonly valve: Valve; readonly value: number; readonly standard: number }
  | {
      readonly of: 'opening' | 'closing' | 'duration';
      readonly valve: Valve;
      readonly height: number;
      readonly value: number;
      readonly standard: number;
      readonly doubtful?: true;
    }
  | { readonly of: 'separation' | 'ground-in'; readonly value: number; readonly standard: number };

/** An angle of the card: what may be misprinted, or typed wrong. */
export type PrintedAngle = Exclude<CardFact, { of: 'peak' }>;

/** A lobe as it is guessed before anything was measured. */
export interface GuessedLobe {
  readonly lobe: Lobe;
  /** full: two heights of the card shape it. usual: its steepness is that of common lobes. common: the card says next to nothing. */
  readonly shape: 'full' | 'usual' | 'common';
  /** Valve travel for each 1 of lobe, and the lash, mm, for readings at the valve. */
  readonly ratio: number;
  readonly lash: number;
  /** Lifts at TDC that the card prints, at the lobe. */
  readonly catalogue: readonly LiftAtTdc[];
}

/** Everything that is known of a trial. */
export interface Evidence {
  readonly cams: 'single' | 'twin';
  /** In the order in which they were taken. */
  readonly observations: readonly Observation[];
  readonly card: readonly CardFact[];
  /** Of these lobes the card prints a centreline and events that lie further apart than lobes usually lean: nothing is believed of their lean beforehand. */
  readonly leanUnknown: readonly Valve[];
  readonly lobes: Readonly<Record<Valve, GuessedLobe>>;
  /** Standard uncertainty of TDC of each zero, crank degrees. */
  readonly zeros: ReadonlyMap<string, number>;
  /** Of the indicator, mm. */
  readonly resolution: number;
  /** What follows the lobes, as far as anybody has said. */
  readonly lifter: 'solid' | 'hydraulic' | 'roller' | 'bucket' | 'none' | null;
  /** Is the wheel numbered from both dead centres, so that one can be taken for the other? */
  readonly quadrants: boolean;
  /** The zero was proved again after so many of the observations: until then the wheel had not moved. */
  readonly settled: number;
  /** How far ahead of the card each cam shall sit, crank degrees; null where that cannot be said. */
  readonly ahead: Readonly<Record<Valve, number | null>>;
  /** The centreline that is wanted whatever the card says, as printed, or null. */
  readonly centreline: Readonly<Record<Valve, number | null>>;
}
