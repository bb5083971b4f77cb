/** What some of the draws came to: several of these, drawn side by side, make one result. */
export interface DrawnPart {
  readonly draws: number;
  readonly sum: number;
  readonly squares: number;
  /** How many fell into each of as many even parts between −reach and reach. */
  readonly bins: Uint32Array;
  readonly reach: number;
}

/** What drawing came to, beside what the law of propagation says. Crank degrees. */
export interface Drawn {
  readonly draws: number;
  readonly mean: number;
  readonly standard: number;
  /** Ends of the interval that leaves out 2.5 % on either side. */
  readonly low: number;
  readonly high: number;
}

/** Even parts that the range of the results is counted in. */
export const BINS = 8192;

/** One result out of parts that were drawn for the same case. */
export function drawnOf(parts: readonly DrawnPart[]): Drawn {
  const draws = parts.reduce((all, part) => all + part.draws, 0);
  const mean = parts.reduce((all, part) => all + part.sum, 0) / draws;
  const squares = parts.reduce((all, part) => all + part.squares, 0) / draws;
  const bins = new Uint32Array(BINS);
  for (const part of parts)
    part.bins.forEach((count, at) => {
      bins[at] = (bins[at] ?? 0) + count;
    });
  const reach = parts[0]?.reach ?? 0;
  return {
    draws,
    mean,
    standard: Math.sqrt(Math.max(0, squares - mean * mean)),
    low: quantile(bins, 0.025 * draws, reach),
    high: quantile(bins, 0.975 * draws, reach),
  };
}

/** Where so many of the results lie below, straight through its bin. */
function quantile(bins: Uint32Array, below: number, reach: number): number {
  let counted = 0;
  for (let at = 0; at < bins.length; at += 1) {
    const here = bins[at] ?? 0;
    if (counted + here >= below && here > 0) return ((at + (below - counted) / here) / bins.length) * 2 * reach - reach;
    counted += here;
  }
  return reach;
}
