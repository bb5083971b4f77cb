import { median } from '../statistics/median';
import type { Spline } from '../statistics/smoothing-spline';
import { FEWEST_POINTS, type Merged, type TraceConditions } from './trace-points';

/** A point of a trace that does not belong to its curve. */
export interface Stray {
  readonly index: number;
  /** How far off the curve through the others it lies, mm. */
  readonly off: number;
}

/** A point this many standard deviations off the curve through the others is a stray. */
const STRAY = 5;

/** Points that a cubic through their four neighbours misses by far more than usual: the worst, then again without it. */
export function straysOf(spline: Spline, points: readonly Merged[], conditions: TraceConditions): readonly Stray[] {
  const strays: Stray[] = [];
  let rest = points;
  const most = Math.floor(points.length / 10);
  while (strays.length < most && rest.length > FEWEST_POINTS) {
    const worst = worstOf(spline, rest, conditions);
    if (!worst) break;
    strays.push(worst);
    rest = rest.filter(({ index }) => index !== worst.index);
  }
  return strays;
}

function worstOf(spline: Spline, points: readonly Merged[], { liftSd, angleSd }: TraceConditions) {
  const round = goesRound(points)
    ? [...laidOn(points.slice(-2), -720), ...points, ...laidOn(points.slice(0, 2), 720)]
    : points;
  const apart = round.slice(2, -2).map(({ angle, lift, index }, i) => {
    const around = [round[i], round[i + 1], round[i + 3], round[i + 4]] as [Merged, Merged, Merged, Merged];
    // Lagrange's weights: how each neighbour tells in the cubic through all four.
    const weights = around.map((mine) =>
      around.reduce(
        (product, other) => (other === mine ? product : (product * (angle - other.angle)) / (mine.angle - other.angle)),
        1,
      ),
    );
    const own = Math.hypot(liftSd, spline.slope(angle) * angleSd) * Math.hypot(1, ...weights);
    const off = lift - around.reduce((sum, neighbour, at) => sum + neighbour.lift * (weights[at] ?? 0), 0);
    return { index, off, size: Math.abs(off) / Math.max(own, 1e-9) };
  });
  const usual = Math.max(1, median(apart.map(({ size }) => size)) / NORMAL_MEDIAN);
  const worst = apart.reduce((a, b) => (b.size > a.size ? b : a));
  return worst.size > STRAY * usual && Math.abs(worst.off) > LEAST_STRAY
    ? { index: worst.index, off: worst.off }
    : null;
}

/** Does it go once round, so that its first points follow on its last? */
function goesRound(points: readonly Merged[]): boolean {
  const [first, second, last] = [points[0], points[1], points.at(-1)];
  return (
    first !== undefined &&
    second !== undefined &&
    last !== undefined &&
    Math.abs(first.angle + 720 - last.angle) < 1.5 * (second.angle - first.angle)
  );
}

const laidOn = (points: readonly Merged[], by: number): Merged[] =>
  points.map((point) => ({ ...point, angle: point.angle + by }));

/** Median of the size of a standard normal. */
const NORMAL_MEDIAN = 0.6745;
/** Less than this is no slip of the pen, mm. */
const LEAST_STRAY = 0.03;
