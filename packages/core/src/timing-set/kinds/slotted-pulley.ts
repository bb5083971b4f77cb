import { kindOf, signed } from './kind';
import { RANGED, rangedBody, rangedReach } from './eccentric';

/** A pulley or gear whose rim turns on its hub in slots, held by clamp bolts. */
export const slottedPulley = kindOf({
  name: 'Slotted or vernier pulley',
  about: 'The rim turns on its hub in slots and is clamped, anywhere in its range.',
  body: rangedBody,
  asks: RANGED,
  work: 'adjust',
  wheelOff: false,
  trust: { response: 0.1, mark: 0.3 },
  trouble: () => null,
  reach: rangedReach,
  put: ({ scale }, from, to, { way }) => [
    scale
      ? `Turn the cam in the slots from ${signed(from)} to ${signed(to)} on the scale, to ${way}.`
      : `Turn the cam in the slots to ${way}, by the indicator.`,
  ],
});
