import { z } from 'zod';
import { advanceOfSetting, hardwareSchema, settingSchema } from '../../timing-set/hardware';
import { bank, id, text } from './entry-fields';
import { NAME_LENGTH } from './limits';
import type { KindsOfEntry } from './kind-of-entry';

/** Move: the drive and where its parts stand. Its kinds of entry. */

const driveFitted = z
  .strictObject({
    replaces: id.nullable().describe('The statement that this one corrects, or null.'),
    trial: id.describe('The trial in which the drive stands like this.'),
    camTurns: z
      .enum(['with-crank', 'against-crank'])
      .describe('Seen from where the wheel is. A cam gear that meshes with the crank’s turns against it.'),
    parts: z
      .array(
        z
          .strictObject({
            part: id,
            name: text(NAME_LENGTH, 'the name'),
            library: id.nullable().describe('The piece in the library of the shop that it is, or null.'),
            hardware: hardwareSchema,
            cam: z.enum(['all', 'intake', 'exhaust']).describe('Which cams it turns.'),
            bank: bank.nullable().describe('On which bank; null where it turns those of both.'),
            at: settingSchema,
            experience: z
              .array(
                z.strictObject({
                  from: settingSchema,
                  to: settingSchema,
                  gave: z.number().min(-90).max(90).describe('Crank degrees of advance.'),
                  standard: z.number().min(0).max(90),
                  took: z
                    .number()
                    .min(0)
                    .max(1440)
                    .optional()
                    .describe('Minutes from the last reading before it to the last after it. Left out: not known.'),
                }),
              )
              .max(200)
              .describe('What it gave on other engines of the shop, as known when it was fitted.'),
          })
          .superRefine(({ hardware, at }, context) => {
            if (advanceOfSetting(hardware, at) === null)
              context.addIssue({
                code: 'custom',
                path: ['at'],
                message: 'the hardware has no such position: take one of its marks, or a figure inside its range',
              });
          }),
      )
      .max(16, { error: 'at most 16 parts' })
      .refine((parts) => new Set(parts.map(({ part }) => part)).size === parts.length, {
        error: 'a part stands twice',
      }),
  })
  .describe('The timing hardware on the drive, and where it stands.');

const phaserRead = z
  .strictObject({
    trial: id,
    part: id.describe('The phaser.'),
    nominal: z.number().min(-360).max(360),
    tolerance: z
      .number({ error: 'the tolerance must be a number' })
      .positive({ error: 'the tolerance must be more than 0' })
      .max(90, { error: 'the tolerance must be at most 90' })
      .optional()
      .describe(
        'How far from the nominal the manual lets it be, either way, in the same scale. With it the cam is judged by its angle.',
      ),
    shows: z.number().min(-360).max(360),
    setTo: z
      .number()
      .min(-360)
      .max(360)
      .optional()
      .describe(
        'What it had been set to with the drive loose, where that is known. 0 where the cams were clamped at 0.',
      ),
  })
  .describe('The angle of a phaser in its maker’s own scale: what it should be, and what it is after two turns.');

export const MOVE_ENTRIES = {
  'drive.fitted': { body: driveFitted, undoable: true, station: 'move', seen: false },
  'phaser.read': { body: phaserRead, undoable: true, station: 'move', seen: false },
} as const satisfies KindsOfEntry;
