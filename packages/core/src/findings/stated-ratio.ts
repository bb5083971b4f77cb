import type { Valve } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import type { Ground } from '../record/parts';

/** The rocker ratio as it is stated: at the engine, else on the card, else 1 where the cam works on the valve itself; null where nobody says. */
export const statedRatio = (build: Ground, card: CompletedCard, valve: Valve): number | null =>
  build.description.body.engine.rockerRatio?.[valve] ??
  card[valve].ratio ??
  (build.asItStands?.body.lifter === 'bucket' ? 1 : null);
