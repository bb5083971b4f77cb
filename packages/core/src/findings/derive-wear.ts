import { VALVES, type Valve } from '../cam/card';
import { computedDegrees } from '../units/degrees';
import { type LengthUnit, formatComputedLength } from '../units/length';
import type { TrialFinding } from './derive-trial';

/** What has changed since an engine was measured before. */
export interface WearFinding {
  readonly what: 'lift' | 'phase';
  readonly valve: Valve | 'both';
  /** Numbers of the trials that are compared. */
  readonly before: number;
  readonly now: number;
  /** mm, or crank degrees of advance; and what the two measurements together cannot tell from nothing, 95 %. */
  readonly change: number;
  readonly expanded: number;
  readonly changed: boolean;
  readonly words: string;
}

/**
 * The lobes against their first measurement, and the cam's place against the trial before where nothing had been moved: worn, or the same within what both
 * measurements know.
 */
export function deriveWear(trials: readonly TrialFinding[], units: LengthUnit): WearFinding[] {
  return [...VALVES.flatMap((valve) => lifts(trials, valve, units)), ...phases(trials)];
}

function lifts(trials: readonly TrialFinding[], valve: Valve, units: LengthUnit): WearFinding[] {
  return (['lobe', 'valve'] as const).flatMap((at): WearFinding[] => {
    const key = `${at}-lift ${valve}`;
    const measured = trials.flatMap((trial) => {
      const view = trial.views.find((each) => each.key === key);
      return view ? [{ number: trial.number, value: view.value, expanded: view.expanded ?? 0 }] : [];
    });
    const [first, last] = [measured[0], measured.at(-1)];
    if (!first || !last || first === last) return [];
    const change = last.value - first.value;
    const expanded = Math.hypot(first.expanded, last.expanded);
    const changed = Math.abs(change) > expanded;
    const size = formatComputedLength(Math.abs(change), units);
    const within = `±${formatComputedLength(expanded, units)}`;
    const where = `${valve} ${at}`;
    return [
      {
        what: 'lift',
        valve,
        before: first.number,
        now: last.number,
        change,
        expanded,
        changed,
        words: !changed
          ? `The ${where} lifts what it did in trial ${first.number}, within ${within}: no wear to be seen.`
          : change < 0
            ? `The ${where} lifts ${size} less than in trial ${first.number} (${within}): worn. Look at lobe and lifter.`
            : `The ${where} lifts ${size} more than in trial ${first.number} (${within}): no lobe grows. Look at the indicator’s line.`,
      },
    ];
  });
}

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
    const name = cam === 'single' ? 'cam' : `${cam} cam`;
    const within = `±${computedDegrees(expanded)}`;
    return [
      {
        what: 'phase',
        valve: cam === 'single' ? 'both' : cam,
        before: before.number,
        now: now.number,
        change,
        expanded,
        changed,
        words: changed
          ? `The ${name} sits ${computedDegrees(Math.abs(change))} ${change < 0 ? 'later' : 'earlier'} than in trial ${before.number} (${within}), and nothing was moved: a stretched chain or belt, worn gears, or something slipped.`
          : `The ${name} sits where it did in trial ${before.number}, within ${within}.`,
      },
    ];
  });
}
