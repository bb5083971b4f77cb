/** Used by tests only, as an independent library; it brings no types. */
declare module 'jstat' {
  const jStat: { readonly chisquare: { readonly cdf: (x: number, freedom: number) => number } };
  export default jStat;
}
