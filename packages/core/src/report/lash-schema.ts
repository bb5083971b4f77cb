import { z } from 'zod';
import { LASH_ORDER_NAMES } from '../valve-train/lash-orders';
import { degrees, problemSchema, valve } from './parts-schema';

const order = z.enum(LASH_ORDER_NAMES);
const mm = z.number().describe('Millimetres.');
const perValve = <T extends z.ZodType>(of: T) => z.strictObject({ intake: of, exhaust: of });
const which = z
  .number()
  .nullable()
  .describe('Of several of a kind in a cylinder, counted from the timing end; null where it is the only one.');
const atStop = z.strictObject({
  cylinder: z.number(),
  valve,
  clear: degrees.nullable().describe('How far it stands from its ramp, crank degrees; null where nobody knows.'),
});
const stop = z.strictObject({
  at: degrees
    .nullable()
    .describe('Crank degrees past cylinder 1’s firing TDC, 0 to 720; null where only the valves show it.'),
  place: z.string().describe('Where the crank is held.'),
  sign: z.string().nullable().describe('What shows that it is the right turn, without a wheel.'),
  ring: degrees.nullable().describe('Ring position under the pointer of a wheel set to TDC.'),
  valves: z.array(atStop),
});

/** Lash: where each valve may be set, how it was found and left, and what came of it. */
export const lashReport = z.strictObject({
  sentence: z.string().describe('What to do with the hands now.'),
  here: perValve(mm).describe(
    'The lash that lifts at the valve are reckoned with: as set here, else the card’s, else none.',
  ),
  seats: z
    .strictObject({
      words: z.string().describe('What the seat events were taken from.'),
      intake: z.strictObject({ opens: degrees, closes: degrees, slack: degrees }),
      exhaust: z.strictObject({ opens: degrees, closes: degrees, slack: degrees }),
    })
    .nullable()
    .describe('Where the valves leave their seats and come back: cycle angles.'),
  problem: problemSchema.nullable(),
  orders: z.array(
    z.strictObject({
      order,
      name: z.string(),
      words: z.string(),
      stops: z.array(stop),
      caught: z.array(atStop),
      nearest: degrees.nullable(),
    }),
  ),
  proposal: z.strictObject({
    order,
    cold: perValve(mm.nullable()),
    hot: perValve(mm.nullable()),
    words: z.array(z.string()).describe('What the card gives hot or cold, and what this engine has shown.'),
  }),
  effects: perValve(z.string().nullable()).describe('What a little more lash does at the seat.'),
  job: z
    .strictObject({
      id: z.string(),
      order,
      engine: z.enum(['cold', 'hot']),
      wanted: z.discriminatedUnion('kind', [
        z.strictObject({ kind: z.literal('lash'), intake: mm, exhaust: mm, noGo: mm.optional() }),
        z.strictObject({ kind: z.literal('preload'), turns: z.number(), pitch: mm.optional() }),
      ]),
      wantedWords: z.string(),
      count: perValve(z.number()).describe('How many valves of a kind each cylinder has.'),
      state: z.enum(['setting', 'checking', 'off', 'done']),
      round: z.union([z.literal(1), z.literal(2)]),
      stops: z.array(stop),
      next: z.strictObject({ stop: z.number(), cylinder: z.number(), valve, which }).nullable(),
      counts: z.strictObject({ all: z.number(), set: z.number(), good: z.number() }),
      countWords: z.string(),
      valves: z.array(
        z.strictObject({
          cylinder: z.number(),
          valve,
          which,
          stop: z.number(),
          state: z.enum(['due', 'set', 'good', 'loose', 'tight']),
          wanted: z.number(),
          left: mm.nullable(),
          found: mm.nullable(),
          turns: z.number().nullable(),
          shows: z.string().describe('What it was left at or found at.'),
          task: z.string().describe('What is done to it next, and where.'),
          words: z.string().nullable().describe('What is wrong with it, and what probably happened.'),
        }),
      ),
    })
    .nullable(),
  history: z.array(
    z.strictObject({
      cylinder: z.number(),
      valve,
      which,
      words: z.string(),
      trend: z.enum(['looser', 'tighter']).nullable(),
    }),
  ),
});
