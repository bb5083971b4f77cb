import { type CamCard, EVENT_NAMES, VALVES, type Valve, durationOf, eventCentre } from './card';
import type { Fact } from './completed-lobe';
import type { FigureKey } from './contradictions';
import { heightWords, lineKey } from './timing-line';
import type { LengthUnit } from '../units/length';

/** What is known of a card so far. */
export type Facts = ReadonlyMap<FigureKey, Fact>;

/** One figure of a card follows from others. */
export interface CardRule {
  readonly gives: FigureKey;
  readonly needs: readonly FigureKey[];
  /** How, in words. */
  readonly from: string;
  readonly work: (values: readonly number[], facts: Facts) => number;
  /** Only when nothing better gives anything: it takes the lobe to be what it may not be. */
  readonly last?: boolean;
}

/** A rule of one or two figures. */
const two =
  (work: (a: number, b: number) => number): CardRule['work'] =>
  ([a = 0, b = 0]) =>
    work(a, b);

/** What follows on any card: definitions of the trade. */
const OF_THE_CAM: readonly CardRule[] = [
  {
    gives: 'lobeSeparation',
    needs: ['intake.centreline', 'exhaust.centreline'],
    from: '(ICL + ECL) ÷ 2',
    work: two((icl, ecl) => (icl + ecl) / 2),
  },
  {
    gives: 'groundInAdvance',
    needs: ['lobeSeparation', 'intake.centreline'],
    from: 'LSA − ICL',
    work: two((lsa, icl) => lsa - icl),
  },
  {
    gives: 'intake.centreline',
    needs: ['lobeSeparation', 'groundInAdvance'],
    from: 'LSA − ground-in advance',
    work: two((lsa, advance) => lsa - advance),
  },
  {
    gives: 'exhaust.centreline',
    needs: ['lobeSeparation', 'groundInAdvance'],
    from: 'LSA + ground-in advance',
    work: two((lsa, advance) => lsa + advance),
  },
  {
    gives: 'intake.centreline',
    needs: ['lobeSeparation', 'exhaust.centreline'],
    from: '2 × LSA − ECL',
    work: two((lsa, ecl) => 2 * lsa - ecl),
  },
  {
    gives: 'exhaust.centreline',
    needs: ['lobeSeparation', 'intake.centreline'],
    from: '2 × LSA − ICL',
    work: two((lsa, icl) => 2 * lsa - icl),
  },
];

/** Lift at lobe and valve, ratio and lash. */
function liftRules(valve: Valve): readonly CardRule[] {
  const [lobeLift, valveLift, ratio] = [`${valve}.lobeLift`, `${valve}.valveLift`, `${valve}.ratio`] as const;
  const lash = (facts: Facts): number => facts.get(`${valve}.lash`)?.value ?? 0;
  return [
    {
      gives: valveLift,
      needs: [lobeLift, ratio],
      from: 'lobe lift × ratio, less lash',
      work: ([lobe = 0, times = 0], facts) => Math.max(0, lobe * times - lash(facts)),
    },
    {
      gives: lobeLift,
      needs: [valveLift, ratio],
      from: 'valve lift and lash ÷ ratio',
      work: ([lift = 0, times = 1], facts) => (lift + lash(facts)) / times,
    },
    {
      gives: ratio,
      needs: [valveLift, lobeLift],
      from: 'valve lift and lash ÷ lobe lift',
      work: ([lift = 0, lobe = 1], facts) => (lift + lash(facts)) / lobe,
    },
  ];
}

type Line = NonNullable<NonNullable<CamCard['intake']>['timing']>[number];

/** Duration and events at one height. */
function lineRules(valve: Valve, line: Line, units: LengthUnit): readonly CardRule[] {
  const on = (name: string): FigureKey => `${valve}.${name}@${lineKey(line)}`;
  const [duration, opens, closes] = [on('duration'), on('opens'), on('closes')];
  const { opens: O, closes: C } = EVENT_NAMES[valve];
  const where = heightWords(line, units);
  return [
    { gives: duration, needs: [opens, closes], from: `${O} + 180 + ${C} ${where}`, work: two(durationOf) },
    {
      gives: opens,
      needs: [duration, closes],
      from: `duration − 180 − ${C} ${where}`,
      work: two((d, c) => d - 180 - c),
    },
    {
      gives: closes,
      needs: [duration, opens],
      from: `duration − 180 − ${O} ${where}`,
      work: two((d, o) => d - 180 - o),
    },
  ];
}

const centreRule = (valve: Valve, line: Line, units: LengthUnit): CardRule => ({
  gives: `${valve}.centreline`,
  needs: [`${valve}.opens@${lineKey(line)}`, `${valve}.closes@${lineKey(line)}`],
  from: `half-way between the events ${heightWords(line, units)}, taking the lobe as symmetric`,
  work: two((opens, closes) => eventCentre(valve, opens, closes)),
});

/** A duration laid about the centreline. */
function aboutCentre(valve: Valve, line: Line): readonly CardRule[] {
  const on = (name: string): FigureKey => `${valve}.${name}@${lineKey(line)}`;
  const from = `duration about the ${EVENT_NAMES[valve].centreline}, taking the lobe as symmetric`;
  const needs = [on('duration'), `${valve}.centreline`] as const;
  const sign = valve === 'intake' ? -1 : 1;
  const [before, after] = valve === 'intake' ? [0, 180] : [180, 0];
  return [
    { gives: on('opens'), needs, from, last: true, work: two((d, c) => d / 2 + sign * c - before) },
    { gives: on('closes'), needs, from, last: true, work: two((d, c) => d / 2 - sign * c - after) },
  ];
}

/** Every rule that a card can use, in the order in which they are tried. */
export const rulesOf = (card: CamCard, units: LengthUnit): readonly CardRule[] => [
  ...VALVES.flatMap((valve) => {
    const lines = card[valve]?.timing ?? [];
    return [
      ...liftRules(valve),
      ...lines.flatMap((line) => lineRules(valve, line, units)),
      ...lines.map((line) => centreRule(valve, line, units)),
    ];
  }),
  ...OF_THE_CAM,
  ...VALVES.flatMap((valve) => (card[valve]?.timing ?? []).flatMap((line) => aboutCentre(valve, line))),
];
