import { wrap180 } from '../units/angle';
import type { Moved } from './hypotheses';
import { type Block, dot, times } from '../statistics/least-squares';
import type { Weighing } from './weigh';

/** A value made independent of its neighbour and of unit uncertainty: its coefficients and what is left of it. */
interface Whitened {
  readonly row: Float64Array;
  readonly miss: number;
}

/** What a fault that moved the readings makes of a weighing. */
export interface Explained {
  /** −2·ln of their probability as compared with no fault: negative explains better. */
  readonly score: number;
  /** How far it moved them, in its own unit. */
  readonly amount: number;
}

/**
 * Prepares a weighing for being asked, again and again, what a shift of some of its readings would explain. Every answer is exact for the linearised
 * weighing and costs no new solution: with M = I − W·N⁻¹·Wᵀ over the whitened values, a shift x·c (x ~ normal) leaves χ² = rᵀMr − σ²a²/(1 + σ²q),
 * a = cᵀMr, q = cᵀMc, and makes the volume larger by 1 + σ²q.
 * Source: rank-one update of a linear model (Sherman–Morrison).
 */
export function explainer(weighing: Weighing): (moved: Moved) => Explained {
  const { found, card, layout, guess, solved } = weighing;
  const size = layout.unknowns.length;
  const known: Whitened[] = [
    ...card.flatMap(({ block }) => whiten(block)),
    ...layout.unknowns.map(({ mean, standard }, at) => {
      const row = new Float64Array(size);
      row[at] = 1 / Math.max(standard, 1e-4);
      return { row, miss: (mean - (guess[at] ?? 0)) / Math.max(standard, 1e-4) };
    }),
  ];
  const whole = known.reduce<Float64Array>((sum, { row, miss }) => addTo(sum, row, miss), new Float64Array(size));
  const rest = known.reduce((sum, { miss }) => sum + miss * miss, 0);
  /** rᵀMs from rᵀs, Wᵀr and Wᵀs. */
  const between = (product: number, left: Float64Array, right: Float64Array): number =>
    product - dot(left, times(solved.covariance, right, size));
  // Whatever is asked of the readings, they err alike: once for all questions.
  const readings = found.map((each) => {
    const root = rootOf(each.block);
    return { ...each, root, rows: whiteRows(each.block, root) };
  });

  return ({ moves, prints, mean, standard }) => {
    const left = whole.slice();
    const shifted = new Float64Array(size);
    let [ofMisses, ofBoth, ofShift] = [rest, 0, 0];
    for (const { block, observations, predicted, root, rows } of readings) {
      const by = observations.map(([first], place) => {
        const at = predicted[place];
        return first && at ? moves(first, at) : 0;
      });
      const misses = block.misses.map((miss, place) => {
        const put = miss - mean * (by[place] ?? 0);
        // A place on the wheel comes again at every turn.
        return observations[place]?.[0]?.kind === 'flank' && put !== miss ? wrap180(put) : put;
      });
      const moved = whiteValues(by, root);
      const whitened = whiteValues(misses, root);
      rows.forEach((row, place) => {
        const miss = whitened[place] ?? 0;
        const c = moved[place] ?? 0;
        addTo(left, row, miss);
        ofMisses += miss * miss;
        if (c === 0) return;
        addTo(shifted, row, c);
        ofBoth += miss * c;
        ofShift += c * c;
      });
    }
    const chiSquared = between(ofMisses, left, left);
    // What is printed stands among what is known already: only how far it may be out comes in.
    const block = prints && card.find(({ fact }) => fact === prints)?.block;
    const [at] = block ? whiten(block) : [];
    if (block && at) {
      const c = 1 / rootOf(block).first;
      addTo(shifted, at.row, c);
      ofBoth += at.miss * c;
      ofShift += c * c;
    }
    if (standard === 0) return { score: chiSquared - solved.chiSquared, amount: mean };
    const a = between(ofBoth, shifted, left);
    const q = between(ofShift, shifted, shifted);
    const volume = 1 + standard * standard * q;
    const x = (standard * standard * a) / volume;
    return { score: chiSquared - x * a + Math.log(volume) - solved.chiSquared, amount: mean + x };
  };
}

function addTo(sum: Float64Array, row: Float64Array, by: number): Float64Array {
  for (let at = 0; at < sum.length; at += 1) sum[at] = (sum[at] ?? 0) + by * (row[at] ?? 0);
  return sum;
}

/** L of a block's covariance L·Lᵀ: [first, 0; both, second]; of a single value `first` alone. */
interface Root {
  readonly first: number;
  readonly both: number;
  readonly second: number;
}

function rootOf({ covariance }: Block): Root {
  const first = Math.sqrt(covariance[0]);
  if (covariance.length === 1) return { first, both: 0, second: 1 };
  const both = covariance[1] / first;
  return { first, both, second: Math.sqrt(covariance[2] - both * both) };
}

/** L⁻¹ of a block's coefficients. */
function whiteRows({ rows }: Block, { first, both, second }: Root): Float64Array[] {
  const [one, two] = rows;
  if (!one) return [];
  const row = one.map((value) => value / first);
  return two ? [row, two.map((value, at) => (value - both * (row[at] ?? 0)) / second)] : [row];
}

/** L⁻¹ of as many values of a block. */
function whiteValues(values: readonly number[], { first, both, second }: Root): number[] {
  const [one, two] = values;
  if (one === undefined) return [];
  const value = one / first;
  return two === undefined ? [value] : [value, (two - both * value) / second];
}

/** A block's values as they were found, made independent. */
function whiten(block: Block): Whitened[] {
  const root = rootOf(block);
  const values = whiteValues(block.misses, root);
  return whiteRows(block, root).map((row, place) => ({ row, miss: values[place] ?? 0 }));
}
