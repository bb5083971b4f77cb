import { wrap180 } from '../units/angle';
import type { Rotation } from '../crank/rotation';

/** How an encoder's count is read as the wheel: ring position = sense · angle + offset, crank degrees. */
export interface Sync {
  readonly offset: number;
  /** 1: the count grows as the engine runs. */
  readonly sense: 1 | -1;
  /** The origin of the count for which it holds (see `hear`). */
  readonly origin: number;
}

/** Syncs the count to the wheel: at this angle of the encoder, this ring position stands under the pointer. */
export const syncAt = (angle: number, ring: number, sense: 1 | -1, origin: number): Sync => ({
  offset: ring - sense * angle,
  sense,
  origin,
});

/** Ring position at an angle of the encoder, not wrapped. `ringAt(syncAt(100, 20, 1, 0), 130)` is 50. */
export const ringAt = ({ offset, sense }: Sync, angle: number): number => sense * angle + offset;

/** Seen from where the wheel is, an encoder counts up clockwise. Common practice, no source. */
export const usualSense = (rotation: Rotation): 1 | -1 => (rotation === 'clockwise' ? 1 : -1);

/** How far a sync is from another reading of the wheel, crank degrees. */
export const syncError = (sync: Sync, angle: number, ring: number): number => wrap180(ringAt(sync, angle) - ring);
