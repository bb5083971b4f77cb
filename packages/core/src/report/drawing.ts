import type { Valve } from '../cam/card';
import { expandedOf } from '../statistics/coverage';
import { type DrawingCase, drawingCase } from '../verdict/monte-carlo';
import { placeOf } from '../verdict/place-cam';
import { weigh } from '../verdict/weigh';
import { cardOf, deriveTrials } from '../findings/derive-trial';
import { leadOf } from '../findings/derive-verdict';
import type { Entry } from '../record/entry';
import { fold } from '../record/fold';

/**
 * The errors of a trial's verdict, to be drawn one by one (JCGM 101): all of its readings together, whatever the shop's rule.
 * @param trial id of the trial.
 * @param cam the valve whose cam it is; either for a single cam.
 * @returns null where there is no such trial, or nothing in it says where the cam sits.
 */
export function drawingOf(entries: readonly Entry[], trial: string, cam: Valve, bank: 1 | 2 = 1): DrawingCase | null {
  const build = fold(entries);
  if (!build) return null;
  const finding = deriveTrials(build, cardOf(build)).find(({ id }) => id === trial);
  const evidence = finding?.banks.find((each) => each.bank === bank)?.evidence;
  const weighing = evidence && weigh(evidence);
  const lead = weighing?.evidence.cams === 'single' ? leadOf(weighing) : cam;
  const placed = weighing && placeOf(weighing, lead);
  return placed ? drawingCase(weighing, placed, expandedOf(placed.sources)) : null;
}
