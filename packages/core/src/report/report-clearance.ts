import { FURTHEST_SWEPT } from '../clearance/valve-to-piston';
import { atLeastDegrees, atMostDegrees, computedDegrees } from '../units/degrees';
import { type LengthUnit, formatComputedLength } from '../units/length';
import type { ClearanceFinding } from '../findings/derive-clearance';
import type { Report } from './report-schema';

/** Valve to piston as the Report has it. */
export const reportClearance = (found: readonly ClearanceFinding[], units: LengthUnit): Report['clearance']['valves'] =>
  found.map((each) => ({ ...each, gaps: [...each.gaps], words: clearanceWords(each, units) }));

function clearanceWords({ state, problem, tightest, minimum, room }: ClearanceFinding, units: LengthUnit): string {
  if (problem) return `${problem.message} ${problem.remedy}`;
  if (!tightest) return '';
  const size = formatComputedLength(tightest.gap, units);
  const least = formatComputedLength(minimum, units);
  const where = `${computedDegrees(Math.abs(tightest.at), 0)} ${tightest.at < 0 ? 'before' : 'after'} TDC`;
  return state === 'enough'
    ? `${size} at the tightest, ${where}; at least ${least} is wanted. ${roomWords(room)}`
    : `Only ${size} at the tightest, ${where}: ${least} is wanted. Do not run it like this. ${roomWords(room)}`;
}

function roomWords(room: ClearanceFinding['room']): string {
  if (!room) return 'No move of the cam within 20° cures it.';
  if (room.from > 0) return `It takes ${atLeastDegrees(room.from)} of advance to cure it.`;
  if (room.to < 0) return `It takes ${atLeastDegrees(-room.to)} of retard to cure it.`;
  const way = (far: number, word: string): string =>
    far >= FURTHEST_SWEPT - 0.1 ? `${word} 20° or more` : `${word} ${atMostDegrees(far)}`;
  return `The cam may still be ${way(room.to, 'advanced')}, and ${way(-room.from, 'retarded')}.`;
}
