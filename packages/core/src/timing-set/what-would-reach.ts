import { computedDegrees } from '../units/degrees';

/** What to look for when what is fitted does not reach, in words. `by`: what is wanted from where the cam stands now, crank degrees of advance. */
export function whatWouldReach(by: number): string {
  const size = Math.abs(by);
  const way = by > 0 ? 'advances' : 'retards';
  return `From where it stands now it takes a part that ${way} it ${computedDegrees(size)} at the crank: an offset bushing, dowel or key marked near ${computedDegrees(size / 2)} cam or ${computedDegrees(size)} crank degrees, or a slotted wheel with that much range.`;
}
