import { z } from 'zod';
import { formatLength } from '../../units/length';
import { type Position, kindOf, partLength, sideWords, signed } from './kind';

const MOST = 20;

/** Offsets, mm; each goes in either way round, and straight is always there. */
export const offsets = z
  .array(partLength('an offset', 20))
  .min(1, { error: 'give at least one offset' })
  .max(MOST, { error: `at most ${MOST} offsets` })
  .refine((all) => new Set(all).size === all.length, { error: 'an offset stands twice' })
  .describe('Millimetres. Each goes in either way round.');

export const OFFSETS = {
  name: 'offsets',
  typed: 'length-list',
  label: 'Offsets',
  hint: 'Like 0.010 0.020 in, or 0.25 0.5 mm. Each goes in either way round.',
} as const;

export function offsetPositions(
  all: readonly number[],
  advanceOf: (offset: number) => number,
  noun: string,
): Position[] {
  const sorted = [...all].sort((a, b) => a - b);
  const either = [...sorted.map((each) => -each).reverse(), 0, ...sorted];
  return either.map((offset) => ({
    mark: `${signed(offset)} mm`,
    label:
      offset === 0
        ? `the straight ${noun}`
        : `the ${formatLength(Math.abs(offset), 'mm')} ${noun}, ${offset > 0 ? 'advancing' : 'retarding'}`,
    advance: advanceOf(offset),
  }));
}

const RAD = Math.PI / 180;

/** A dowel stepped off its centre, on a circle of holes round the cam: sin of the cam's angle = offset / radius (definition of the sine). */
export const offsetDowel = kindOf({
  name: 'Offset dowels',
  about:
    'Stepped dowels for the cam gear: the cam turns by asin(offset ÷ radius of the dowel circle), the crank twice that.',
  body: z.strictObject({ radius: partLength('the radius of the dowel circle', 200), offsets }),
  asks: [{ name: 'radius', typed: 'length', label: 'Radius of the dowel circle' }, OFFSETS],
  work: 'front-apart',
  wheelOff: false,
  trust: { response: 0.06, mark: 0.3 },
  trouble: ({ radius, offsets: all }) =>
    all.some((each) => each >= radius / 2)
      ? { field: 'offsets', message: 'an offset of half the radius or more is no dowel: check both lengths' }
      : null,
  reach: ({ radius, offsets: all }) => ({
    kind: 'marks',
    positions: offsetPositions(all, (offset) => (2 * Math.asin(offset / radius)) / RAD, 'dowel'),
  }),
  put: (_hardware, _from, to, { from: was, to: is, cam }) => [
    'Take the bolts out of the cam gear and lift it off its dowel, the chain or belt held up so that no tooth jumps.',
    `Exchange ${was} for ${is}${sideWords(to, cam)}.`,
    'Put the gear back on the dowel, on the same teeth as before: it must go on by hand, and its bolt holes meet those of the cam.',
  ],
});
