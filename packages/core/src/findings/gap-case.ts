import type { Valve } from '../cam/card';
import { type GapCase, gapCaseOf } from './derive-clearance';
import { cardOf, deriveTrials } from './derive-trial';
import type { Entry } from '../record/entry';
import { fold } from '../record/fold';

/**
 * Everything that sweeping the gap of a valve needs, out of a logbook.
 * @returns null where something is missing for it; the Report says what.
 */
export function gapCase(entries: readonly Entry[], valve: Valve): GapCase | null {
  const build = fold(entries);
  if (!build) return null;
  const card = cardOf(build);
  const found = gapCaseOf(build, deriveTrials(build, card), card, valve);
  return found.ok ? found.found : null;
}
