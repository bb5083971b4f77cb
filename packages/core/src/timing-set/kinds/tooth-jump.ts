import { z } from 'zod';
import { kindOf, signed, toothCount } from './kind';

/** The chain, belt or gear set over by whole teeth of the cam gear: 720 / teeth crank degrees each. */
export const toothJump = kindOf({
  name: 'Set over by teeth',
  about: 'The chain, belt or gear goes on a tooth further: 720 ÷ teeth of the cam gear, crank degrees.',
  body: z.strictObject({ teeth: toothCount('the teeth of the cam gear') }),
  asks: [{ name: 'teeth', typed: 'count', label: 'Teeth of the cam gear' }],
  work: 'front-apart',
  wheelOff: false,
  trust: { response: 0, mark: 0.1 },
  trouble: () => null,
  reach: ({ teeth }) => ({
    kind: 'marks',
    positions: [-2, -1, 0, 1, 2].map((by) => ({
      mark: signed(by),
      label: by === 0 ? 'mark to mark' : `${signed(by)} ${Math.abs(by) === 1 ? 'tooth' : 'teeth'}`,
      advance: (by * 720) / teeth,
    })),
  }),
  put: ({ teeth }, from, to, { way, to: then }) => {
    const by = Math.abs(Math.round(((to - from) * teeth) / 720));
    return [
      'Slacken the tensioner as the manual says and lift the chain or belt off the cam gear; or draw the gear out of mesh.',
      `Turn the cam ${by === 1 ? 'one tooth' : `${by} teeth`} to ${way}, and lay it on again: it then stands ${then}.`,
    ];
  },
});
