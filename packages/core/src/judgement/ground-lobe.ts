import { MM_PER_INCH } from '../units/length';
import type { Random } from '../statistics/random';

/**
 * Lobes of other kinds than the product's own likeness, so that a check of the judgement does not draw from what it checks. Each flank is a rise curve of
 * its own length, stretched so that a drop from the peak is as wide as on common lobes, with a ramp of constant velocity at its foot.
 */
export const FAMILIES = ['3-4-5', 'cycloidal', 'harmonic', 'polynomial', 'long closing ramp'] as const;
export type Family = (typeof FAMILIES)[number];

/** Share of the rise that is left, x of the way down from the nose: 1 at 0, 0 at 1. */
type Fall = (x: number) => number;

const FALLS: Readonly<Record<Exclude<Family, 'long closing ramp'>, Fall>> = {
  '3-4-5': (x) => 1 - x * x * x * (10 - x * (15 - 6 * x)),
  cycloidal: (x) => 1 - (x - Math.sin(2 * Math.PI * x) / (2 * Math.PI)),
  harmonic: (x) => (1 + Math.cos(Math.PI * x)) / 2,
  // 1 + ax² + bx⁸ + cx¹⁰, with no lift, no slope and no bend at the foot.
  polynomial: (x) => {
    const square = x * x;
    const eighth = square * square * square * square;
    return 1 - (5 / 3) * (square - eighth) - eighth * square;
  },
};

interface Flank {
  readonly fall: Fall;
  /** From the nose to where the ramp begins, crank degrees, the flat top of the nose before it. */
  readonly length: number;
  readonly flat: number;
  readonly ramp: { readonly lift: number; readonly length: number };
}

/** A lobe as ground: lift in mm, angles crank degrees. */
export interface GroundLobe {
  readonly family: Family;
  readonly peak: number;
  /** Cycle angle of the very top. */
  readonly nose: number;
  readonly opening: Flank;
  readonly closing: Flank;
}

const CHECKING = 0.05 * MM_PER_INCH;

/** How far from the nose a flank has come down to a lift. Falling all the way: by halving. */
function distanceAt(peak: number, { fall, length, flat, ramp }: Flank, lift: number): number {
  if (lift >= peak) return 0;
  if (lift <= ramp.lift) return flat + length + ramp.length * (1 - Math.max(0, lift) / ramp.lift);
  let [near, far] = [0, 1];
  for (let step = 0; step < 40; step += 1) {
    const x = (near + far) / 2;
    if (ramp.lift + (peak - ramp.lift) * fall(x) > lift) near = x;
    else far = x;
  }
  return flat + ((near + far) / 2) * length;
}

/** Where the lobe stands at a lift, cycle angles. */
export const groundFlanks = ({ peak, nose, opening, closing }: GroundLobe, lift: number) => ({
  opening: nose - distanceAt(peak, opening, lift),
  closing: nose + distanceAt(peak, closing, lift),
});

/** Lift at a cycle angle, mm. */
export function groundLift({ peak, nose, opening, closing }: GroundLobe, angle: number): number {
  const from = ((((angle - nose + 360) % 720) + 720) % 720) - 360;
  const { fall, length, flat, ramp } = from < 0 ? opening : closing;
  const along = Math.abs(from) - flat;
  if (along <= 0) return peak;
  if (along < length) return ramp.lift + (peak - ramp.lift) * fall(along / length);
  return Math.max(0, ramp.lift * (1 - (along - length) / ramp.length));
}

/**
 * A lobe as grinders grind them: 40 to 48° from the nose to 0.050 in below it, events at 0.050 in 98 to 128° from it, leaning by about half a degree with a
 * standard deviation of 1.2°. Common practice, no source.
 * @param leans crank degrees, where it shall be a certain lean.
 */
export function someGroundLobe(random: Random, family: Family, nose: number, leans?: number): GroundLobe {
  const peak = 6.6 + 3.2 * random.even();
  const kinds = ['3-4-5', 'cycloidal', 'harmonic', 'polynomial'] as const;
  const kind = family === 'long closing ramp' ? (kinds[Math.floor(random.even() * 4)] ?? 'harmonic') : family;
  const fall = FALLS[kind];
  const ramp = { lift: 0.12 + 0.15 * random.even(), length: 18 + 14 * random.even() };
  const [atDrop, atEvents] = [40 + 8 * random.even(), 98 + 30 * random.even()];
  // Length and flat top give both distances; a top that is less than flat is no lobe.
  const unit: Flank = { fall, length: 1, flat: 0, ramp };
  const near = distanceAt(peak, unit, peak - CHECKING);
  const far = distanceAt(peak, unit, CHECKING);
  let length = (atEvents - atDrop) / (far - near);
  let flat = atDrop - length * near;
  if (flat < 0) {
    flat = 0;
    length = atDrop / near;
  }
  const [drop, events] = [flat + length * near, flat + length * far];
  const usual = 0.5 + random.normal(1.2);
  const lean = leans ?? usual;
  const by = lean / (events - drop);
  const longer = family === 'long closing ramp' ? 1.5 + random.even() : 1;
  return {
    family,
    peak,
    nose,
    opening: { fall, length: length * (1 - by), flat: flat * (1 - by), ramp },
    closing: {
      fall,
      length: length * (1 + by),
      flat: flat * (1 + by),
      ramp: { lift: ramp.lift * (longer > 1 ? 1.4 : 1), length: ramp.length * longer },
    },
  };
}
