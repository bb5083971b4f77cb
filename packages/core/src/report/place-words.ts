/**
 * How a cam sits against its target, in both words of the trade: a sign alone is read either way.
 * @param advance crank degrees, negative late.
 * @example lateOrEarly(-2.5) // "late, retarded"
 */
export const lateOrEarly = (advance: number): 'late, retarded' | 'early, advanced' =>
  advance < 0 ? 'late, retarded' : 'early, advanced';
