import { z } from 'zod';
import { asCrank, kindOf, signed, stampedIn } from '../kind';
import { halfRange } from './eccentric';

/** A pulley or gear whose rim turns on its hub in slots, held by clamp bolts. */
export const slottedPulley = kindOf({
  name: 'Slotted or vernier pulley',
  about: 'The rim turns on its hub in slots and is clamped, anywhere in its range.',
  body: z.strictObject({
    stamped: stampedIn,
    range: halfRange.describe('To either side of its middle, as stamped.'),
    scale: z.boolean().describe('Has it marks to be set by?'),
  }),
  work: 'adjust',
  wheelOff: false,
  trust: { response: 0.1, mark: 0.3 },
  trouble: () => null,
  reach: ({ stamped, range, scale }) => ({
    kind: 'range',
    from: -range,
    to: range,
    perUnit: asCrank(1, stamped),
    scale,
  }),
  put: ({ scale }, from, to, { way }) => [
    scale
      ? `Turn the cam in the slots from ${signed(from)} to ${signed(to)} on the scale, to ${way}.`
      : `Turn the cam in the slots to ${way}, by the indicator.`,
  ],
});
