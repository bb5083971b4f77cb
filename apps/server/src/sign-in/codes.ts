import { randomInt } from 'node:crypto';

/** Signs that cannot be mistaken for one another on a terminal or in handwriting. */
const SIGNS = 'ABCDEFGHJKLMNPQRTUVWXY346789';

/** A code to be used once. Eight signs of 28 are 38 bits: enough where attempts are counted and the code runs out. */
export const makeCode = (): string => Array.from({ length: 8 }, () => SIGNS[randomInt(SIGNS.length)]).join('');

/** A code as it was typed: without blanks and hyphens, in capitals. */
export const plainCode = (typed: string): string => typed.replace(/[\s-]/g, '').toUpperCase();
