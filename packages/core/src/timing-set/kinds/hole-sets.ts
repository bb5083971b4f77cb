import { z } from 'zod';
import { FURTHEST_MOVE, type Position, kindOf, signed, toothCount } from '../kind';

/** A chain wheel with several sets of holes, each a part of a tooth further: steps of 720 / teeth / sets crank degrees. */
export const holeSets = kindOf({
  name: 'Chain wheel with several hole sets',
  about: 'Several sets of bolt holes, each a part of a tooth further: steps of 720 ÷ teeth ÷ sets crank degrees.',
  body: z.strictObject({
    teeth: toothCount('the teeth of the cam wheel'),
    sets: z
      .int({ error: 'the hole sets must be a whole number' })
      .min(2, { error: 'at least 2 hole sets' })
      .max(24, { error: 'at most 24 hole sets' }),
  }),
  work: 'front-apart',
  wheelOff: false,
  trust: { response: 0.01, mark: 0.2 },
  trouble: () => null,
  reach: ({ teeth, sets }) => {
    const step = 720 / teeth / sets;
    const most = Math.floor(FURTHEST_MOVE / step);
    const positions = Array.from({ length: 2 * most + 1 }, (_, at): Position => {
      const steps = at - most;
      return {
        mark: signed(steps),
        label: steps === 0 ? 'the first hole set' : `${signed(steps)} ${Math.abs(steps) === 1 ? 'step' : 'steps'}`,
        advance: steps * step,
      };
    });
    return { kind: 'marks', positions };
  },
  put: ({ teeth, sets }, from, to, { way }) => {
    const steps = Math.round((to - from) / (720 / teeth / sets));
    const jumps = Math.trunc(steps / sets);
    const set = steps - jumps * sets;
    const tooth = (count: number): string => `${Math.abs(count)} ${Math.abs(count) === 1 ? 'tooth' : 'teeth'}`;
    return [
      'Take the bolts out of the chain wheel; the chain held up.',
      `Go on ${Math.abs(set)} ${Math.abs(set) === 1 ? 'hole set' : 'hole sets'}${jumps === 0 ? '' : `, and set the wheel ${tooth(jumps)} further in the chain`}, to ${way}.`,
    ];
  },
});
