import { z } from 'zod';
import { wheelReadingSchema, wheelRingSchema } from '../../crank/wheel';
import { ZERO_METHOD_NAMES } from '../../tdc/zero-methods';
import { degrees, id, instrument, lengthMm } from './entry-fields';
import { MOST_CYLINDERS, MOST_LIFT } from './limits';
import type { KindsOfEntry } from './kind-of-entry';

/** Zero: the search for true TDC, and what became of it. Its kinds of entry. */

const zeroBegun = z
  .strictObject({
    after: id.nullable().describe('The zero before this one, or null.'),
    method: z.enum(ZERO_METHOD_NAMES),
    cylinder: z.int().min(1).max(MOST_CYLINDERS),
    tolerance: degrees(0.05, 5, 'the tolerance of the pin')
      .optional()
      .describe('Of a maker’s locking pin: ± crank degrees, as the manual gives it.'),
    ring: wheelRingSchema.optional().describe('What is read on, where it is not the wheel of the description.'),
  })
  .describe('Begins a search for true TDC.');

const zeroReading = z
  .strictObject({
    zero: id.describe('The zero.begun entry.'),
    setting: id.nullable().describe('The zero.set entry that this reading proves; null before the wheel has been set.'),
    pass: id.describe('The same id for the readings of a pass.'),
    side: z
      .enum(['before', 'after'])
      .describe('Before TDC (a stop: turned the way it runs) or after it (a stop: turned back).'),
    indicator: lengthMm(400, 'the indicator’s figure').optional().describe('What the indicator showed, millimetres.'),
    pushed: lengthMm(MOST_LIFT, 'the figure of the pushed valve')
      .optional()
      .describe(
        'What the indicator showed with the valve pushed down by its adjuster, before the piston met it, millimetres.',
      ),
    wheel: wheelReadingSchema,
    closing: z
      .literal(true)
      .optional()
      .describe('The closing check: one contact by itself after the cam was read, to see whether anything has moved.'),
    from: instrument.optional(),
  })
  .describe('The piston stood at the height of the method; the wheel was read.');

const zeroSet = z
  .strictObject({
    zero: id.describe('The zero.begun entry.'),
    after: id.nullable().describe('The setting before this one, or null.'),
    moved: z.enum(['wheel', 'pointer', 'mark', 'nothing']),
  })
  .describe('The wheel, the pointer or the mark on the rim was put where the readings said.');

const zeroDisturbed = z
  .strictObject({
    setting: id.describe('The zero.set entry that no longer holds.'),
    what: z
      .enum(['wheel', 'pointer', 'fixing', 'with-drive'])
      .describe('fixing: what they are fastened to. with-drive: wheel or pointer came off with the drive.'),
    keeps: z.array(id).describe('Readings that lean on it and were taken before it happened: they stand.'),
  })
  .describe('Wheel, pointer or their fixing was disturbed: the zero is void from then on.');

const readingsRebased = z
  .strictObject({
    from: id.describe('The zero.set entry that the readings lean on.'),
    to: id.describe('The proved zero.set entry that showed how far the wheel had moved.'),
    by: z.number().min(-180).max(180).describe('How far the wheel had moved, crank degrees: added to the old zero.'),
    readings: z.array(id).min(1),
  })
  .describe(
    'Readings of a disturbed zero are counted from where the wheel really stood. Only where nothing but the wheel had moved.',
  );

const tdcIdentified = z
  .strictObject({
    replaces: id.nullable(),
    looked: z
      .enum(['own', 'companion'])
      .describe('At cylinder 1’s valves, or at those of the cylinder that fires 360° away.'),
    seen: z.enum(['rocking', 'both-closed']),
  })
  .describe('Which TDC cylinder 1 stands at.');

const markChecked = z
  .strictObject({
    replaces: id.nullable(),
    part: z.enum(['balancer', 'flywheel']),
    round: lengthMm(3200, 'the way round the rim').describe('Once round the rim, millimetres.'),
    distance: z
      .number({ error: 'the distance must be a length in millimetres' })
      .min(0, { error: 'the distance cannot be negative: say before or after' })
      .describe('From the mark to the pointer at true TDC, millimetres along the rim.'),
    stands: z
      .enum(['before', 'after'])
      .describe('The mark has yet to come to the pointer, or has gone by, as the engine runs.'),
  })
  .refine((body) => body.distance <= body.round / 2, {
    path: ['distance'],
    error: 'that is more than half-way round the rim: measure the short way',
  })
  .describe('The engine’s own TDC mark, looked at while the piston stands at true TDC.');

export const ZERO_ENTRIES = {
  'zero.begun': { body: zeroBegun, undoable: false, station: 'zero', seen: false },
  'zero.reading': { body: zeroReading, undoable: true, station: 'zero', seen: true },
  'zero.set': { body: zeroSet, undoable: true, station: 'zero', seen: false },
  'zero.disturbed': { body: zeroDisturbed, undoable: true, station: 'zero', seen: false },
  'readings.rebased': { body: readingsRebased, undoable: true, station: null, seen: false },
  'tdc.identified': { body: tdcIdentified, undoable: false, station: null, seen: false },
  'mark.checked': { body: markChecked, undoable: false, station: null, seen: true },
} as const satisfies KindsOfEntry;
