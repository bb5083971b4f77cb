import { z } from 'zod';
import { VERDICT_KINDS } from '../../verdict/verdict';
import { bank, camName, degrees, id, text, valve } from './entry-fields';
import { MOST_CYLINDERS, SENTENCE_LENGTH } from './limits';
import type { KindsOfEntry } from './kind-of-entry';

/** Decide: what is left as it is, knowingly. Its kinds of entry. */

const verdictAccepted = z
  .strictObject({
    replaces: id.nullable(),
    trial: id,
    of: z
      .discriminatedUnion('what', [
        z
          .strictObject({
            what: z.literal('place'),
            verdict: z.enum(VERDICT_KINDS).describe('What was to be done about it then.'),
            cams: z
              .array(z.strictObject({ cam: camName, bank, delta: degrees(-180, 180, 'where the cam sits') }))
              .min(1, { error: 'a cam without a place cannot be accepted where it is' })
              .max(4),
          })
          .describe('Where the cams sit, crank degrees ahead of the target.'),
        z
          .strictObject({ what: z.literal('figure'), view: text(SENTENCE_LENGTH, 'the view'), value: z.number() })
          .describe('A duration or a lift that is not quite the card’s: the view that shows it, and its value.'),
        z
          .strictObject({
            what: z.literal('lobes'),
            valve,
            at: z.enum(['lobe', 'valve']),
            uneven: z
              .number()
              .min(0)
              .max(40)
              .nullable()
              .describe('Least to greatest lift where none stands alone, mm.'),
            differ: z
              .array(
                z.strictObject({
                  cylinder: z.int().min(1).max(MOST_CYLINDERS),
                  figure: z.enum(['lift', 'centreline']),
                  apart: z.number().describe('From the middle of all: mm, or crank degrees.'),
                }),
              )
              .max(48),
          })
          .describe('Lobes that are not like those of the other cylinders.'),
      ])
      .describe('What is accepted, as it stood then.'),
    said: text(600, 'what was said').describe('The sentence that the builder had before him.'),
    reason: text(SENTENCE_LENGTH, 'the reason'),
  })
  .describe(
    'Something that is not on the card or outside the limit is left as it is, with a reason. Voiding it takes it back.',
  );

export const DECIDE_ENTRIES = {
  'verdict.accepted': { body: verdictAccepted, undoable: false, station: 'decide', seen: false },
} as const satisfies KindsOfEntry;
