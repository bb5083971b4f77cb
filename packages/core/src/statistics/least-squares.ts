/**
 * What was found at once: one value or two that err together. `rows` are the coefficients of the unknowns, `misses` what is left of each
 * value after the first guess, `covariance` how they err: [variance] or [variance, covariance, variance].
 */
export interface Block {
  readonly rows: readonly Float64Array[];
  readonly misses: readonly number[];
  readonly covariance: readonly [number] | readonly [number, number, number];
}

export interface Solved {
  /** The unknowns, as steps from the first guess. */
  readonly unknowns: Float64Array;
  /** Their covariance, row by row. */
  readonly covariance: Float64Array;
  /** Weighted sum of squared residuals. */
  readonly chiSquared: number;
  /** Logarithm of the determinant of the normal matrix, J'·V⁻¹·J with the beliefs. */
  readonly logNormal: number;
}

/** What is believed of an unknown before anything was found, as a step from the first guess. */
export interface Belief {
  readonly miss: number;
  readonly variance: number;
}

/**
 * Generalised least squares: the unknowns that leave the smallest residuals, each weighed by how well it is known.
 * @param beliefs one for each unknown.
 * @throws RangeError where neither blocks nor beliefs say anything of an unknown.
 * Source: Gauss–Markov (Aitken); JCGM 100:2008 H.3 is its simplest case. Normal equations by Cholesky.
 */
export function leastSquares(beliefs: readonly Belief[], blocks: readonly Block[]): Solved {
  const size = beliefs.length;
  const normal = new Float64Array(size * size);
  const right = new Float64Array(size);
  for (const { rows, misses, covariance } of blocks) {
    const [first, second] = rows;
    if (!first) continue;
    const weight = weightsOf(covariance);
    add(normal, right, size, first, first, weight[0], misses[0] ?? 0);
    if (!second) continue;
    add(normal, right, size, second, second, weight[2], misses[1] ?? 0);
    add(normal, right, size, first, second, weight[1], misses[1] ?? 0);
    add(normal, right, size, second, first, weight[1], misses[0] ?? 0);
  }
  beliefs.forEach(({ miss, variance }, at) => {
    normal[at * size + at] = (normal[at * size + at] ?? 0) + 1 / variance;
    right[at] = (right[at] ?? 0) + miss / variance;
  });
  const { inverse: covariance, logDeterminant } = invert(normal, size);
  const unknowns = times(covariance, right, size);
  let chiSquared = 0;
  for (const block of blocks) chiSquared += squareOf(block, unknowns);
  beliefs.forEach(({ miss, variance }, at) => {
    chiSquared += (miss - (unknowns[at] ?? 0)) ** 2 / variance;
  });
  return { unknowns, covariance, chiSquared, logNormal: logDeterminant };
}

/**
 * How much each value of a block moves a wanted combination of the unknowns: V⁻¹·J·N⁻¹·f.
 * @param towards N⁻¹·f, see `times`.
 */
export function gainsOf({ rows, covariance }: Block, towards: Float64Array): number[] {
  const [a, b] = rows.map((row) => dot(row, towards));
  if (a === undefined) return [];
  const weight = weightsOf(covariance);
  return b === undefined ? [weight[0] * a] : [weight[0] * a + weight[1] * b, weight[1] * a + weight[2] * b];
}

/** Weighted square of what a block has left. */
export function squareOf({ rows, misses, covariance }: Block, unknowns: Float64Array): number {
  const [a, b] = rows.map((row, at) => (misses[at] ?? 0) - dot(row, unknowns));
  if (a === undefined) return 0;
  const weight = weightsOf(covariance);
  return b === undefined ? weight[0] * a * a : weight[0] * a * a + 2 * weight[1] * a * b + weight[2] * b * b;
}

export function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length && i < b.length; i += 1) sum += (a[i] ?? 0) * (b[i] ?? 0);
  return sum;
}

/** A square matrix, row by row, times a column. */
export function times(matrix: Float64Array, column: Float64Array, size: number): Float64Array {
  const product = new Float64Array(size);
  for (let i = 0; i < size; i += 1) {
    let sum = 0;
    for (let j = 0; j < size; j += 1) sum += (matrix[i * size + j] ?? 0) * (column[j] ?? 0);
    product[i] = sum;
  }
  return product;
}

/** The inverse of a block's covariance: [1/variance, 0, 0] for one value. */
function weightsOf(covariance: Block['covariance']): readonly [number, number, number] {
  if (covariance.length === 1) return [1 / covariance[0], 0, 0];
  const [a, b, c] = covariance;
  const determinant = a * c - b * b;
  return [c / determinant, -b / determinant, a / determinant];
}

function add(
  normal: Float64Array,
  right: Float64Array,
  size: number,
  row: Float64Array,
  other: Float64Array,
  weight: number,
  miss: number,
): void {
  if (weight === 0) return;
  for (let i = 0; i < size; i += 1) {
    const left = (row[i] ?? 0) * weight;
    if (left === 0) continue;
    right[i] = (right[i] ?? 0) + left * miss;
    // Only the lower half: the inverse asks for no more.
    for (let j = 0; j <= i; j += 1) normal[i * size + j] = (normal[i * size + j] ?? 0) + left * (other[j] ?? 0);
  }
}

/** A symmetric positive definite matrix by Cholesky: N = L·Lᵀ, N⁻¹ = L⁻ᵀ·L⁻¹, ln|N| = 2·Σ ln Lᵢᵢ. Only its lower half is read. */
function invert(matrix: Float64Array, size: number): { inverse: Float64Array; logDeterminant: number } {
  let logDeterminant = 0;
  const lower = new Float64Array(size * size);
  for (let i = 0; i < size; i += 1)
    for (let j = 0; j <= i; j += 1) {
      let sum = matrix[i * size + j] ?? 0;
      for (let k = 0; k < j; k += 1) sum -= (lower[i * size + k] ?? 0) * (lower[j * size + k] ?? 0);
      if (i === j) {
        if (!(sum > 0)) throw new RangeError('nothing is known of one of the unknowns');
        lower[i * size + i] = Math.sqrt(sum);
        logDeterminant += Math.log(sum);
      } else lower[i * size + j] = sum / (lower[j * size + j] ?? 1);
    }
  const turned = new Float64Array(size * size);
  for (let column = 0; column < size; column += 1)
    for (let i = column; i < size; i += 1) {
      let sum = i === column ? 1 : 0;
      for (let k = column; k < i; k += 1) sum -= (lower[i * size + k] ?? 0) * (turned[k * size + column] ?? 0);
      turned[i * size + column] = sum / (lower[i * size + i] ?? 1);
    }
  const result = new Float64Array(size * size);
  for (let i = 0; i < size; i += 1)
    for (let j = 0; j <= i; j += 1) {
      let sum = 0;
      for (let k = i; k < size; k += 1) sum += (turned[k * size + i] ?? 0) * (turned[k * size + j] ?? 0);
      result[i * size + j] = sum;
      result[j * size + i] = sum;
    }
  return { inverse: result, logDeterminant };
}
