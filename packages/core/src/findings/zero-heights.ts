import { USUAL_CRANK } from '../tdc/zero-uncertainty';
import { crankAngleAtDrop, pistonSlope } from '../crank/slider-crank';
import { ZERO_METHODS } from '../tdc/zero-methods';
import type { Described } from '../record/entry';
import type { Zero } from '../record/parts';
import { type PassFinding, crankOf, readStepOf } from './readings/zero-passes';

/** The eye at the pointer, 1 sigma, crank degrees. From memory. */
const EYE = 0.1;
/** How well an indicator is known to stand at its zero at the top, mm, and how far out of line it leans, as a share of the drop. From memory. */
const TOP = 0.03;
const LEANS = 0.01;
/** Beyond so many standard deviations it is no chance. */
const NO_CHANCE = 3;

/** What is wrong with how wide the passes are. Lengths mm, arcs crank degrees. */
export type WidthTrouble =
  /** Two passes at one height, `figure` of the indicator or null at a stop, are not equally wide. */
  | { readonly of: 'two-passes'; readonly figure: number | null; readonly first: number; readonly second: number }
  /** A drop is as wide as stroke and rod make it; this pass is not. */
  | { readonly of: 'drop'; readonly figure: number; readonly expected: number; readonly found: number };

/**
 * What the arcs of the passes show to be wrong; null where nothing is. The same height gives the same arc, on whichever setting of the wheel it is read; and where
 * stroke and rod are known, a drop has an arc of its own. Neither moves the middle, as long as both sides of each pass were at one height.
 * Source: the slider-crank (see `crankAngleAtDrop`); the figures of eye and hand are from memory.
 */
export function widthTrouble(passes: readonly PassFinding[], zero: Zero, described: Described): WidthTrouble | null {
  const { method } = zero.begun;
  const { readings, feel, figure: shown } = ZERO_METHODS[method];
  if (readings !== 'pair') return null;
  const crank = crankOf(described);
  const step = readStepOf(zero, described);
  const first = new Map<string, number>();
  for (const { result, readings: contacts, setting } of passes) {
    if (!result) continue;
    const figure = contacts[0]?.indicator ?? null;
    // A stop may be put elsewhere between finding and proving; a figure of the indicator is the same wherever.
    const height = figure === null ? `stop ${setting}` : `figure ${figure}`;
    const slope = pistonSlope(crank ?? USUAL_CRANK, Math.max(result.half, 1));
    const contact = Math.hypot(step / Math.sqrt(12), EYE, feel / slope);
    const known = first.get(height);
    if (known === undefined) first.set(height, result.arc);
    // Two arcs, each of two contacts.
    else if (Math.abs(result.arc - known) > NO_CHANCE * 2 * contact)
      return { of: 'two-passes', figure, first: known, second: result.arc };
    const at = shown?.isDrop && crank && figure !== null ? crankAngleAtDrop(crank, figure) : null;
    if (!at || figure === null) continue;
    const wide = at.after - at.before;
    const sure = Math.hypot(Math.SQRT2 * contact, (2 * Math.hypot(TOP, LEANS * figure)) / slope);
    if (Math.abs(result.arc - wide) > NO_CHANCE * sure)
      return { of: 'drop', figure, expected: wide, found: result.arc };
  }
  return null;
}
