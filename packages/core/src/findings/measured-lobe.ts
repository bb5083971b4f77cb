import { type Valve, noseAt } from '../cam/card';
import { READ_METHODS } from '../measure/read-methods';
import type { CompletedCard } from '../cam/complete-card';
import { fitLobe } from '../cam/fit-lobe';
import type { Lobe } from '../cam/lobe';
import type { BankFinding } from './derive-trial';

/** The lift of a lobe, mm: as it was measured last on the first bank, else the card’s; null where nobody knows. */
export function lobeLiftHere(
  trials: readonly { readonly banks: readonly BankFinding[] }[],
  card: CompletedCard,
  valve: Valve,
): number | null {
  // From the end: mostly the last trial says it.
  for (let at = trials.length - 1; at >= 0; at -= 1) {
    const lobe = measuredLobe(trials[at]?.banks[0], card, valve);
    if (lobe) return lobe.peak;
  }
  return card[valve].lobeLift;
}

/** The lobe as measured: through what was read of it; its shape from the card where that is all there is. */
export function measuredLobe(trial: BankFinding | undefined, card: CompletedCard, valve: Valve): Lobe | null {
  if (!trial) return null;
  const views = trial.views.filter((view) => view.valve === valve);
  const centre = views.find((view) => READ_METHODS[view.method].gives === 'centreline');
  const events = trial.rounds.filter((round) => round.valve === valve && round.sitsOn !== 'valve' && round.events);
  const ofCard = card[valve].curve;
  const peak = views.find((view) => view.key === `lobe-lift ${valve}`)?.value ?? ofCard?.peak;
  if (peak === undefined) return null;
  const nose = centre ? noseAt(valve, centre.value) : undefined;
  const seen = events.flatMap(({ height, events: found }) =>
    found && height !== null ? [{ height, duration: found.duration, centre: noseAt(valve, found.centre) }] : [],
  );
  if (new Set(seen.map(({ height }) => height)).size < 2 && ofCard) {
    // One height does not shape a lobe: the card's shape, put where the readings say.
    const [only] = seen;
    const leaning = only
      ? ofCard.lean * (1 - (Math.min(only.height, ofCard.peak) / ofCard.peak) ** (1 / ofCard.power))
      : 0;
    const at = nose ?? (only ? only.centre - leaning : undefined);
    return at === undefined ? null : { ...ofCard, peak, nose: at };
  }
  if (seen.length === 0) return null;
  return fitLobe({ peak, nose, durations: seen, centres: seen })?.lobe ?? null;
}
