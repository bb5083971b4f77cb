import { VALVES, type Valve } from '../cam/card';
import { NORMAL_95 } from '../statistics/normal';
import { BASE_ZERO } from '../verdict/unknowns';
import type { TrialFinding } from './derive-trial';

/** What has changed since an engine was measured before. */
export interface WearFinding {
  readonly what: 'lift' | 'phase';
  readonly valve: Valve | 'both';
  /** Of a lobe beside those that the cam is measured at; null for those. */
  readonly cylinder: number | null;
  /** Numbers of the trials that are compared. */
  readonly before: number;
  readonly now: number;
  /** mm, or crank degrees of advance; and what the two measurements together cannot tell from nothing, 95 %. */
  readonly change: number;
  readonly expanded: number;
  readonly changed: boolean;
  /** Where the lift was taken; null for the cam's place. */
  readonly at: 'lobe' | 'valve' | null;
}

/**
 * The lobes against their first measurement, and the cam's place against the trial before where nothing had been moved: worn, or the same within what both
 * measurements know.
 */
export function deriveWear(trials: readonly TrialFinding[]): WearFinding[] {
  return [...VALVES.flatMap((valve) => [...lifts(trials, valve), ...otherLobes(trials, valve)]), ...phases(trials)];
}

function lifts(trials: readonly TrialFinding[], valve: Valve): WearFinding[] {
  return (['lobe', 'valve'] as const).flatMap((at): WearFinding[] => {
    const key = `${at}-lift ${valve}`;
    const measured = trials.flatMap((trial) => {
      const view = trial.views.find((each) => each.key === key);
      return view ? [{ number: trial.number, value: view.value, expanded: view.expanded ?? 0 }] : [];
    });
    return compare(measured, { what: 'lift', valve, cylinder: null, at });
  });
}

type OfLobe = Pick<WearFinding, 'what' | 'valve' | 'cylinder' | 'at'>;

interface Measured {
  readonly number: number;
  readonly value: number;
  readonly expanded: number;
}

/** The last measurement against the first. */
function compare(measured: readonly Measured[], of: OfLobe): WearFinding[] {
  const [first, last] = [measured[0], measured.at(-1)];
  if (!first || !last || first === last) return [];
  const change = last.value - first.value;
  const expanded = Math.hypot(first.expanded, last.expanded);
  return [{ ...of, before: first.number, now: last.number, change, expanded, changed: Math.abs(change) > expanded }];
}

/** Lobes of the other cylinders, where every lobe was read. */
function otherLobes(trials: readonly TrialFinding[], valve: Valve): WearFinding[] {
  const found = new Map<string, { of: OfLobe; all: Measured[] }>();
  for (const { lobes, number, cylinder: own } of trials)
    for (const { valve: kind, at, rows } of lobes) {
      if (kind !== valve) continue;
      for (const { cylinder, lift } of rows) {
        if (lift === null || cylinder === own) continue;
        const key = `${at} ${cylinder}`;
        const known = found.get(key) ?? { of: { what: 'lift', valve, cylinder, at }, all: [] };
        found.set(key, known);
        known.all.push({ number, value: lift.value, expanded: LIFT_READS / Math.sqrt(lift.count) });
      }
    }
  return [...found.values()].flatMap(({ of, all }) => compare(all, of));
}

/** What one lift read from the base circle can miss, mm, 95 %. */
const LIFT_READS = NORMAL_95 * BASE_ZERO * Math.SQRT2;

function phases(trials: readonly TrialFinding[]): WearFinding[] {
  const [before, now] = trials.slice(-2);
  if (!before || !now || now.why !== 'checked') return [];
  return now.decision.cams.flatMap(({ cam, bank, verdict }): WearFinding[] => {
    const then = before.decision.cams.find((each) => each.cam === cam && each.bank === bank)?.verdict;
    if (!then) return [];
    const change = verdict.delta - then.delta;
    // The card's rounding is in both and cancels; taken in, it makes the comparison somewhat cautious.
    const expanded = Math.hypot(verdict.expanded, then.expanded);
    const changed = Math.abs(change) > expanded;
    return [
      {
        what: 'phase',
        valve: cam === 'single' ? 'both' : cam,
        cylinder: null,
        before: before.number,
        now: now.number,
        change,
        expanded,
        changed,
        at: null,
      },
    ];
  });
}
