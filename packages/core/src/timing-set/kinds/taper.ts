import { z } from 'zod';
import { FURTHEST_MOVE, kindOf } from './kind';

/** A gear on a taper or held by friction: anywhere, with no scale. */
export const taper = kindOf({
  name: 'Taper or friction mount',
  about: 'No key and no scale: the cam turns in its gear until it is locked, set by the indicator.',
  body: z.strictObject({}),
  asks: [],
  work: 'adjust',
  wheelOff: false,
  trust: { response: 0, mark: 0.3 },
  trouble: () => null,
  reach: () => ({ kind: 'range', from: -FURTHEST_MOVE, to: FURTHEST_MOVE, perUnit: 1, scale: false }),
  put: (_hardware, _from, _to, { way }) => [
    'Break the taper with its puller, never with a blow on the cam.',
    `Turn the cam to ${way}, by the indicator.`,
  ],
});
