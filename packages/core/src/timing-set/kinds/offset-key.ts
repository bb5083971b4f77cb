import { z } from 'zod';
import { kindOf, partLength } from './kind';
import { OFFSETS, offsetPositions, offsets } from './offset-dowel';

const RAD = Math.PI / 180;

/** A stepped key between crank and crank gear: sin of the crank's angle = offset / radius of the shaft (definition of the sine). */
export const offsetKey = kindOf({
  name: 'Offset crank keys',
  about: 'Stepped keys for the crank gear: it turns by asin(offset ÷ radius of the shaft), crank degrees.',
  body: z.strictObject({ radius: partLength('the radius of the shaft', 200), offsets }),
  asks: [{ name: 'radius', typed: 'length', label: 'Radius of the shaft' }, OFFSETS],
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
  // The gear sits on the crank: ahead of it is the way the crank runs, whichever way the cam does.
  put: (_hardware, _from, to, { from: was, to: is, crank }) => [
    'Draw the crank gear off and take its key out. Leave crank and cam where they stand.',
    `Exchange ${was} for ${is}${to === 0 ? '' : `, turned so that the gear sits further ${crank(to)} than on a straight one`}.`,
    'Put the gear back over the key, the chain, belt or mating gear on the same teeth as before.',
  ],
});
