import { z } from 'zod';
import { rimTrouble } from '../../crank/rim';
import { RULING_METHODS } from '../../measure/read-methods';
import { degrees, id, lengthMm, liftMm, ratio, text } from './entry-fields';
import { CARD, MOST_LIFT, NAME_LENGTH, TARGET } from './limits';
import type { KindsOfEntry } from './kind-of-entry';

/** Card: what is printed, and where the cam is wanted. Its kinds of entry. */

const timingLine = z
  .strictObject({
    height: liftMm(CARD.height, 'the checking height')
      .nullable()
      .describe('Checking height, millimetres; null where the card does not say.'),
    at: z.enum(['lobe', 'valve']).describe('Whose lift the height is.'),
    duration: degrees(...CARD.duration, 'the duration').optional(),
    opens: degrees(...CARD.event, 'the opening')
      .optional()
      .describe('Intake: °BTDC. Exhaust: °BBDC. Negative: after.'),
    closes: degrees(...CARD.event, 'the closing')
      .optional()
      .describe('Intake: °ABDC. Exhaust: °ATDC. Negative: before.'),
  })
  .refine((line) => line.duration !== undefined || line.opens !== undefined || line.closes !== undefined, {
    error: 'a checking height without a figure says nothing',
  })
  .describe('What the card prints at one checking height, crank degrees.');

const lobeCard = (which: 'intake' | 'exhaust') =>
  z.strictObject({
    centreline: degrees(...CARD.centreline, `the ${which} centreline`)
      .optional()
      .describe(which === 'intake' ? 'Crank degrees ATDC.' : 'Crank degrees BTDC.'),
    lobeLift: lengthMm(MOST_LIFT, 'the lobe lift').optional(),
    valveLift: lengthMm(MOST_LIFT, 'the valve lift').optional(),
    ratio: ratio('the ratio').optional().describe('That the valve lift is printed for.'),
    lashHot: liftMm(CARD.lash, 'the lash').optional(),
    lashCold: liftMm(CARD.lash, 'the lash').optional(),
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
          centreline: degrees(...CARD.centreline, 'the centreline'),
          lift: liftMm(MOST_LIFT, 'the lift at TDC'),
        }),
      )
      .max(8, { error: 'at most 8 centrelines' })
      .optional()
      .describe('Lift at the lobe at overlap TDC, for one or more centrelines.'),
  });

const cardFigures = {
  name: text(NAME_LENGTH, 'the card’s name').optional(),
  intake: lobeCard('intake').optional(),
  exhaust: lobeCard('exhaust').optional(),
  lobeSeparation: degrees(...CARD.lobeSeparation, 'the LSA')
    .optional()
    .describe('Cam degrees between the centrelines.'),
  groundInAdvance: degrees(...CARD.groundInAdvance, 'the ground-in advance')
    .optional()
    .describe('LSA − ICL.'),
  rim: z
    .number({ error: 'the way round the flywheel must be a length in millimetres' })
    .refine((round) => rimTrouble(round) === null, { error: (issue) => rimTrouble(Number(issue.input)) ?? '' })
    .optional()
    .describe(
      'Once round the flywheel, millimetres, where the card gives its events in inches of its rim. They are kept in degrees.',
    ),
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
      advance: degrees(...TARGET.advance, 'the advance').describe('Crank degrees, positive advances.'),
    }),
    z.strictObject({
      kind: z.literal('centreline'),
      centreline: degrees(...CARD.centreline, 'the target centreline').describe(
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
    limit: degrees(...TARGET.limit, 'the limit').describe('How far from the target the cam may sit, crank degrees.'),
    judgedBy: z
      .enum(RULING_METHODS)
      .optional()
      .describe(
        'The method that the verdict shall speak from, as the rule of the shop was then. Left out: all readings weighed together.',
      ),
  })
  .describe('Where the cam shall sit, and how closely.');

export const CARD_ENTRIES = {
  'card.entered': { body: cardEntered, undoable: false, station: 'card', seen: false },
  'target.set': { body: targetSet, undoable: false, station: 'card', seen: false },
} as const satisfies KindsOfEntry;
