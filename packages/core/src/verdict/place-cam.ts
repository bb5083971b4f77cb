import { type Valve, noseAt } from '../cam/card';
import { centreOf } from './centre-means';
import type { ErrorSource } from '../statistics/coverage';
import { gainsOf, times } from '../statistics/least-squares';
import { LEAN } from './unknowns';
import type { Weighing } from './weigh';

/** Where a cam sits against its target, and what that rests on. Crank degrees. */
export interface Placed {
  readonly delta: number;
  readonly sources: readonly ErrorSource[];
  /** Share of each view, by its key; together 1. */
  readonly weights: ReadonlyMap<string, number>;
  /** What each value moves it by: for each block of `found`. */
  readonly gains: readonly (readonly number[])[];
  /** The combination of the unknowns that δ is. */
  readonly wanted: Float64Array;
  /** Standard uncertainties that come in beside the weighing, crank degrees. */
  readonly beside: readonly number[];
}

/** How far ahead of its card a cam sits, whatever its target: crank degrees; 0 where nothing was read of it. */
export function advanceOf({ layout, guess, solved }: Weighing, cam: Valve): number {
  const { advance } = layout.of[cam];
  return advance < 0 ? 0 : (guess[advance] ?? 0) + (solved.unknowns[advance] ?? 0);
}

/**
 * How far ahead of its target a cam sits, out of a weighing: δ = advance − how far it shall be ahead; where a centreline of the builder's own is wanted,
 * δ = that centreline − (the nose − advance).
 * @param cam the valve whose cam it is; either for a single cam.
 * @returns null where nothing says where it sits, or where it should.
 */
export function placeOf(weighing: Weighing, cam: Valve): Placed | null {
  const { evidence, layout, guess, solved, found, card } = weighing;
  const size = layout.unknowns.length;
  const advance = layout.of[cam].advance;
  const placing = found.some(({ observations }) => {
    const first = observations[0]?.[0];
    return first && first.kind !== 'peak-lift' && layout.of[first.valve].advance === advance;
  });
  if (advance < 0 || !placing) return null;
  // A single cam is aimed by its intake, whichever valve was read.
  const aimed = evidence.cams === 'single' ? 'intake' : cam;
  const [own, ahead] = [evidence.centreline[aimed], evidence.ahead[aimed]];
  const wanted = new Float64Array(size);
  wanted[advance] = 1;
  const after = (at: number): number => (guess[at] ?? 0) + (solved.unknowns[at] ?? 0);
  const { nose, lean } = layout.of[aimed];
  let delta = after(advance);
  const sources: ErrorSource[] = [];
  const beside: number[] = [];
  if (own !== null && nose >= 0) {
    // Who wants a centreline counts it as his card does, where that is known; else as he measures.
    const printed = evidence.card.find((fact) => fact.of === 'centre' && fact.valve === aimed);
    const means = printed?.of === 'centre' ? printed.means : 'unsaid';
    const like =
      means === 'unsaid' ? 'wanted' : means === 'as-events' && layout.schools[aimed].ofCam.events ? 'events' : means;
    const leanStandard = lean < 0 ? 0 : Math.sqrt(solved.covariance[lean * size + lean] ?? 0);
    const counted = centreOf(evidence, layout, guess, aimed, like, leanStandard);
    wanted[nose] = -1;
    delta += noseAt(aimed, own) - after(nose);
    if (lean >= 0) {
      wanted[lean] = -counted.byLean;
      delta -= counted.byLean * after(lean);
    }
    if (counted.standard > 0) sources.push({ from: LEAN, standard: counted.standard, rectangular: false });
    beside.push(counted.standard);
  } else if (ahead !== null) delta -= ahead;
  else return null;

  const towards = times(solved.covariance, wanted, size);
  const weights = new Map<string, number>();
  const gains = found.map((each) => {
    const gain = gainsOf(each.block, towards);
    for (const { from, standard, rectangular, place } of each.own)
      sources.push({ from, standard: Math.abs(gain[place] ?? 0) * standard, rectangular });
    if (each.shared) {
      const common = each.shared.reduce((sum, by, place) => sum + by * (gain[place] ?? 0), 0);
      sources.push({
        from: each.own.some(({ from }) => from === 'repeats') ? 'repeats' : 'the indicator',
        standard: Math.abs(common),
        rectangular: each.observations.every(({ length }) => length === 1),
      });
    }
    each.observations.forEach((members, place) => {
      const [first] = members;
      const share = (gain[place] ?? 0) * (each.predicted[place]?.row[advance] ?? 0);
      if (first) weights.set(first.view, (weights.get(first.view) ?? 0) + share);
    });
    return gain;
  });
  for (const { block, rounding, open } of card) {
    const [gain = 0] = gainsOf(block, towards);
    sources.push({ from: 'the card’s rounding', standard: Math.abs(gain) * rounding, rectangular: true });
    sources.push({ from: LEAN, standard: Math.abs(gain) * open, rectangular: false });
  }
  layout.unknowns.forEach(({ standard, from }, at) => {
    sources.push({ from, standard: Math.abs(towards[at] ?? 0) / Math.max(standard, 1e-4), rectangular: false });
  });
  // The rest is arithmetic: a thousandth of a degree is nothing that anybody reads.
  return { delta: Math.round(delta * 1e3) / 1e3 + 0, sources, weights, gains, wanted, beside };
}
