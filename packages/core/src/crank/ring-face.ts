import type { Rotation } from './rotation';
import { type WheelRing, readingAt } from './wheel';

/** Clockwise running brings higher ring positions from the left: the face runs against the rotation. */
export const runningSign = (rotation: Rotation): 1 | -1 => (rotation === 'clockwise' ? 1 : -1);

export interface FaceNumber {
  /** Ring position, crank degrees. */
  readonly at: number;
  readonly text: string;
  readonly strong: boolean;
}

const EVERY = 10;
const STRONG_EVERY = 30;

/** The numbers printed round a ring, every ten degrees; TDC and BDC by name where the ring counts from them. */
export function faceNumbers(ring: WheelRing): FaceNumber[] {
  if (ring.ring === 'rim') return [{ at: 0, text: 'MARK', strong: true }];
  const named = ring.ring !== '0-360';
  return Array.from({ length: 360 / EVERY }, (_, i) => {
    const at = i * EVERY;
    const strong = at % STRONG_EVERY === 0;
    if (named && at === 0) return { at, text: 'TDC', strong };
    if (named && at === 180) return { at, text: 'BDC', strong };
    return { at, text: String(readingAt(ring, at).shows), strong };
  });
}
