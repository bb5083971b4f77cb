import { type CrankDeg, crankDeg } from '../units/angle';
import { type Outcome, problem } from '../problem';
import { wrap720 } from './lobe';
import { type Spline, smoothingSpline } from '../statistics/smoothing-spline';
import { type Stray, straysOf } from './stray-points';
import { median } from '../statistics/median';
import { FEWEST_POINTS, type Merged, type TraceConditions, type TracePoint } from './trace-points';

/** A place on the curve and how well the trace fixes it. */
export interface Located {
  readonly angle: CrankDeg;
  /** Standard uncertainty from the points alone, crank degrees. */
  readonly standard: number;
  /** Size of the slope there, mm per crank degree. */
  readonly slope: number;
}

/** What a trace tells. Angles are cycle angles where the points were. */
export interface TraceCurve {
  /** Greatest lift, mm, and where it is. */
  readonly peak: number;
  readonly nose: CrankDeg;
  /** First and last angle measured, unrolled so that the lobe lies between them. */
  readonly from: number;
  readonly to: number;
  readonly lift: (angle: number) => number;
  readonly slope: (angle: number) => number;
  readonly curvature: (angle: number) => number;
  /** Both flanks at a lift, or null where the trace does not reach down to it. */
  readonly flanks: (lift: number) => { readonly opening: Located; readonly closing: Located } | null;
  /** Half-way between the flanks at a lift. */
  readonly centre: (lift: number) => Located | null;
  /** mm·crank degrees. */
  readonly area: number;
  /** Steepest places, mm per crank degree, both positive. */
  readonly steepest: { readonly opening: number; readonly closing: number };
  /** Lift that was on the base circle and has been taken off, mm. */
  readonly zeroOff: number;
  /** How far its points stand apart, as a rule: crank degrees. */
  readonly every: number;
  /** Does it run from base circle to base circle? */
  readonly whole: boolean;
  /** Points that lie off their neighbours: index among the points given, and by how much, mm. */
  readonly strays: readonly Stray[];
}

/** What a curve through points 5° apart may miss a flank by between them, one standard deviation, crank degrees; with the square of their distance at others. Tried on lobes in closed form. */
const BETWEEN = 0.12;

/** What a base circle may show at most, as a share of the peak, to be called one. */
const FOOT = 0.02;

/**
 * Reads a trace: a smoothing spline through lift over angle, from which everything else follows.
 * @param points in the order measured or any other; angles may run over the end of the cycle (start anywhere).
 * @returns why it cannot be used: too few points, no lobe in it, or one that does not close to zero.
 */
export function readTrace(points: readonly TracePoint[], conditions: TraceConditions): Outcome<{ curve: TraceCurve }> {
  const found = readAll(points, conditions);
  if (!found.ok || found.curve.strays.length === 0) return found;
  // What lies off its neighbours must not pull the curve until somebody has said what became of it.
  const off = new Set(found.curve.strays.map(({ index }) => index));
  const rest = readAll(
    points.filter((_, index) => !off.has(index)),
    conditions,
  );
  return rest.ok ? { ok: true, curve: { ...rest.curve, strays: found.curve.strays } } : found;
}

function readAll(points: readonly TracePoint[], conditions: TraceConditions): Outcome<{ curve: TraceCurve }> {
  if (points.length < FEWEST_POINTS)
    return problem(
      `A trace of ${points.length} points is too short.`,
      `Take at least ${FEWEST_POINTS}, from base circle over the nose to base circle.`,
    );
  const laidOut = unroll(points);
  const base = levelOf(laidOut, conditions);
  const ordered = laidOut.map((each) => ({ ...each, lift: each.lift - base }));
  const peakLift = Math.max(...ordered.map(({ lift }) => lift));
  const [first, last] = [ordered[0], ordered.at(-1)];
  if (!first || !last || !(peakLift > 0))
    return problem('There is no lobe in this trace: nothing rises.', 'Check which column is the lift.');
  const foot = FOOT * peakLift;
  const top = ordered.findIndex(({ lift }) => lift === peakLift);
  const low = levelBeyond(ordered.slice(0, top + 1).reverse(), foot);
  const high = levelBeyond(ordered.slice(top), foot);
  const whole = low !== null && high !== null;
  if (whole && Math.abs(high - low) > conditions.closes)
    return problem(
      `The trace does not close: ${low.toFixed(3)} mm on the base circle before the lobe, ${high.toFixed(3)} mm after it.`,
      'The indicator has moved, or the lifter sticks or bleeds down. Zero it and take the trace again.',
    );
  const merged = mergeEqual(ordered);
  if (merged.length < FEWEST_POINTS)
    return problem('Too many points stand at the same angle.', 'Check which column is the angle.');
  const spline = fit(merged, conditions);
  const peak = findPeak(spline, merged);
  if (peak.at - (spline.x[0] ?? 0) < 1 || (spline.x.at(-1) ?? 0) - peak.at < 1)
    return problem(
      'The trace does not go over the nose: its highest point is at its end.',
      'Go on over the nose and down the other side.',
    );
  const every = median(merged.slice(1).map(({ angle }, i) => angle - (merged[i]?.angle ?? 0)));
  const sdOf = (angle: number): number => {
    const i = nearest(spline.x, angle);
    const slope = spline.slope(angle);
    const own = Math.hypot(conditions.liftSd, slope * conditions.angleSd) * Math.max(1, spline.scale);
    const ofPoints = (own * Math.sqrt(spline.leverage[i] ?? 1)) / Math.max(Math.abs(slope), 1e-9);
    const before = (spline.x[i] ?? angle) <= angle ? i : i - 1;
    const gap = (spline.x[before + 1] ?? angle) - (spline.x[before] ?? angle);
    return Math.hypot(ofPoints, BETWEEN * (Math.max(every, gap) / 5) ** 2);
  };
  const locate = (angle: number): Located => ({
    angle: crankDeg(angle),
    standard: sdOf(angle),
    slope: Math.abs(spline.slope(angle)),
  });
  const flanks: TraceCurve['flanks'] = (lift) => {
    const opening = crossing(spline, lift, peak.at, -1);
    const closing = crossing(spline, lift, peak.at, 1);
    return opening === null || closing === null ? null : { opening: locate(opening), closing: locate(closing) };
  };
  const angles = spline.x;
  const slopes = angles.map((angle) => ({ angle, slope: spline.slope(angle) }));
  return {
    ok: true,
    curve: {
      peak: peak.lift,
      nose: crankDeg(peak.at),
      from: first.angle,
      to: last.angle,
      lift: (angle) => {
        const at = into(angle, first.angle);
        return at > last.angle ? 0 : spline.at(at);
      },
      slope: (angle) => spline.slope(into(angle, first.angle)),
      curvature: (angle) => spline.curvature(into(angle, first.angle)),
      flanks,
      centre: (lift) => {
        const found = flanks(lift);
        return (
          found && {
            angle: crankDeg((found.opening.angle + found.closing.angle) / 2),
            standard: Math.hypot(found.opening.standard, found.closing.standard) / 2,
            slope: Math.min(found.opening.slope, found.closing.slope),
          }
        );
      },
      area: areaOf(spline),
      steepest: {
        opening: Math.max(0, ...slopes.filter(({ angle }) => angle < peak.at).map(({ slope }) => slope)),
        closing: Math.max(0, ...slopes.filter(({ angle }) => angle > peak.at).map(({ slope }) => -slope)),
      },
      zeroOff: base,
      every,
      whole,
      strays: straysOf(spline, merged, conditions),
    },
  };
}

/** Angles so that they rise and the lobe is in one piece: cut where the base circle is longest, nose nearest to its cycle angle. */
function unroll(points: readonly TracePoint[]): Merged[] {
  const indexed = points.map(({ angle, lift }, index) => ({ angle, lift, index }));
  const span = Math.max(...points.map(({ angle }) => angle)) - Math.min(...points.map(({ angle }) => angle));
  const peak = indexed.reduce((best, each) => (each.lift > best.lift ? each : best));
  const nose = wrap720(peak.angle);
  // A trace that is no longer than a cycle may be laid around its nose.
  const laid = span <= 720 ? indexed.map((each) => ({ ...each, angle: nose + wrap720(each.angle - nose) })) : indexed;
  return laid.sort((a, b) => a.angle - b.angle || a.index - b.index);
}

const into = (angle: number, from: number): number => from + ((((angle - from) % 720) + 720) % 720);

/** Readings at one angle are one point: their mean. */
function mergeEqual(points: readonly Merged[]): Merged[] {
  const merged: (Merged & { count: number })[] = [];
  for (const point of points) {
    const before = merged.at(-1);
    if (before && point.angle - before.angle < 1e-6) {
      merged[merged.length - 1] = {
        ...before,
        count: before.count + 1,
        lift: (before.lift * before.count + point.lift) / (before.count + 1),
      };
    } else merged.push({ ...point, count: 1 });
  }
  return merged;
}

/** How far beyond the foot of a flank the base circle is looked for, crank degrees: some closing ramps are that long. */
const BEYOND = 100;

/** What the base circle shows just beyond a flank, mm: `outward` runs from the nose. null where the flank does not come down to it. */
function levelBeyond(outward: readonly Merged[], foot: number): number | null {
  const reached = outward.find(({ lift }) => lift <= foot);
  if (!reached) return null;
  return Math.min(
    ...outward.flatMap(({ angle, lift }) => (lift <= foot && Math.abs(angle - reached.angle) <= BEYOND ? [lift] : [])),
  );
}

/** A base circle is flat for longer than any nose is: crank degrees; within so much, as a share of the whole rise; and lies in its lower part. */
const FLAT = { long: 25, within: 0.004, below: 0.3 } as const;

/**
 * What the indicator showed on the base circle, mm: the level of the longest flat run, wherever it was set to 0. 0 where nothing is flat for long enough.
 * @param points in the order of their angles.
 */
function levelOf(points: readonly Merged[], { liftSd }: TraceConditions): number {
  const lifts = points.map(({ lift }) => lift);
  const least = Math.min(...lifts);
  const rise = Math.max(...lifts) - least;
  const within = Math.max(4 * liftSd, FLAT.within * rise);
  let [longest, flat]: [number, readonly [number, number] | null] = [FLAT.long, null];
  // Places of what is greatest and least since `from`, in falling and in rising order.
  const [tops, feet]: [number[], number[]] = [[], []];
  let from = 0;
  for (let to = 0; to < lifts.length; to += 1) {
    const lift = lifts[to] ?? 0;
    while (tops.length > 0 && (lifts[tops.at(-1) ?? 0] ?? 0) <= lift) tops.pop();
    while (feet.length > 0 && (lifts[feet.at(-1) ?? 0] ?? 0) >= lift) feet.pop();
    tops.push(to);
    feet.push(to);
    while ((lifts[tops[0] ?? 0] ?? 0) - (lifts[feet[0] ?? 0] ?? 0) > within) {
      from += 1;
      if ((tops[0] ?? 0) < from) tops.shift();
      if ((feet[0] ?? 0) < from) feet.shift();
    }
    const long = (points[to]?.angle ?? 0) - (points[from]?.angle ?? 0);
    if (long < longest || lift > least + FLAT.below * rise) continue;
    longest = long;
    flat = [from, to];
  }
  if (!flat) return 0;
  // The other end of a trace lies on the same base circle: as far as it agrees, it counts too.
  const level = median(lifts.slice(flat[0], flat[1] + 1));
  return median(lifts.filter((lift) => Math.abs(lift - level) <= within / 2));
}

/** Twice: an angle's error weighs by the slope there, which the first fit tells. */
function fit(points: readonly Merged[], { liftSd, angleSd }: TraceConditions): Spline {
  const least = Math.max(liftSd, 1e-9);
  const first = smoothingSpline(points.map(({ angle, lift }) => ({ x: angle, y: lift, sd: least })));
  if (angleSd === 0) return first;
  return smoothingSpline(
    points.map(({ angle, lift }) => ({ x: angle, y: lift, sd: Math.hypot(least, first.slope(angle) * angleSd) })),
  );
}

function nearest(x: readonly number[], at: number): number {
  let [low, high] = [0, x.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if ((x[middle] ?? 0) <= at) low = middle;
    else high = middle;
  }
  return at - (x[low] ?? 0) < (x[high] ?? 0) - at ? low : high;
}

function findPeak(spline: Spline, points: readonly Merged[]): { readonly at: number; readonly lift: number } {
  const top = points.reduce(
    (best, { angle }) => (spline.at(angle) > spline.at(best) ? angle : best),
    points[0]?.angle ?? 0,
  );
  const i = nearest(spline.x, top);
  let [low, high] = [spline.x[Math.max(0, i - 1)] ?? top, spline.x[Math.min(spline.x.length - 1, i + 1)] ?? top];
  for (let step = 0; step < 50; step += 1) {
    const middle = (low + high) / 2;
    if (spline.slope(middle) > 0) low = middle;
    else high = middle;
  }
  return { at: low, lift: spline.at(low) };
}

/** Where the curve passes a lift on the way from the nose outward. Bisection within the first step that holds it. */
function crossing(spline: Spline, lift: number, nose: number, side: 1 | -1): number | null {
  if (lift >= spline.at(nose)) return null;
  let inner = nose;
  const outward = side === 1 ? spline.x.filter((x) => x > nose) : spline.x.filter((x) => x < nose).reverse();
  for (const outer of outward) {
    if (spline.at(outer) <= lift) {
      let [a, b] = [inner, outer];
      for (let step = 0; step < 45; step += 1) {
        const middle = (a + b) / 2;
        if (spline.at(middle) > lift) a = middle;
        else b = middle;
      }
      return (a + b) / 2;
    }
    inner = outer;
  }
  return null;
}

function areaOf(spline: Spline): number {
  let sum = 0;
  for (let i = 1; i < spline.x.length; i += 1) {
    const [from, to] = [spline.x[i - 1] ?? 0, spline.x[i] ?? 0];
    // Simpson's rule is exact for the cubic between two points.
    sum += ((to - from) * (spline.at(from) + 4 * spline.at((from + to) / 2) + spline.at(to))) / 6;
  }
  return sum;
}
