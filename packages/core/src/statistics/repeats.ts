import { NORMAL_95 } from './normal';
/** Two-sided 95 % points of Student's t for 1, 2, … degrees of freedom (JCGM 100:2008, table G.2). */
const STUDENT_95 = [12.71, 4.3, 3.18, 2.78, 2.57, 2.45, 2.36, 2.31, 2.26, 2.23];
/** A builder’s hand is known to within a factor of two: worth so many degrees of freedom beside what his repeats show. From memory. */
const KNOWN_HAND = 4;
const square = (value: number): number => value * value;

/**
 * Scatter of a hand of which something is known beforehand: what its repeats show, and what is expected of it, each by its degrees of freedom.
 * @example pooled(0.27, 1, 0.15) // 0.18: two passes that happen to differ do not make a rough hand
 * Source: the conjugate prior of a normal variance (scaled inverse χ²), e.g. Gelman et al., Bayesian Data Analysis, 2.6.
 */
export const pooled = (deviation: number, freedom: number, expected: number): number =>
  Math.sqrt((KNOWN_HAND * square(expected) + freedom * square(deviation)) / (KNOWN_HAND + freedom));
/** Student’s t for that: two-sided 95 %. */
export const pooledFactor = (freedom: number): number => STUDENT_95[freedom + KNOWN_HAND - 1] ?? NORMAL_95;

/** Scatter beyond what chance makes of an expected one in 999 of 1,000 cases: √(χ²₀.₉₉₉/ν) for ν = 1, 2, …. */
const SCATTER_999 = [3.29, 2.63, 2.33, 2.15, 2.03, 1.93, 1.86, 1.81, 1.76, 1.72];
/** Do repeats scatter more than is expected of them by any chance worth believing? `scatters(0.5, 1, 0.15)` is true. */
export const scatters = (deviation: number, freedom: number, expected: number): boolean =>
  freedom > 0 && deviation > expected * (SCATTER_999[freedom - 1] ?? 1.7);
