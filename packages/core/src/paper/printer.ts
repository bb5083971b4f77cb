import { type Outcome, problem } from '../problem';

/** What a printer makes of 100 mm, across and along the sheet: mm measured on paper. */
export interface PrinterMeasured {
  readonly across: number;
  readonly along: number;
}

/** How much larger than drawn a printer prints: 1 is true. */
export interface PrinterFactor {
  readonly across: number;
  readonly along: number;
}

export const TRUE_PRINTER: PrinterFactor = { across: 1, along: 1 };
/** The lines of the check, mm. */
export const CHECK_LINE = 100;
/** No printer errs by more; a sheet that was fitted to its page does. */
export const FACTOR_RANGE = { least: 0.9, most: 1.1 } as const;

/**
 * The factor of a printer by what was measured of its two lines of 100 mm.
 * @example printerFactor({ across: 99, along: 100 }) // { across: 0.99, along: 1 }
 */
export function printerFactor({ across, along }: PrinterMeasured): Outcome<{ readonly factor: PrinterFactor }> {
  const factor = { across: across / CHECK_LINE, along: along / CHECK_LINE };
  const isLikely = (each: number): boolean => each >= FACTOR_RANGE.least && each <= FACTOR_RANGE.most;
  if (!isLikely(factor.across) || !isLikely(factor.along))
    return problem(
      'No printer errs by more than a tenth.',
      'Measure both lines again; print without “fit to page”, at 100 %.',
    );
  return { ok: true, factor };
}

/** What a printer would do to paper that is not drawn for it. */
export interface PrinterError {
  /** Most that a mark of a wheel would be off its angle, degrees. */
  readonly wheel: number;
  /** Round a whole rim tape, crank degrees. */
  readonly tape: number;
}

/**
 * What a printer's error would have done.
 * @returns a wheel's angles are right where it errs alike both ways: only the difference turns them, most at 45° to the sheet.
 * Source: geometry: atan(k·tan θ) − θ is greatest at tan θ = 1 ÷ √k; a tape that is longer by a share runs on by that share of a turn.
 * @example printerError({ across: 1.01, along: 1 }) // { wheel: 0.285, tape: 3.6 }
 */
export function printerError({ across, along }: PrinterFactor): PrinterError {
  const k = across / along;
  const at = Math.atan(1 / Math.sqrt(k));
  const wheel = Math.abs(Math.atan(k * Math.tan(at)) - at) * (180 / Math.PI);
  return { wheel, tape: 360 * Math.max(Math.abs(across - 1), Math.abs(along - 1)) };
}
