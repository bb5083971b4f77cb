import { type CrankDeg, crankDeg } from '../units/angle';
import { type Outcome, problem } from '../problem';

/**
 * What the camshaft's card prints for one lobe. Each figure may be missing.
 * `centreline`: intake lobe centreline in crank degrees ATDC. `lobeLift`: millimetres at the lobe.
 */
export interface LobeCard {
  readonly centreline?: number | undefined;
  readonly lobeLift?: number | undefined;
}

/** Where the builder wants the cam: as the card says, so many crank degrees ahead of it, or at a centreline of his own. */
export type Target =
  | { readonly kind: 'card' }
  | { readonly kind: 'ahead-of-card'; readonly advance: number }
  | { readonly kind: 'centreline'; readonly centreline: number };

/** Intake centrelines outside this are so rare that a slip of the pen is likelier. Common practice, no source. */
const USUAL_CENTRELINE = { from: 85, to: 130 } as const;

/**
 * The intake centreline to aim at, crank degrees ATDC. Advance is positive and makes the centreline smaller.
 * @example targetCentreline({ centreline: 108 }, { kind: 'ahead-of-card', advance: 2 }) // 106
 */
export function targetCentreline(card: LobeCard, target: Target): Outcome<{ readonly centreline: CrankDeg }> {
  if (target.kind === 'centreline') return { ok: true, centreline: crankDeg(target.centreline) };
  if (card.centreline === undefined)
    return problem(
      'The card gives no intake centreline to aim at.',
      'Enter the centreline from the card, or set a target of your own.',
    );
  const advance = target.kind === 'card' ? 0 : target.advance;
  return { ok: true, centreline: crankDeg(card.centreline - advance) };
}

/** A remark on a centreline that is possible but unusual, or null. `centrelineRemark(70)` names the usual range. */
export function centrelineRemark(centreline: number): string | null {
  const { from, to } = USUAL_CENTRELINE;
  if (centreline >= from && centreline <= to) return null;
  return `An intake centreline of ${centreline}° is unusual: nearly all lie between ${from}° and ${to}° ATDC. Check the card.`;
}
