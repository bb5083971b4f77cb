import { FURTHEST_SWEPT } from '../clearance/valve-to-piston';
import { atLeastDegrees, atMostDegrees, computedDegrees } from '../units/degrees';
import { decimal } from '../units/decimal';
import { type LengthUnit, formatComputedLength } from '../units/length';
import type { ClearanceFinding } from '../findings/derive-clearance';
import type { ValveTravel } from '../findings/valve-travel';
import type { Report } from './report-schema';

/** Valve to piston as the Report has it. */
export const reportClearance = (found: readonly ClearanceFinding[], units: LengthUnit): Report['clearance']['valves'] =>
  found.map(({ travel, pumped, ...each }) => ({
    ...each,
    gaps: [...each.gaps],
    ratio: travel?.ratio ?? null,
    through: travel?.through ? travel.through.map(([lobe, valve]): [number, number] => [lobe, valve]) : null,
    lifts: travel && travelWords(travel, units),
    pumped: pumped && { ...pumped, touches: (pumped.leaves ?? 1) <= 0, words: pumpedWords(pumped, units) },
    words: clearanceWords({ travel, pumped, ...each }, units),
  }));

const ratioWords = (ratio: number): string => decimal(ratio, 2);

/** What the lift of the valve is taken from. */
function travelWords({ ratio, lash, through, from, stated }: ValveTravel, units: LengthUnit): string {
  const said = stated === null ? '' : `, ${ratioWords(stated)} stated`;
  const half = through && through[Math.floor(through.length / 2)];
  if (from === 'traces' && half)
    return `The valve follows its lobe as both were traced: ratio ${ratioWords(half[1] / half[0])} half-way up, ${ratioWords(ratio)} at full lift${said}.`;
  const less = lash > 0 ? `, less ${formatComputedLength(lash, units)} of lash` : '';
  return from === 'lift'
    ? `The valve follows its lobe by the ratio that its lift shows, ${ratioWords(ratio)}${said}${less}.`
    : `The valve follows its lobe by the stated ratio, ${ratioWords(ratio)}${less}.`;
}

function pumpedWords({ by, leaves }: NonNullable<ClearanceFinding['pumped']>, units: LengthUnit): string {
  const more = `Pumped up, its lifter would hold the valve ${formatComputedLength(by, units)} further open than at zero lash`;
  if (leaves === null) return `${more}: so much less is left between valve and piston.`;
  return leaves > 0
    ? `${more}: of a gap that was measured at zero lash ${formatComputedLength(leaves, units)} is left.`
    : `${more}: measured at zero lash, valve and piston would meet. Less preload, deeper pockets, or another lifter.`;
}

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
