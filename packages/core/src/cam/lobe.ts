import { type CrankDeg, crankDeg } from '../units/angle';

/**
 * A lobe, or the valve that it moves, as one smooth curve of lift over crank degrees. With u running from −1 (opens) to 1 (closes):
 * lift = peak·(1 − u²)^power, at nose + half·u + lean·u². So both flanks are closed forms either way round, the curve has no kink
 * anywhere, and the middle between the flanks drifts by lean·u² on the way down from the nose.
 * Source: our own construction; a `power` of about 3 comes near common lobes (from memory).
 */
export interface Lobe {
  /** Lift at the nose, mm. */
  readonly peak: number;
  /** Where the nose stands: cycle angle, crank degrees, 0 at overlap TDC. */
  readonly nose: number;
  /** Half of the whole duration, crank degrees. */
  readonly half: number;
  readonly power: number;
  /** How far the middle between the flanks has drifted at zero lift, crank degrees; less than `half`/2 either way. */
  readonly lean: number;
}

/** The same direction of a cycle in [−360, 360). `wrap720(370)` is −350. */
export function wrap720(angle: number): CrankDeg {
  const rest = (((angle + 360) % 720) + 720) % 720;
  return crankDeg(rest - 360);
}

/** Share u² of the way from the nose to the foot at which the lift has come down to `lift`. 0 at the nose, 1 at no lift. */
const shareAt = ({ peak, power }: Lobe, lift: number): number => 1 - (lift / peak) ** (1 / power);

/** Where the lobe stands at a lift, cycle angles, crank degrees; null where it never does. `flanksAt(lobe, peak)` are both the nose. */
export function flanksAt(lobe: Lobe, lift: number): { readonly opening: CrankDeg; readonly closing: CrankDeg } | null {
  if (!(lift >= 0 && lift <= lobe.peak)) return null;
  const share = shareAt(lobe, lift);
  const u = Math.sqrt(share);
  const middle = lobe.nose + lobe.lean * share;
  return { opening: crankDeg(middle - lobe.half * u), closing: crankDeg(middle + lobe.half * u) };
}

/** Crank degrees from opening to closing at a lift; null where the lobe never reaches it. */
export function durationAt(lobe: Lobe, lift: number): CrankDeg | null {
  const flanks = flanksAt(lobe, lift);
  return flanks && crankDeg(flanks.closing - flanks.opening);
}

/**
 * Lift, its slope and its curvature at a cycle angle: mm, mm per crank degree, mm per crank degree².
 * @example lobeAt({ peak: 8, nose: 108, half: 140, power: 3, lean: 0 }, 108) // { lift: 8, slope: 0, curvature: −0.00245 }
 */
export function lobeAt(
  lobe: Lobe,
  angle: number,
): { readonly lift: number; readonly slope: number; readonly curvature: number } {
  const { peak, nose, half, power, lean } = lobe;
  const from = wrap720(angle - nose);
  const inside = half * half + 4 * lean * from;
  if (inside <= 0) return AT_REST;
  const stretch = Math.sqrt(inside);
  const u = (2 * from) / (half + stretch);
  if (Math.abs(u) >= 1) return AT_REST;
  const left = 1 - u * u;
  const byU = -2 * power * peak * u * left ** (power - 1);
  const byUTwice =
    -2 * power * peak * left ** (power - 1) + 4 * power * (power - 1) * peak * u * u * left ** (power - 2);
  return {
    lift: peak * left ** power,
    slope: byU / stretch,
    curvature: (byUTwice * stretch - byU * 2 * lean) / stretch ** 3,
  };
}

const AT_REST = { lift: 0, slope: 0, curvature: 0 } as const;

/** The same lobe on a cam that has been turned: a positive advance brings it earlier. */
export const advanced = (lobe: Lobe, advance: number): Lobe => ({ ...lobe, nose: lobe.nose - advance });

/**
 * What lies between the curve and no lift, mm·crank degrees. The lean adds as much on one side as it takes from the other.
 * ∫(1−u²)^p du over [−1, 1] by Simpson's rule.
 */
export function areaUnder({ peak, half, power }: Lobe): number {
  const steps = 200;
  let sum = 0;
  for (let i = 0; i <= steps; i += 1) {
    const u = i / steps;
    sum += (i === 0 || i === steps ? 1 : i % 2 ? 4 : 2) * (1 - u * u) ** power;
  }
  return (2 * peak * half * sum) / (3 * steps);
}
