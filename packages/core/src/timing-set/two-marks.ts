/** Two marks that one wheel should meet: as a maker specifies them and as the engine has them, crank degrees. */
export interface TwoMarks {
  readonly first: number;
  readonly second: number;
}

/**
 * Where to set a single vernier wheel when two marks cannot both be met: both scaled by found sum / specified sum, so that the error is split in proportion.
 * Their sum stays as the cam has it: it is ground in.
 * @returns what to set, and how far the first grows by it; null where a sum is 0 or less.
 * Source: common practice, no source.
 * @example splitInProportion({ first: 10, second: 20 }, { first: 13, second: 23 }) // 12 and 24, the first 1 less
 */
export function splitInProportion(
  specified: TwoMarks,
  found: TwoMarks,
): { readonly first: number; readonly second: number; readonly firstBy: number } | null {
  const [asked, has] = [specified.first + specified.second, found.first + found.second];
  if (!(asked > 0) || !(has > 0)) return null;
  const scale = has / asked;
  const first = specified.first * scale;
  return { first, second: specified.second * scale, firstBy: first - found.first };
}
