import { NORMAL_95 } from '../statistics/normal';
import { type Rocker, leastPath, pathAcross, turnedBy } from './rocker';

/** What was seen of the arm at mid-lift: square to the stem, its roller still above the perpendicular, or below it already. */
export const MID_LIFTS = ['right', 'above', 'below'] as const;
export type MidLift = (typeof MID_LIFTS)[number];

/** One length that was tried, and what it showed. mm. */
export interface PushrodTrial {
  /** Of the pushrod on a stud; of the shims under a shaft. */
  readonly length: number;
  readonly pattern: number | null;
  readonly seen: MidLift | null;
}

/** Where the trials say that the right length lies. */
export interface RightLength {
  /** mm. */
  readonly length: number;
  readonly standard: number;
  /** Half-width of 95 %. */
  readonly expanded: number;
}

/** A pattern is read to about this, its edges being what they are: mm, one standard deviation. From memory. */
const PATTERN = 0.12;
/** A right angle is seen to about this, as a sine: 2°. From memory. */
const ANGLE = 0.035;
/** Cup, pushrod and stud do not lie in one line with the arm: what a length does differs from the reckoning by this share (1 sigma). From memory. */
const GAIN = 0.08;
/** Sines further off than this are no rocker that anybody would turn over. */
const FURTHEST = 0.45;
const STEPS = 181;
const GAINS = [-2, -1, 0, 1, 2] as const;
const BINS = 120;
/** Of the arm at mid-lift, with the first length that was tried. */
const SINES = Array.from({ length: STEPS }, (_, at) => FURTHEST * ((2 * at) / (STEPS - 1) - 1));
/** Two answers are both held possible where the lesser has this share of the greater's weight. */
const RIVAL = 0.05;

interface Weighed {
  readonly length: number;
  readonly weight: number;
}

/**
 * The length at which the arm stands square at mid-lift, from every trial together.
 * @param trials any number of them, of one valve.
 * @param mounted on a stud the length of the pushrod turns the arm; on a shaft the shims under it do.
 * @returns the most likely first. Two, where the pattern alone cannot say whether the pivot is too low or too high; none, where no trial
 *   shows anything.
 * Source: the posterior on a grid, flat in the angle, normal in how much a length turns the arm (JCGM 101 describes such propagation).
 * @example rightLengths({ arm: 38, ratio: 1.5, lift: 14 }, 'stud', [{ length: 200, pattern: 1.6, seen: 'above' }]) // 206.5 ± 1.5: it was too short
 */
export function rightLengths(
  rocker: Rocker,
  mounted: 'stud' | 'shaft',
  trials: readonly PushrodTrial[],
): readonly RightLength[] {
  const told = trials.filter(({ pattern, seen }) => pattern !== null || seen !== null);
  if (told.length === 0) return [];
  const { pivot, pushrod } = turnedBy(rocker);
  const perSine = mounted === 'stud' ? pushrod : pivot;
  const base = told[0]?.length ?? 0;
  const grid = GAINS.flatMap((gain): Weighed[] => {
    const per = perSine * (1 + GAIN * gain);
    const prior = gain * gain;
    return SINES.map((first) => {
      const misfit = told.reduce(
        (sum, { length, pattern, seen }) => sum + misfitOf(rocker, first + (length - base) / per, pattern, seen),
        prior,
      );
      return { length: base - first * per, weight: Math.exp(-misfit / 2) };
    });
  });
  return answersOf(grid);
}

function misfitOf(rocker: Rocker, mid: number, pattern: number | null, seen: MidLift | null): number {
  let sum = 0;
  if (pattern !== null) sum += ((pathAcross(rocker, mid) - pattern) / PATTERN) ** 2;
  if (seen === 'right') sum += (mid / ANGLE) ** 2;
  if (seen === 'above') sum += (Math.max(0, mid) / ANGLE) ** 2;
  if (seen === 'below') sum += (Math.max(0, -mid) / ANGLE) ** 2;
  return sum;
}

interface Hump {
  readonly from: number;
  readonly to: number;
  readonly weight: number;
}

/** The humps of a posterior, the heaviest first: each with its middle and spread. */
function answersOf(grid: readonly Weighed[]): RightLength[] {
  const lengths = grid.map(({ length }) => length);
  const from = Math.min(...lengths);
  const width = (Math.max(...lengths) - from) / BINS;
  const binOf = (length: number): number => Math.min(BINS - 1, Math.floor((length - from) / width));
  const weights = new Array<number>(BINS).fill(0);
  for (const { length, weight } of grid) weights[binOf(length)] = (weights[binOf(length)] ?? 0) + weight;
  const least = RIVAL * Math.max(...weights);
  const humps = weights.reduce<Hump[]>((found, weight, bin) => {
    const last = found.at(-1);
    if (weight <= least) return found;
    return last?.to === bin - 1
      ? [...found.slice(0, -1), { ...last, to: bin, weight: last.weight + weight }]
      : [...found, { from: bin, to: bin, weight }];
  }, []);
  const heaviest = Math.max(...humps.map(({ weight }) => weight));
  return humps
    .filter(({ weight }) => weight > RIVAL * heaviest)
    .sort((a, b) => b.weight - a.weight)
    .map((hump) => spreadOf(grid.filter(({ length }) => binOf(length) >= hump.from && binOf(length) <= hump.to)));
}

function spreadOf(own: readonly Weighed[]): RightLength {
  const whole = own.reduce((sum, { weight }) => sum + weight, 0);
  const length = own.reduce((sum, each) => sum + each.weight * each.length, 0) / whole;
  const standard = Math.sqrt(own.reduce((sum, each) => sum + each.weight * (each.length - length) ** 2, 0) / whole);
  return { length, standard, expanded: NORMAL_95 * standard };
}

/** A length that was tried, judged. */
export type TrialVerdict = 'this-one' | 'this-one-by-pattern' | 'not-yet';

/** The pattern lies inside of this share of the tip. Common practice, no source. */
const MIDDLE = 1 / 3;
/** A lift that falls short by more than this share is not there. From memory: what flex and tolerance take from a sound one. */
const FULL_LIFT = 0.97;
/** One that is above theory by more than this was read wrong, or on another rocker. From memory: ratios differ by a per cent. */
export const MOST_LIFT = 1.03;

/**
 * Is a length that was tried good: a narrow pattern, within the middle third of the tip, and the lift there?
 * Where mid-lift and pattern disagree, the narrow pattern with full lift wins. Common practice, no source.
 * @param offset of the middle of the pattern from that of the tip, mm; null where nobody looked.
 */
export function judgeTrial(
  rocker: Rocker,
  { pattern, seen }: PushrodTrial,
  { offset, tip, lift }: { readonly offset: number | null; readonly tip: number | null; readonly lift: number | null },
): TrialVerdict {
  if (pattern === null) return 'not-yet';
  const narrow = pattern <= leastPath(rocker) + 2 * PATTERN;
  const central = offset === null || tip === null || Math.abs(offset) <= (tip * MIDDLE) / 2;
  const lifts = lift === null || (lift >= FULL_LIFT * rocker.lift && lift <= MOST_LIFT * rocker.lift);
  if (!narrow || !central || !lifts) return 'not-yet';
  return seen === 'above' || seen === 'below' ? 'this-one-by-pattern' : 'this-one';
}
