import { z } from 'zod';
import { wheelReadingSchema, wheelRingSchema } from '../crank/wheel';
import { ZERO_METHOD_NAMES } from '../crank/zero-methods';
import { CHECK_NAMES } from '../prepare/checks';

const degrees = z.number().describe('Crank degrees.');
const problemSchema = z.strictObject({ message: z.string(), remedy: z.string() });
const verdictSchema = z.strictObject({
  kind: z.enum(['waiting', 'leave', 'move', 'measure-again', 'do-not-move']),
  delta: degrees.nullable().describe('The cam’s advance against the target, crank degrees; negative is late.'),
  move: degrees.nullable().describe('The move that cures it, crank degrees; positive advances.'),
  headline: z.string(),
  action: z.string(),
  why: z.string(),
});

const passResultSchema = z.strictObject({
  arc: degrees.describe('Between the two readings, over the top; 0 where one reading finds TDC. Crank degrees.'),
  half: degrees,
  tdc: degrees.describe('Ring position of true TDC, crank degrees from the ring’s 0 in the running direction.'),
  offsetShift: degrees.describe('Taken off already: what a pin offset, or an early first stop, makes of it.'),
});
const stepSchema = z.discriminatedUnion('does', [
  z.strictObject({ does: z.literal('begin') }),
  z.strictObject({
    does: z.literal('read'),
    side: z.enum(['before', 'after']),
    pass: z.string().nullable(),
    setting: z.string().nullable(),
    figure: z.number().nullable().describe('What the indicator shall show, millimetres.'),
  }),
  z.strictObject({ does: z.literal('set'), after: z.string().nullable() }),
  z.strictObject({ does: z.literal('nothing') }),
]);

/** Everything that can be said of a build: the screens, the printed sheet and the command line all speak from it. */
export const reportSchema = z.strictObject({
  format: z.literal('yosoku-report'),
  version: z.literal(1),
  build: z.strictObject({
    id: z.string(),
    name: z.string(),
    units: z.enum(['in', 'mm']),
    wheel: wheelRingSchema,
    engine: z.strictObject({
      cylinders: z.number(),
      firingOrder: z.array(z.number()),
      rotation: z.enum(['clockwise', 'counter-clockwise']),
      stroke: z.number().nullable().describe('Millimetres.'),
      rod: z.number().nullable().describe('Millimetres.'),
      pinOffset: z.number().nullable().describe('Millimetres.'),
      firingAngles: z.array(z.number()).nullable(),
    }),
    instruments: z.strictObject({
      wheelDiameter: z.number().nullable(),
      graduation: z.number().nullable(),
      pointerGap: z.number().nullable(),
      resolution: z.number().nullable(),
    }),
  }),
  entries: z.strictObject({ total: z.number(), voided: z.number() }),
  stations: z.array(
    z.strictObject({
      station: z.enum(['prepare', 'zero', 'card', 'read', 'decide']),
      state: z.enum(['due', 'begun', 'done', 'void']),
    }),
  ),
  prepare: z.strictObject({
    asItStands: z
      .strictObject({
        entry: z.string(),
        head: z.enum(['on', 'off']),
        plugHole: z.boolean(),
        wheel: z.boolean(),
        indicator: z.boolean(),
        lifter: z.enum(['solid', 'hydraulic', 'roller', 'bucket', 'none']),
        drive: z.enum(['chain', 'belt', 'gear', 'none']),
      })
      .nullable(),
    checks: z.array(
      z.strictObject({
        check: z.enum(CHECK_NAMES),
        title: z.string(),
        why: z.string(),
        caution: z.string().nullable(),
        state: z.enum(['due', 'done', 'skipped']),
        reason: z.string().nullable(),
        entry: z.string().nullable(),
      }),
    ),
    endPlay: z
      .strictObject({ entry: z.string(), state: z.enum(['inside', 'tight', 'loose']), words: z.string() })
      .nullable(),
  }),
  zero: z.strictObject({
    id: z.string().nullable(),
    method: z.enum(ZERO_METHOD_NAMES).nullable(),
    ring: wheelRingSchema.describe('What this zero is read on.'),
    setting: z.string().nullable().describe('The zero.set entry that readings now lean on.'),
    state: z.enum(['none', 'open', 'found', 'set', 'proved', 'rough', 'failed', 'void']),
    sentence: z.string().describe('What to do with the hands now.'),
    step: stepSchema,
    correction: z
      .strictObject({
        finding: z.string(),
        ways: z.array(z.strictObject({ part: z.enum(['wheel', 'pointer', 'hold', 'mark']), text: z.string() })),
      })
      .nullable(),
    uncertainty: z
      .strictObject({
        standard: degrees,
        expanded: degrees.describe('Half-width of the interval that covers the truth 95 times in 100, crank degrees.'),
        spread: degrees.describe('Standard deviation of the passes, crank degrees.'),
        words: z.string(),
        advice: z.string().nullable(),
        budget: z.array(z.strictObject({ from: z.string(), standard: degrees })),
      })
      .nullable(),
    remark: z.string().nullable(),
    result: passResultSchema.nullable(),
    passes: z.array(
      z.strictObject({
        id: z.string(),
        setting: z.string().nullable(),
        readings: z.array(
          z.strictObject({
            entry: z.string(),
            side: z.enum(['before', 'after']),
            shows: z.string(),
            at: degrees.describe('Ring position, crank degrees.'),
            wheel: wheelReadingSchema,
            indicator: z.number().nullable().describe('Millimetres.'),
          }),
        ),
        result: passResultSchema.nullable(),
        problem: problemSchema.nullable(),
        exchanged: z.boolean().describe('The pair would hold if its two readings were exchanged.'),
        proves: z.boolean().nullable(),
      }),
    ),
    rebase: z
      .strictObject({ from: z.string(), to: z.string(), by: degrees, readings: z.array(z.string()) })
      .nullable()
      .describe('Readings of the zero before that could be counted from where the wheel really stood.'),
  }),
  crank: z.strictObject({
    companion: z.number().nullable().describe('The cylinder that fires 360° from cylinder 1.'),
    identified: z
      .strictObject({ entry: z.string(), stands: z.enum(['overlap', 'firing']), words: z.string() })
      .nullable(),
    cylinders: z.array(z.strictObject({ cylinder: z.number(), after: degrees, shows: z.string() })),
    mark: z
      .strictObject({
        entry: z.string(),
        error: degrees.describe('Positive: the mark comes too early.'),
        words: z.string(),
        cure: z.string(),
        tape: z.array(z.strictObject({ degrees, distance: z.number().describe('Millimetres.') })),
      })
      .nullable(),
  }),
  card: z.strictObject({
    entry: z.string().nullable(),
    name: z.string().nullable(),
    intakeCentreline: degrees.nullable(),
    lobeLift: z.number().nullable().describe('Millimetres.'),
    remark: z.string().nullable(),
  }),
  target: z.strictObject({
    entry: z.string().nullable(),
    kind: z.enum(['card', 'ahead-of-card', 'centreline']),
    intakeCentreline: degrees.nullable(),
    limit: degrees,
    problem: problemSchema.nullable(),
  }),
  read: z.strictObject({
    trial: z.string().nullable(),
    flank: z.enum(['opening', 'closing']),
    round: z.string().nullable(),
    drop: z.number().nullable().describe('Millimetres.'),
    sentence: z.string().describe('What to do with the hands now.'),
  }),
  trials: z.array(
    z.strictObject({
      id: z.string(),
      number: z.number(),
      note: z.string().nullable(),
      centreline: z.strictObject({ mean: degrees, spread: degrees, count: z.number() }).nullable(),
      verdict: verdictSchema.nullable(),
      rounds: z.array(
        z.strictObject({
          id: z.string(),
          drop: z.number().nullable().describe('Millimetres.'),
          centreline: degrees.nullable(),
          zeroProved: z.boolean(),
          rebasedBy: degrees.nullable(),
          problem: problemSchema.nullable(),
          readings: z.array(
            z.strictObject({
              entry: z.string(),
              flank: z.enum(['opening', 'closing']),
              shows: z.string(),
              at: degrees.describe('Ring position, crank degrees.'),
              setting: z.string().nullable(),
            }),
          ),
        }),
      ),
    }),
  ),
  verdict: verdictSchema,
  problems: z.array(z.strictObject({ entries: z.array(z.string()), message: z.string(), remedy: z.string() })),
  sheet: z.array(
    z.strictObject({
      title: z.string(),
      rows: z.array(
        z.strictObject({
          entry: z.string().nullable(),
          label: z.string(),
          value: z.string(),
          standing: z.enum(['counts', 'voided', 'aside', 'result', 'card']),
          note: z.string().nullable(),
        }),
      ),
    }),
  ),
});

export type Report = z.infer<typeof reportSchema>;
export type ReportVerdict = Report['verdict'];
export type Station = Report['stations'][number]['station'];
