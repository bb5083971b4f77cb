import { z } from 'zod';
import { type Position, STAMPED, type StampedIn, asCrank, kindOf, signed, stampedDegrees, stampedIn } from './kind';

const MOST_MARKS = 40;

/** A list of marked offsets, as the maker stamps them: positive advances. */
export const markedOffsets = z
  .array(stampedDegrees('a marked offset'))
  .min(2, { error: 'give at least two positions: with one there is nothing to choose' })
  .max(MOST_MARKS, { error: `at most ${MOST_MARKS} positions` })
  .refine((marks) => new Set(marks).size === marks.length, { error: 'a position stands twice' })
  .describe('As stamped; positive advances the cam.');

export const MARKS = {
  name: 'marks',
  typed: 'degrees-list',
  label: 'Positions, as stamped',
  hint: 'Like −8 −4 0 4 8. Positive advances the cam.',
} as const;

export const markedPositions = (marks: readonly number[], stamped: StampedIn, noun: string): Position[] =>
  marks.map((mark) => ({ mark: signed(mark), label: `the ${signed(mark)} ${noun}`, advance: asCrank(mark, stamped) }));

/** A crank gear with several keyways, each marked with its offset. */
export const keyways = kindOf({
  name: 'Multi-keyway crank gear',
  about: 'Several keyways in the gear on the crank, each stamped with its offset.',
  body: z.strictObject({ stamped: stampedIn, marks: markedOffsets }),
  asks: [STAMPED, MARKS],
  work: 'front-apart',
  wheelOff: true,
  trust: { response: 0.08, mark: 0.4 },
  trouble: () => null,
  reach: ({ stamped, marks }) => ({ kind: 'marks', positions: markedPositions(marks, stamped, 'keyway') }),
  put: (_hardware, _from, _to, { from, to }) => [
    'Draw the crank gear off with the chain, belt or cam gear that goes with it. Leave crank and cam where they stand.',
    `Put it back with the key in ${to} (it was in ${from}), its timing mark for that keyway to the mark of the cam gear: the two must meet.`,
  ],
});
