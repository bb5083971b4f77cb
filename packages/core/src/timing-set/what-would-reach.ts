import { computedDegrees } from '../units/degrees';

/** What to look for when what is fitted does not reach, in words. `by`: what is still wanted, crank degrees of advance. */
export function whatWouldReach(by: number): string {
  const size = Math.abs(by);
  const way = by > 0 ? 'advances' : 'retards';
  return `It takes a part that ${way} ${computedDegrees(size)} at the crank more: an offset bushing, dowel or key marked near ${computedDegrees(size / 2)} cam or ${computedDegrees(size)} crank degrees, or a slotted wheel with that much range.`;
}
