import { z } from 'zod';
import { wheelReadingSchema, wheelRingSchema } from '../crank/wheel';
import { ZERO_METHOD_NAMES } from '../tdc/zero-methods';
import { READ_METHOD_NAMES, RULING_METHODS } from '../measure/read-methods';
import { STATION_STATES } from '../findings/station-states';
import { STATIONS } from '../record/entries/stations';
import { CHECK_NAMES } from '../prepare/checks';
import { FAULT_NAMES } from '../verdict/faults';
import { FIRSTS, VERDICT_KINDS } from '../verdict/verdict';
import { camCardSchema } from '../record/entries/card';
import { closingReport } from './closing-schema';
import { lashReport } from './lash-schema';
import { everyLobe, everyLobePlan, lobeSchema, standing } from './lobes-schema';
import { bank, degrees, problemSchema, valve } from './parts-schema';
import { photoSchema } from './photo-schema';
import { rockersReport } from './rockers-schema';

const verdictSchema = z.strictObject({
  kind: z.enum(['waiting', ...VERDICT_KINDS]),
  delta: degrees.nullable().describe('The cam’s advance against the target, crank degrees; negative is late.'),
  expanded: degrees.nullable().describe('Half-width of 95 % of it.'),
  move: degrees.nullable().describe('The move that cures it, crank degrees; positive advances.'),
  headline: z.string(),
  first: z
    .array(z.enum(FIRSTS))
    .readonly()
    .describe('What has to be done before the cam is moved or left; the action begins with it.'),
  beside: z.array(z.string()).readonly().describe('What it rests on that no reading has shown, each a sentence.'),
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

const wantedSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('card') }),
  z.strictObject({ kind: z.literal('ahead-of-card'), advance: degrees }),
  z.strictObject({ kind: z.literal('centreline'), centreline: degrees }),
]);
const sitsOn = z.enum(['lobe', 'lifter', 'bucket', 'valve']);
/** Everything that can be said of a build: the screens, the printed sheet and the command line all speak from it. */
export const reportSchema = z.strictObject({
  format: z.literal('yosoku-report'),
  version: z.literal(1),
  build: z.strictObject({
    id: z.string(),
    name: z.string(),
    practice: z.boolean().describe('An engine that does not exist, made up to practise on.'),
    units: z.enum(['in', 'mm']),
    wheel: wheelRingSchema,
    like: z.array(z.strictObject({ build: z.string(), name: z.string(), delta: degrees, expanded: degrees })),
    rings: z.array(wheelRingSchema).describe('Further rings of the same wheel.'),
    engine: z.strictObject({
      cylinders: z.number(),
      firingOrder: z.array(z.number()),
      rotation: z.enum(['clockwise', 'counter-clockwise']),
      stroke: z.number().nullable().describe('Millimetres.'),
      rod: z.number().nullable().describe('Millimetres.'),
      pinOffset: z.number().nullable().describe('Millimetres.'),
      firingAngles: z.array(z.number()).nullable(),
      cams: z.enum(['single', 'twin']),
      secondBank: z.number().nullable().describe('The cylinder at which the second bank is measured.'),
      rockerRatio: z.strictObject({ intake: z.number(), exhaust: z.number() }).nullable(),
      bore: z.number().nullable().describe('Millimetres.'),
      compression: z
        .discriminatedUnion('given', [
          z.strictObject({ given: z.literal('ratio'), ratio: z.number() }),
          z.strictObject({ given: z.literal('chamber'), volume: z.number().describe('cm³.') }),
        ])
        .nullable(),
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
      station: z.enum(STATIONS),
      state: z.enum(STATION_STATES),
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
        springs: z.enum(['checking', 'valve', 'none']).nullable(),
        drive: z.enum(['chain', 'belt', 'gear', 'none']),
        camDrives: z
          .enum(['distributor', 'sensor', 'neither'])
          .nullable()
          .describe('What takes its time from the cam; null where nobody has said.'),
        oneWay: z.boolean().describe('It must not be turned back.'),
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
      .strictObject({
        entry: z.string(),
        thrust: z.enum(['plate', 'button']),
        play: z.number().describe('As measured, millimetres.'),
        wanted: z.number().nullable().describe('By the maker, millimetres.'),
        state: z.enum(['inside', 'tight', 'loose', 'unsure']),
        takeOff: z.number().describe('Material to take off, millimetres; negative: a shim to add.'),
        words: z.string(),
      })
      .nullable(),
  }),
  zero: z.strictObject({
    id: z.string().nullable(),
    method: z.enum(ZERO_METHOD_NAMES).nullable(),
    ring: wheelRingSchema.describe('What this zero is read on.'),
    rings: z.array(wheelRingSchema).describe('All rings of the wheel that can be read now, that one first.'),
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
    odd: z.string().nullable().describe('What the widths of the passes show to be wrong, or null.'),
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
            pushed: z.number().nullable().describe('With the valve pushed down by its adjuster, millimetres.'),
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
    others: z.array(z.string()).describe('Cards that stand beside it and replace nothing, nor are replaced.'),
    name: z.string().nullable(),
    printed: camCardSchema.nullable().describe('The figures as the card prints them.'),
    intakeCentreline: degrees.nullable().describe('Printed or worked out; null where it is disputed.'),
    exhaustCentreline: degrees.nullable(),
    lobeLift: z.number().nullable().describe('Of the intake, millimetres.'),
    lobeSeparation: z.number().nullable().describe('Cam degrees.'),
    figures: z.array(
      z.strictObject({
        key: z.string(),
        label: z.string(),
        value: z.number(),
        shows: z.string(),
        from: z.string().nullable().describe('What it was worked out from; null where the card prints it.'),
        disputed: z.boolean(),
      }),
    ),
    contradictions: z.array(z.strictObject({ figures: z.array(z.string()), message: z.string(), remedy: z.string() })),
    overlaps: z.array(
      z.strictObject({
        height: z.number().nullable().describe('Millimetres; null where the card does not say.'),
        crank: degrees,
        label: z.string(),
        from: z.string(),
      }),
    ),
    lobes: z.strictObject({ intake: lobeSchema.nullable(), exhaust: lobeSchema.nullable() }),
    remark: z.string().nullable(),
  }),
  target: z.strictObject({
    entry: z.string().nullable(),
    kind: z.enum(['card', 'ahead-of-card', 'centreline']),
    wanted: wantedSchema,
    exhaust: wantedSchema.nullable().describe('Of a twin-cam engine, where it has a target of its own.'),
    intakeCentreline: degrees.nullable(),
    exhaustCentreline: degrees.nullable(),
    ahead: degrees.nullable().describe('Of the card.'),
    limit: degrees,
    judgedBy: z.enum(RULING_METHODS).nullable(),
    problem: problemSchema.nullable(),
  }),
  read: z.strictObject({
    trial: z.string().nullable(),
    open: z.array(
      z.strictObject({
        round: z.string(),
        method: z.enum(READ_METHOD_NAMES),
        bank,
        cylinder: z.number(),
        valve,
        sitsOn,
        height: z.number().nullable().describe('Millimetres.'),
        slot: z.number(),
      }),
    ),
    proposal: z.strictObject({ method: z.enum(READ_METHOD_NAMES), valve, why: z.string() }),
    heights: z.array(
      z.strictObject({ method: z.enum(READ_METHOD_NAMES), height: z.number().describe('Millimetres.') }),
    ),
    sitsOn,
    followsDown: z.boolean(),
    everyLobe: everyLobePlan,
    closing: z
      .strictObject({
        state: z.enum(['none', 'due', 'same', 'moved']),
        zero: z.string().nullable(),
        setting: z.string().nullable(),
        side: z.enum(['before', 'after']),
        figure: z.number().nullable().describe('Of the indicator, millimetres.'),
        by: degrees.nullable().describe('By how much the wheel stands further on than it did.'),
        sentence: z.string(),
      })
      .describe('The contact that is met once more after the last reading: has anything moved since TDC?'),
  }),
  standing: z.strictObject({ intake: standing, exhaust: standing }),
  trials: z.array(
    z.strictObject({
      id: z.string(),
      number: z.number(),
      note: z.string().nullable(),
      cylinder: z.number().describe('Whose lobes place the cam; of two banks, that of the first.'),
      everyLobe,
      begunAt: z.string().describe('By the device’s clock: for people.'),
      why: z.enum(['moved', 'checked']),
      rounds: z
        .array(
          z.strictObject({
            id: z.string(),
            method: z.enum(READ_METHOD_NAMES),
            cylinder: z.number(),
            bank,
            valve,
            sitsOn,
            height: z.number().nullable().describe('Drop or checking height, millimetres.'),
            centreline: degrees.nullable(),
            events: z.strictObject({ opens: degrees, closes: degrees, duration: degrees, centre: degrees }).nullable(),
            opens: degrees.nullable(),
            lift: z.number().nullable().describe('Millimetres.'),
            pastTdc: degrees.nullable().describe('How far past TDC the crank stood for a lift at TDC.'),
            zeroProved: z.boolean(),
            zero: z
              .strictObject({
                proved: z.boolean(),
                offset: degrees,
                turned: degrees.describe('How far after the cylinder of the zero the one fires that was read.'),
                rebasedBy: degrees.nullable(),
                standard: degrees,
                step: degrees,
              })
              .nullable()
              .describe('The zero that it counts from.'),
            rebasedBy: degrees.nullable(),
            lacking: z.number(),
            problem: problemSchema.nullable(),
            holds: z.boolean().describe('Each of its readings holds by itself.'),
            readings: z
              .array(
                z.strictObject({
                  entry: z.string(),
                  flank: z.enum(['opening', 'closing']).nullable(),
                  shows: z.string(),
                  at: degrees.nullable().describe('Ring position, crank degrees.'),
                  figure: z.number().describe('What the indicator showed, millimetres.'),
                  setting: z.string().nullable(),
                  aside: z.string().nullable(),
                  slot: z.number().nullable(),
                }),
              )
              .readonly(),
          }),
        )
        .readonly(),
      traces: z.array(
        z.strictObject({
          id: z.string(),
          typed: z.boolean(),
          name: z.string().nullable(),
          bank,
          valve,
          sitsOn,
          placed: z.boolean(),
          zeroProved: z.boolean(),
          problem: problemSchema.nullable(),
          figures: z
            .strictObject({
              peak: z.number().describe('Millimetres.'),
              nose: degrees.describe('Cycle angle.'),
              area: z.number().describe('Millimetres × crank degrees.'),
              steepest: z
                .strictObject({ opening: z.number(), closing: z.number() })
                .describe('Millimetres per degree.'),
              zeroOff: z.number().describe('What the indicator showed on the base circle, taken off: millimetres.'),
              every: degrees.describe('How far its points stand apart, crank degrees.'),
              whole: z.boolean(),
            })
            .nullable(),
          curve: z.array(z.tuple([z.number(), z.number()])).describe('Cycle angle and lift of the curve, to draw it.'),
          lean: z.array(
            z.strictObject({ lift: z.number(), centre: degrees.describe('Cycle angle.'), standard: degrees }),
          ),
          dots: z.array(
            z.strictObject({
              entry: z.string(),
              place: z.number().nullable(),
              angle: degrees.describe('Cycle angle.'),
              lift: z.number(),
              stray: z.number().nullable().describe('How far off its neighbours, millimetres.'),
            }),
          ),
        }),
      ),
      views: z
        .array(
          z.strictObject({
            key: z.string(),
            method: z.enum(READ_METHOD_NAMES),
            bank,
            valve: z.enum(['intake', 'exhaust', 'both']),
            title: z.string(),
            shows: z.string(),
            detail: z.string().nullable(),
            value: z.number(),
            unit: z.enum(['crank degrees', 'cam degrees', 'mm', 'ratio']),
            standard: z.number().nullable(),
            expanded: z.number().nullable().describe('Half-width of 95 %.'),
            budget: z.array(z.strictObject({ from: z.string(), standard: z.number() })).readonly(),
            count: z.number(),
            spread: z.number(),
            delta: degrees.nullable().describe('The cam’s advance against the target as this view has it.'),
            deltaExpanded: degrees.nullable(),
            weight: z.number().nullable().describe('Its share in the verdict.'),
            against: z.string().nullable(),
            proved: z.boolean(),
            remark: z.string().nullable(),
            differs: z.boolean().describe('Another figure than the card’s, beyond what the readings can.'),
          }),
        )
        .readonly(),
      lobes: z.strictObject({ intake: lobeSchema.nullable(), exhaust: lobeSchema.nullable() }),
      stands: z
        .strictObject({
          separation: z.number().nullable().describe('LSA, cam degrees.'),
          overlap: degrees.nullable().describe('At 0.050 in.'),
          trapped: z
            .strictObject({
              drop: z.number().describe('How far below the top the piston stands when the intake is on its seat, mm.'),
              volume: z.number().nullable().describe('cm³.'),
              ratio: z.number().nullable().describe('Compression from there.'),
              staticRatio: z.number().nullable(),
            })
            .nullable(),
        })
        .describe('What follows from the lobes as they stand.'),
      dots: z.array(
        z.strictObject({
          entry: z.string(),
          valve,
          angle: degrees.describe('Cycle angle.'),
          lift: z.number().nullable().describe('Millimetres.'),
        }),
      ),
      verdict: verdictSchema.nullable(),
      cams: z
        .array(
          z.strictObject({
            cam: z.enum(['single', 'intake', 'exhaust']),
            bank,
            limit: degrees.describe('How far from its target it may sit.'),
            verdict: verdictSchema,
            standard: degrees,
            budget: z.array(z.strictObject({ from: z.string(), standard: degrees })).readonly(),
            chance: z.number().describe('How likely chance alone makes the readings disagree so much.'),
            rule: z.enum(RULING_METHODS).nullable().describe('The method that speaks by the rule of the shop.'),
          }),
        )
        .readonly(),
      faults: z
        .array(
          z.strictObject({
            fault: z.enum(FAULT_NAMES),
            words: z.string(),
            check: z.string(),
            better: z.number().describe('By how much it explains the readings better than “nothing is wrong”, χ².'),
            entries: z.array(z.string()).readonly(),
          }),
        )
        .readonly(),
    }),
  ),
  verdict: verdictSchema,
  accepted: z
    .array(
      z.strictObject({
        entry: z.string(),
        view: z.string().nullable().describe('The view whose figure it is; null for where the cams sit.'),
        reason: z.string(),
        stands: z.boolean().describe('Is it still what was accepted?'),
        words: z.string(),
      }),
    )
    .describe('What of the trial that is being read was left as it is, knowingly.'),
  rockers: rockersReport,
  lash: lashReport,
  ...closingReport,
  wear: z
    .array(
      z.strictObject({
        what: z.enum(['lift', 'phase']),
        valve: z.enum(['intake', 'exhaust', 'both']),
        cylinder: z.number().nullable().describe('Of a lobe beside those that the cam is measured at; null for those.'),
        before: z.number(),
        now: z.number(),
        change: z.number().describe('Millimetres, or crank degrees of advance.'),
        expanded: z.number(),
        changed: z.boolean(),
        words: z.string(),
      }),
    )
    .describe('What has changed since it was measured before.'),
  problems: z.array(z.strictObject({ entries: z.array(z.string()), message: z.string(), remedy: z.string() })),
  photos: z.strictObject({
    taken: z.array(photoSchema).describe('In the order in which they were taken, without those that were taken out.'),
    of: z
      .array(z.strictObject({ entry: z.string(), words: z.string() }))
      .describe('What the next photo may belong to, the newest first.'),
  }),
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
          photo: photoSchema.optional().describe('The picture that the line is about.'),
        }),
      ),
    }),
  ),
});

export type Report = z.infer<typeof reportSchema>;
export type ReportVerdict = Report['verdict'];
