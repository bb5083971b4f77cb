import type { Entry } from '@yosoku/core/record/entry';
import type { Report, derive as Derive } from '@yosoku/core/report/report';

/** Everything that is worked out from a logbook: a piece of its own, fetched behind the sign-in, which does without it. */
let arithmetic: typeof Derive | null = null;

export function provideArithmetic(derive: typeof Derive): void {
  arithmetic = derive;
}

export const hasArithmetic = (): boolean => arithmetic !== null;

/** The report of a logbook. Throws before the arithmetic is there: nothing behind the sign-in is drawn before. */
export function derive(entries: readonly Entry[]): Report | null {
  if (!arithmetic) throw new Error('the arithmetic has not been fetched yet');
  return arithmetic(entries);
}
