import { z } from 'zod';
import { STAMPED, kindOf, sideWords, stampedIn } from './kind';
import { MARKS, markedOffsets, markedPositions } from './keyways';

/** A set of offset bushings for the dowel hole of the cam gear, each marked with its offset. */
export const bushings = kindOf({
  name: 'Offset bushings in the cam gear',
  about: 'Bushings for the dowel hole of the cam gear, each stamped with its offset.',
  body: z.strictObject({ stamped: stampedIn, marks: markedOffsets }),
  asks: [STAMPED, MARKS],
  work: 'front-apart',
  wheelOff: false,
  trust: { response: 0.08, mark: 0.4 },
  trouble: () => null,
  reach: ({ stamped, marks }) => ({ kind: 'marks', positions: markedPositions(marks, stamped, 'bushing') }),
  put: (_hardware, _from, to, { from: was, to: is, cam }) => [
    'Take the bolts out of the cam gear and lift it off its dowel, the chain or belt held up so that no tooth jumps.',
    `Exchange ${was} for ${is}${sideWords(to, cam)}.`,
    'Put the gear back on the dowel, on the same teeth as before: it must go on by hand, and its bolt holes meet those of the cam.',
  ],
});
