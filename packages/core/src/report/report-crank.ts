import { rimDistance } from '../crank/rim';
import { computedDegrees } from '../units/degrees';
import { type LengthUnit, formatComputedLength } from '../units/length';
import type { CrankFinding } from '../findings/derive-crank';
import type { Report } from './report-schema';

/** The crank as the Report has it. */
export function reportCrank(
  { companion, identified, cylinders, mark }: CrankFinding,
  units: LengthUnit,
): Report['crank'] {
  return {
    companion,
    identified: identified && {
      entry: identified.entry,
      stands: identified.stands,
      words: identifiedWords(identified, companion),
    },
    cylinders: [...cylinders],
    mark: mark && { entry: mark.entry, error: mark.error, ...markWords(mark, units), tape: [...mark.tape] },
  };
}

function identifiedWords(
  { looked, seen, stands }: NonNullable<CrankFinding['identified']>,
  companion: number | null,
): string {
  const whose = looked === 'own' ? 'Cylinder 1’s valves' : `The valves of cylinder ${companion ?? ''}`;
  return `${whose} ${seen === 'rocking' ? 'rock' : 'are both closed'}: cylinder 1 stands at its ${stands} TDC.`;
}

function markWords({ error, seen }: NonNullable<CrankFinding['mark']>, units: LengthUnit) {
  const { part, round, distance, stands } = seen;
  const size = computedDegrees(Math.abs(error));
  if (Math.abs(error) < 0.05) return { words: `The ${part} mark shows true TDC.`, cure: 'Leave it.' };
  return {
    words: `The ${part} mark comes ${size} too ${error > 0 ? 'early' : 'late'}: set by it, the ignition is ${size} ${error > 0 ? 'more advanced' : 'more retarded'} than it reads.`,
    cure: `Make the new mark ${formatComputedLength(distance, units)} along the rim from the old one, ${stands === 'after' ? 'against' : 'with'} the way it runs. 10° is ${formatComputedLength(rimDistance(10, round), units)}.`,
  };
}
