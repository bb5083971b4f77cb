import { type CrankDeg, crankDeg } from '../units/angle';
import { wrapCycle } from './resting';

/** A stretch of a cycle of 720 crank degrees. */
export interface Stretch {
  readonly from: number;
  readonly length: number;
}

const CYCLE = 720;
const ROUNDING = 1e-9;
/** Stops are put on such marks of the wheel where that costs nothing, crank degrees. */
const MARK = 5;

const holds = ({ from, length }: Stretch, at: number): boolean => wrapCycle(at - from) <= length + ROUNDING;

/**
 * The fewest places of the crank that together lie in every stretch.
 * Source: stabbing arcs of a circle: one of the best sets has each of its points at the end of an arc; with the first one fixed, the
 * rest is the greedy choice of interval scheduling (e.g. Cormen et al., Introduction to Algorithms, ch. 16.1).
 * @param preferred places that are easier to find than others, a cylinder's TDC for instance: taken where they lie no worse.
 * @returns crank degrees in [0, 720), rising, each as far inside of its stretches as can be.
 * @example fewestStops([{ from: 0, length: 100 }, { from: 50, length: 100 }, { from: 400, length: 10 }], [75]) // [75, 405]
 */
export function fewestStops(stretches: readonly Stretch[], preferred: readonly number[] = []): readonly CrankDeg[] {
  let best: readonly number[] | null = null;
  for (const first of stretches) {
    const tried = greedyFrom(wrapCycle(first.from + first.length), stretches);
    if (best === null || tried.length < best.length) best = tried;
  }
  if (best === null) return [];
  return best.map((stop) => centred(stop, stretches, best, preferred)).sort((a, b) => a - b);
}

function greedyFrom(first: number, stretches: readonly Stretch[]): number[] {
  const stops = [first];
  const left = stretches
    .filter((each) => !holds(each, first))
    // None of them holds `first`, so each is a plain interval of the line that begins there.
    .map(({ from, length }) => ({ from: wrapCycle(from - first), to: wrapCycle(from - first) + length }))
    .sort((a, b) => a.to - b.to);
  let last = -1;
  for (const { from, to } of left)
    if (from > last + ROUNDING) {
      last = to;
      stops.push(wrapCycle(first + to));
    }
  return stops;
}

/** How deep a place lies inside of a stretch. */
const depth = ({ from, length }: Stretch, at: number): number => {
  const into = wrapCycle(at - from);
  return Math.min(into, length - into);
};

/** A stop moved to the middle of what it has to serve: the stretches that lie deepest at it. */
function centred(
  stop: number,
  stretches: readonly Stretch[],
  stops: readonly number[],
  preferred: readonly number[],
): CrankDeg {
  const own = stretches.filter(
    (each) => holds(each, stop) && stops.every((other) => other === stop || depth(each, other) <= depth(each, stop)),
  );
  if (own.length === 0) return crankDeg(stop);
  const back = Math.min(...own.map(({ from }) => wrapCycle(stop - from)));
  const on = Math.min(...own.map(({ from, length }) => length - wrapCycle(stop - from)));
  const middle = stop + (on - back) / 2;
  const reach = (on + back) / 2;
  const easy = preferred
    .map((at) => ({ at: wrapCycle(at), off: distance(at, middle) }))
    .filter(({ off }) => off <= reach / 2 + ROUNDING)
    .sort((a, b) => a.off - b.off);
  const mark = Math.round(middle / MARK) * MARK;
  const [found] = easy;
  if (found) return crankDeg(found.at);
  return wrapCycle(Math.abs(mark - middle) <= reach ? mark : middle);
}

const distance = (a: number, b: number): number => Math.min(wrapCycle(a - b), CYCLE - wrapCycle(a - b));
