import { z } from 'zod';
import { checkFiringAngles } from '../crank/firing';
import { checkFiringOrder } from '../crank/firing-order';
import { crankTrouble } from '../crank/slider-crank';
import { wheelReadingSchema, wheelRingSchema } from '../crank/wheel';
import { ZERO_METHOD_NAMES } from '../tdc/zero-methods';
import { FEWEST_POINTS } from '../cam/trace-points';
import { READ_METHOD_NAMES, RULING_METHODS } from '../measure/read-methods';
import { CHECK_NAMES } from '../prepare/checks';
import { settingSchema } from '../timing-set/hardware';
import {
  buildReopened,
  buildSigned,
  clearanceMeasured,
  clearanceSetUp,
  driveFitted,
  phaserRead,
  signChecked,
} from './closing-entries';
import { bank, camName, degrees, id, instrument, lengthMm, liftMm, ratio, text, time, valve } from './entry-fields';

/** An entry is a fact, never changed, at most voided by a later entry. Its meaning hangs on the ids that it names. */
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
    pinOffset: z
      .number({ error: 'the pin offset must be a length in millimetres' })
      .min(-20, { error: 'the pin offset must be at most 20 mm' })
      .max(20, { error: 'the pin offset must be at most 20 mm' })
      .optional()
      .describe('Millimetres, positive toward the side to which the crankpin moves after TDC.'),
    cams: z.enum(['single', 'twin']).optional().describe('One camshaft for both valves, or one each. Left out: one.'),
    secondBank: z
      .int({ error: 'a cylinder is a whole number' })
      .min(2, { error: 'cylinder 1 is on the first bank: name one of the other' })
      .max(24, { error: 'at most 24 cylinders' })
      .optional()
      .describe('Twin cams on two banks: the cylinder at which the second bank is measured. Left out: one bank.'),
    rockerRatio: z
      .strictObject({ intake: ratio('the rocker ratio'), exhaust: ratio('the rocker ratio') })
      .optional()
      .describe('Of this engine, which may differ from the card’s. Left out where there are no rockers.'),
    bore: lengthMm(1000, 'the bore').optional(),
    compression: z
      .discriminatedUnion('given', [
        z.strictObject({
          given: z.literal('ratio'),
          ratio: z
            .number({ error: 'the compression ratio must be a number' })
            .min(2, { error: 'the compression ratio must lie between 2 and 30' })
            .max(30, { error: 'the compression ratio must lie between 2 and 30' }),
        }),
        z.strictObject({
          given: z.literal('chamber'),
          volume: z
            .number({ error: 'the chamber must be a volume in cm³' })
            .positive({ error: 'the chamber must be more than 0' })
            .max(5000, { error: 'the chamber must be at most 5000 cm³' })
            .describe('Everything above the piston at TDC, cm³.'),
        }),
      ])
      .optional()
      .describe('For what the cylinder traps when the intake closes.'),
    firingAngles: z
      .array(z.number())
      .optional()
      .describe(
        'Odd-fire engines: crank degrees after the first of the firing order, in its order. Left out for even firing.',
      ),
  })
  .superRefine((engine, context) => {
    const order = checkFiringOrder(engine.firingOrder, engine.cylinders);
    if (!order.ok) context.addIssue({ code: 'custom', path: ['firingOrder'], message: order.problem.message });
    if (engine.firingAngles) {
      const angles = checkFiringAngles(engine.firingAngles, engine.cylinders);
      if (!angles.ok) context.addIssue({ code: 'custom', path: ['firingAngles'], message: angles.problem.message });
    }
    if (engine.secondBank !== undefined && (engine.cams !== 'twin' || engine.secondBank > engine.cylinders))
      context.addIssue({
        code: 'custom',
        path: ['secondBank'],
        message:
          engine.cams === 'twin'
            ? `there is no cylinder ${engine.secondBank}`
            : 'a second bank has cams of its own: say that the engine has twin cams',
      });
    if (engine.stroke === undefined || engine.rod === undefined) return;
    const trouble = crankTrouble({ stroke: engine.stroke, rod: engine.rod, pinOffset: engine.pinOffset ?? 0 });
    if (trouble) context.addIssue({ code: 'custom', path: ['rod'], message: trouble });
  });

const buildDescribed = z
  .strictObject({
    replaces: id.nullable().describe('The description that this one corrects; null for the first.'),
    name: text(80, 'the name'),
    engine: engineSchema,
    wheel: wheelRingSchema,
    units: z.enum(['in', 'mm']).describe('How lengths are shown. Lengths are always kept in millimetres.'),
    practice: z
      .literal(true)
      .optional()
      .describe(
        'An engine that does not exist, made up to practise on. No shop keeps such a logbook among its builds.',
      ),
    instruments: z
      .strictObject({
        wheelDiameter: lengthMm(1000, 'the wheel’s diameter').optional(),
        graduation: degrees(0.1, 10, 'the graduation').optional().describe('Degrees from line to line of the wheel.'),
        pointerGap: lengthMm(100, 'the gap behind the pointer').optional(),
        resolution: lengthMm(1, 'the indicator’s resolution').optional(),
      })
      .optional()
      .describe('What is measured with, for the uncertainty.'),
  })
  .describe('What engine this is. Opens the logbook, or corrects what was said before.');

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
  })
  .describe('How the engine stands and what is there to measure with.');

const checkMade = z
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

const endPlayMeasured = z
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

const zeroBegun = z
  .strictObject({
    after: id.nullable().describe('The zero before this one, or null.'),
    method: z.enum(ZERO_METHOD_NAMES),
    cylinder: z.int().min(1).max(24),
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

const timingLine = z
  .strictObject({
    height: liftMm(20, 'the checking height')
      .nullable()
      .describe('Checking height, millimetres; null where the card does not say.'),
    at: z.enum(['lobe', 'valve']).describe('Whose lift the height is.'),
    duration: degrees(60, 420, 'the duration').optional(),
    opens: degrees(-120, 200, 'the opening').optional().describe('Intake: °BTDC. Exhaust: °BBDC. Negative: after.'),
    closes: degrees(-120, 200, 'the closing').optional().describe('Intake: °ABDC. Exhaust: °ATDC. Negative: before.'),
  })
  .refine((line) => line.duration !== undefined || line.opens !== undefined || line.closes !== undefined, {
    error: 'a checking height without a figure says nothing',
  })
  .describe('What the card prints at one checking height, crank degrees.');

const lobeCard = (which: 'intake' | 'exhaust') =>
  z.strictObject({
    centreline: degrees(1, 179, `the ${which} centreline`)
      .optional()
      .describe(which === 'intake' ? 'Crank degrees ATDC.' : 'Crank degrees BTDC.'),
    lobeLift: lengthMm(40, 'the lobe lift').optional(),
    valveLift: lengthMm(40, 'the valve lift').optional(),
    ratio: ratio('the ratio').optional().describe('That the valve lift is printed for.'),
    lashHot: liftMm(5, 'the lash').optional(),
    lashCold: liftMm(5, 'the lash').optional(),
    timing: z
      .array(timingLine)
      .max(8, { error: 'at most 8 checking heights' })
      .refine((lines) => new Set(lines.map(({ height, at }) => `${height} ${at}`)).size === lines.length, {
        error: 'a checking height stands twice',
      })
      .optional(),
    liftAtTdc: z
      .array(
        z.strictObject({
          centreline: degrees(1, 179, 'the centreline'),
          lift: liftMm(40, 'the lift at TDC'),
        }),
      )
      .max(8, { error: 'at most 8 centrelines' })
      .optional()
      .describe('Lift at the lobe at overlap TDC, for one or more centrelines.'),
  });

const cardFigures = {
  name: text(80, 'the card’s name').optional(),
  intake: lobeCard('intake').optional(),
  exhaust: lobeCard('exhaust').optional(),
  lobeSeparation: degrees(60, 150, 'the LSA').optional().describe('Cam degrees between the centrelines.'),
  groundInAdvance: degrees(-20, 20, 'the ground-in advance').optional().describe('LSA − ICL.'),
  centrelineMeans: z
    .enum(['nose', 'events'], { error: 'expected nose or events' })
    .optional()
    .describe(
      'What its centrelines are the middle of: an equal drop from the peak, or the events. Left out where the card does not say.',
    ),
};

/** What a card prints, as it prints it. */
export const camCardSchema = z.strictObject(cardFigures);

const cardEntered = z
  .strictObject({
    replaces: id.nullable().describe('The card that this one corrects, or null.'),
    ...cardFigures,
  })
  .refine(
    ({ intake = {}, exhaust = {}, lobeSeparation, groundInAdvance }) =>
      lobeSeparation !== undefined ||
      groundInAdvance !== undefined ||
      [intake, exhaust].some((lobe) =>
        Object.values(lobe).some((each) => (Array.isArray(each) ? each.length > 0 : each !== undefined)),
      ),
    { error: 'the card has no figures: give at least a centreline, a lift or a duration' },
  )
  .describe('What the camshaft’s card prints, as it prints it: figures that contradict each other are kept.');

const wantedOf = (which: 'intake' | 'exhaust') =>
  z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('card') }),
    z.strictObject({
      kind: z.literal('ahead-of-card'),
      advance: degrees(-20, 20, 'the advance').describe('Crank degrees, positive advances.'),
    }),
    z.strictObject({
      kind: z.literal('centreline'),
      centreline: degrees(1, 179, 'the target centreline').describe(
        which === 'intake' ? 'Crank degrees ATDC.' : 'Crank degrees BTDC.',
      ),
    }),
  ]);

const targetSet = z
  .strictObject({
    replaces: id.nullable().describe('The target that this one corrects, or null.'),
    target: wantedOf('intake'),
    exhaust: wantedOf('exhaust')
      .optional()
      .describe('Twin cams: where the exhaust cam shall sit. Left out: as far ahead of its card as the intake.'),
    limit: degrees(0.1, 10, 'the limit').describe('How far from the target the cam may sit, crank degrees.'),
    judgedBy: z
      .enum(RULING_METHODS)
      .optional()
      .describe(
        'The method that the verdict shall speak from, as the rule of the shop was then. Left out: all readings weighed together.',
      ),
  })
  .describe('Where the cam shall sit, and how closely.');

const movedCam = z.strictObject({
  cam: camName,
  bank,
  by: z.number().min(-90).max(90).describe('What was expected of the move, crank degrees of advance.'),
  standard: z.number().min(0).max(90).describe('Its standard uncertainty.'),
});
export const predictedViewSchema = z.strictObject({
  view: text(200, 'the view').describe('Key of the view that the reading will show.'),
  title: text(200, 'the title'),
  shows: text(200, 'the figure').describe('The figure in words.'),
  value: z.number(),
  unit: z.enum(['crank degrees', 'mm']),
  standard: z.number().min(0).describe('In its own unit.'),
});

const trialBegun = z
  .strictObject({
    after: id.nullable().describe('The trial before this one, or null.'),
    note: text(200, 'the note').optional().describe('What was changed on the drive.'),
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
    cylinder: z.int().min(1).max(24),
    valve,
    sitsOn: z.enum(SITS_ON).describe('What the indicator sits on.'),
    shows: z
      .discriminatedUnion('kind', [
        z
          .strictObject({ kind: z.literal('below-peak'), flank, drop: lengthMm(40, 'the drop') })
          .describe('Zeroed at peak lift; so far below it.'),
        z
          .strictObject({ kind: z.literal('above-base'), flank, lift: liftMm(40, 'the lift') })
          .describe('Zeroed on the base circle; so far above it.'),
        z
          .strictObject({ kind: z.literal('peak-lift'), lift: liftMm(40, 'the lift') })
          .describe('From the base circle to the peak. No wheel.'),
        z
          .strictObject({ kind: z.literal('tdc-lift'), lift: liftMm(40, 'the lift') })
          .describe('Above the base circle at overlap TDC: by the wheel, or without one.'),
        z
          .strictObject({ kind: z.literal('trace-point'), lift: liftMm(40, 'the lift') })
          .describe('Above the base circle, one of many round the lobe.'),
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
    cylinder: z.int().min(1).max(24),
    valve,
    sitsOn: z.enum(SITS_ON),
    approach: z.enum(['forward', 'backward']),
    source: z.enum(['pasted', 'file', 'instrument']),
    name: text(200, 'the name of the trace').optional().describe('The file that it came from.'),
    counted: z
      .enum(['from-zero', 'anyhow'])
      .describe('from-zero: angle 0 is the zero of the wheel. anyhow: nobody knows where TDC is on this scale.'),
    points: z
      .array(z.tuple([z.number().min(-100_000).max(100_000), z.number().min(-40).max(40)]))
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

const entryVoided = z
  .strictObject({ voids: id, reason: text(200, 'the reason').optional() })
  .describe('Takes an entry out of every calculation. It stays in the logbook.');

const envelope = {
  id,
  buildId: id,
  takenAt: time.describe('The device’s clock. For people; nothing is computed from it.'),
  builderId: id,
  seq: z.int().min(1).optional().describe('Place in the logbook, given by the server.'),
  receivedAt: time.optional().describe('The server’s clock.'),
  postedBy: id
    .optional()
    .describe(
      'Who was signed in when the server took it, where that is not the builder who is named. Given by the server.',
    ),
};

export const entrySchema = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ ...envelope, kind: z.literal('build.described'), body: buildDescribed }),
    z.strictObject({ ...envelope, kind: z.literal('zero.begun'), body: zeroBegun }),
    z.strictObject({ ...envelope, kind: z.literal('zero.reading'), body: zeroReading }),
    z.strictObject({ ...envelope, kind: z.literal('zero.set'), body: zeroSet }),
    z.strictObject({ ...envelope, kind: z.literal('zero.disturbed'), body: zeroDisturbed }),
    z.strictObject({ ...envelope, kind: z.literal('readings.rebased'), body: readingsRebased }),
    z.strictObject({ ...envelope, kind: z.literal('engine.as-it-stands'), body: asItStands }),
    z.strictObject({ ...envelope, kind: z.literal('prepare.checked'), body: checkMade }),
    z.strictObject({ ...envelope, kind: z.literal('end-play.measured'), body: endPlayMeasured }),
    z.strictObject({ ...envelope, kind: z.literal('tdc.identified'), body: tdcIdentified }),
    z.strictObject({ ...envelope, kind: z.literal('mark.checked'), body: markChecked }),
    z.strictObject({ ...envelope, kind: z.literal('card.entered'), body: cardEntered }),
    z.strictObject({ ...envelope, kind: z.literal('target.set'), body: targetSet }),
    z.strictObject({ ...envelope, kind: z.literal('trial.begun'), body: trialBegun }),
    z.strictObject({ ...envelope, kind: z.literal('reading.taken'), body: readingTaken }),
    z.strictObject({ ...envelope, kind: z.literal('trace.recorded'), body: traceRecorded }),
    z.strictObject({ ...envelope, kind: z.literal('trace.points-voided'), body: tracePointsVoided }),
    z.strictObject({ ...envelope, kind: z.literal('drive.fitted'), body: driveFitted }),
    z.strictObject({ ...envelope, kind: z.literal('phaser.read'), body: phaserRead }),
    z.strictObject({ ...envelope, kind: z.literal('clearance.set-up'), body: clearanceSetUp }),
    z.strictObject({ ...envelope, kind: z.literal('clearance.measured'), body: clearanceMeasured }),
    z.strictObject({ ...envelope, kind: z.literal('sign.checked'), body: signChecked }),
    z.strictObject({ ...envelope, kind: z.literal('build.signed'), body: buildSigned }),
    z.strictObject({ ...envelope, kind: z.literal('build.reopened'), body: buildReopened }),
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
  'zero.reading',
  'zero.set',
  'zero.disturbed',
  'readings.rebased',
  'engine.as-it-stands',
  'prepare.checked',
  'end-play.measured',
  'tdc.identified',
  'mark.checked',
  'card.entered',
  'target.set',
  'trial.begun',
  'reading.taken',
  'trace.recorded',
  'trace.points-voided',
  'drive.fitted',
  'phaser.read',
  'clearance.set-up',
  'clearance.measured',
  'sign.checked',
  'build.signed',
  'build.reopened',
  'entry.voided',
] as const;

export type Entry = z.infer<typeof entrySchema>;
export type EntryKind = Entry['kind'];
export type EntryOf<K extends EntryKind> = Extract<Entry, { kind: K }>;
export type BodyOf<K extends EntryKind> = EntryOf<K>['body'];
export type Described = BodyOf<'build.described'>;
export type FittedHardware = BodyOf<'drive.fitted'>['parts'][number];
export type PredictedView = NonNullable<BodyOf<'trial.begun'>['move']>['predicted'][number];
