import { z } from 'zod';
import { MID_LIFTS } from '../../valve-train/pushrod-trials';
import { PHOTO_EDGE } from '../../photos/photo';
import { fingerprint } from './photo';
import { id, lengthMm, liftMm, valve } from './entry-fields';
import { MOST_CYLINDERS, MOST_LIFT, ROCKERS } from './limits';
import type { KindsOfEntry } from './kind-of-entry';

/** Rockers and pushrods: bodies of entries. */

const ASIDE_TROUBLE = `the pattern lies at most ${ROCKERS.aside} mm from the middle`;

const rockersSetUp = z
  .strictObject({
    replaces: id.nullable(),
    mounted: z
      .enum(['stud', 'pedestal', 'shaft'])
      .describe('On a stud the pushrod’s length sets the geometry; on a pedestal or a shaft shims do.'),
    arm: lengthMm(ROCKERS.arm, 'the arm').describe('From the pivot to the centre of the roller, millimetres.'),
    tip: lengthMm(ROCKERS.tip, 'the tip of the valve').optional().describe('Its diameter, millimetres.'),
    step: lengthMm(ROCKERS.step, 'the supplier’s step')
      .optional()
      .describe('Pushrods are sold in such steps, millimetres. Left out: made to any length.'),
  })
  .describe('How the rockers are mounted, and what pushrods can be had.');

/** A photo is at most so large, pixels. */
const place = z.tuple([z.number().min(0).max(PHOTO_EDGE), z.number().min(0).max(PHOTO_EDGE)]).readonly();

const rockerTried = z
  .strictObject({
    valve,
    cylinder: z.int().min(1).max(MOST_CYLINDERS),
    length: liftMm(ROCKERS.length, 'the length').describe(
      'Of the pushrod on a stud; of the shims under it otherwise. Millimetres.',
    ),
    lift: liftMm(MOST_LIFT, 'the lift at the valve').optional(),
    pattern: liftMm(ROCKERS.pattern, 'the width of the pattern')
      .optional()
      .describe('On the tip of the valve, millimetres.'),
    offset: z
      .number({ error: 'the place of the pattern must be a length in millimetres' })
      .min(-ROCKERS.aside, { error: ASIDE_TROUBLE })
      .max(ROCKERS.aside, { error: ASIDE_TROUBLE })
      .optional()
      .describe('Its middle from that of the tip, positive away from the pivot. Millimetres.'),
    seen: z
      .enum(MID_LIFTS)
      .optional()
      .describe(
        'The arm at mid-lift: square to the stem, its roller still above the perpendicular, or below it already.',
      ),
    onPhoto: z
      .strictObject({
        picture: fingerprint.describe('The photo.taken picture that was touched.'),
        marks: z
          .tuple([place, place, place, place])
          .readonly()
          .describe('Edges of the tip, edges of the pattern; of each the one toward the pivot first. Pixels.'),
      })
      .optional()
      .describe('Where on a photo the pattern was measured.'),
  })
  .refine((body) => body.pattern !== undefined || body.seen !== undefined || body.lift !== undefined, {
    path: ['pattern'],
    error: 'say what it showed: the pattern, the arm at mid-lift, or the lift',
  })
  .describe('A length of pushrod that was tried, or a stack of shims, and what it showed.');

const pushrodMeasured = z
  .strictObject({
    replaces: id.nullable(),
    valve,
    length: lengthMm(ROCKERS.length, 'the length').describe('At zero lash, millimetres.'),
    lifter: z
      .enum(['own', 'made-solid', 'carried-over', 'other'])
      .describe(
        'The lifter that will run; that one made solid; carried over from a solid one by the nut’s place; or another than will run.',
      ),
    preload: liftMm(ROCKERS.preload, 'the preload').describe(
      'What the plunger shall be pressed down; 0 with a solid lifter. Millimetres.',
    ),
    travel: lengthMm(ROCKERS.travel, 'the plunger’s travel').optional(),
    engagement: lengthMm(ROCKERS.engagement, 'the engagement of the thread').optional(),
    stud: lengthMm(ROCKERS.stud, 'the stud’s diameter').optional(),
    clears: z.boolean().optional().describe('Does the pushrod clear the head through the whole lift?'),
  })
  .refine((body) => body.travel === undefined || body.preload < body.travel, {
    path: ['preload'],
    error: 'the preload is deeper than the plunger travels',
  })
  .describe('The length of pushrod that is needed, for all valves of one kind.');

export const ROCKERS_ENTRIES = {
  'rockers.set-up': { body: rockersSetUp, undoable: false, station: 'rockers', seen: false },
  'rocker.tried': { body: rockerTried, undoable: true, station: 'rockers', seen: true },
  'pushrod.measured': { body: pushrodMeasured, undoable: false, station: 'rockers', seen: true },
} as const satisfies KindsOfEntry;
