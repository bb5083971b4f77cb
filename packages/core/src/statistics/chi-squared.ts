/**
 * How likely chance alone makes a sum of squares at least this large.
 * @param chiSquared 0 or more.
 * @param freedom degrees of freedom, a positive whole number; below 1 the result is 1.
 * Source: Abramowitz & Stegun, Handbook of Mathematical Functions, 26.4.4 and 26.4.5 (closed forms for whole degrees of freedom).
 * @example chanceOf(7.879, 1) // 0.005
 */
export function chanceOf(chiSquared: number, freedom: number): number {
  if (freedom < 1 || chiSquared <= 0) return 1;
  const half = chiSquared / 2;
  const even = freedom % 2 === 0;
  // Q(χ²|ν) grows by one term for every two degrees of freedom.
  let term = even ? Math.exp(-half) : Math.sqrt((2 * chiSquared) / Math.PI) * Math.exp(-half);
  let sum = even ? term : upperTail(Math.sqrt(chiSquared)) + (freedom > 1 ? term : 0);
  for (let r = even ? 2 : 3; r <= freedom - 2; r += 2) {
    term *= even ? half / (r / 2) : chiSquared / r;
    sum += term;
  }
  return Math.min(1, sum);
}

/**
 * Both tails of the normal distribution beyond z: 2·(1 − Φ(z)) for z ≥ 0.
 * Source: W. J. Lentz's continued fraction of the complementary error function above 3, its power series below (Abramowitz & Stegun 7.1.5, 7.1.14).
 */
function upperTail(z: number): number {
  const x = z / Math.SQRT2;
  if (x < 2.5) {
    let [term, sum] = [x, x];
    for (let n = 1; n < 60; n += 1) {
      term *= (-x * x) / n;
      sum += term / (2 * n + 1);
    }
    return Math.max(0, 1 - (2 / Math.sqrt(Math.PI)) * sum);
  }
  let tail = x;
  for (let n = 60; n > 0; n -= 1) tail = x + n / 2 / tail;
  return Math.exp(-x * x) / (Math.sqrt(Math.PI) * tail);
}
