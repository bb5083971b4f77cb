import { z } from 'zod';
import { rimTrouble } from '../crank/rim';
import { READ_METHOD_NAMES } from '../measure/read-methods';
import { PAPER_NAMES } from './drawing';
import { FACTOR_RANGE } from './printer';

/** What is asked for on paper: figures as they stand in an address. Lengths mm. */

const mm = (what: string, least: number, most: number) =>
  z.coerce
    .number({ error: `${what} must be a length in millimetres` })
    .min(least, { error: `${what} must be at least ${least} mm` })
    .max(most, { error: `${what} can be at most ${most} mm` });
const factor = z.coerce
  .number({ error: 'the printer’s factor must be a number' })
  .min(FACTOR_RANGE.least, { error: 'no printer errs by more than a tenth: measure both lines of the check again' })
  .max(FACTOR_RANGE.most, { error: 'no printer errs by more than a tenth: measure both lines of the check again' })
  .default(1);

const sheet = {
  paper: z.enum(PAPER_NAMES, { error: 'expected a4, letter or a3' }).default('a4'),
  across: factor.describe('100 mm across the sheet come out as so many, divided by 100.'),
  along: factor.describe('The same along the sheet.'),
};

/** Smaller numbers cannot be read; larger wheels are not joined by anybody. */
export const WHEEL_RANGE = { least: 60, most: 1200 } as const;

const wheel = z
  .strictObject({
    what: z.literal('wheel'),
    ...sheet,
    diameter: mm('the wheel', WHEEL_RANGE.least, WHEEL_RANGE.most),
    hole: mm('the hole', 0, 400).default(0),
    circle: mm('the bolt circle', 1, 800).optional(),
    bolts: z.coerce
      .number({ error: 'the count of bolts must be a whole number' })
      .int({ error: 'the count of bolts must be a whole number' })
      .min(1, { error: 'at least one bolt, or no bolt circle' })
      .max(24, { error: 'at most 24 bolts' })
      .default(4),
    bolt: mm('a bolt hole', 0.5, 60).default(8),
    places: z
      .enum(['none', 'tdcs', 'all'])
      .default('none')
      .describe('Firing TDCs, and the events of the cam, if wanted.'),
    ring: z.enum(['0-180', '0-360', '0-90']).optional().describe('Without a build: how it is numbered.'),
    sense: z.enum(['rising', 'falling']).default('rising'),
    rotation: z.enum(['clockwise', 'counter-clockwise']).optional(),
  })
  .superRefine(({ diameter, hole, circle, bolt }, context) => {
    const refuse = (path: string, message: string): void => context.addIssue({ code: 'custom', path: [path], message });
    if (hole > diameter / 2) refuse('hole', 'the hole leaves no room for the numbers');
    if (circle !== undefined && circle + bolt > diameter * 0.7)
      refuse('circle', 'the bolt circle lies under the numbers');
    if (circle !== undefined && circle - bolt < hole) refuse('circle', 'the bolts lie in the hole');
  });

const tape = z
  .strictObject({
    what: z.literal('tape'),
    ...sheet,
    round: z.coerce
      .number({ error: 'the way round the rim must be a length in millimetres' })
      .refine((round) => rimTrouble(round) === null, { error: (issue) => rimTrouble(Number(issue.input)) ?? '' }),
    thickness: mm('the paper', 0, 2).default(0.1),
    span: z.enum(['60', '180']).default('60').describe('Degrees either side of TDC; 180 is all round.'),
  })
  .describe('A tape to be glued round a rim.');

const check = z.strictObject({ what: z.literal('check'), ...sheet });

/** Sheets for the clipboard. */
export const WORKSHEETS = ['readings', 'lash', 'pushrods', 'lobes'] as const;
const worksheet = z.strictObject({
  what: z.literal('worksheet'),
  ...sheet,
  which: z.enum(WORKSHEETS, { error: 'there is no such worksheet' }),
  method: z
    .enum(READ_METHOD_NAMES, { error: 'there is no such method of reading' })
    .optional()
    .describe('For readings; left out: as the build would read next.'),
});

export const paperWish = z.discriminatedUnion('what', [wheel, tape, check, worksheet], {
  error: 'expected wheel, tape, check or worksheet',
});
export type PaperWish = z.output<typeof paperWish>;
export type WheelWish = Extract<PaperWish, { what: 'wheel' }>;
export type TapeWish = Extract<PaperWish, { what: 'tape' }>;
export type WorksheetWish = Extract<PaperWish, { what: 'worksheet' }>;
