import { type CrankDeg, crankDeg, wrap180 } from '../units/angle';
import { type Millimetres, millimetres } from '../units/length';

/**
 * The crank train of one cylinder. Lengths in millimetres.
 * `pinOffset` is positive toward the side to which the crankpin moves after TDC, so the usual thrust-side offset is negative.
 */
export interface SliderCrank {
  readonly stroke: number;
  readonly rod: number;
  readonly pinOffset?: number;
}

interface Solved {
  readonly radius: number;
  readonly rod: number;
  readonly offset: number;
  /** Pin height above the crank centre with the piston highest. */
  readonly highest: number;
  /** Crank's own angle with the piston highest, radians from crankpin straight up. */
  readonly tdc: number;
}

const RAD = Math.PI / 180;

/** What is wrong with a crank train, in a builder's words, or null when the crank can turn. */
export function crankTrouble({ stroke, rod, pinOffset = 0 }: SliderCrank): string | null {
  if (!(stroke > 0)) return 'The stroke must be more than 0.';
  if (!(rod > stroke / 2)) return 'The rod must be longer than half the stroke, or the crank cannot turn.';
  if (!(Math.abs(pinOffset) < rod - stroke / 2)) return 'That pin offset leaves the crank no room to turn.';
  return null;
}

/**
 * Crank radius from the measured stroke: with a pin offset the stroke is not exactly twice the radius.
 * From S = √((r+L)²−e²) − √((L−r)²−e²), solved for r. Derived here; without offset it is S/2.
 */
function solve(engine: SliderCrank): Solved {
  const trouble = crankTrouble(engine);
  if (trouble) throw new RangeError(trouble);
  const { stroke: s, rod, pinOffset: offset = 0 } = engine;
  const radius = (s / 2) * Math.sqrt((4 * (rod ** 2 - offset ** 2) - s ** 2) / (4 * rod ** 2 - s ** 2));
  const highest = Math.sqrt((radius + rod) ** 2 - offset ** 2);
  return { radius, rod, offset, highest, tdc: Math.asin(offset / (radius + rod)) };
}

/**
 * How far the piston stands below its highest point.
 * @param engine crank train, millimetres. Throws RangeError when it could not turn (see `crankTrouble`).
 * @param fromTdc crank degrees after piston-highest (negative before).
 * @returns millimetres, 0 at TDC.
 * Source: slider-crank with offset, e.g. J. B. Heywood, Internal Combustion Engine Fundamentals, ch. 2.
 * @example pistonDrop({ stroke: 84, rod: 146 }, 14) // 1.602 mm
 */
export function pistonDrop(engine: SliderCrank, fromTdc: number): Millimetres {
  const { radius, rod, offset, highest, tdc } = solve(engine);
  const theta = fromTdc * RAD + tdc;
  const side = radius * Math.sin(theta) - offset;
  return millimetres(highest - (radius * Math.cos(theta) + Math.sqrt(rod ** 2 - side ** 2)));
}

/**
 * The two crank angles at which the piston stands a given distance below its highest point.
 * @param drop millimetres, 0 to the stroke; outside that the result is null.
 * @returns crank degrees from piston-highest, `before` ≤ 0 ≤ `after`. Without pin offset they are equal and opposite.
 * Closed form: 2r(p·cosθ + e·sinθ) = p² + r² + e² − L², p being the pin height (from the same slider-crank).
 * @example crankAngleAtDrop({ stroke: 84, rod: 146 }, 1.5)?.after // 13.55
 */
export function crankAngleAtDrop(
  engine: SliderCrank,
  drop: number,
): { readonly before: CrankDeg; readonly after: CrankDeg } | null {
  if (!(drop >= 0 && drop <= engine.stroke)) return null;
  const { radius, rod, offset, highest, tdc } = solve(engine);
  const height = highest - drop;
  const lean = Math.atan2(offset, height);
  const cosine = (height ** 2 + radius ** 2 + offset ** 2 - rod ** 2) / (2 * radius * Math.hypot(height, offset));
  const spread = Math.acos(Math.min(1, Math.max(-1, cosine)));
  const relative = (theta: number): number => wrap180((theta - tdc) / RAD);
  // At the very bottom both angles are 180°; keep each on its own side.
  const after = relative(lean + spread);
  return { before: crankDeg(relative(lean - spread)), after: crankDeg(after < 0 ? after + 360 : after) };
}

/**
 * Two equal heights seen from their half-way: with a pin offset the middle between them is not quite TDC.
 * @param half half of the crank's way from one to the other over the top, crank degrees, 0 to 180.
 * @returns `middle`: where the middle lies, crank degrees after piston-highest; `drop`: how far below the top they are, mm.
 * Closed form: the pin stands q = r·cos(half) + √(L² − r²·sin²(half)) from the crank centre (same slider-crank).
 * @example equalHeights({ stroke: 84, rod: 146 }, 14).drop // 1.602
 */
export function equalHeights(
  engine: SliderCrank,
  half: number,
): { readonly middle: CrankDeg; readonly drop: Millimetres } {
  const { radius, rod, offset, highest, tdc } = solve(engine);
  const q = radius * Math.cos(half * RAD) + Math.sqrt(rod ** 2 - (radius * Math.sin(half * RAD)) ** 2);
  const height = Math.sqrt(q ** 2 - offset ** 2);
  return {
    middle: crankDeg((Math.atan2(offset, height) - tdc) / RAD),
    drop: millimetres(highest - height),
  };
}

/** Where the parts of a crank train stand, from the crank centre: `side` toward where the crankpin moves after TDC, `height` up. Lengths mm. */
export interface CrankTrainPlaces {
  /** The crank’s own angle, degrees from straight up. */
  readonly crank: number;
  readonly pin: { readonly side: number; readonly height: number };
  readonly piston: { readonly side: number; readonly height: number };
  /** How far the rod leans from upright toward `side`, degrees. */
  readonly rodLean: number;
}

/**
 * All of a crank train at a place, to draw it. The piston stands `pistonDrop` below its highest there (same slider-crank).
 * @example crankTrainAt({ stroke: 80, rod: 120 }, 90).pin // 40 to the side, 0 up
 */
export function crankTrainAt(engine: SliderCrank, fromTdc: number): CrankTrainPlaces {
  const { radius, rod, offset, tdc } = solve(engine);
  const theta = fromTdc * RAD + tdc;
  const pin = { side: radius * Math.sin(theta), height: radius * Math.cos(theta) };
  const up = Math.sqrt(rod ** 2 - (pin.side - offset) ** 2);
  return {
    crank: theta / RAD,
    pin,
    piston: { side: offset, height: pin.height + up },
    rodLean: Math.atan2(offset - pin.side, up) / RAD,
  };
}

/** How fast the piston falls there: millimetres per crank degree, by the exact derivative. `pistonSlope(engine, 0)` is 0. */
export function pistonSlope(engine: SliderCrank, fromTdc: number): number {
  const { radius, rod, offset, tdc } = solve(engine);
  const theta = fromTdc * RAD + tdc;
  const side = radius * Math.sin(theta) - offset;
  const perRadian = radius * Math.sin(theta) + (side * radius * Math.cos(theta)) / Math.sqrt(rod ** 2 - side ** 2);
  return perRadian * RAD;
}

/**
 * Half the crank's way through which an indicator of this resolution sees no movement at the top, crank degrees:
 * w = √(2·resolution / (r·(1 + r/L))) rad, from y ≈ (r/2)(1 + r/L)θ² near the top. Without resolution it is 0.
 * @example dwellHalf({ stroke: 84, rod: 146 }, 0.0127) // 1.24 (0.0005 in)
 */
export function dwellHalf({ stroke, rod }: SliderCrank, resolution: number): CrankDeg {
  const radius = stroke / 2;
  return crankDeg(Math.sqrt((2 * resolution) / (radius * (1 + radius / rod))) / RAD);
}

/** How far the crank’s own zero (crankpin straight up) lies from piston-highest, crank degrees. 0 without pin offset. */
export const crankZeroShift = (engine: SliderCrank): CrankDeg => crankDeg(solve(engine).tdc / RAD);
