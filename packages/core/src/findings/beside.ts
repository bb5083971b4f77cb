import { VALVES, type Valve } from '../cam/card';
import { LEAN } from '../verdict/unknowns';
import { budgetOf } from '../statistics/coverage';
import type { Placed } from '../verdict/place-cam';
import type { Beside, First } from '../verdict/verdict';
import type { Weighing } from '../verdict/weigh';
import type { ClosingFinding } from './closing-check';

/** Where what the card means makes up so much of the variance, it is said. */
const MOSTLY = 0.4;

/**
 * What stands beside a verdict: what it rests on that no reading has shown.
 * @param lead the valve by which the cam is looked at.
 * @param oneSided as by `oneSidedOf`.
 */
export function besideOf(
  weighing: Weighing,
  lead: Valve,
  { sources }: Placed,
  closing: ClosingFinding['state'],
  oneSided: readonly Valve[],
): Beside[] {
  const { evidence, layout } = weighing;
  const rests: Beside[] = [];
  if (closing === 'due') rests.push('nothing-moved');
  // Who reads the lobe the other way too has read it twice.
  if (oneSided.length > 0) rests.push('card-contradicts');
  else if (isOnePair(weighing, lead)) rests.push('one-pair');
  const { ofCam } = layout.schools[lead];
  const printed = evidence.card.find((fact) => fact.of === 'centre' && fact.valve === lead);
  const open = printed?.of === 'centre' && (printed.means === 'unsaid' || printed.means === 'as-events');
  if (open && ofCam.drops && !ofCam.events) rests.push('card-by-events');
  const budget = budgetOf(sources);
  const whole = budget.reduce((sum, { standard }) => sum + standard ** 2, 0);
  const lean = budget.find(({ from }) => from === LEAN)?.standard ?? 0;
  if (ofCam.drops && ofCam.events && lean ** 2 > MOSTLY * whole) rests.push('card-meaning');
  return rests;
}

/** What has to be done before the cam is moved, or left, since no reading shows what it would. */
export function firstOf(
  weighing: Weighing,
  lead: Valve,
  closing: ClosingFinding['state'],
  oneSided: readonly Valve[],
): First[] {
  const first: First[] = [];
  if (oneSided.length > 0) first.push('read-both-ways');
  else if (isOnePair(weighing, lead)) first.push('read-pair');
  if (closing === 'due') first.push('closing-check');
  return first;
}

/** Lobes of this cam of which a centreline or events were read, while their card contradicts itself: the other way, read too, would tell which figure is right. */
export function oneSidedOf({ evidence, layout }: Weighing, lead: Valve): Valve[] {
  return VALVES.filter((valve) => {
    const { drops, events } = layout.schools[valve].ofLobe;
    const ofThisCam = layout.of[valve].advance >= 0 && layout.of[valve].advance === layout.of[lead].advance;
    return ofThisCam && drops !== events && evidence.card.some((fact) => 'doubtful' in fact && fact.valve === valve);
  });
}

/** Does all that is known of this cam come from two readings of the wheel? */
function isOnePair({ evidence, layout }: Weighing, lead: Valve): boolean {
  const mine = evidence.observations.filter(
    (each) => each.kind !== 'peak-lift' && layout.of[each.valve].advance === layout.of[lead].advance,
  );
  return mine.length <= 2 && mine.every((each) => each.kind === 'flank' && each.standard === null);
}
