import { z } from 'zod';
import { type Reach, STAMPED, asCrank, kindOf, signed, stampedDegrees, stampedIn } from './kind';

/** Half of a range that is the same either way, as stamped. */
export const halfRange = stampedDegrees('the range').refine((range) => range > 0, {
  error: 'a range of 0 moves nothing: give how far it goes to either side',
});

/** What is clamped anywhere in a range. */
export const rangedBody = z.strictObject({
  stamped: stampedIn,
  range: halfRange.describe('To either side of its middle, as stamped.'),
  scale: z.boolean().describe('Has it marks to be set by?'),
});

export const RANGED = [
  STAMPED,
  { name: 'range', typed: 'degrees', label: 'Range to either side', hint: 'Degrees, as stamped.' },
  { name: 'scale', typed: 'scale', label: 'Has it a scale to be set by?' },
] as const;

export const rangedReach = ({ stamped, range, scale }: z.infer<typeof rangedBody>): Reach => ({
  kind: 'range',
  from: -range,
  to: range,
  perUnit: asCrank(1, stamped),
  scale,
});

/** An eccentric or a hex adjuster in the cam gear. */
export const eccentric = kindOf({
  name: 'Eccentric or hex adjuster',
  about: 'Turns the cam against its gear by an eccentric, anywhere in its range.',
  body: rangedBody,
  asks: RANGED,
  work: 'adjust',
  wheelOff: false,
  trust: { response: 0.12, mark: 0.3 },
  trouble: () => null,
  reach: rangedReach,
  put: ({ scale }, from, to, { way }) => [
    scale
      ? `Turn the eccentric from ${signed(from)} to ${signed(to)} on its scale, to ${way}.`
      : `Turn the eccentric to ${way}, by the indicator.`,
  ],
});
