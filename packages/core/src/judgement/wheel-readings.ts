import { type CamCard, closesAt, eventCentre, noseAt, opensAt } from '../cam/card';
import { ringPosition } from '../crank/wheel';
import type { EntryOf } from '../record/entry';
import { wrap180 } from '../units/angle';
import type { Job } from './job';

/** A job as figures that can be summed and compared. */
export interface Figures {
  /** The readings of the wheel in their order, each from where the card has that flank: crank degrees. */
  readonly readings: readonly number[];
  /** What is known beside: one for what is common, units, and of each lobe its lift and its duration. */
  readonly known: readonly number[];
  /** Does the card print a centreline that may be the middle of its own events? */
  readonly mayMeanEvents: boolean;
}

/** Nearer than this to the middle of its events a centreline may be just that: roundings of three figures, crank degrees. */
const NEAR = 1;

export function figuresOf({ entries }: Job): Figures {
  const card: CamCard = entries.find((entry) => entry.kind === 'card.entered')?.body ?? {};
  const taken = entries.filter((entry): entry is EntryOf<'reading.taken'> => entry.kind === 'reading.taken');
  const readings = taken.flatMap(({ body: { wheel, shows, valve } }) => {
    if (!wheel || !('flank' in shows)) return [];
    const { centreline = 108, timing = [] } = card[valve] ?? {};
    const { opens, closes } = timing[0] ?? {};
    const printed =
      shows.kind === 'below-peak' || opens === undefined || closes === undefined
        ? noseAt(valve, centreline)
        : shows.flank === 'opening'
          ? opensAt(valve, opens)
          : closesAt(valve, closes);
    return [wrap180(ringPosition(wheel) - printed)];
  });
  const inMillimetres = taken.some(({ body: { shows } }) => 'drop' in shows && shows.drop === 1);
  const ofLobes = (['intake', 'exhaust'] as const).flatMap((valve) => {
    const { lobeLift = 0, timing = [] } = card[valve] ?? {};
    const { opens = 0, closes = 0 } = timing[0] ?? {};
    return [lobeLift, (opens + closes) / 10];
  });
  return { readings, known: [1, inMillimetres ? 1 : 0, ...ofLobes], mayMeanEvents: mayMeanEvents(card) };
}

function mayMeanEvents({ intake }: CamCard): boolean {
  const { opens, closes } = intake?.timing?.[0] ?? {};
  if (opens === undefined || closes === undefined || intake?.centreline === undefined) return false;
  return Math.abs(eventCentre('intake', opens, closes) - intake.centreline) <= NEAR;
}
