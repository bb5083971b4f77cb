import { NORMAL_95 } from './normal';
/** Something that errs, as far as it moves a result. */
export interface ErrorSource {
  readonly from: string;
  /** Standard uncertainty that it brings into the result. */
  readonly standard: number;
  /** Anywhere within its limits with the same chance, like a rounding; else normal. */
  readonly rectangular: boolean;
}

/**
 * Half-width that holds 95 of 100, in standard uncertainties, where a rectangular term makes up 0, 5, 10 … 100 % of the variance and the rest is
 * normal. From P(|R + N| ≤ k) = 0.95 with P in closed form: [ψ(k + a) − ψ(k − a)]/a − 1, ψ(t) = t·Φ(t/s) + s·φ(t/s), a = √(3·share), s = √(1 − share).
 */
const FACTORS = [
  1.96, 1.96, 1.959, 1.958, 1.955, 1.952, 1.948, 1.942, 1.936, 1.927, 1.917, 1.906, 1.892, 1.876, 1.857, 1.836, 1.81,
  1.78, 1.744, 1.698, 1.645,
];

/**
 * Standard uncertainty of a sum of independent errors, and the half-width of its 95 % interval: the largest rectangular one keeps its own shape,
 * the rest together is taken as normal.
 * @example expandedOf([{ from: 'rounding', standard: 1, rectangular: true }]).expanded // 1.645
 * Source: JCGM 100:2008, 5.1 and G.2; the factors from the exact distribution of a rectangular and a normal term.
 */
export function expandedOf(sources: readonly ErrorSource[]): { readonly standard: number; readonly expanded: number } {
  let [variance, largest] = [0, 0];
  for (const { standard, rectangular } of sources) {
    variance += standard * standard;
    if (rectangular) largest = Math.max(largest, standard * standard);
  }
  const standard = Math.sqrt(variance);
  const place = variance > 0 ? (20 * largest) / variance : 0;
  const below = Math.min(19, Math.floor(place));
  const [from, to] = [FACTORS[below] ?? NORMAL_95, FACTORS[below + 1] ?? 1.645];
  return { standard, expanded: standard * (from + (to - from) * (place - below)) };
}

/** The same sources brought together by what they come from, largest first. */
export function budgetOf(sources: readonly ErrorSource[]): { readonly from: string; readonly standard: number }[] {
  const sums = new Map<string, number>();
  for (const { from, standard } of sources) sums.set(from, (sums.get(from) ?? 0) + standard * standard);
  return [...sums]
    .map(([from, variance]) => ({ from, standard: Math.sqrt(variance) }))
    .filter(({ standard }) => standard > 1e-6)
    .sort((a, b) => b.standard - a.standard);
}
