import type { Entry } from '@yosoku/core/record/entry';
import type { checkEntry, isUndoable as IsUndoable } from '@yosoku/core/record/check-entry';
import type { Report, derive as Derive } from '@yosoku/core/report/report';

/** What works things out from a logbook, and knows what may be written into it. */
interface Arithmetic {
  readonly derive: typeof Derive;
  readonly checkEntry: typeof checkEntry;
  readonly isUndoable: typeof IsUndoable;
}

/** A piece of its own, fetched behind the sign-in, which does without it. */
let arithmetic: Arithmetic | null = null;

export function provideArithmetic(fetched: Arithmetic): void {
  arithmetic = fetched;
}

export const hasArithmetic = (): boolean => arithmetic !== null;

/** Throws before the arithmetic is there: nothing behind the sign-in is drawn before. */
function fetched(): Arithmetic {
  if (!arithmetic) throw new Error('the arithmetic has not been fetched yet');
  return arithmetic;
}

/** The report of a logbook. */
export const derive = (entries: readonly Entry[]): Report | null => fetched().derive(entries);

/** Why an entry cannot be written, in words; null where it can. */
export const troubleWith = (entry: unknown): string | null => fetched().checkEntry(entry);

/** Does Undo take it back? */
export const isUndoable = (entry: Entry): boolean => fetched().isUndoable(entry);
