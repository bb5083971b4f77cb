import { MM_PER_INCH } from '../units/length';
import { rimDegrees } from './rim';
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

/** Inches, or every fifth centimetre, along a tape from the mark, both ways; crowded neither at the mark nor where the ends meet. */
function tapeNumbers({ round, unit }: Extract<WheelRing, { ring: 'rim' }>): FaceNumber[] {
  const [size, each] = unit === 'in' ? [MM_PER_INCH, 1] : [10, 5];
  const most = Math.floor((round / 2 - CLEAR) / (size * each));
  return Array.from({ length: most }, (_, i) => (i + 1) * each).flatMap((shows) =>
    [1, -1].map((way) => ({ at: way * rimDegrees(shows * size, round), text: String(shows), strong: true })),
  );
}
/** mm of rim kept free where the ends of the tape meet. */
const CLEAR = 8;

/** The numbers printed round a ring, every ten degrees; TDC and BDC by name where the ring counts from them. */
export function faceNumbers(ring: WheelRing): FaceNumber[] {
  if (ring.ring === 'rim') return [{ at: 0, text: 'MARK', strong: true }, ...tapeNumbers(ring)];
  const named = ring.ring !== '0-360';
  return Array.from({ length: 360 / EVERY }, (_, i) => {
    const at = i * EVERY;
    const strong = at % STRONG_EVERY === 0;
    if (named && at === 0) return { at, text: 'TDC', strong };
    if (named && at === 180) return { at, text: 'BDC', strong };
    return { at, text: String(readingAt(ring, at).shows), strong };
  });
}
