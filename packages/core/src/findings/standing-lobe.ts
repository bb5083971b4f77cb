import type { Valve } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import { type Lobe, advanced } from '../cam/lobe';
import type { Build } from '../record/fold';
import type { TrialFinding } from './derive-trial';
import { measuredLobe } from './measured-lobe';

/** A lobe where it stands in a trial. */
export interface StandingLobe {
  readonly lobe: Lobe;
  /** Was it measured before, and carried on by what was expected of the moves since? */
  readonly isCarried: boolean;
}

/**
 * A lobe as its cam stands in a trial: as measured there, else as measured before and moved since as was expected.
 * @param at place of the trial among the trials.
 * @param bank whose cams are meant, where each bank has its own.
 * @returns null where nobody can say: never measured, or moved since by who knows what.
 */
export function standingLobe(
  build: Build,
  trials: readonly TrialFinding[],
  at: number,
  card: CompletedCard,
  valve: Valve,
  bank: 1 | 2 = 1,
): StandingLobe | null {
  let moved = 0;
  for (let i = at; i >= 0; i -= 1) {
    const measured = measuredLobe(trials[i]?.banks[bank - 1], card, valve);
    if (measured) return { lobe: moved === 0 ? measured : advanced(measured, moved), isCarried: i < at };
    const { why, move } = build.trials[i] ?? {};
    if (why !== 'moved') continue;
    const expected = move?.cams.find((each) => each.bank === bank && (each.cam === 'single' || each.cam === valve));
    if (!expected) return null;
    moved += expected.by;
  }
  return null;
}
