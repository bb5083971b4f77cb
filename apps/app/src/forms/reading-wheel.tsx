import type { ComponentProps } from 'react';
import { formatReading } from '@yosoku/core/crank/wheel';
import { DegreeWheel } from '@/pictures/degree-wheel';
import { figureOf } from './figure';
import type { ReadingEntry } from './use-reading-entry';
import { useStation } from '@/logbook/station';

interface ReadingWheelProps extends Pick<
  ComponentProps<typeof DegreeWheel>,
  'marks' | 'blocked' | 'tdc' | 'turn' | 'size'
> {
  readonly entry: ReadingEntry;
  /** What was read last, shown until something is typed. */
  readonly recorded?: string | null;
  /** Can it be turned by a finger? Not while nothing is to be read. */
  readonly turns?: boolean;
  /** What it is, and what else there is to say of it, in words. */
  readonly saying: { readonly what: string; readonly besides?: string };
}

/** The degree wheel as the reading that is being typed has it under the pointer. */
export function ReadingWheel({ entry, recorded = null, turns = true, saying, ...shown }: ReadingWheelProps) {
  const { report } = useStation();
  const { figure, word } = figureOf(entry, recorded);
  const { state } = entry;
  const under = state.state === 'whole' ? `Under the pointer: ${formatReading(state.reading)}.` : 'Nothing typed yet.';
  return (
    <DegreeWheel
      ring={entry.ring}
      others={entry.otherRings}
      rotation={report.build.engine.rotation}
      position={entry.position}
      turning={entry.turning}
      figureAt={entry.figureAt}
      figure={figure}
      word={word}
      description={`${saying.what}. ${under}${saying.besides ?? ''}`}
      {...shown}
      {...(turns ? { onTurn: entry.turnTo } : {})}
    />
  );
}
