import { z } from 'zod';
import { kindOf, partLength } from '../kind';
import { offsetPositions, offsets } from './offset-dowel';

const RAD = Math.PI / 180;

/** A stepped key between crank and crank gear: sin of the crank's angle = offset / radius of the shaft (definition of the sine). */
export const offsetKey = kindOf({
  name: 'Offset crank keys',
  about: 'Stepped keys for the crank gear: it turns by asin(offset ÷ radius of the shaft), crank degrees.',
  body: z.strictObject({ radius: partLength('the radius of the shaft', 200), offsets }),
  work: 'front-apart',
  wheelOff: true,
  trust: { response: 0.06, mark: 0.3 },
  trouble: ({ radius, offsets: all }) =>
    all.some((each) => each >= radius / 2)
      ? { field: 'offsets', message: 'an offset of half the radius or more is no key: check both lengths' }
      : null,
  reach: ({ radius, offsets: all }) => ({
    kind: 'marks',
    positions: offsetPositions(all, (offset) => Math.asin(offset / radius) / RAD, 'key'),
  }),
  put: (_hardware, _from, _to, { from, to, way }) => [
    'Draw the crank gear off and take its key out. Leave crank and cam where they stand.',
    `Exchange ${from} for ${to}: its step to the side that will ${way}.`,
    'Put the gear back over the key, timing marks together.',
  ],
});
