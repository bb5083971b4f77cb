import { VALVES, type Valve, noseAt } from '../cam/card';
import { type Firing, firingTdcs } from '../crank/firing';

/** One lobe of the camshaft, and where its peak comes: crank degrees after cylinder 1 stands at the TDC between exhaust and intake, in [0, 720). */
export interface LobePlace {
  readonly cylinder: number;
  readonly valve: Valve;
  readonly peak: number;
}

const CYCLE = 720;
/** Zeroed this far before a lobe begins its lift the indicator stands on the base circle for certain, crank degrees. Common practice, no source. */
const MARGIN = 20;
const cycle = (angle: number): number => ((angle % CYCLE) + CYCLE) % CYCLE;

/**
 * Every lobe of the engine, in the order in which their peaks come.
 * @param centrelines as printed: intake °ATDC, exhaust °BTDC.
 * @example lobePlaces({ order: [1, 3, 4, 2] }, { intake: 108, exhaust: 112 })[0] // cylinder 3, exhaust: its TDC at 180, its peak 112 before that, at 68
 */
export function lobePlaces(firing: Firing, centrelines: Readonly<Record<Valve, number>>): LobePlace[] {
  return firingTdcs(firing)
    .flatMap(({ cylinder, after }) =>
      VALVES.map((valve) => ({ cylinder, valve, peak: cycle(after + noseAt(valve, centrelines[valve])) })),
    )
    .sort((a, b) => a.peak - b.peak || a.cylinder - b.cylinder);
}

/** The lobe that is read next, and how far the crank has to be turned on to its peak. */
export interface NextLobe {
  readonly lobe: LobePlace;
  /** Crank degrees; null where nobody knows where the crank stands. */
  readonly turn: number | null;
}

/**
 * The lobe to read next so that the crank is turned least. An indicator that is put on a lobe has to find its base circle first: of those that rest
 * where the crank stands, the one whose peak comes soonest.
 * @param at where the crank stands, crank degrees as `LobePlace.peak`; null before the first reading.
 * @param half how far before its peak a lobe begins to lift, crank degrees.
 * @returns null where all are read.
 */
export function nextLobe(
  lobes: readonly LobePlace[],
  isRead: (lobe: LobePlace) => boolean,
  at: number | null,
  half: number,
): NextLobe | null {
  const left = lobes.filter((lobe) => !isRead(lobe));
  if (at === null) {
    const first = left.find(({ cylinder, valve }) => cylinder === 1 && valve === 'intake') ?? left[0];
    return first ? { lobe: first, turn: null } : null;
  }
  let best: { readonly lobe: LobePlace; readonly turn: number } | null = null;
  for (const lobe of left) {
    const ahead = cycle(lobe.peak - at);
    // It has begun to lift, or does before it could be zeroed: its peak is met a whole cycle later.
    const turn = ahead < half + MARGIN ? ahead + CYCLE : ahead;
    if (!best || turn < best.turn) best = { lobe, turn };
  }
  return best;
}
