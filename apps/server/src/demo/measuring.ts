import { wrap360 } from '@yosoku/core/units/angle';
import type { WheelReading } from '@yosoku/core/crank/wheel';
import type { BodyOf } from '@yosoku/core/record/entry';
import type { ReadMethodName } from '@yosoku/core/measure/read-methods';
import type { openLogbook } from './demo-logbook';

export type Book = ReturnType<typeof openLogbook>;

/** Both sides of one pass over the top. */
export function pass(
  book: Book,
  zero: string,
  setting: string | null,
  before: WheelReading,
  after: WheelReading,
): void {
  const together = { zero, setting, pass: book.nextId() };
  book.write('zero.reading', { ...together, side: 'before', wheel: before });
  book.write('zero.reading', { ...together, side: 'after', wheel: after });
}

export const before = (shows: number): WheelReading => ({ ring: '0-180', shows, side: 'before' });
export const after = (shows: number): WheelReading => ({ ring: '0-180', shows, side: 'after' });
export const falling = (shows: number): WheelReading => ({ ring: '0-360', sense: 'falling', shows });
export const rising = (shows: number): WheelReading => ({
  ring: '0-360',
  sense: 'rising',
  shows: wrap360(shows),
});

/** What the indicator showed, and what stood under the pointer. */
export type Shown = readonly [shows: BodyOf<'reading.taken'>['shows'], wheel: WheelReading | null];

/** Both flanks at one figure, mm. */
export const flanksOf = (
  kind: 'below-peak' | 'above-base',
  figure: number,
  opening: WheelReading,
  closing: WheelReading,
): readonly Shown[] =>
  (
    [
      ['opening', opening],
      ['closing', closing],
    ] as const
  ).map(([flank, wheel]) => [
    kind === 'below-peak' ? { kind, flank, drop: figure } : { kind, flank, lift: figure },
    wheel,
  ]);

/** Writes rounds of one trial. */
export const measuring =
  (book: Book, setting: string, trial: string, sitsOn: BodyOf<'reading.taken'>['sitsOn']) =>
  (method: ReadMethodName, valve: 'intake' | 'exhaust', readings: readonly Shown[]): void => {
    const round = book.nextId();
    for (const [shows, wheel] of readings) {
      const of = { setting, trial, round, method, cylinder: 1, valve, sitsOn };
      book.write('reading.taken', { ...of, shows, approach: 'forward', wheel });
    }
  };
