import { z } from 'zod';
import { POCKETS } from '../clearance/valve-to-piston';
import { SIGN_CHECK_NAMES } from '../sign/sign-checks';
import { advanceOfSetting, hardwareSchema, settingSchema } from '../timing-set/hardware';
import { bank, degrees, id, lengthMm, liftMm, text, valve } from './entry-fields';

/** Bodies of the entries that come after the verdict: the drive and its moves, clearances, the signature. */

export const driveFitted = z
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
            name: text(80, 'the name'),
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

export const phaserRead = z
  .strictObject({
    trial: id,
    part: id.describe('The phaser.'),
    nominal: z.number().min(-360).max(360),
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

const facing = z.strictObject({
  angle: z
    .number({ error: 'the valve angle must be a number of degrees' })
    .min(0, { error: 'the valve angle must lie between 0 and 60 degrees' })
    .max(60, { error: 'the valve angle must lie between 0 and 60 degrees' })
    .describe('Between valve and bore, degrees.'),
  pocket: z.enum(POCKETS).describe('A pocket parallel to the valve head, a flat crown, or unknown.'),
  minimum: lengthMm(20, 'the least clearance'),
});

export const clearanceSetUp = z
  .strictObject({
    replaces: id.nullable(),
    intake: facing.optional(),
    exhaust: facing.optional(),
  })
  .describe('How valves and pistons face each other, and how near they may come.');

export const clearanceMeasured = z
  .strictObject({
    trial: id.describe('The trial in which it was measured: the cam stood as it stands there.'),
    cylinder: z.int().min(1).max(24),
    valve,
    gaps: z
      .array(
        z.strictObject({
          at: degrees(-60, 60, 'the place of the crank').describe('Crank degrees past overlap TDC.'),
          gap: liftMm(40, 'the clearance'),
        }),
      )
      .min(1, { error: 'give at least one clearance' })
      .max(40, { error: 'at most 40 clearances at once' })
      .refine((gaps) => new Set(gaps.map(({ at }) => at)).size === gaps.length, {
        error: 'a place of the crank stands twice',
      }),
  })
  .describe('Clearance between valve and piston round overlap TDC.');

export const signChecked = z
  .strictObject({
    replaces: id.nullable(),
    check: z.enum(SIGN_CHECK_NAMES),
    result: z.enum(['done', 'skipped']),
    reason: text(200, 'the reason').optional(),
  })
  .refine((body) => body.result === 'done' || body.reason !== undefined, {
    path: ['reason'],
    error: 'say why the check is skipped',
  })
  .describe('A check before the build is signed, made or skipped with a reason.');

export const buildSigned = z
  .strictObject({
    after: id.nullable().describe('The reopening before it, or null.'),
    name: text(80, 'the name').describe('Who signs, as written.'),
    note: text(400, 'the note').optional(),
  })
  .describe('The build is signed: closed to new entries until it is reopened.');

export const buildReopened = z
  .strictObject({ signature: id.describe('The build.signed entry.'), reason: text(200, 'the reason') })
  .describe('A signed build is opened again, with a reason.');
