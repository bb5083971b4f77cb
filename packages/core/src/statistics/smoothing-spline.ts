/** A point to be smoothed: y at x, and how far y is expected to err (standard deviation, same for all if left out). */
export interface Point {
  readonly x: number;
  readonly y: number;
  readonly sd?: number | undefined;
}

export interface Spline {
  readonly at: (x: number) => number;
  readonly slope: (x: number) => number;
  readonly curvature: (x: number) => number;
  readonly x: readonly number[];
  /** Smoothed values at the points. */
  readonly values: readonly number[];
  /** Share of each point in its own smoothed value, 0 to 1. */
  readonly leverage: readonly number[];
  /** Measured minus smoothed. */
  readonly residuals: readonly number[];
  /** How far the points err, as the residuals show it: factor on their `sd`. */
  readonly scale: number;
}

/** Solves (R + αQᵀW⁻¹Q)γ = Qᵀy by a banded LDLᵀ. Diagonals of the factor: d, and the two below it. */
interface Solved {
  readonly gamma: Float64Array;
  readonly d: Float64Array;
  readonly l1: Float64Array;
  readonly l2: Float64Array;
}

/** Columns of Q (second differences): three entries each. */
interface Bands {
  readonly n: number;
  readonly h: Float64Array;
  readonly q0: Float64Array;
  readonly q1: Float64Array;
  readonly q2: Float64Array;
  readonly variance: Float64Array;
  readonly qy: Float64Array;
}

function bandsOf(points: readonly Point[]): Bands {
  const n = points.length;
  const h = new Float64Array(n - 1);
  const [q0, q1, q2, qy] = [0, 1, 2, 3].map(() => new Float64Array(n - 2)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const variance = new Float64Array(n);
  for (let i = 0; i < n; i += 1) variance[i] = (points[i]?.sd ?? 1) ** 2;
  for (let i = 0; i < n - 1; i += 1) h[i] = (points[i + 1]?.x ?? 0) - (points[i]?.x ?? 0);
  for (let j = 0; j < n - 2; j += 1) {
    const [left, right] = [h[j] ?? 1, h[j + 1] ?? 1];
    q0[j] = 1 / left;
    q1[j] = -1 / left - 1 / right;
    q2[j] = 1 / right;
    qy[j] = (points[j]?.y ?? 0) / left + (q1[j] ?? 0) * (points[j + 1]?.y ?? 0) + (points[j + 2]?.y ?? 0) / right;
  }
  return { n, h, q0, q1, q2, variance, qy };
}

// Indices of the typed arrays run within their lengths by construction: hence the `!` in these loops.
function solve({ n, h, q0, q1, q2, variance, qy }: Bands, alpha: number): Solved {
  const m = n - 2;
  const [d, l1, l2, gamma] = [0, 1, 2, 3].map(() => new Float64Array(m)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  for (let j = 0; j < m; j += 1) {
    const a =
      (h[j]! + h[j + 1]!) / 3 +
      alpha * (variance[j]! * q0[j]! ** 2 + variance[j + 1]! * q1[j]! ** 2 + variance[j + 2]! * q2[j]! ** 2);
    const b =
      j + 1 < m
        ? h[j + 1]! / 6 + alpha * (variance[j + 1]! * q1[j]! * q0[j + 1]! + variance[j + 2]! * q2[j]! * q1[j + 1]!)
        : 0;
    const c = j + 2 < m ? alpha * variance[j + 2]! * q2[j]! * q0[j + 2]! : 0;
    let dj = a;
    let below = b;
    if (j > 0) {
      dj -= d[j - 1]! * l1[j - 1]! ** 2;
      below -= d[j - 1]! * l1[j - 1]! * l2[j - 1]!;
    }
    if (j > 1) dj -= d[j - 2]! * l2[j - 2]! ** 2;
    d[j] = dj;
    l1[j] = below / dj;
    l2[j] = c / dj;
  }
  for (let j = 0; j < m; j += 1)
    gamma[j] = qy[j]! - (j > 0 ? l1[j - 1]! * gamma[j - 1]! : 0) - (j > 1 ? l2[j - 2]! * gamma[j - 2]! : 0);
  for (let j = m - 1; j >= 0; j -= 1)
    gamma[j] = gamma[j]! / d[j]! - (j + 1 < m ? l1[j]! * gamma[j + 1]! : 0) - (j + 2 < m ? l2[j]! * gamma[j + 2]! : 0);
  return { gamma, d, l1, l2 };
}

/** What stands at a place of a band; 0 beyond its edges. */
const inside = (band: Float64Array, at: number): number => band[at] ?? 0;

/** Diagonal of the smoothing matrix, from the middle bands of the inverse (Hutchinson, de Hoog 1985). */
function leverageOf({ n, q0, q1, q2, variance }: Bands, { d, l1, l2 }: Solved, alpha: number): Float64Array {
  const m = n - 2;
  const [b0, b1, b2] = [new Float64Array(m + 2), new Float64Array(m + 2), new Float64Array(m + 2)];
  for (let j = m - 1; j >= 0; j -= 1) {
    const [one, two] = [l1[j]!, l2[j]!];
    b1[j] = -one * b0[j + 1]! - two * b1[j + 1]!;
    b2[j] = -one * b1[j + 1]! - two * b0[j + 2]!;
    b0[j] = 1 / d[j]! - one * b1[j]! - two * b2[j]!;
  }
  const leverage = new Float64Array(n);
  for (let i = 0; i < n; i += 1) {
    // Row i of Q has entries in columns i−2, i−1 and i; beyond its edges there is nothing.
    const [a, b, c] = [inside(q2, i - 2), inside(q1, i - 1), inside(q0, i)];
    const before = a * a * inside(b0, i - 2) + 2 * a * b * inside(b1, i - 2) + 2 * a * c * inside(b2, i - 2);
    const spread = before + (b * b * inside(b0, i - 1) + 2 * b * c * inside(b1, i - 1)) + c * c * inside(b0, i);
    leverage[i] = Math.min(1, Math.max(0, 1 - alpha * variance[i]! * spread));
  }
  return leverage;
}

interface Smoothed {
  readonly values: Float64Array;
  readonly leverage: Float64Array;
  readonly gamma: Float64Array;
  /** Weighted sum of squared residuals. */
  readonly misfit: number;
  /** Points that the curve uses up: trace of the smoothing matrix. */
  readonly used: number;
}

function smooth(bands: Bands, points: readonly Point[], alpha: number): Smoothed {
  const { n, q0, q1, q2, variance } = bands;
  const solved = solve(bands, alpha);
  const leverage = leverageOf(bands, solved, alpha);
  const { gamma } = solved;
  const values = new Float64Array(n);
  let [misfit, used] = [0, 0];
  for (let i = 0; i < n; i += 1) {
    const bend =
      inside(q2, i - 2) * inside(gamma, i - 2) +
      inside(q1, i - 1) * inside(gamma, i - 1) +
      inside(q0, i) * inside(gamma, i);
    const off = alpha * variance[i]! * bend;
    values[i] = points[i]!.y - off;
    misfit += off ** 2 / variance[i]!;
    used += leverage[i]!;
  }
  return { values, leverage, gamma, misfit, used };
}

/** Powers of ten between which the best smoothing is looked for, and how often a step is halved about the best. */
const RANGE = { from: -12, to: 10 } as const;
const COARSE_STEP = 2;
const HALVINGS = 4;

/**
 * Natural cubic smoothing spline: of all smooth curves, the one that trades nearness to the points (weighted by their `sd`) against
 * bending. How much to smooth is chosen by generalised cross-validation, unless `alpha` says it; 0 passes through every point.
 * @param points at least 4, x strictly rising.
 * @throws RangeError on fewer points, or where x does not rise.
 * Source: Green, Silverman, *Nonparametric Regression and Generalized Linear Models* (1994), §2.3 and 3.5; Craven, Wahba 1979.
 */
export function smoothingSpline(points: readonly Point[], alpha?: number): Spline {
  const n = points.length;
  if (n < 4) throw new RangeError('a spline needs at least 4 points');
  const bands = bandsOf(points);
  if (bands.h.some((step) => !(step > 0))) throw new RangeError('the points must rise in x');
  const found = alpha === undefined ? crossValidated(bands, points) : smooth(bands, points, alpha);
  const x = points.map((point) => point.x);
  const { values, gamma, leverage } = found;
  const second = (i: number): number => (i > 0 && i < n - 1 ? (gamma[i - 1] ?? 0) : 0);
  const piece = (at: number): { readonly i: number; readonly h: number; readonly t: number } => {
    let [low, high] = [0, n - 1];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if ((x[middle] ?? 0) <= at) low = middle;
      else high = middle;
    }
    return { i: low, h: bands.h[low] ?? 1, t: at - (x[low] ?? 0) };
  };
  const valueOf = (i: number): number => values[i] ?? 0;
  const startSlope = (i: number, h: number): number =>
    (valueOf(i + 1) - valueOf(i)) / h - (h * (2 * second(i) + second(i + 1))) / 6;
  return {
    at: (where) => {
      const { i, h, t } = piece(where);
      const bend = (second(i + 1) - second(i)) / h;
      if (where > (x[n - 1] ?? 0)) {
        // Beyond its ends a natural spline is straight.
        const end = startSlope(i, h) + second(i) * h + (bend * h * h) / 2;
        return valueOf(n - 1) + end * (t - h);
      }
      const start = startSlope(i, h);
      return t < 0 ? valueOf(i) + start * t : valueOf(i) + t * (start + t * (second(i) / 2 + (t * bend) / 6));
    },
    slope: (where) => {
      const { i, h, t } = piece(Math.min(Math.max(where, x[0] ?? 0), x[n - 1] ?? 0));
      return startSlope(i, h) + t * (second(i) + (t * (second(i + 1) - second(i))) / (2 * h));
    },
    curvature: (where) => {
      if (where <= (x[0] ?? 0) || where >= (x[n - 1] ?? 0)) return 0;
      const { i, h, t } = piece(where);
      return second(i) + (t / h) * (second(i + 1) - second(i));
    },
    x,
    values: [...values],
    leverage: [...leverage],
    residuals: points.map(({ y }, i) => y - valueOf(i)),
    scale: Math.sqrt(found.misfit / Math.max(n - found.used, 1)),
  };
}

/** The smoothing whose predictions of left-out points are best: coarse steps over the whole range, then halving about the best. */
function crossValidated(bands: Bands, points: readonly Point[]): Smoothed {
  // In units of the spacing, so that the range suits degrees and hundredths alike.
  const span = ((points.at(-1)?.x ?? 1) - (points[0]?.x ?? 0)) / (points.length - 1);
  const unit = span ** 3 / (bands.variance.reduce((sum, each) => sum + each, 0) / bands.n);
  const tried = new Map<number, { readonly score: number; readonly smoothed: Smoothed }>();
  const attempt = (power: number) => {
    const known = tried.get(power);
    if (known) return known;
    const smoothed = smooth(bands, points, unit * 10 ** power);
    const free = Math.max(bands.n - smoothed.used, 1e-9);
    const made = { smoothed, score: smoothed.misfit / free ** 2 };
    tried.set(power, made);
    return made;
  };
  let best: number = RANGE.from;
  for (let power: number = RANGE.from; power <= RANGE.to; power += COARSE_STEP)
    if (attempt(power).score < attempt(best).score) best = power;
  for (let step = COARSE_STEP / 2, i = 0; i < HALVINGS; i += 1, step /= 2)
    for (const power of [best - step, best + step]) if (attempt(power).score < attempt(best).score) best = power;
  return attempt(best).smoothed;
}
