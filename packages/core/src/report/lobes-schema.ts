import { z } from 'zod';
import { degrees, valve } from './parts-schema';

export const lobeSchema = z
  .strictObject({
    peak: z.number().describe('Millimetres.'),
    nose: degrees.describe('Cycle angle.'),
    half: degrees,
    power: z.number(),
    lean: degrees,
  })
  .describe('lift = peak·(1 − u²)^power at nose + half·u + lean·u², u from −1 to 1.');

const compared = z
  .strictObject({
    value: z.number(),
    shows: z.string(),
    count: z.number(),
    apart: z.number().describe('From the middle of all.'),
    expanded: z.number(),
    state: z
      .enum(['same', 'perhaps', 'differs', 'alone'])
      .describe('perhaps: at the edge of what can be read. alone: too few to say which of them is off.'),
  })
  .nullable();

/** The lobes of all cylinders beside each other. */
export const everyLobe = z
  .array(
    z.strictObject({
      valve,
      at: z.enum(['lobe', 'valve']),
      usual: z.number().nullable().describe('Middle of the lifts, millimetres.'),
      printed: z.number().nullable().describe('The lift on the card, millimetres.'),
      uneven: z.number().nullable().describe('Least to greatest, where no single one stands out; millimetres.'),
      rows: z.array(z.strictObject({ cylinder: z.number(), lift: compared, centreline: compared })),
      words: z.array(z.string()),
      differs: z.boolean(),
    }),
  )
  .describe('Lifts of all cylinders, millimetres, and centrelines where they were read, degrees as printed.');

/** The lobe of the first bank as the cam stands now, or null where nobody can say. */
export const standing = z
  .strictObject({
    lobe: lobeSchema,
    isCarried: z.boolean().describe('Measured before, and carried on by what was expected of the moves since.'),
  })
  .nullable();

/** Which lobe is read next, and how many are. */
export const everyLobePlan = z.strictObject({
  next: z
    .strictObject({
      cylinder: z.number(),
      valve,
      peak: degrees.describe('Where its peak comes, after the TDC of cylinder 1 between exhaust and intake.'),
      turn: degrees.nullable().describe('From where the last reading left the crank.'),
    })
    .nullable(),
  read: z.number(),
  all: z.number(),
  sentence: z.string(),
});
