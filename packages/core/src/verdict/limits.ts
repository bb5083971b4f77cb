import { crankDeg } from '../units/angle';

/** Limit of the cam's position unless the builder sets another, crank degrees. Common practice, no source. */
export const DEFAULT_LIMIT = crankDeg(1);
/** Limits by what the engine is for, crank degrees. Common practice, no source. */
export const USUAL_LIMITS = [
  { use: 'competition', limit: 0.5 },
  { use: 'fast road', limit: 1 },
  { use: 'mild street', limit: 2 },
] as const;
