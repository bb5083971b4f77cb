import { z } from 'zod';
import { FEWEST_POINTS } from '../../cam/trace-points';
import { wheelReadingSchema } from '../../crank/wheel';
import { READ_METHOD_NAMES } from '../../measure/read-methods';
import { settingSchema } from '../../timing-set/hardware';
import { bank, camName, id, instrument, lengthMm, liftMm, text, valve } from './entry-fields';
import { MOST_CYLINDERS, MOST_LIFT, SENTENCE_LENGTH } from './limits';
import type { KindsOfEntry } from './kind-of-entry';

/** Read: trials, readings, traces. Its kinds of entry. */

const movedCam = z.strictObject({
  cam: camName,
  bank,
  by: z.number().min(-90).max(90).describe('What was expected of the move, crank degrees of advance.'),
  standard: z.number().min(0).max(90).describe('Its standard uncertainty.'),
});

export const predictedViewSchema = z.strictObject({
  view: text(SENTENCE_LENGTH, 'the view').describe('Key of the view that the reading will show.'),
  title: text(SENTENCE_LENGTH, 'the title'),
  shows: text(SENTENCE_LENGTH, 'the figure').describe('The figure in words.'),
  value: z.number(),
  unit: z.enum(['crank degrees', 'mm']),
  standard: z.number().min(0).describe('In its own unit.'),
});

const trialBegun = z
  .strictObject({
    after: id.nullable().describe('The trial before this one, or null.'),
    note: text(SENTENCE_LENGTH, 'the note').optional().describe('What was changed on the drive.'),
    why: z
      .enum(['moved', 'checked'])
      .optional()
      .describe('The cam was moved; or nothing was, and it is measured again later. Left out: moved.'),
    move: z
      .strictObject({
        parts: z
          .array(z.strictObject({ part: id, to: settingSchema }))
          .max(16, { error: 'at most 16 parts' })
          .refine((parts) => new Set(parts.map(({ part }) => part)).size === parts.length, {
            error: 'a part is set twice',
          }),
        cams: z.array(movedCam).max(4),
        predicted: z.array(predictedViewSchema).max(60).describe('What the readings should show after it.'),
      })
      .optional()
      .describe('What was set on the drive, and what was expected of it.'),
  })
  .describe('One assembly of the cam drive. Moving the cam ends it and begins the next.');

const SITS_ON = ['lobe', 'lifter', 'bucket', 'valve'] as const;

const flank = z.enum(['opening', 'closing']).describe('Opening: on the way up to the nose. Closing: on the way down.');

const readingTaken = z
  .strictObject({
    setting: id
      .nullable()
      .describe('The zero.set entry that this reading leans on; null when TDC was not found first.'),
    trial: id,
    round: id.describe('The same id for the readings that belong together.'),
    method: z.enum(READ_METHOD_NAMES).optional().describe('What the round is for. Left out: centreline.'),
    cylinder: z.int().min(1).max(MOST_CYLINDERS),
    valve,
    sitsOn: z.enum(SITS_ON).describe('What the indicator sits on.'),
    shows: z
      .discriminatedUnion('kind', [
        z
          .strictObject({ kind: z.literal('below-peak'), flank, drop: lengthMm(MOST_LIFT, 'the drop') })
          .describe('Zeroed at peak lift; so far below it.'),
        z
          .strictObject({ kind: z.literal('above-base'), flank, lift: liftMm(MOST_LIFT, 'the lift') })
          .describe('Zeroed on the base circle; so far above it.'),
        z
          .strictObject({
            kind: z.literal('peak-lift'),
            lift: liftMm(MOST_LIFT, 'the lift'),
            springs: z
              .enum(['checking', 'valve'])
              .optional()
              .describe('At the valve: what pressed against it. Left out: nobody said.'),
          })
          .describe('From the base circle to the peak. No wheel.'),
        z
          .strictObject({
            kind: z.literal('tdc-lift'),
            lift: liftMm(MOST_LIFT, 'the lift'),
            zeroed: z
              .enum(['base', 'tdc'])
              .optional()
              .describe('Zeroed on the base circle, or at TDC and then turned on to the base circle. Left out: base.'),
          })
          .describe('Above the base circle at overlap TDC: by the wheel, or without one.'),
        z
          .strictObject({ kind: z.literal('trace-point'), lift: liftMm(MOST_LIFT, 'the lift') })
          .describe('Above the base circle, one of many round the lobe.'),
        z
          .strictObject({ kind: z.literal('by-feel'), flank })
          .describe('The fingers felt the valve begin to lift, or down again, its lash just taken up. No indicator.'),
      ])
      .describe('What the indicator shows.'),
    approach: z.enum(['forward', 'backward']).describe('Which way the crank was turning when it was read.'),
    wheel: wheelReadingSchema.nullable().describe('null only for what needs no wheel: peak-lift and tdc-lift.'),
    from: instrument.optional(),
  })
  .refine(({ shows: { kind }, wheel }) => wheel !== null || kind === 'peak-lift' || kind === 'tdc-lift', {
    path: ['wheel'],
    error: 'this reading needs what stood under the pointer',
  })
  .describe('Indicator and wheel, read together.');

export const MOST_TRACE_POINTS = 7200;

const traceRecorded = z
  .strictObject({
    setting: id.nullable().describe('The zero.set entry that it leans on, or null.'),
    trial: id,
    cylinder: z.int().min(1).max(MOST_CYLINDERS),
    valve,
    sitsOn: z.enum(SITS_ON),
    approach: z.enum(['forward', 'backward']),
    source: z.enum(['pasted', 'file', 'instrument']),
    name: text(SENTENCE_LENGTH, 'the name of the trace').optional().describe('The file that it came from.'),
    counted: z
      .enum(['from-zero', 'anyhow'])
      .describe('from-zero: angle 0 is the zero of the wheel. anyhow: nobody knows where TDC is on this scale.'),
    points: z
      .array(z.tuple([z.number().min(-100_000).max(100_000), z.number().min(-MOST_LIFT).max(MOST_LIFT)]))
      .min(FEWEST_POINTS, { error: `a trace has at least ${FEWEST_POINTS} points` })
      .max(MOST_TRACE_POINTS, { error: `a trace has at most ${MOST_TRACE_POINTS} points` })
      .describe('Crank degrees growing as the engine runs, and lift in millimetres.'),
  })
  .describe('Lift against angle, taken as a whole.');

const tracePointsVoided = z
  .strictObject({
    trace: id.describe('The trace.recorded entry.'),
    points: z.array(z.int().min(0)).min(1).describe('Places in its list, from 0.'),
  })
  .describe('Points of a trace that are left out.');

export const READ_ENTRIES = {
  'trial.begun': { body: trialBegun, undoable: true, station: 'read', seen: false },
  'reading.taken': { body: readingTaken, undoable: true, station: 'read', seen: true },
  'trace.recorded': { body: traceRecorded, undoable: true, station: 'read', seen: false },
  'trace.points-voided': { body: tracePointsVoided, undoable: true, station: null, seen: false },
} as const satisfies KindsOfEntry;
