import { z } from 'zod';
import { type Entry, entrySchema } from './entry';
import { isWellFormed } from '../units/text';

/** The open file of one build: its entries, oldest first. `*.yosoku.json`. */
export const buildFileSchema = z
  .strictObject({
    format: z.literal('yosoku-build', { error: 'expected "yosoku-build"' }),
    version: z.literal(1, {
      error: ({ input }) =>
        typeof input === 'number' && input > 1
          ? `this file is of version ${input}, newer than this program, which reads version 1`
          : 'this program reads version 1',
    }),
    builders: z
      .array(z.strictObject({ id: z.uuid(), name: z.string().min(1).max(80).refine(isWellFormed) }))
      .optional()
      .describe('Names of the builders whose ids stand in the entries.'),
    entries: z.array(entrySchema).min(1, { error: 'a logbook has at least one entry' }),
  })
  .superRefine(({ entries }, context) => {
    const seen = new Set<string>();
    entries.forEach((entry, at) => {
      const issue = (field: string, message: string): void =>
        context.addIssue({ code: 'custom', path: ['entries', at, field], message });
      if (seen.has(entry.id)) issue('id', 'this id stands on an earlier entry too; every entry has its own');
      seen.add(entry.id);
      if (entry.buildId !== entries[0]?.buildId) issue('buildId', 'a file holds one build; this entry names another');
    });
    if (entries[0]?.kind !== 'build.described')
      context.addIssue({
        code: 'custom',
        path: ['entries', 0, 'kind'],
        message: 'the first entry must be build.described: it says what engine this is',
      });
  });

export type BuildFile = z.infer<typeof buildFileSchema>;

/** The text of a build file. Two writings of the same entries are the same text. */
export const writeBuildFile = (
  entries: readonly Entry[],
  builders: readonly { readonly id: string; readonly name: string }[],
): string => `${JSON.stringify({ format: 'yosoku-build', version: 1, builders, entries }, null, 2)}\n`;
