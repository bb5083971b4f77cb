import { computedDegrees } from '../units/degrees';
import { type LengthUnit, formatComputedLength } from '../units/length';
import type { WearFinding } from '../findings/derive-wear';
import type { Report } from './report-schema';

/** What has changed since the engine was measured before, as the Report has it. */
export const reportWear = (wear: readonly WearFinding[], units: LengthUnit): Report['wear'] =>
  wear.map(({ at, ...found }) => ({ ...found, words: at === null ? phaseWords(found) : liftWords(found, at, units) }));

type Found = Omit<WearFinding, 'at'>;

function liftWords(
  { valve, cylinder, change, expanded, changed, before }: Found,
  at: 'lobe' | 'valve',
  units: LengthUnit,
): string {
  const size = formatComputedLength(Math.abs(change), units);
  const within = `±${formatComputedLength(expanded, units)}`;
  const where = `${valve} ${at}${cylinder === null ? '' : ` of cylinder ${cylinder}`}`;
  if (!changed) return `The ${where} lifts what it did in trial ${before}, within ${within}: no wear to be seen.`;
  return change < 0
    ? `The ${where} lifts ${size} less than in trial ${before} (${within}): worn. Look at lobe and lifter.`
    : `The ${where} lifts ${size} more than in trial ${before} (${within}): no lobe grows. Look at the indicator’s line.`;
}

function phaseWords({ valve, change, expanded, changed, before }: Found): string {
  const name = valve === 'both' ? 'cam' : `${valve} cam`;
  const within = `±${computedDegrees(expanded)}`;
  return changed
    ? `The ${name} sits ${computedDegrees(Math.abs(change))} ${change < 0 ? 'later, retarded,' : 'earlier, advanced,'} than in trial ${before} (${within}), and nothing was moved: a stretched chain or belt, worn gears, or something slipped.`
    : `The ${name} sits where it did in trial ${before}, within ${within}.`;
}
