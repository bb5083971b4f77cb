import { NORMAL_95 } from '../../statistics/normal';
import type { Valve } from '../../cam/card';
import type { ReadMethodName } from '../../measure/read-methods';
import { decimal } from '../../units/decimal';
import { type LengthUnit, formatComputedLength } from '../../units/length';
import type { RoundFinding } from '../readings/read-rounds';
import { BASE_ZERO } from '../../verdict/unknowns';
import { resolutionOf } from '../readings/zero-passes';
import type { View, ViewContext } from './view';

/** Lifts this near to each other are the same, mm: 0.004 in. Common practice, no source. */
const LIFT_AGREES = 0.1;

/**
 * @param apart how much more lift than the card's, mm.
 * @param loose at the valve, where other things than the cam make the lift too.
 */
function liftWords(apart: number, units: LengthUnit, loose: boolean): string {
  const found = `${formatComputedLength(Math.abs(apart), units)} ${apart < 0 ? 'less' : 'more'} than the card’s`;
  if (loose) return `${found}: deflection, lash or another ratio.`;
  return `${found}: ${apart < 0 ? 'a worn lobe, a tilted indicator, or ' : ''}another cam.`;
}

/** Is it the right cam at all? Lift at the lobe and at the valve against the card, mm; and the rocker ratio as it really is where both were read. */
export function identityViews(
  context: ViewContext,
  valve: Valve,
  rounds: readonly RoundFinding[],
  method: ReadMethodName,
): View[] {
  const { build, card } = context;
  const { units, engine } = build.description.body;
  const lifts = (atValve: boolean): number[] =>
    rounds
      .filter((round) => round.lift !== null && (round.sitsOn === 'valve') === atValve)
      .flatMap((round) => round.lift ?? []);
  // Two looks at the indicator, and where it was zeroed on the base circle.
  const looks = (resolutionOf(build.description.body) * Math.SQRT2) / Math.sqrt(12);
  const each = Math.hypot(looks, BASE_ZERO);
  const view = (
    key: string,
    title: string,
    found: readonly number[],
    wanted: number | null,
    loose: boolean,
  ): View[] => {
    if (found.length === 0) return [];
    const mean = found.reduce((sum, one) => sum + one, 0) / found.length;
    const apart = wanted === null ? 0 : mean - wanted;
    const differs = Math.abs(apart) > LIFT_AGREES;
    return [
      {
        method,
        bank: 1,
        valve,
        key,
        title,
        shows: formatComputedLength(mean, units),
        detail: found.length === 1 ? 'from one reading' : `the mean of ${found.length} readings`,
        value: mean,
        unit: 'mm',
        standard: each / Math.sqrt(found.length),
        expanded: (NORMAL_95 * each) / Math.sqrt(found.length),
        budget: [
          { from: 'the indicator', standard: looks },
          { from: 'its zero on the base circle', standard: BASE_ZERO },
        ],
        count: found.length,
        spread: Math.max(...found) - Math.min(...found),
        delta: null,
        deltaExpanded: null,
        weight: null,
        against: wanted === null ? null : `${formatComputedLength(wanted, units)} on the card`,
        proved: true,
        remark: differs ? liftWords(apart, units, loose) : null,
        differs,
      },
    ];
  };
  const [lobe, atValve] = [lifts(false), lifts(true)];
  const name = valve === 'intake' ? 'Intake' : 'Exhaust';
  const ratio = engine.rockerRatio?.[valve] ?? card[valve].ratio;
  const lash = build.card?.body[valve]?.lashHot ?? build.card?.body[valve]?.lashCold ?? 0;
  const [lobeMean, valveMean] = [lobe, atValve].map((all) => all.reduce((sum, one) => sum + one, 0) / all.length) as [
    number,
    number,
  ];
  const expected =
    ratio !== null && card[valve].lobeLift !== null ? card[valve].lobeLift * ratio - lash : card[valve].valveLift;
  const actual: View[] =
    lobe.length > 0 && atValve.length > 0
      ? [
          {
            method,
            bank: 1,
            valve,
            key: `ratio ${valve}`,
            title: `${name} ratio, as it is`,
            shows: decimal((valveMean + lash) / lobeMean, 3),
            detail: 'valve lift and lash ÷ lobe lift, both measured',
            value: (valveMean + lash) / lobeMean,
            unit: 'ratio',
            standard: (each * Math.hypot(1, valveMean / lobeMean)) / lobeMean,
            expanded: (NORMAL_95 * each * Math.hypot(1, valveMean / lobeMean)) / lobeMean,
            budget: [],
            count: 1,
            spread: 0,
            delta: null,
            deltaExpanded: null,
            weight: null,
            against: ratio === null ? null : `${decimal(ratio, 2)} in theory`,
            proved: true,
            remark: null,
            differs: false,
          },
        ]
      : [];
  return [
    ...view(`lobe-lift ${valve}`, `${name} lobe lift`, lobe, card[valve].lobeLift, false),
    ...view(`valve-lift ${valve}`, `${name} valve lift`, atValve, expected, true),
    ...actual,
  ];
}
