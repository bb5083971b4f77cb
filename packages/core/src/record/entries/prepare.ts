import { z } from 'zod';
import { CHECK_NAMES } from '../../prepare/checks';
import { id, text } from './entry-fields';
import { MOST_END_PLAY, SENTENCE_LENGTH } from './limits';
import type { KindsOfEntry } from './kind-of-entry';

/** Prepare: how the engine stands, what was checked before measuring. Its kinds of entry. */

const asItStands = z
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

const checkMade = z
  .strictObject({
    replaces: id.nullable().describe('The answer that this one corrects, or null.'),
    check: z.enum(CHECK_NAMES),
    result: z.enum(['done', 'skipped']),
    reason: text(SENTENCE_LENGTH, 'the reason').optional(),
  })
  .refine((body) => body.result === 'done' || body.reason !== undefined, {
    path: ['reason'],
    error: 'say why the check is skipped',
  })
  .describe('A check of Prepare, made or skipped with a reason.');

const play = (what: string) =>
  z
    .number({ error: `${what} must be a length in millimetres` })
    .min(0, { error: `${what} cannot be negative` })
    .max(MOST_END_PLAY, { error: `${what} must be at most ${MOST_END_PLAY} mm` })
    .describe('Millimetres.');

const endPlayMeasured = z
  .strictObject({
    replaces: id.nullable(),
    thrust: z.enum(['plate', 'button']),
    play: play('the end play'),
    wanted: play('the end play that is wanted')
      .optional()
      .describe('By the maker, millimetres. Left out: what is usual.'),
    returns: z
      .boolean()
      .optional()
      .describe('Did the needle come back to zero when the cam was let go? Left out: nobody said.'),
    gasket: z
      .boolean()
      .optional()
      .describe('A button: was the cover bolted up with its gasket and every bolt? Left out: nobody said.'),
  })
  .describe('How far the cam moves endways.');

export const PREPARE_ENTRIES = {
  'engine.as-it-stands': { body: asItStands, undoable: false, station: 'prepare', seen: false },
  'prepare.checked': { body: checkMade, undoable: false, station: 'prepare', seen: true },
  'end-play.measured': { body: endPlayMeasured, undoable: false, station: 'prepare', seen: true },
} as const satisfies KindsOfEntry;
