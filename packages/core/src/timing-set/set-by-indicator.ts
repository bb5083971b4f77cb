/** The direct way of setting a cam whose adjuster goes anywhere: the crank is held where the indicator shall show the drop before peak, and the cam brought to it. */
export interface DirectSet {
  /** Where the crank goes: cycle angle as it is read, crank degrees. */
  readonly crank: number;
  /** Half of the way from the drop before peak to the drop after it. */
  readonly half: number;
}

/**
 * Where to hold the crank so that the nose comes to stand where it shall.
 * @param opening cycle angle at the drop before peak, as measured; `closing` at the same drop after it.
 * @param nose cycle angle where the centre between the two shall be.
 * Source: common practice, no source.
 * @example directSet(61, 152, 109) // crank to 63.5
 */
export function directSet(opening: number, closing: number, nose: number): DirectSet {
  const half = (closing - opening) / 2;
  return { crank: nose - half, half };
}
