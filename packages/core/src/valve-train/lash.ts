import { type Lobe, flanksAt } from '../cam/lobe';
import { inches } from '../units/length';

/** How well a blade tells a lash: one standard deviation of the hand, mm. From memory. */
const FEEL = inches('0.0005');
/** Lash is written down to whole thousandths. */
const STEP = inches('0.001');
/** So many standard deviations apart, two lashes are not the same: one healthy valve in 2,000. */
const SURELY = 3.5;

/** What two lashes that were felt and written down differ by, one standard deviation, mm. */
export const FELT_TWICE = Math.sqrt(2 * (FEEL ** 2 + STEP ** 2 / 12));
/** Two lashes that differ by more than this are not the same one, mm: 0.0027 in. */
export const LASH_TELLS = SURELY * FELT_TWICE;

export type LashChange = 'same' | 'looser' | 'tighter';

/**
 * A lash that was found against what it was left at, mm.
 * @example compareLash(0.508, 0.4064) // { change: 'looser', by: 0.1016 }
 */
export function compareLash(found: number, left: number): { readonly change: LashChange; readonly by: number } {
  const by = found - left;
  return { by, change: Math.abs(by) <= LASH_TELLS ? 'same' : by > 0 ? 'looser' : 'tighter' };
}

/** What another lash does where the valve leaves its seat and comes back to it. Crank degrees. */
export interface LashEffect {
  /** Positive: it opens later. */
  readonly opensLater: number;
  /** Positive: it closes earlier. */
  readonly closesEarlier: number;
  readonly duration: number;
}

/**
 * What a change of lash does to the events at the seat, of the lobe at hand.
 * @param lobe lift at the lobe.
 * @param ratio valve travel for each 1 of lobe.
 * @param lash from which it is changed, at the valve, mm.
 * @param change mm; positive is more lash.
 * @returns null where the lobe never takes up so much lash.
 * Source: the lobe's lift at which the lash is taken up is lash ÷ ratio; common practice, no source.
 * @example lashEffect({ peak: 8, nose: 108, half: 150, power: 3, lean: 0 }, 1.5, 0.4, 0.05) // opens 1.2° later, closes 1.2° earlier: 2.4° less
 */
export function lashEffect(lobe: Lobe, ratio: number, lash: number, change: number): LashEffect | null {
  const before = flanksAt(lobe, lash / ratio);
  const after = flanksAt(lobe, Math.max(0, lash + change) / ratio);
  if (!before || !after) return null;
  const opensLater = after.opening - before.opening;
  const closesEarlier = before.closing - after.closing;
  return { opensLater, closesEarlier, duration: -(opensLater + closesEarlier) };
}

/**
 * How far a hydraulic plunger is pressed down by turning its adjuster, mm: as it is commonly reckoned, and as the pushrod's end really
 * moves under a rocker that hangs on its stud.
 * @param turns past zero lash.
 * @param pitch of the thread: how far the nut travels in a turn, mm.
 * @example preloadOf(0.5, 1.27, 1.5) // { reckoned: 0.635, atPushrod: 1.058 }
 * Source: common practice, no source: turns × pitch; the pivot goes down by that, the pushrod's end by (1 + 1 ÷ ratio) times as much.
 */
export const preloadOf = (
  turns: number,
  pitch: number,
  ratio: number,
): { readonly reckoned: number; readonly atPushrod: number } => ({
  reckoned: turns * pitch,
  atPushrod: turns * pitch * (1 + 1 / ratio),
});
