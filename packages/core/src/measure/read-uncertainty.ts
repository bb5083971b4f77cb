import { NORMAL_95 } from '../statistics/normal';
import { pooled, pooledFactor, scatters } from '../statistics/repeats';

/**
 * How far a reading of the cam may err, by the GUM (JCGM 100:2008, 5.1 and 5.2). Each reading is a place on the wheel where the indicator
 * showed a figure. What errs: the wheel (rounded to what can be read), the indicator at the reading (its resolution, through the slope of the
 * flank), the zero of the indicator (common to the readings of one round), and TDC (common to everything).
 */
export interface ReadConditions {
  /** Finest step that is read off the wheel, crank degrees. */
  readonly wheelStep: number;
  /** Resolution of the indicator, mm. */
  readonly resolution: number;
  /** Standard uncertainty of TDC, crank degrees. */
  readonly tdc: number;
}

/** Slopes of the two flanks at the figure, mm per crank degree, both positive. */
export interface FlankSlopes {
  readonly opening: number;
  readonly closing: number;
}

/** Standard uncertainties of one quantity, crank degrees. */
export interface Terms {
  /** Rounding of the wheel: the same place is rounded the same way each time. */
  readonly wheel: number;
  /** Indicator, its zero included where it does not cancel, and the eye at the pointer: anew at every round. */
  readonly indicator: number;
  /** TDC: the same in all. */
  readonly tdc: number;
}

export interface PairTerms {
  readonly centre: Terms;
  readonly duration: Terms;
  readonly opening: Terms;
  readonly closing: Terms;
}

const SQRT12 = Math.sqrt(12);
/** Flattest slope that is believed: flatter, and the flank cannot be read at all. mm per crank degree. */
const FLATTEST = 0.002;

/**
 * What the readings of a round are good for. The opening reading stands at X − (e₁ + z)/s₁ from the truth, the closing one at X + (e₂ + z)/s₂
 * (e: indicator at the reading, z: its zero, s: slopes), so the zero moves opening and closing apart and cancels in their centre as far as the
 * slopes are equal; TDC moves both alike and cancels in the duration.
 * @example pairTerms({ opening: 0.07, closing: 0.07 }, { wheelStep: 0.25, resolution: 0.01, tdc: 0.1 }).centre
 *   // wheel 0.051°, indicator and eye 0.077°, TDC 0.1°
 */
export function pairTerms(slopes: FlankSlopes, { wheelStep, resolution, tdc }: ReadConditions): PairTerms {
  const [up, down] = [Math.max(slopes.opening, FLATTEST), Math.max(slopes.closing, FLATTEST)];
  const each = resolution / SQRT12;
  const wheel = wheelStep / SQRT12;
  const eye = wheelStep > 0 ? EYE : 0;
  return {
    centre: {
      wheel: wheel / Math.SQRT2,
      indicator: Math.hypot(each / up, each / down, each * (1 / up - 1 / down), eye * Math.SQRT2) / 2,
      tdc,
    },
    duration: {
      wheel: wheel * Math.SQRT2,
      indicator: Math.hypot(each / up, each / down, each * (1 / up + 1 / down), eye * Math.SQRT2),
      tdc: 0,
    },
    opening: { wheel, indicator: Math.hypot((each * Math.SQRT2) / up, eye), tdc },
    closing: { wheel, indicator: Math.hypot((each * Math.SQRT2) / down, eye), tdc },
  };
}

export interface Combined {
  readonly mean: number;
  /** Least to greatest. */
  readonly spread: number;
  readonly count: number;
  readonly standard: number;
  /** Half-width of the interval that covers the truth 95 times in 100. */
  readonly expanded: number;
  readonly budget: readonly { readonly from: ReadSource; readonly standard: number }[];
}

export type ReadSource =
  'the feel' | 'reading the wheel' | 'the indicator' | 'its zero on the base circle' | 'repeats' | 'TDC';

const square = (value: number): number => value * value;

/** Where fingers feel a valve begin to lift or come down, crank degrees (1 sigma): about 2° either way. Common practice, no source. */
export const FELT = 1;
/** A hand that stops late stops late every time, opening and closing alike: as an error of where it all counts from, crank degrees. From memory. */
export const FELT_LATE = 0.6;

/** What the eye at the pointer errs by beside the step that is read to, crank degrees (1 sigma). From memory. */
export const EYE = 0.1;

/** Repeats as one value, and what is left of each of their errors. In the unit of the values. */
export interface Repeated {
  readonly mean: number;
  /** Rounding to the wheel. */
  readonly wheel: number;
  /** Share of its variance that repeats do not wear down. */
  readonly stays: number;
  /** What errs anew each time: as budgeted, or as they scatter. */
  readonly random: number;
  readonly scatters: boolean;
  /** Half-width of 95 % of the random part, in its standard uncertainty: Student's t where the scatter is believed. */
  readonly factor: number;
}

/**
 * Repeats of one quantity. What errs anew each time wears down with their number; rounding to the wheel only as far as the place itself scatters (share
 * exp(−4π²σ²/q²) of its variance stays, as for TDC). Repeats that scatter beyond the budget are believed beside it, with Student's t for so few.
 * @param values at least one.
 * @param wheel standard uncertainty of one rounding, and `indicator` of what errs anew.
 */
export function repeatsOf(values: readonly number[], wheel: number, indicator: number): Repeated {
  const count = values.length;
  const mean = values.reduce((sum, each) => sum + each, 0) / count;
  const freedom = count - 1;
  const deviation = freedom > 0 ? Math.sqrt(values.reduce((sum, each) => sum + square(each - mean), 0) / freedom) : 0;
  const expected = Math.hypot(wheel, indicator);
  const isScattered = scatters(deviation, freedom, expected);
  const stays = wheel > 0 ? Math.exp((-4 * square(Math.PI * indicator)) / (12 * square(wheel))) : 0;
  return {
    mean,
    wheel: wheel * Math.sqrt(stays + (1 - stays) / count),
    stays,
    random: (isScattered ? pooled(deviation, freedom, expected) : indicator) / Math.sqrt(count),
    scatters: isScattered,
    factor: isScattered ? pooledFactor(freedom) : NORMAL_95,
  };
}

/**
 * Repeats of one quantity as one figure with its budget: TDC does not wear down at all.
 * @param values crank degrees, at least one.
 */
export function combineRounds(values: readonly number[], terms: Terms): Combined {
  const { mean, wheel, random, scatters, factor } = repeatsOf(values, terms.wheel, terms.indicator);
  return {
    mean,
    spread: values.length > 1 ? Math.max(...values) - Math.min(...values) : 0,
    count: values.length,
    standard: Math.hypot(wheel, random, terms.tdc),
    expanded: Math.hypot(factor * random, NORMAL_95 * Math.hypot(wheel, terms.tdc)),
    budget: [
      { from: 'reading the wheel' as const, standard: wheel },
      { from: scatters ? ('repeats' as const) : ('the indicator' as const), standard: random },
      { from: 'TDC' as const, standard: terms.tdc },
    ].filter((each) => each.standard > 0),
  };
}
