import { type CrankDeg, crankDeg } from '../units/angle';
import { type Outcome, problem } from '../problem';
import type { Valve } from './card';

/** Where the builder wants the cam: as the card says, so many crank degrees ahead of it, or at an intake centreline of his own. */
export type Target =
  | { readonly kind: 'card' }
  | { readonly kind: 'ahead-of-card'; readonly advance: number }
  | { readonly kind: 'centreline'; readonly centreline: number };

/** Intake centrelines outside this are so rare that a slip of the pen is likelier. Common practice, no source. */
const USUAL_CENTRELINE = { from: 85, to: 130 } as const;

/**
 * The centreline to aim at as it is printed: of the intake crank degrees ATDC, which an advance makes smaller; of the exhaust BTDC, which it makes larger.
 * @param card the centreline of the card, printed or derived; null where it has none that stands.
 * @example targetCentreline(108, { kind: 'ahead-of-card', advance: 2 }) // 106
 */
export function targetCentreline(
  card: number | null,
  target: Target,
  valve: Valve = 'intake',
): Outcome<{ readonly centreline: CrankDeg }> {
  if (target.kind === 'centreline') return { ok: true, centreline: crankDeg(target.centreline) };
  if (card === null)
    return problem(
      `The card gives no ${valve} centreline to aim at.`,
      'Enter the centreline from the card, or set a target of your own.',
    );
  const advance = target.kind === 'card' ? 0 : target.advance;
  return { ok: true, centreline: crankDeg(valve === 'intake' ? card - advance : card + advance) };
}

/**
 * How far ahead of its card the cam shall sit, crank degrees; null where a centreline is wanted and the card gives none to compare with.
 * `aheadOfCard(108, { kind: 'centreline', centreline: 106 })` is 2.
 */
export function aheadOfCard(card: number | null, target: Target, valve: Valve = 'intake'): CrankDeg | null {
  if (target.kind === 'card') return crankDeg(0);
  if (target.kind === 'ahead-of-card') return crankDeg(target.advance);
  if (card === null) return null;
  return crankDeg(valve === 'intake' ? card - target.centreline : target.centreline - card);
}

/** A remark on a centreline that is possible but unusual, or null. `centrelineRemark(70)` names the usual range. */
export function centrelineRemark(centreline: number): string | null {
  const { from, to } = USUAL_CENTRELINE;
  if (centreline >= from && centreline <= to) return null;
  return `An intake centreline of ${centreline}° is unusual: nearly all lie between ${from}° and ${to}° ATDC. Check the card.`;
}
