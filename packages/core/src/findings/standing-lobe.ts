import type { Valve } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import { type Lobe, advanced } from '../cam/lobe';
import type { Build } from '../record/fold';
import type { TrialFinding } from './derive-trial';
import { measuredLobe } from './measured-lobe';

/** A lobe of the first bank where it stands in a trial. */
export interface StandingLobe {
  readonly lobe: Lobe;
  /** Was it measured before, and carried on by what was expected of the moves since? */
  readonly isCarried: boolean;
}

/**
 * The lobe of the first bank as the cam stands in a trial: as measured there, else as measured before and moved since as was expected.
 * @param at place of the trial among the trials.
 * @returns null where nobody can say: never measured, or moved since by who knows what.
 */
export function standingLobe(
  build: Build,
  trials: readonly TrialFinding[],
  at: number,
  card: CompletedCard,
  valve: Valve,
): StandingLobe | null {
  let moved = 0;
  for (let i = at; i >= 0; i -= 1) {
    const measured = measuredLobe(trials[i]?.banks[0], card, valve);
    if (measured) return { lobe: moved === 0 ? measured : advanced(measured, moved), isCarried: i < at };
    const { why, move } = build.trials[i] ?? {};
    if (why !== 'moved') continue;
    const expected = move?.cams.find(({ cam, bank }) => bank === 1 && (cam === 'single' || cam === valve));
    if (!expected) return null;
    moved += expected.by;
  }
  return null;
}
