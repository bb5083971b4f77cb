import { type SliderCrank, crankAngleAtDrop, dwellHalf } from '../crank/slider-crank';
import { type WheelReading, type WheelRing, readingAt } from '../crank/wheel';
import type { TdcSide } from '../tdc/zero-methods';
import type { Random } from '../statistics/random';

/** An engine that does not exist, whose truth is known: the ground truth of the checks. Lengths mm, angles crank degrees. */
export interface VirtualBottomEnd {
  readonly crank: SliderCrank;
  /** How it was measured: the ring, and the ring position that stands under the pointer at true TDC. */
  readonly ring: WheelRing;
  readonly mount: number;
}

/** How the measuring errs. All 0: not at all. */
export interface Errors {
  /** The wheel is read to whole steps, crank degrees. */
  readonly step: number;
  /** Standard deviation of the eye at the pointer, crank degrees, anew at each reading. */
  readonly eye?: number;
  /** The eye looks past the pointer by this much, crank degrees, the same in every reading. */
  readonly parallax: number;
  /** Standard deviation of the piston's height at a reading, mm. */
  readonly feel: number;
  /** The indicator shows whole steps of this, mm. */
  readonly resolution: number;
  /** The indicator leans by this, degrees: it shows its travel times the cosine. */
  readonly tilt: number;
}

export const NO_ERRORS: Errors = { step: 0, parallax: 0, feel: 0, resolution: 0, tilt: 0 };

const toStep = (value: number, step: number): number => (step > 0 ? Math.round(value / step) * step : value);

export function makeBottomEnd({ crank, ring, mount }: VirtualBottomEnd, errors: Errors, random: Random) {
  const look = (fromTdc: number): WheelReading =>
    readingAt(ring, toStep(mount + fromTdc + errors.parallax + random.normal(errors.eye ?? 0), errors.step));
  const angleAt = (drop: number, side: TdcSide): number => {
    const at = crankAngleAtDrop(crank, drop);
    if (!at) throw new RangeError('the piston does not go that far down');
    return at[side];
  };
  return {
    /** What the wheel shows where a stop holds the piston `depth` below the top. */
    atStop: (depth: number, side: TdcSide): WheelReading => look(angleAt(depth + random.normal(errors.feel), side)),
    /** What the wheel shows where the indicator first shows `shown`, of a travel that it sees leaning and in steps. */
    atShown: (shown: number, side: TdcSide): WheelReading => {
      const travel = shown + random.within(errors.resolution / 2);
      const drop = travel / Math.cos((errors.tilt * Math.PI) / 180) + random.normal(errors.feel);
      return look(angleAt(drop, side));
    },
    /** What the wheel shows where the indicator just stops moving on the way up: its last step falls anywhere in its resolution. */
    atFirstStop: (): WheelReading => look(-dwellHalf(crank, errors.resolution) * Math.sqrt(random.even())),
  };
}
