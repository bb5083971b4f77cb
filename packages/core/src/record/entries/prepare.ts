import { z } from 'zod';
import { CHECK_NAMES } from '../../prepare/checks';
import { id, text } from './entry-fields';

/** Prepare: how the engine stands, what was checked before measuring. Bodies of entries. */

export const asItStands = z
  .strictObject({
    replaces: id.nullable().describe('The statement that this one corrects, or null.'),
    head: z.enum(['on', 'off']),
    plugHole: z.boolean().describe('Is the plug hole in line with the bore?'),
    wheel: z.boolean().describe('Is there a degree wheel?'),
    indicator: z.boolean().describe('Is there an indicator?'),
    lifter: z.enum(['solid', 'hydraulic', 'roller', 'bucket', 'none']),
    springs: z
      .enum(['checking', 'valve', 'none'])
      .optional()
      .describe('What pushes the lifter down: light checking springs, the valve springs, or nothing.'),
    drive: z.enum(['chain', 'belt', 'gear', 'none']),
    camDrives: z
      .enum(['distributor', 'sensor', 'neither'])
      .optional()
      .describe(
        'What takes its time from the cam and has to be clocked again after a move. Left out: nobody has said.',
      ),
    oneWay: z.literal(true).optional().describe('It must not be turned back. Left out: it may be turned both ways.'),
  })
  .describe('How the engine stands and what is there to measure with.');

export const checkMade = z
  .strictObject({
    replaces: id.nullable().describe('The answer that this one corrects, or null.'),
    check: z.enum(CHECK_NAMES),
    result: z.enum(['done', 'skipped']),
    reason: text(200, 'the reason').optional(),
  })
  .refine((body) => body.result === 'done' || body.reason !== undefined, {
    path: ['reason'],
    error: 'say why the check is skipped',
  })
  .describe('A check of Prepare, made or skipped with a reason.');

export const endPlayMeasured = z
  .strictObject({
    replaces: id.nullable(),
    thrust: z.enum(['plate', 'button']),
    play: z
      .number({ error: 'the end play must be a length in millimetres' })
      .min(0, { error: 'the end play cannot be negative' })
      .max(10, { error: 'the end play must be at most 10 mm' })
      .describe('Millimetres.'),
  })
  .describe('How far the cam moves endways.');
