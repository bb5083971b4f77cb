import { crankDeg } from '../units/angle';

/** Limit of the cam's position unless the builder sets another, crank degrees. Common practice, no source. */
export const DEFAULT_LIMIT = crankDeg(1);
/** What is often done by what the engine is for, with its reason. Common practice, no source; never a promise. */
export const ADVICE_BY_USE = [
  {
    use: 'Boosted or nitrous',
    words:
      'Often set several degrees ahead of the card: the exhaust opens earlier, and the larger charge has more time to leave. The intake then closes earlier too, which traps more: mind the fuel.',
  },
  {
    use: 'Mild street',
    words:
      'On the card or a degree or two ahead: torque comes lower, and a chain that wears goes late by itself. A degree or two off is seldom felt.',
  },
  {
    use: 'Competition',
    words:
      'As the grinder says, within half a degree, and moved by what the engine shows: ahead where it lacks coming out of a corner, behind where it lacks at the top.',
  },
] as const;

/** Limits by what the engine is for, crank degrees. Common practice, no source. */
export const USUAL_LIMITS = [
  { use: 'competition', limit: 0.5 },
  { use: 'fast road', limit: 1 },
  { use: 'mild street', limit: 2 },
] as const;
