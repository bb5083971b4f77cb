import type { Lobe } from './lobe';

/** What is known of a lobe. Lengths mm where the lift is told, angles crank degrees (centres as cycle angles). */
export interface KnownOfLobe {
  readonly peak: number;
  /** Where the nose stands, if it is known by itself. */
  readonly nose?: number | undefined;
  readonly durations: readonly { readonly height: number; readonly duration: number }[];
  /** Half-way between opening and closing at a height. */
  readonly centres: readonly { readonly height: number; readonly centre: number }[];
}

export interface FittedLobe {
  readonly lobe: Lobe;
  /** Largest difference between a known duration and the fitted one, crank degrees. */
  readonly worst: number;
  /** full: at least two heights shaped it. usual: the steepness is that of a common lobe. */
  readonly shape: 'full' | 'usual';
}

/** Steepness of a common lobe. From memory. */
const USUAL_POWER = 2.1;
const LEAST_POWER = 1.6;
const MOST_POWER = 14;
/** Half of the whole duration of a common lobe, crank degrees. From memory. */
const USUAL_HALF = 150;
const STEPS = 60;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

const footAt = (height: number, peak: number, power: number): number => Math.sqrt(1 - (height / peak) ** (1 / power));

/**
 * Fits a lobe through what is known: the durations set its width and steepness by least squares (two of them are met exactly), the
 * centres its place and its lean. With one duration it gets the steepness of a common lobe; with none, its width as well.
 * @returns null where there is no lift, or no duration lies below it, so that nothing can be fitted.
 * Source: linear least squares; golden-section search for the one parameter that is not linear (Kiefer 1953).
 * @example fitLobe({ peak: 8.382, nose: 107, durations: [{ height: 1.27, duration: 224 }], centres: [] })?.lobe.half // about 163
 */
export function fitLobe({ peak, nose, durations, centres }: KnownOfLobe): FittedLobe | null {
  if (!(peak > 0)) return null;
  const known = durations.filter(({ height, duration }) => height >= 0 && height < peak && duration > 0);
  if (durations.length > 0 && known.length === 0) return null;
  const widest = (power: number): number => {
    const feet = known.map(({ height }) => footAt(height, peak, power));
    const across = known.reduce((sum, { duration }, i) => sum + (duration / 2) * (feet[i] ?? 0), 0);
    return across / feet.reduce((sum, foot) => sum + foot * foot, 0);
  };
  const miss = (power: number): number => {
    const half = widest(power);
    return known.reduce(
      (sum, { height, duration }) => sum + (duration / 2 - half * footAt(height, peak, power)) ** 2,
      0,
    );
  };
  const full = new Set(known.map(({ height }) => height)).size > 1;
  const power = full ? least(miss, LEAST_POWER, MOST_POWER) : USUAL_POWER;
  const half = known.length > 0 ? widest(power) : USUAL_HALF;
  const place = fitCentres(
    nose,
    centres
      .filter(({ height }) => height < peak)
      .map(({ height, centre }) => ({ share: footAt(height, peak, power) ** 2, centre })),
  );
  const steepest = 0.4 * half;
  const lobe: Lobe = { peak, half, power, nose: place.nose, lean: Math.max(-steepest, Math.min(steepest, place.lean)) };
  const worst = Math.max(
    0,
    ...known.map(({ height, duration }) => Math.abs(duration - 2 * half * footAt(height, peak, power))),
  );
  return { lobe, worst, shape: full ? 'full' : 'usual' };
}

/** Centres lie on nose + lean·share: a straight line, through the nose where that is known. */
function fitCentres(
  nose: number | undefined,
  centres: readonly { readonly share: number; readonly centre: number }[],
): { readonly nose: number; readonly lean: number } {
  if (nose !== undefined) {
    const weight = centres.reduce((sum, { share }) => sum + share * share, 0);
    const lean = centres.reduce((sum, { share, centre }) => sum + share * (centre - nose), 0);
    return { nose, lean: weight > 0 ? lean / weight : 0 };
  }
  const count = centres.length;
  if (count === 0) return { nose: 0, lean: 0 };
  const meanShare = centres.reduce((sum, { share }) => sum + share, 0) / count;
  const mean = centres.reduce((sum, { centre }) => sum + centre, 0) / count;
  const spread = centres.reduce((sum, { share }) => sum + (share - meanShare) ** 2, 0);
  if (spread < 1e-6) return { nose: mean, lean: 0 };
  const lean = centres.reduce((sum, { share, centre }) => sum + (share - meanShare) * (centre - mean), 0) / spread;
  return { nose: mean - lean * meanShare, lean };
}

/** Where a function of one dip is least. */
function least(f: (x: number) => number, from: number, to: number): number {
  let [a, b] = [from, to];
  let [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  let [fc, fd] = [f(c), f(d)];
  for (let step = 0; step < STEPS; step += 1) {
    if (fc < fd) {
      [b, d, fd] = [d, c, fc];
      c = b - GOLDEN * (b - a);
      fc = f(c);
    } else {
      [a, c, fc] = [c, d, fd];
      d = a + GOLDEN * (b - a);
      fd = f(d);
    }
  }
  return (a + b) / 2;
}
