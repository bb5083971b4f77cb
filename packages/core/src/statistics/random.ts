/** A stream of pseudo-random numbers that is the same for the same seed (xorshift of 32 bits; Marsaglia 2003). */
export function makeRandom(seed: number) {
  let state = seed | 0 || 0x9e3779b9;
  /** Even in [0, 1). */
  const even = (): number => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) / 2 ** 32;
  };
  for (let i = 0; i < 8; i += 1) even();
  return {
    even,
    /** Even between −half and half. */
    within: (half: number): number => (2 * even() - 1) * half,
    /** Normal with mean 0 (Box and Muller 1958). */
    normal: (deviation: number): number =>
      deviation * Math.sqrt(-2 * Math.log(1 - even())) * Math.cos(2 * Math.PI * even()),
  };
}

export type Random = ReturnType<typeof makeRandom>;
