import { z } from 'zod';
import { POCKETS } from '../../clearance/valve-to-piston';
import { degrees, id, lengthMm, liftMm, valve } from './entry-fields';
import { CLEARANCE, MOST_CYLINDERS } from './limits';
import type { KindsOfEntry } from './kind-of-entry';

const [LEAST_ANGLE, MOST_ANGLE] = CLEARANCE.angle;
const ANGLE_TROUBLE = `the valve angle must lie between ${LEAST_ANGLE} and ${MOST_ANGLE} degrees`;

/** Clear: valve to piston. Its kinds of entry. */

const facing = z.strictObject({
  angle: z
    .number({ error: 'the valve angle must be a number of degrees' })
    .min(LEAST_ANGLE, { error: ANGLE_TROUBLE })
    .max(MOST_ANGLE, { error: ANGLE_TROUBLE })
    .describe('Between valve and bore, degrees.'),
  pocket: z.enum(POCKETS).describe('A pocket parallel to the valve head, a flat crown, or unknown.'),
  minimum: lengthMm(CLEARANCE.minimum, 'the least clearance'),
});

const clearanceSetUp = z
  .strictObject({
    replaces: id.nullable(),
    intake: facing.optional(),
    exhaust: facing.optional(),
  })
  .describe('How valves and pistons face each other, and how near they may come.');

const clearanceMeasured = z
  .strictObject({
    trial: id.describe('The trial in which it was measured: the cam stood as it stands there.'),
    cylinder: z.int().min(1).max(MOST_CYLINDERS),
    valve,
    gaps: z
      .array(
        z.strictObject({
          at: degrees(...CLEARANCE.at, 'the place of the crank').describe('Crank degrees past overlap TDC.'),
          gap: liftMm(CLEARANCE.gap, 'the clearance'),
        }),
      )
      .min(1, { error: 'give at least one clearance' })
      .max(40, { error: 'at most 40 clearances at once' })
      .refine((gaps) => new Set(gaps.map(({ at }) => at)).size === gaps.length, {
        error: 'a place of the crank stands twice',
      }),
  })
  .describe('Clearance between valve and piston round overlap TDC.');

export const CLEAR_ENTRIES = {
  'clearance.set-up': { body: clearanceSetUp, undoable: false, station: 'clear', seen: false },
  'clearance.measured': { body: clearanceMeasured, undoable: true, station: 'clear', seen: true },
} as const satisfies KindsOfEntry;
