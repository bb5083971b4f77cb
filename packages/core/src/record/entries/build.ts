import { z } from 'zod';
import { checkFiringAngles } from '../../crank/firing';
import { checkFiringOrder } from '../../crank/firing-order';
import { crankTrouble } from '../../crank/slider-crank';
import { isSameRing, ringWords, wheelRingSchema } from '../../crank/wheel';
import { degrees, id, lengthMm, ratio, text } from './entry-fields';
import { ENGINE, INSTRUMENTS, MOST_CYLINDERS, NAME_LENGTH, SENTENCE_LENGTH } from './limits';
import type { KindsOfEntry } from './kind-of-entry';

/** The build itself: what engine it is; and what takes any entry back. Its kinds of entry. */

const OFFSET_TROUBLE = `the pin offset must be at most ${ENGINE.pinOffset} mm`;
const [LEAST_RATIO, MOST_RATIO] = ENGINE.compression;
const RATIO_TROUBLE = `the compression ratio must lie between ${LEAST_RATIO} and ${MOST_RATIO}`;

/** An entry is a fact, never changed, at most voided by a later entry. Its meaning hangs on the ids that it names. */
const engineSchema = z
  .strictObject({
    cylinders: z
      .int({ error: 'the number of cylinders must be a whole number' })
      .min(1, { error: 'an engine has at least 1 cylinder' })
      .max(MOST_CYLINDERS, { error: `at most ${MOST_CYLINDERS} cylinders` }),
    firingOrder: z.array(z.int()).describe('Every cylinder once, in the order in which they fire.'),
    rotation: z.enum(['clockwise', 'counter-clockwise']).describe('Seen from where the degree wheel is.'),
    stroke: lengthMm(ENGINE.stroke, 'the stroke').optional(),
    rod: lengthMm(ENGINE.rod, 'the rod length').optional(),
    pinOffset: z
      .number({ error: 'the pin offset must be a length in millimetres' })
      .min(-ENGINE.pinOffset, { error: OFFSET_TROUBLE })
      .max(ENGINE.pinOffset, { error: OFFSET_TROUBLE })
      .optional()
      .describe('Millimetres, positive toward the side to which the crankpin moves after TDC.'),
    cams: z.enum(['single', 'twin']).optional().describe('One camshaft for both valves, or one each. Left out: one.'),
    secondBank: z
      .int({ error: 'a cylinder is a whole number' })
      .min(2, { error: 'cylinder 1 is on the first bank: name one of the other' })
      .max(MOST_CYLINDERS, { error: `at most ${MOST_CYLINDERS} cylinders` })
      .optional()
      .describe('Twin cams on two banks: the cylinder at which the second bank is measured. Left out: one bank.'),
    rockerRatio: z
      .strictObject({ intake: ratio('the rocker ratio'), exhaust: ratio('the rocker ratio') })
      .optional()
      .describe('Of this engine, which may differ from the card’s. Left out where there are no rockers.'),
    bore: lengthMm(ENGINE.bore, 'the bore').optional(),
    compression: z
      .discriminatedUnion('given', [
        z.strictObject({
          given: z.literal('ratio'),
          ratio: z
            .number({ error: 'the compression ratio must be a number' })
            .min(LEAST_RATIO, { error: RATIO_TROUBLE })
            .max(MOST_RATIO, { error: RATIO_TROUBLE }),
        }),
        z.strictObject({
          given: z.literal('chamber'),
          volume: z
            .number({ error: 'the chamber must be a volume in cm³' })
            .positive({ error: 'the chamber must be more than 0' })
            .max(ENGINE.chamber, { error: `the chamber must be at most ${ENGINE.chamber} cm³` })
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
    name: text(NAME_LENGTH, 'the name'),
    engine: engineSchema,
    wheel: wheelRingSchema,
    rings: z
      .array(wheelRingSchema)
      .max(2, { error: 'a wheel has at most three rings' })
      .optional()
      .describe('Further numbers of the same wheel, on a second ring or its other side. Left out: it has one ring.'),
    units: z.enum(['in', 'mm']).describe('How lengths are shown. Lengths are always kept in millimetres.'),
    practice: z
      .literal(true)
      .optional()
      .describe(
        'An engine that does not exist, made up to practise on. No shop keeps such a logbook among its builds.',
      ),
    like: z
      .array(
        z.strictObject({
          build: id,
          name: text(NAME_LENGTH, 'the name'),
          delta: z.number().min(-720).max(720).describe('The cam’s advance against its target, crank degrees.'),
          expanded: z.number().min(0).max(720).describe('Half-width of 95 % of it.'),
        }),
      )
      .max(3, { error: 'at most three builds of its kind' })
      .optional()
      .describe(
        'Builds of the same kind, and how their cams came in before anything was moved. Left out: it was begun like no other.',
      ),
    instruments: z
      .strictObject({
        wheelDiameter: lengthMm(INSTRUMENTS.wheelDiameter, 'the wheel’s diameter').optional(),
        graduation: degrees(...INSTRUMENTS.graduation, 'the graduation')
          .optional()
          .describe('Degrees from line to line of the wheel.'),
        pointerGap: lengthMm(INSTRUMENTS.pointerGap, 'the gap behind the pointer').optional(),
        resolution: lengthMm(INSTRUMENTS.resolution, 'the indicator’s resolution').optional(),
      })
      .optional()
      .describe('What is measured with, for the uncertainty.'),
  })
  .superRefine(({ wheel, rings = [] }, context) => {
    const all = [wheel, ...rings];
    for (const [at, ring] of rings.entries()) {
      const message =
        ring.ring === 'rim' || wheel.ring === 'rim'
          ? 'a rim that is measured with a tape has no further ring'
          : all.slice(0, at + 1).some((each) => isSameRing(each, ring))
            ? `the wheel has its ring ${ringWords(ring)} twice`
            : null;
      if (message !== null) context.addIssue({ code: 'custom', path: ['rings', at], message });
    }
  })
  .describe('What engine this is. Opens the logbook, or corrects what was said before.');

const entryVoided = z
  .strictObject({ voids: id, reason: text(SENTENCE_LENGTH, 'the reason').optional() })
  .describe('Takes an entry out of every calculation. It stays in the logbook.');

export const BUILD_ENTRIES = {
  'build.described': { body: buildDescribed, undoable: false, station: null, seen: false },
  'entry.voided': { body: entryVoided, undoable: false, station: null, seen: false },
} as const satisfies KindsOfEntry;
