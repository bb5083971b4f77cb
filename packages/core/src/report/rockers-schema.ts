import { z } from 'zod';
import { MID_LIFTS } from '../valve-train/pushrod-trials';
import { problemSchema, valve } from './parts-schema';

const mm = z.number().describe('Millimetres.');
const sine = z
  .number()
  .describe('Sine of the arm’s angle to the perpendicular to the stem; negative: its roller stands above it.');

/** Rockers and pushrods: what was tried, what it showed, what to order. */
export const rockersReport = z.strictObject({
  applies: z.boolean().describe('Has this engine rockers?'),
  entry: z.string().nullable(),
  sentence: z.string().describe('What to do with the hands now.'),
  mounted: z.enum(['stud', 'pedestal', 'shaft']).nullable(),
  arm: mm.nullable(),
  tip: mm.nullable(),
  step: mm.nullable(),
  valves: z.array(
    z.strictObject({
      valve,
      ratio: z.number().nullable(),
      lift: mm.nullable().describe('At the valve, by lobe and ratio.'),
      least: mm.nullable().describe('The narrowest pattern that this arm can leave.'),
      problem: problemSchema.nullable(),
      words: z.string().describe('Where the right length lies, or what is missing.'),
      next: mm.nullable(),
      chosen: z.string().nullable(),
      trials: z.array(
        z.strictObject({
          entry: z.string(),
          cylinder: z.number(),
          length: mm,
          pattern: mm.nullable(),
          offset: mm.nullable(),
          seen: z.enum(MID_LIFTS).nullable(),
          lift: mm.nullable(),
          verdict: z.enum(['this-one', 'this-one-by-pattern', 'not-yet']).nullable(),
          shows: z.string(),
          words: z.string(),
        }),
      ),
      arm: z.strictObject({ closed: sine, mid: sine, open: sine }).nullable(),
      path: mm.nullable(),
      theory: z
        .array(
          z.strictObject({
            cylinder: z.number(),
            theory: mm,
            lost: mm,
            bends: mm.nullable(),
            words: z.string(),
            right: z.boolean(),
          }),
        )
        .describe('Lifts read at the valves against lobe × ratio.'),
      order: z
        .strictObject({
          entry: z.string(),
          measured: mm,
          length: mm,
          preload: mm,
          wanted: mm,
          lifter: z.enum(['own', 'made-solid', 'carried-over', 'other']),
          travel: mm.nullable(),
          engagement: mm.nullable(),
          stud: mm.nullable(),
          clears: z.boolean().nullable(),
          words: z.string(),
          trouble: z.array(z.string()),
          effect: z
            .string()
            .nullable()
            .describe('What another length does to lash, preload and valve-to-piston clearance.'),
        })
        .nullable(),
    }),
  ),
});
