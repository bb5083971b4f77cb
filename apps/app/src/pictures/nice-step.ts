/** The next round figure: 1, 2, 2.5 or 5 times a power of ten. `niceStep(1.85)` is 2. */
export function niceStep(least: number): number {
  const power = 10 ** Math.floor(Math.log10(least));
  return ([1, 2, 2.5, 5].find((each) => each * power >= least) ?? 10) * power;
}
