import { z } from 'zod';
import { LASH_ORDER_NAMES } from '../../valve-train/lash-orders';
import { MOST_OF_A_KIND } from '../../valve-train/valve-name';
import { id, lengthMm, liftMm, valve } from './entry-fields';
import { LASH, MOST_CYLINDERS } from './limits';
import type { KindsOfEntry } from './kind-of-entry';

/** Lash: how the valves were set. Its kinds of entry. */

const ofAKind = (kind: string) =>
  z
    .int({ error: `the count of ${kind} valves must be a whole number` })
    .min(1)
    .max(MOST_OF_A_KIND, { error: `a cylinder has at most ${MOST_OF_A_KIND} ${kind} valves` });
const turns = z
  .number({ error: 'the turns must be a number' })
  .min(0, { error: 'the turns past zero lash cannot be negative' })
  .max(LASH.turns, { error: `at most ${LASH.turns} turns` })
  .describe('Turns of the adjuster past zero lash.');

const lashBegun = z
  .strictObject({
    after: id.nullable().describe('The setting of the lash before this one, or null.'),
    order: z.enum(LASH_ORDER_NAMES).describe('In which order the valves are set.'),
    engine: z.enum(['cold', 'hot']),
    count: z
      .strictObject({ intake: ofAKind('intake'), exhaust: ofAKind('exhaust') })
      .optional()
      .describe('How many valves of a kind each cylinder has. Left out: one of each.'),
    wanted: z.discriminatedUnion('kind', [
      z.strictObject({
        kind: z.literal('lash'),
        intake: liftMm(LASH.gap, 'the lash of the intake'),
        exhaust: liftMm(LASH.gap, 'the lash of the exhaust'),
        noGo: lengthMm(LASH.noGo, 'the step to the no-go blade')
          .optional()
          .describe('The blade that must not go is thicker by this, millimetres. Left out: one blade is used.'),
      }),
      z.strictObject({
        kind: z.literal('preload'),
        turns,
        pitch: lengthMm(LASH.pitch, 'the pitch of the thread')
          .optional()
          .describe('How far the adjuster’s thread travels in a turn, millimetres.'),
      }),
    ]),
  })
  .describe('The valves of the engine are set, once through and once more to check.');

const lashTaken = z
  .strictObject({
    job: id.describe('The lash.begun entry.'),
    cylinder: z.int().min(1).max(MOST_CYLINDERS),
    valve,
    which: z
      .int({ error: 'which valve it is must be a whole number' })
      .min(1)
      .max(MOST_OF_A_KIND, { error: `a cylinder has at most ${MOST_OF_A_KIND} valves of a kind` })
      .optional()
      .describe('Of several of a kind in its cylinder, counted from the timing end.'),
    at: z
      .number({ error: 'the place of the crank must be a number of degrees' })
      .min(0, { error: 'the place of the crank lies from 0 to 720 degrees' })
      .lt(720, { error: 'the place of the crank lies from 0 to 720 degrees' })
      .optional()
      .describe(
        'Where the crank was held: crank degrees past cylinder 1’s firing TDC. Left out: by the valves, without a wheel.',
      ),
    found: liftMm(LASH.gap, 'the lash that was found').optional().describe('Before anything was turned, millimetres.'),
    set: liftMm(LASH.gap, 'the lash').optional().describe('What it was left at, millimetres. Left out: as found.'),
    go: liftMm(LASH.gap, 'the blade that goes').optional().describe('This blade slides, millimetres.'),
    noGo: liftMm(LASH.gap, 'the blade that does not go').optional().describe('This blade does not, millimetres.'),
    turns: turns.optional(),
  })
  .superRefine(({ found, set, go, noGo, turns: turned }, context) => {
    const refuse = (path: string, message: string): void => context.addIssue({ code: 'custom', path: [path], message });
    if (found === undefined && set === undefined && turned === undefined)
      refuse('found', 'say what was found, what it was set to, or by how many turns');
    if (go !== undefined && noGo !== undefined && noGo <= go)
      refuse('noGo', 'the blade that does not go must be thicker than the one that goes');
    if (set !== undefined && go !== undefined && set < go - ROUNDING)
      refuse('set', 'a blade that goes is no thicker than the lash');
    if (set !== undefined && noGo !== undefined && set >= noGo - ROUNDING)
      refuse('set', 'a blade that does not go is thicker than the lash');
  })
  .describe('The lash of one valve: found, set, or both.');

const ROUNDING = 1e-6;

export const LASH_ENTRIES = {
  'lash.begun': { body: lashBegun, undoable: true, station: 'lash', seen: false },
  'lash.taken': { body: lashTaken, undoable: true, station: 'lash', seen: true },
} as const satisfies KindsOfEntry;
