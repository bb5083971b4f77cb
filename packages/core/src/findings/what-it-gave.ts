import { NORMAL_95 } from '../statistics/normal';
import { READ_METHODS } from '../measure/read-methods';
import type { Cam } from '../record/cams-of';
import type { TrialFinding } from './derive-trial';
import type { View } from './views/view';

/** What a cam really did between two trials, crank degrees of advance, and its standard uncertainty. */
export interface Gave {
  readonly gave: number;
  readonly standard: number;
}

/** Readings of one method on one lobe: a later trace stands for an earlier one. */
const sameView = (one: View, other: View): boolean =>
  one.method === other.method &&
  one.valve === other.valve &&
  one.bank === other.bank &&
  (READ_METHODS[one.method].reads === 'curve' || one.key === other.key);

/** How far a difference of two values of a view means that the cam came earlier; null for views that place no cam. */
export function advanceOfChange({ method, valve }: Pick<View, 'method' | 'valve'>, change: number): number | null {
  switch (READ_METHODS[method].gives) {
    case 'centreline':
    case 'events':
      // A later intake has a larger centre as printed, a later exhaust a smaller one.
      return valve === 'both' ? null : valve === 'intake' ? -change : change;
    case 'opening':
      return change;
    case 'lift':
    case 'slack':
      return null;
  }
}

/**
 * What a cam did between two trials. The same view of both is compared first: whatever the card says, and how the lobe leans, falls out of the difference. Without one, the two
 * verdicts are.
 * @returns null where one of the trials says nothing of it.
 */
export function whatItGave(before: TrialFinding, now: TrialFinding, { cam, bank }: Cam): Gave | null {
  let [sum, weights, finest] = [0, 0, Infinity];
  for (const view of now.views) {
    const then = before.views.find((each) => sameView(each, view));
    if (!then || view.bank !== bank || (cam !== 'single' && view.valve !== cam)) continue;
    const gave = advanceOfChange(view, view.value - then.value);
    if (gave === null || view.standard === null || then.standard === null) continue;
    const variance = view.standard ** 2 + then.standard ** 2;
    sum += gave / variance;
    weights += 1 / variance;
    finest = Math.min(finest, variance);
  }
  // Views of one trial share TDC and the indicator: all of them together know no more than √2 times as well as the best.
  if (weights > 0) return { gave: sum / weights, standard: Math.sqrt(Math.max(1 / weights, finest / 2)) };
  const found = [before, now].map((trial) =>
    trial.decision.cams.find((each) => each.cam === cam && each.bank === bank),
  );
  const [then, here] = found;
  if (!then || !here) return null;
  return {
    gave: here.verdict.delta - then.verdict.delta,
    standard: Math.hypot(then.verdict.expanded, here.verdict.expanded) / NORMAL_95,
  };
}
