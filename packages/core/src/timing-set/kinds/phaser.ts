import { z } from 'zod';
import { STAMPED, asCrank, kindOf, signed, stampedDegrees, stampedIn } from './kind';

/** A phaser that is held against its spring, read in the maker's own angle scale. */
export const phaser = kindOf({
  name: 'Phaser held against its spring',
  about: 'Set in the maker’s own angle scale, the drive loose; two turns of the crank wind its spring back a little.',
  body: z
    .strictObject({
      stamped: stampedIn,
      sense: z.enum(['grows-early', 'grows-late'], {
        error: 'say whether the figure grows as the cam comes earlier or later',
      }),
      from: stampedDegrees('the lower end').describe('Lowest figure of its scale.'),
      to: stampedDegrees('the upper end').describe('Highest figure of its scale.'),
    })
    .describe('In the maker’s own angle scale.'),
  asks: [
    STAMPED,
    { name: 'sense', typed: 'sense', label: 'The figure grows as the cam comes' },
    { name: 'from', typed: 'degrees', label: 'Lowest figure' },
    { name: 'to', typed: 'degrees', label: 'Highest figure' },
  ],
  work: 'adjust',
  wheelOff: false,
  trust: { response: 0.02, mark: 0.3 },
  trouble: ({ from, to }) =>
    to > from
      ? null
      : { field: 'to', message: 'a range of 0 moves nothing: the upper end must be more than the lower' },
  reach: ({ stamped, sense, from, to }) => ({
    kind: 'range',
    from,
    to,
    perUnit: asCrank(sense === 'grows-early' ? 1 : -1, stamped),
    scale: true,
  }),
  put: (_hardware, from, to) => [
    'Free the drive from the phaser and hold the phaser against its spring.',
    `Turn the cam from ${signed(from)} to ${signed(to)} in the maker’s scale.`,
    'Lock it, turn the crank two full turns the way it runs, and read the angle again: the spring takes a little back.',
  ],
});
