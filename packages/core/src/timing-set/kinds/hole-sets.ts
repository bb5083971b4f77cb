import { z } from 'zod';
import { FURTHEST_MOVE, type Position, kindOf, signed, toothCount } from './kind';

/** So many steps on from the first hole set, mark to mark: which hole set that is, counted from 0, and how many teeth over in the chain. */
const placeOf = (steps: number, sets: number) => {
  const tooth = Math.floor(steps / sets);
  return { set: steps - tooth * sets, tooth };
};

const toothWords = (count: number): string => `${Math.abs(count)} ${Math.abs(count) === 1 ? 'tooth' : 'teeth'}`;

function labelOf(steps: number, sets: number): string {
  const { set, tooth } = placeOf(steps, sets);
  const over = tooth === 0 ? '' : `, ${toothWords(tooth)} ${tooth > 0 ? 'on' : 'back'}`;
  return `hole set ${set + 1}${over}`;
}

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
  asks: [
    { name: 'teeth', typed: 'count', label: 'Teeth of the cam wheel' },
    { name: 'sets', typed: 'count', label: 'Hole sets' },
  ],
  work: 'front-apart',
  wheelOff: false,
  trust: { response: 0.01, mark: 0.2 },
  trouble: () => null,
  reach: ({ teeth, sets }) => {
    const step = 720 / teeth / sets;
    const most = Math.floor(FURTHEST_MOVE / step);
    const positions = Array.from({ length: 2 * most + 1 }, (_, at): Position => {
      const steps = at - most;
      return { mark: signed(steps), label: labelOf(steps, sets), advance: steps * step };
    });
    return { kind: 'marks', positions };
  },
  put: ({ teeth, sets }, from, to, { way, cam }) => {
    const [was, is] = [from, to].map((advance) => placeOf(Math.round(advance / (720 / teeth / sets)), sets));
    const over = (is?.tooth ?? 0) - (was?.tooth ?? 0);
    return [
      'Take the bolts out of the chain wheel; the chain held up.',
      ...(over === 0
        ? ['Leave the wheel on the same teeth of the chain.']
        : [`Set the wheel ${toothWords(over)} over in the chain, ${cam(over)}.`]),
      `Turn the cam to ${way}, until its bolt holes meet hole set ${(is?.set ?? 0) + 1} of the wheel (it was on hole set ${(was?.set ?? 0) + 1}): the bolts must go in by hand.`,
    ];
  },
});
