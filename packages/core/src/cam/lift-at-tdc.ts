import type { LiftAtTdc, Valve } from './card';

export interface LiftTarget {
  /** Lift at overlap TDC that the centreline means, mm. */
  readonly lift: number;
  /** Lift gained per crank degree of advance, mm: positive for the intake, negative for the exhaust. */
  readonly perAdvance: number;
  /** Outside what the card prints by more than half of its span. */
  readonly extrapolated: boolean;
}

/**
 * The lift at overlap TDC for a centreline, straight through what the card prints for two or more.
 * @param printed lifts by centreline (intake °ATDC, exhaust °BTDC); at least two different centrelines.
 * @returns null where the card prints fewer.
 * @example liftForCentreline('intake', [{ centreline: 104, lift: 2.6 }, { centreline: 108, lift: 2.24 }], 105)
 *   // lift 2.51, 0.09 mm per degree
 * Source: common practice, no source.
 */
export function liftForCentreline(valve: Valve, printed: readonly LiftAtTdc[], centreline: number): LiftTarget | null {
  const sorted = [...printed].sort((a, b) => a.centreline - b.centreline);
  const [lowest, highest] = [sorted[0], sorted.at(-1)];
  if (!lowest || !highest || lowest.centreline === highest.centreline) return null;
  const above = Math.max(
    1,
    sorted.findIndex((each) => each.centreline >= centreline),
  );
  const [from, to] =
    centreline > highest.centreline
      ? [sorted.at(-2) ?? lowest, highest]
      : [sorted[above - 1] ?? lowest, sorted[above] ?? highest];
  const perCentreline = (to.lift - from.lift) / (to.centreline - from.centreline);
  const span = highest.centreline - lowest.centreline;
  return {
    lift: from.lift + perCentreline * (centreline - from.centreline),
    perAdvance: valve === 'intake' ? -perCentreline : perCentreline,
    extrapolated: centreline < lowest.centreline - span / 2 || centreline > highest.centreline + span / 2,
  };
}

/** The two printed lifts that hold a lift, or that lie nearest to it on one side; null where fewer than two different ones are printed. */
export function printedAbout(
  printed: readonly LiftAtTdc[],
  lift: number,
): readonly [lower: LiftAtTdc, higher: LiftAtTdc] | null {
  const sorted = [...printed].sort((a, b) => a.lift - b.lift);
  const above = sorted.findIndex((each) => each.lift >= lift);
  const to = above === -1 ? sorted.length - 1 : Math.max(1, above);
  const [a, b] = [sorted[to - 1], sorted[to]];
  return a && b && a.lift !== b.lift ? [a, b] : null;
}

/**
 * The centreline that a lift at overlap TDC means, as printed: between the two printed lifts that hold it, else on from the nearest two.
 * @returns null where fewer than two different lifts are printed.
 * @example centrelineForLift([{ centreline: 104, lift: 2.6 }, { centreline: 108, lift: 2.24 }], 2.51) // 105
 */
export function centrelineForLift(printed: readonly LiftAtTdc[], lift: number): number | null {
  const about = printedAbout(printed, lift);
  if (!about) return null;
  const [a, b] = about;
  return a.centreline + ((lift - a.lift) / (b.lift - a.lift)) * (b.centreline - a.centreline);
}
