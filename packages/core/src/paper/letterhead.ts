import { z } from 'zod';
import { isWellFormed } from '../units/text';

/** What stands under the shop's name at the head of a sheet. */
export const LETTERHEAD_LINES = 4;
const LONGEST_LINE = 80;

/** Of a logo as it is sent. */
export const LOGO_BYTES = 1024 * 1024;
/** The longer side of a logo that is a picture, pixels: twice what a printer can show of it. */
export const LOGO_EDGE = 2_000;
export const LOGO_KINDS = ['svg', 'png'] as const;

/** Lines under the shop's name, as they are typed into one field: blank ones at both ends are left out. */
export const letterheadText = z
  .string({ error: 'expected text' })
  .refine(isWellFormed, { error: 'holds half a character' })
  .transform((typed) =>
    typed
      .split(/\r\n|\r|\n/)
      .map((line) => line.trim())
      .join('\n')
      .trim(),
  )
  .refine((text) => text.split('\n').length <= LETTERHEAD_LINES, {
    error: `at most ${LETTERHEAD_LINES} lines have room`,
  })
  .refine((text) => text.split('\n').every((line) => line.length <= LONGEST_LINE), {
    error: `a line has at most ${LONGEST_LINE} characters`,
  });
