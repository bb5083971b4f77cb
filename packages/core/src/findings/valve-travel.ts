import type { Valve } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import type { Lobe } from '../cam/lobe';
import type { ThroughTheLift, TracedLobe } from '../clearance/valve-to-piston';
import type { Build } from '../record/fold';
import { judgeTrial } from '../valve-train/pushrod-trials';
import type { TrialFinding } from './derive-trial';
import { lashHere } from './lash-here';
import { lobeLiftHere } from './measured-lobe';
import { statedRatio } from './stated-ratio';
import { likenessNose, wholeTrace } from './whole-trace';

/** How a valve follows its lobe on this engine. Lengths mm. */
export interface ValveTravel {
  /** Valve travel for each 1 of lobe; where it was traced, that at full lift. */
  readonly ratio: number;
  readonly lash: number;
  /** Lift of the lobe and of the valve with it, from none to full, where both were traced; the lash that was set then is in it. */
  readonly through: ThroughTheLift | null;
  /** traces: lobe and valve both traced. lift: a lift measured at the valve at zero lash. stated: engine, card, or a cam on the valve itself. */
  readonly from: 'traces' | 'lift' | 'stated';
  readonly stated: number | null;
}

/** A measured ratio that is further from the stated one belongs to another rocker, or was misread: it is not reckoned with. From memory. */
const SAME_ROCKER = 0.1;

/**
 * How the valve really follows its lobe: from traces of both, else from a lift measured at the valve at zero lash in a pushrod trial that
 * was good, else as stated.
 * @returns null where nobody says and nothing was measured: taken for 1, a valve with a rocker would open less than it does.
 */
export function valveTravel(
  build: Build,
  trials: readonly TrialFinding[],
  card: CompletedCard,
  valve: Valve,
): ValveTravel | null {
  const stated = statedRatio(build, card, valve);
  const lash = lashHere(build, valve);
  const isLikely = (ratio: number): boolean => stated === null || Math.abs(ratio / stated - 1) <= SAME_ROCKER;
  const through = tracedThrough(trials, valve);
  const full = through?.at(-1);
  if (through && full && isLikely((full[1] + lash) / full[0]))
    return { ratio: (full[1] + lash) / full[0], lash, through, from: 'traces', stated };
  const lifted = liftedRatio(build, trials, card, valve, stated);
  if (lifted !== null && isLikely(lifted)) return { ratio: lifted, lash, through: null, from: 'lift', stated };
  return stated === null ? null : { ratio: stated, lash, through: null, from: 'stated', stated };
}

/** How finely a traced lobe is handed on, and how far from its nose: crank degrees. */
const STEP = 1;
const FURTHEST = 190;

/**
 * The lift of a lobe as it was traced, about the nose of its likeness; null where it was not traced. Between the heights that a likeness was
 * put through it may be off by more than a tenth of a millimetre.
 * @param now the likeness where it stands now.
 */
export function tracedLobe(
  build: Build,
  trials: readonly TrialFinding[],
  card: CompletedCard,
  valve: Valve,
  now: Lobe,
): TracedLobe | null {
  const found = wholeTrace(trials, valve, false);
  if (!found) return null;
  const { curve } = found;
  const nose = likenessNose(found, build, trials, card, valve, now);
  if (nose === null) return null;
  const lifts = Array.from({ length: (2 * FURTHEST) / STEP + 1 }, (_, i) =>
    Math.max(0, curve.lift(nose - FURTHEST + i * STEP)),
  );
  return { from: -FURTHEST, step: STEP, lifts };
}

/** Heights of a lobe at which both traces are laid side by side, shares of its lift. */
const SHARES = [0.05, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 0.95] as const;

/** Lifts of lobe and valve side by side, laid over one another at their noses: the mean of both flanks, so that a flank that lags does not count. */
function tracedThrough(trials: readonly TrialFinding[], valve: Valve): ThroughTheLift | null {
  const [lobe, atValve] = [wholeTrace(trials, valve, false)?.curve, wholeTrace(trials, valve, true)?.curve];
  if (!lobe || !atValve) return null;
  const moved = atValve.nose - lobe.nose;
  const points = SHARES.flatMap((share): (readonly [number, number])[] => {
    const flanks = lobe.flanks(share * lobe.peak);
    if (!flanks) return [];
    const at = [flanks.opening.angle, flanks.closing.angle].map((angle) => Math.max(0, atValve.lift(angle + moved)));
    return [[share * lobe.peak, ((at[0] ?? 0) + (at[1] ?? 0)) / 2]];
  });
  const rising = points.filter(([, lift], i) => i === 0 || lift > (points[i - 1]?.[1] ?? 0));
  return [[0, 0], ...rising, [lobe.peak, atValve.peak]];
}

/** Of a pushrod trial that was good: what the valve lifted at zero lash, for the lift of its lobe. */
function liftedRatio(
  { rockers, rockerTrials }: Build,
  trials: readonly TrialFinding[],
  card: CompletedCard,
  valve: Valve,
  stated: number | null,
): number | null {
  const arm = rockers?.body.arm;
  if (arm === undefined || stated === null) return null;
  const lobe = lobeLiftHere(trials, card, valve);
  if (lobe === null) return null;
  const rocker = { arm, ratio: stated, lift: lobe * stated };
  const good = rockerTrials.findLast(({ body }) => {
    const { pattern = null, seen = null, offset = null, lift = null, length } = body;
    const told = { offset, tip: rockers?.body.tip ?? null, lift };
    return body.valve === valve && lift !== null && judgeTrial(rocker, { length, pattern, seen }, told) !== 'not-yet';
  });
  return good?.body.lift === undefined ? null : good.body.lift / lobe;
}
