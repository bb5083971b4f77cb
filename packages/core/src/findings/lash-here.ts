import type { Valve } from '../cam/card';
import type { Build } from '../record/fold';

/** The lash of a kind of valve on this engine, mm: as it was set here last; else as the card has it, cold before hot; else none. */
export function lashHere({ lashJobs, card }: Build, valve: Valve): number {
  const asSet = lashJobs.at(-1)?.begun.body.wanted;
  if (asSet?.kind === 'lash') return asSet[valve];
  const printed = card?.body[valve];
  return printed?.lashCold ?? printed?.lashHot ?? 0;
}
