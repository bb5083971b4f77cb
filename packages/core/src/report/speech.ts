import { type LengthUnit, formatLength } from '../units/length';
import type { Build } from '../record/fold';
import { readingLabel } from './reading-words';

/** What sentences need beside the verdict: the unit of lengths, and a reading in words, "exhaust 0.050 in before peak". */
export interface Speech {
  readonly units: LengthUnit;
  readonly label: (entry: string) => string | null;
}

export const speechOf = (build: Build): Speech => ({ units: build.description.body.units, label: labelsOf(build) });

function labelsOf({ trials, description }: Build): Speech['label'] {
  const { units } = description.body;
  return (entry) => {
    for (const { rounds, traces } of trials) {
      for (const { readings } of rounds)
        for (const { id, body } of readings) {
          if (id !== entry) continue;
          const { shows } = body;
          const figure = shows.kind === 'below-peak' ? shows.drop : shows.kind === 'above-base' ? shows.lift : null;
          return `${body.valve} ${figure === null ? '' : `${formatLength(figure, units)} `}${readingLabel(body)}`;
        }
      const trace = traces.find(({ id }) => id === entry);
      if (trace) return `the ${trace.body.valve} trace`;
    }
    return null;
  };
}
