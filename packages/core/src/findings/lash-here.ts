import type { Valve } from '../cam/card';
import type { Build } from '../record/fold';

/** The lash of a kind of valve on this engine, mm: as it was set here last; else as the card has it, cold before hot; else none. An adjuster turned past zero lash leaves none. */
export function lashHere({ lashJobs, card }: Build, valve: Valve): number {
  const asSet = lashJobs.at(-1)?.begun.body.wanted;
  if (asSet) return asSet.kind === 'lash' ? asSet[valve] : 0;
  const printed = card?.body[valve];
  return printed?.lashCold ?? printed?.lashHot ?? 0;
}
