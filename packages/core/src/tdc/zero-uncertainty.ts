import { NORMAL_95 } from '../statistics/normal';
import { pooled, pooledFactor, scatters } from '../statistics/repeats';
import { computedDegrees } from '../units/degrees';
import { inches } from '../units/length';
import { type SliderCrank, dwellHalf, equalHeights, pistonSlope } from '../crank/slider-crank';
import { ZERO_METHODS, type ZeroMethodName } from './zero-methods';

/** What the angles are read on. A wheel: radius and graduation, and the gap between pointer and face where it is known. */
export type ReadOn =
  | {
      readonly on: 'wheel';
      readonly radius: number;
      readonly graduation: number;
      readonly pointerGap?: number | undefined;
      /** What its builder reads to, by what he typed, crank degrees. */
      readonly typed?: number | undefined;
    }
  | { readonly on: 'rim'; readonly round: number; readonly tapeStep: number };

export interface ZeroConditions {
  readonly method: ZeroMethodName;
  /** Half the way between the two readings, crank degrees. */
  readonly half: number;
  /** The crank train; null when it is not known, and a usual one is assumed. */
  readonly engine: SliderCrank | null;
  readonly readOn: ReadOn;
  /** Resolution of the indicator, mm, where the method uses one. */
  readonly resolution: number;
  /** True TDC as each pass found it, crank degrees. */
  readonly passes: readonly number[];
  /** What a maker's pin is good for, ± crank degrees, as his manual says. */
  readonly tolerance?: number | undefined;
}

export interface ZeroUncertainty {
  /** Standard uncertainty of TDC, crank degrees (GUM, JCGM 100:2008). */
  readonly standard: number;
  /** Half-width of the interval that covers the truth 95 times in 100, crank degrees. */
  readonly expanded: number;
  /** Standard deviation of the passes; 0 for a single one. */
  readonly spread: number;
  readonly budget: readonly { readonly from: UncertaintySource; readonly standard: number }[];
  /** "good to ±0.2°" */
  readonly words: string;
  /** What would improve it most, or null when nothing simple does. */
  readonly advice: string | null;
}

export type UncertaintySource =
  'reading the wheel' | 'height of the piston' | 'looking past the pointer' | 'repeats' | 'the maker’s pin';

/** A common crank train, to judge by where the engine's own is not known: 86 mm stroke, 145 mm rod. */
export const USUAL_CRANK: SliderCrank = { stroke: 86, rod: 145 };
/** Step of a usual indicator by its units, mm. */
export const USUAL_RESOLUTION = { in: inches('0.0005'), mm: 0.01 } as const;
/** What the eye tells apart at the edge of a wheel, mm. From memory. */
const EYE = 0.25;
/** By how much it errs at the pointer, 1 sigma, mm: 0.1° on a wheel of 230 mm. From memory. */
const EYE_ERRS = 0.2;
/** How far from square the eye may look past a pointer, degrees. From memory. */
const EYE_TILT = 10;
const DEG = 180 / Math.PI;
const square = (value: number): number => value * value;

/** The finest step that is read, crank degrees: what was typed, never finer than a quarter of a graduation; before that, what the eye sees at that radius. */
export function readableStep(readOn: ReadOn): number {
  if (readOn.on === 'rim') return (360 * readOn.tapeStep) / readOn.round;
  if (readOn.typed !== undefined) return Math.max(readOn.graduation / 4, readOn.typed);
  return Math.max(readOn.graduation / 4, (EYE / readOn.radius) * DEG);
}

/** How far the pointer can seem to stand from where it does, crank degrees either way: a rectangular distribution. */
export function parallaxHalfWidth(readOn: ReadOn): number {
  if (readOn.on === 'rim' || !readOn.pointerGap) return 0;
  return ((readOn.pointerGap * Math.tan(EYE_TILT / DEG)) / readOn.radius) * DEG;
}

/** On average the indicator stops ⅔·w before TDC with a standard deviation of 0.236·w (w: `dwellHalf`): for θ = w·√u, u even. */
const FIRST_STOP_MEAN = 2 / 3;
const FIRST_STOP_DEVIATION = Math.sqrt(1 / 18);

/** How early the first stop of an indicator is on average, crank degrees: to be added to what the wheel shows there. */
export const firstStopBias = (engine: SliderCrank, resolution: number): number =>
  FIRST_STOP_MEAN * dwellHalf(engine, resolution);

interface Terms {
  /** Rounding to the step that is read to. */
  readonly reading: number;
  readonly eye: number;
  readonly height: number;
  readonly parallax: number;
}

/** Standard uncertainties of one pass by what they come from, crank degrees. */
function termsOf({ method, half, engine, readOn, resolution, tolerance }: ZeroConditions): Terms {
  const { readings, height, feel } = ZERO_METHODS[method];
  const crank = engine ?? USUAL_CRANK;
  const parallax = parallaxHalfWidth(readOn) / Math.sqrt(3);
  const each = readableStep(readOn) / Math.sqrt(12);
  const eye = (EYE_ERRS / (readOn.on === 'rim' ? readOn.round / (2 * Math.PI) : readOn.radius)) * DEG;
  // A tolerance is no scatter: it stays however often the pin is put in.
  if (tolerance !== undefined)
    return { reading: each, eye, height: 0, parallax: Math.hypot(parallax, tolerance / Math.sqrt(3)) };
  if (readings === 'single')
    return { reading: each, eye, height: FIRST_STOP_DEVIATION * dwellHalf(crank, resolution), parallax };
  const ofHeight = Math.hypot(feel, height === 'indicator' ? resolution / Math.sqrt(12) : 0);
  // A midpoint of two readings that err apart has 1/√2 of the error of each.
  return {
    reading: each / Math.SQRT2,
    eye: eye / Math.SQRT2,
    height: ofHeight / pistonSlope(crank, Math.max(half, 1)) / Math.SQRT2,
    parallax,
  };
}

/**
 * What repeats leave of the rounding. The same place on the wheel is rounded the same way each time; only as far as the height
 * scatters over a good part of a step is it rounded anew. Share of the variance that stays: exp(−4π²σ²/q²), for scatter σ and step q
 * (first harmonic of a dithered quantiser; from memory after Widrow, Kollár, Quantization Noise).
 */
function readingAfter({ reading, height, eye }: Terms, passes: number): number {
  // σ/q is the same for one reading and for a midpoint of two; reading = q/√12.
  const stays = Math.exp((-4 * square(Math.PI) * (square(height) + square(eye))) / (12 * square(reading)));
  return reading * Math.sqrt(stays + (1 - stays) / passes);
}

function combine(terms: Terms, passes: number): number {
  return Math.sqrt(
    (square(terms.height) + square(terms.eye)) / passes + square(readingAfter(terms, passes)) + square(terms.parallax),
  );
}

/**
 * How well TDC is known, from what it was read on and how often.
 * The height errs anew at every pass, rounding hardly (see `readingAfter`), looking past the pointer not at all. Where passes
 * scatter more than all of that explains, their own scatter is believed beside it, with Student's t for so few.
 * Source: JCGM 100:2008 (GUM) 4.3, 5.1, G.3; the figures of eye and feel are from memory.
 * @example positive stop, half 20°, 230 mm wheel in degrees, one pass: "good to ±0.1°"
 */
export function zeroUncertainty(conditions: ZeroConditions): ZeroUncertainty {
  const { passes } = conditions;
  const count = Math.max(1, passes.length);
  const terms = termsOf(conditions);
  const mean = passes.reduce((sum, each) => sum + each, 0) / count;
  const freedom = count - 1;
  const spread = freedom > 0 ? Math.sqrt(passes.reduce((sum, each) => sum + square(each - mean), 0) / freedom) : 0;

  const expected = Math.hypot(terms.reading, terms.height, terms.eye);
  const isScattered = scatters(spread, freedom, expected);
  const ofRandom = (isScattered ? pooled(spread, freedom, expected) : terms.height) / Math.sqrt(count);
  const factor = isScattered ? pooledFactor(freedom) : NORMAL_95;
  const reading = Math.hypot(readingAfter(terms, count), isScattered ? 0 : terms.eye / Math.sqrt(count));
  const ofEye = Math.hypot(reading, terms.parallax);
  const standard = Math.hypot(ofRandom, ofEye);
  const expanded = Math.hypot(factor * ofRandom, NORMAL_95 * ofEye);

  const budget = [
    { from: 'reading the wheel' as const, standard: reading },
    { from: isScattered ? ('repeats' as const) : ('height of the piston' as const), standard: ofRandom },
  ];
  return {
    standard,
    expanded,
    spread,
    budget: [...budget, { from: staysOf(conditions), standard: terms.parallax }].filter((each) => each.standard > 0),
    words: `good to ±${computedDegrees(expanded, expanded < 0.095 ? 2 : 1)}`,
    advice: adviceFor(conditions, terms, count),
  };
}

/** What repeats leave as it is. */
const staysOf = ({ tolerance }: ZeroConditions): UncertaintySource =>
  tolerance === undefined ? 'looking past the pointer' : 'the maker’s pin';

const GOOD_HALF = 25;
const GOOD_RADIUS = 200;
/** What changes less than this is not worth the trouble. */
const WORTH_IT = 0.85;

function adviceFor(conditions: ZeroConditions, terms: Terms, passes: number): string | null {
  const { method, half, engine, readOn } = conditions;
  const { readings, height } = ZERO_METHODS[method];
  const now = combine(terms, passes);
  const tries: { readonly text: string; readonly then: number }[] = [];
  const consider = (text: string, change: Partial<ZeroConditions>): void => {
    tries.push({ text, then: combine(termsOf({ ...conditions, ...change }), passes) });
  };
  if (readings === 'pair' && half < GOOD_HALF - 5) {
    const out = `${computedDegrees(half, 0)}`;
    const drop = equalHeights(engine ?? USUAL_CRANK, GOOD_HALF).drop.toFixed(1);
    consider(
      height === 'stop'
        ? `A stop that meets the piston ${GOOD_HALF}° out instead of ${out}`
        : `A height about ${drop} mm below the top, ${GOOD_HALF}° out instead of ${out},`,
      { half: GOOD_HALF },
    );
  }
  if (readOn.on === 'wheel') {
    if (readOn.radius < GOOD_RADIUS)
      consider('A wheel of 400 mm (16 in) graduated in half degrees', {
        readOn: { ...readOn, radius: GOOD_RADIUS, graduation: Math.min(readOn.graduation, 0.5) },
      });
    else if (readOn.graduation > 0.5)
      consider('A wheel graduated in half degrees', { readOn: { ...readOn, graduation: 0.5 } });
    if (readOn.pointerGap) consider('A pointer close to the wheel', { readOn: { ...readOn, pointerGap: 0 } });
  }
  if (readings === 'single' && conditions.tolerance === undefined)
    consider('A pair of readings at the same drop either side of the top', {
      method: 'equal-drop',
      half: GOOD_HALF,
    });
  if (passes < 3) tries.push({ text: 'Three passes in all', then: combine(terms, 3) });
  const best = tries.sort((a, b) => a.then - b.then)[0];
  if (!best || best.then > WORTH_IT * now) return null;
  const ratio = best.then / now;
  if (ratio < 0.3) return `${best.text} would cut it to a quarter.`;
  if (ratio < 0.6) return `${best.text} would halve it.`;
  const [from, to] = [NORMAL_95 * now, NORMAL_95 * best.then];
  const blurred = computedDegrees(from) === computedDegrees(to) || to < 0.095;
  return blurred
    ? `${best.text} would bring it from ±${computedDegrees(from, 2)} to ±${computedDegrees(to, 2)}.`
    : `${best.text} would bring it to ±${computedDegrees(to)}.`;
}
