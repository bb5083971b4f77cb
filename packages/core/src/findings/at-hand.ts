import { type CamAtHand, followsDown } from '../measure/read-methods';
import type { Ground } from '../record/parts';

/** What the engine offers to an indicator, as far as anybody has said. */
export const handOf = (build: Ground): CamAtHand | null => {
  const at = build.asItStands?.body;
  return at ? { wheel: at.wheel, lifter: at.lifter, springs: at.springs ?? null } : null;
};

/** Does what the indicator sits on follow its lobe down, as far as anybody has said? */
export function followsDownOf(build: Ground): boolean {
  const hand = handOf(build);
  return hand === null || followsDown(hand);
}
