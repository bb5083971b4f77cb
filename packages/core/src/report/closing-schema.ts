import { z } from 'zod';
import { POCKETS } from '../clearance/valve-to-piston';
import { READ_METHOD_NAMES } from '../measure/read-methods';
import { SIGN_CHECK_NAMES } from '../sign/sign-checks';
import { HARDWARE_KIND_NAMES, hardwareSchema, settingSchema } from '../timing-set/hardware';
import { predictedViewSchema } from '../record/entries/read';
import { bank, degrees, problemSchema, valve } from './parts-schema';

const mm = z.number().describe('Millimetres.');

/** What the Report says after the verdict: the drive, the move, its proof, clearances, the signature. */
const took = z
  .number()
  .optional()
  .describe('Minutes from the last reading before it to the last after it; left out where that tells nothing.');

export const closingReport = {
  drive: z
    .strictObject({
      entry: z.string().nullable(),
      camTurns: z.enum(['with-crank', 'against-crank']),
      parts: z.array(
        z.strictObject({
          part: z.string(),
          name: z.string(),
          library: z.string().nullable(),
          kind: z.enum(HARDWARE_KIND_NAMES),
          hardware: hardwareSchema,
          cam: z.enum(['all', 'intake', 'exhaust']),
          bank: bank.nullable(),
          turns: z.array(z.string()).describe('The cams that it turns, in words.'),
          setting: settingSchema,
          stands: z.string(),
          advance: degrees.nullable().describe('By its label.'),
          experience: z.array(
            z.strictObject({ from: settingSchema, to: settingSchema, gave: degrees, standard: degrees, took }),
          ),
          response: z.number().describe('What it gives for each degree of its label.'),
          responseStandard: z.number(),
          learned: z.string().nullable(),
          angle: z
            .strictObject({
              nominal: z.number(),
              tolerance: z.number().nullable().describe('Allowed either way, in the maker’s own scale.'),
              shows: z.number(),
              correction: z.number().describe('In the maker’s own scale.'),
              advance: degrees,
              windUp: z.number(),
              setTo: z.number(),
              words: z.string(),
            })
            .nullable(),
        }),
      ),
    })
    .describe('The timing hardware as it stands now.'),
  moves: z
    .array(
      z.strictObject({
        trial: z.string(),
        parts: z.array(
          z.strictObject({
            part: z.string(),
            name: z.string(),
            from: z.string(),
            to: z.string(),
            label: degrees.nullable(),
          }),
        ),
        cams: z.array(
          z.strictObject({
            cam: z.enum(['single', 'intake', 'exhaust']),
            bank,
            label: degrees.nullable(),
            expected: degrees.nullable(),
            gave: degrees.nullable(),
            standard: degrees.nullable(),
          }),
        ),
        words: z.string().nullable(),
      }),
    )
    .describe('Every move, and what it really gave.'),
  experience: z
    .array(
      z.strictObject({
        library: z.string(),
        from: settingSchema,
        to: settingSchema,
        gave: degrees,
        standard: degrees,
        took,
      }),
    )
    .describe('What this build teaches of the hardware of the shop.'),
  move: z.strictObject({
    state: z.enum(['waiting', 'stay', 'unfitted', 'plans', 'short']),
    sentence: z.string(),
    then: z.string().nullable().describe('What comes of it.'),
    plans: z.array(
      z.strictObject({
        parts: z.array(
          z.strictObject({
            part: z.string(),
            name: z.string(),
            from: z.string(),
            to: z.string(),
            called: z.string().describe('As it is spoken of: the slotted pulley of the intake cam.'),
            put: z.string().describe('“to the +4 keyway”, “by the indicator”.'),
            setting: settingSchema,
            gives: degrees,
            label: degrees,
          }),
        ),
        cams: z.array(
          z.strictObject({
            cam: z.enum(['single', 'intake', 'exhaust']),
            bank,
            name: z.string(),
            by: degrees,
            leaves: degrees.describe('How far ahead of its target it should then sit.'),
            standard: degrees,
            words: z.string(),
          }),
        ),
        remaining: degrees,
        inside: z.boolean(),
        work: z.string(),
        wheelOff: z.boolean(),
        breaks: z.array(z.string()),
        clearanceUnknown: z.boolean(),
        steps: z.array(z.strictObject({ text: z.string(), caution: z.string().nullable() })),
        predicted: z.array(predictedViewSchema),
        becomes: z.strictObject({
          separation: z.number().nullable().describe('LSA, cam degrees.'),
          overlap: degrees.nullable().describe('At 0.050 in.'),
        }),
      }),
    ),
  }),
  proof: z.strictObject({
    state: z.enum(['nothing', 'due', 'proved', 'off', 'doubt', 'accepted']),
    sentence: z.string(),
    rows: z.array(
      z.strictObject({
        title: z.string(),
        predicted: z.string(),
        measured: z.string().nullable(),
        off: degrees.nullable(),
        agrees: z.boolean().nullable(),
      }),
    ),
    next: z.array(
      z.strictObject({
        method: z.enum(READ_METHOD_NAMES),
        valve,
        bank,
        readings: z.number(),
        words: z.string(),
      }),
    ),
    gave: z.string().nullable(),
  }),
  clearance: z.strictObject({
    entry: z.string().nullable(),
    valves: z.array(
      z.strictObject({
        valve,
        minimum: z.number().describe('Millimetres.'),
        angle: z.number().nullable().describe('Between valve and bore, degrees.'),
        pocket: z.enum(POCKETS),
        state: z.enum(['unknown', 'enough', 'tight']),
        gaps: z.array(
          z.strictObject({
            entry: z.string(),
            trial: z.string(),
            at: degrees.describe('Past overlap TDC.'),
            gap: z.number().describe('Millimetres.'),
          }),
        ),
        tightest: z.strictObject({ gap: z.number().describe('Millimetres.'), at: degrees }).nullable(),
        room: z
          .strictObject({ from: degrees, to: degrees })
          .nullable()
          .describe('From where to where the cam may be moved, advance from where it stands.'),
        ratio: z.number().nullable().describe('Valve travel for each 1 of lobe that the gap is carried with.'),
        through: z
          .array(z.tuple([mm, mm]))
          .nullable()
          .describe(
            'Lift of the lobe and of the valve with it, where both were traced: used instead of ratio and lash.',
          ),
        lifts: z.string().nullable().describe('What the lift of the valve was taken from.'),
        pumped: z
          .strictObject({ by: mm, leaves: mm.nullable(), words: z.string(), touches: z.boolean() })
          .nullable()
          .describe('What a hydraulic lifter that pumps up takes of it.'),
        words: z.string(),
        problem: problemSchema.nullable(),
      }),
    ),
  }),
  sign: z.strictObject({
    checks: z.array(
      z.strictObject({
        check: z.enum(SIGN_CHECK_NAMES),
        title: z.string(),
        why: z.string(),
        state: z.enum(['due', 'done', 'skipped']),
        reason: z.string().nullable(),
        entry: z.string().nullable(),
      }),
    ),
    open: z.array(z.string()).describe('What should be known before signing.'),
    ready: z.boolean(),
    signed: z
      .strictObject({
        entry: z.string(),
        name: z.string(),
        at: z.string().describe('By the device’s clock.'),
        received: z.string().nullable().describe('By the server’s clock; null until the server has it.'),
        note: z.string().nullable(),
      })
      .nullable(),
    reopened: z.strictObject({ entry: z.string(), at: z.string(), reason: z.string() }).nullable(),
    closed: z.boolean(),
    baselines: z.array(
      z.strictObject({
        valve,
        at: z.enum(['lobe', 'valve']),
        lift: z.number().describe('Millimetres.'),
        lobes: z.number().describe('How many it stands for: its lift is the middle of theirs.'),
        spread: z.number().describe('From least to greatest, millimetres.'),
        words: z.string(),
      }),
    ),
  }),
};
