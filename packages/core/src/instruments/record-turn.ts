/** What a slow turn by hand has brought. Angles in crank degrees growing as the engine runs, lifts in mm. */
export interface RecordedTurn {
  /** One for each half degree that was passed: means of the samples there. */
  readonly points: readonly [angle: number, lift: number][];
  readonly samples: number;
  /** From the first to the last, crank degrees. */
  readonly sweep: number;
  /** The widest step without a sample: turned too fast there, or lines were lost. Crank degrees. */
  readonly widest: number;
  /** How often it was turned back. */
  readonly reversals: number;
  /** It stands behind the farthest: turned back, and not come forward again yet. */
  readonly back: boolean;
}

/** Points of a trace lie half a degree apart: finer says no more of a lobe. From memory. */
const STEP = 0.5;
/** Two turns and some: more says nothing new. */
const MOST_STEPS = 1_500;
/** Less than this backwards is noise, degrees. */
const TREMBLE = 0.4;

/**
 * Records a turn, sample by sample, in a memory that does not grow with their number. Only what lies farther than everything before counts:
 * whoever turns back and comes forward again has the slack in the timing drive taken up by the time he is where he was.
 */
export function recordTurn() {
  const steps = new Map<number, { count: number; angle: number; lift: number }>();
  let farthest: number | null = null;
  let back = false;
  let reversals = 0;
  return {
    add: (angle: number, lift: number): void => {
      if (farthest !== null && angle <= farthest) {
        if (!back && angle < farthest - TREMBLE) {
          back = true;
          reversals += 1;
        }
        return;
      }
      const key = Math.floor(angle / STEP);
      const step = steps.get(key) ?? { count: 0, angle: 0, lift: 0 };
      if (step.count === 0 && steps.size >= MOST_STEPS) return;
      step.count += 1;
      step.angle += angle;
      step.lift += lift;
      steps.set(key, step);
      farthest = angle;
      back = false;
    },
    result: (): RecordedTurn => {
      const points = [...steps.values()]
        .map(({ count, angle, lift }): [number, number] => [angle / count, lift / count])
        .sort(([a], [b]) => a - b);
      const gaps = points.slice(1).map(([angle], at) => angle - (points[at]?.[0] ?? angle));
      return {
        points,
        samples: [...steps.values()].reduce((sum, { count }) => sum + count, 0),
        sweep: (points.at(-1)?.[0] ?? 0) - (points[0]?.[0] ?? 0),
        widest: Math.max(0, ...gaps),
        reversals,
        back,
      };
    },
  };
}

export type TurnRecorder = ReturnType<typeof recordTurn>;
