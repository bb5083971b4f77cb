import { z } from 'zod';
import { checkFiringOrder } from '../crank/firing-order';
import { crankTrouble } from '../crank/slider-crank';
import { wheelReadingSchema, wheelRingSchema } from '../crank/wheel';

/** An entry is a fact, never changed, at most voided by a later entry. Its meaning hangs on the ids that it names. */
const id = z.uuid({ error: 'expected an id in UUID form' }).describe('UUID (version 7 where a device makes it).');
const degrees = (from: number, to: number, what: string): z.ZodNumber => {
  const error = `${what} must lie between ${from} and ${to} degrees`.replaceAll('-', '−');
  return z.number({ error }).min(from, { error }).max(to, { error });
};
const lengthMm = (most: number, what: string): z.ZodNumber =>
  z
    .number({ error: `${what} must be a length in millimetres` })
    .positive({ error: `${what} must be more than 0` })
    .max(most, { error: `${what} must be at most ${most} mm` })
    .describe('Millimetres.');
const text = (most: number, what: string): z.ZodString =>
  z
    .string({ error: `${what} must be text` })
    .trim()
    .min(1, { error: `${what} must not be empty` })
    .max(most, { error: `${what} must be at most ${most} characters` });

const engineSchema = z
  .strictObject({
    cylinders: z
      .int({ error: 'the number of cylinders must be a whole number' })
      .min(1, { error: 'an engine has at least 1 cylinder' })
      .max(24, { error: 'at most 24 cylinders' }),
    firingOrder: z.array(z.int()).describe('Every cylinder once, in the order in which they fire.'),
    rotation: z.enum(['clockwise', 'counter-clockwise']).describe('Seen from where the degree wheel is.'),
    stroke: lengthMm(1000, 'the stroke').optional(),
    rod: lengthMm(2000, 'the rod length').optional(),
  })
  .superRefine((engine, context) => {
    const order = checkFiringOrder(engine.firingOrder, engine.cylinders);
    if (!order.ok) context.addIssue({ code: 'custom', path: ['firingOrder'], message: order.problem.message });
    if (engine.stroke === undefined || engine.rod === undefined) return;
    const trouble = crankTrouble({ stroke: engine.stroke, rod: engine.rod });
    if (trouble) context.addIssue({ code: 'custom', path: ['rod'], message: trouble });
  });

const buildDescribed = z
  .strictObject({
    replaces: id.nullable().describe('The description that this one corrects; null for the first.'),
    name: text(80, 'the name'),
    engine: engineSchema,
    wheel: wheelRingSchema,
    units: z.enum(['in', 'mm']).describe('How lengths are shown. Lengths are always kept in millimetres.'),
  })
  .describe('What engine this is. Opens the logbook, or corrects what was said before.');

const zeroBegun = z
  .strictObject({
    after: id.nullable().describe('The zero before this one, or null.'),
    method: z.literal('positive-stop'),
    cylinder: z.int().min(1).max(24),
  })
  .describe('Begins a search for true TDC.');

const zeroContact = z
  .strictObject({
    zero: id.describe('The zero.begun entry.'),
    setting: id.nullable().describe('The zero.set entry that this contact proves; null before the wheel has been set.'),
    pass: id.describe('The same id for the two contacts of a pass.'),
    turning: z.enum(['forward', 'backward']).describe('Which way the crank was turned to meet the stop.'),
    wheel: wheelReadingSchema,
  })
  .describe('The piston met the stop; the wheel was read.');

const zeroSet = z
  .strictObject({
    zero: id.describe('The zero.begun entry.'),
    after: id.nullable().describe('The setting before this one, or null.'),
    moved: z.enum(['wheel', 'pointer', 'nothing']),
  })
  .describe('The wheel or the pointer was put where the contacts said.');

const cardEntered = z
  .strictObject({
    replaces: id.nullable().describe('The card that this one corrects, or null.'),
    name: text(80, 'the card’s name').optional(),
    intake: z
      .strictObject({
        centreline: degrees(1, 179, 'the intake centreline').optional().describe('Crank degrees ATDC.'),
        lobeLift: lengthMm(40, 'the lobe lift').optional(),
      })
      .refine((lobe) => lobe.centreline !== undefined || lobe.lobeLift !== undefined, {
        error: 'the card has no figures: give at least the intake centreline or the lobe lift',
      }),
  })
  .describe('What the camshaft’s card prints.');

const targetSet = z
  .strictObject({
    replaces: id.nullable().describe('The target that this one corrects, or null.'),
    target: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('card') }),
      z.strictObject({
        kind: z.literal('ahead-of-card'),
        advance: degrees(-20, 20, 'the advance').describe('Crank degrees, positive advances.'),
      }),
      z.strictObject({
        kind: z.literal('centreline'),
        centreline: degrees(1, 179, 'the target centreline').describe('Crank degrees ATDC.'),
      }),
    ]),
    limit: degrees(0.1, 10, 'the limit').describe('How far from the target the cam may sit, crank degrees.'),
  })
  .describe('Where the cam shall sit, and how closely.');

const trialBegun = z
  .strictObject({
    after: id.nullable().describe('The trial before this one, or null.'),
    note: text(200, 'the note').optional().describe('What was changed on the drive.'),
  })
  .describe('One assembly of the cam drive. Moving the cam ends it and begins the next.');

const readingTaken = z
  .strictObject({
    setting: id
      .nullable()
      .describe('The zero.set entry that this reading leans on; null when TDC was not found first.'),
    trial: id,
    round: id.describe('The same id for the readings that belong together.'),
    cylinder: z.int().min(1).max(24),
    valve: z.literal('intake'),
    sitsOn: z.literal('lifter').describe('What the indicator sits on.'),
    shows: z
      .strictObject({
        kind: z.literal('below-peak'),
        flank: z.enum(['opening', 'closing']).describe('Opening: before peak. Closing: after it.'),
        drop: lengthMm(40, 'the drop'),
      })
      .describe('What the indicator shows.'),
    approach: z.enum(['forward', 'backward']).describe('Which way the crank was turning when it was read.'),
    wheel: wheelReadingSchema,
  })
  .describe('Indicator and wheel, read together.');

const entryVoided = z
  .strictObject({ voids: id, reason: text(200, 'the reason').optional() })
  .describe('Takes an entry out of every calculation. It stays in the logbook.');

const envelope = {
  id,
  buildId: id,
  takenAt: z.iso
    .datetime({ offset: true, error: 'expected a time such as 2026-03-14T09:26:53Z' })
    .describe('The device’s clock. For people; nothing is computed from it.'),
  builderId: id,
  seq: z.int().min(1).optional().describe('Place in the logbook, given by the server.'),
  receivedAt: z.iso.datetime({ offset: true }).optional().describe('The server’s clock.'),
};

export const entrySchema = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ ...envelope, kind: z.literal('build.described'), body: buildDescribed }),
    z.strictObject({ ...envelope, kind: z.literal('zero.begun'), body: zeroBegun }),
    z.strictObject({ ...envelope, kind: z.literal('zero.contact'), body: zeroContact }),
    z.strictObject({ ...envelope, kind: z.literal('zero.set'), body: zeroSet }),
    z.strictObject({ ...envelope, kind: z.literal('card.entered'), body: cardEntered }),
    z.strictObject({ ...envelope, kind: z.literal('target.set'), body: targetSet }),
    z.strictObject({ ...envelope, kind: z.literal('trial.begun'), body: trialBegun }),
    z.strictObject({ ...envelope, kind: z.literal('reading.taken'), body: readingTaken }),
    z.strictObject({ ...envelope, kind: z.literal('entry.voided'), body: entryVoided }),
  ],
  {
    error: (issue) =>
      issue.code === 'invalid_union' ? `unknown kind of entry; known are ${ENTRY_KINDS.join(', ')}` : undefined,
  },
);

export const ENTRY_KINDS = [
  'build.described',
  'zero.begun',
  'zero.contact',
  'zero.set',
  'card.entered',
  'target.set',
  'trial.begun',
  'reading.taken',
  'entry.voided',
] as const;

export type Entry = z.infer<typeof entrySchema>;
export type EntryKind = Entry['kind'];
export type EntryOf<K extends EntryKind> = Extract<Entry, { kind: K }>;
export type BodyOf<K extends EntryKind> = EntryOf<K>['body'];
export type Described = BodyOf<'build.described'>;
