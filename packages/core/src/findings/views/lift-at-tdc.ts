import { NORMAL_95 } from '../../statistics/normal';
import type { Valve } from '../../cam/card';
import { liftForCentreline } from '../../cam/lift-at-tdc';
import { advanced, lobeAt } from '../../cam/lobe';
import type { ReadMethodName } from '../../measure/read-methods';
import { USUAL_CRANK, firstStopBias, zeroUncertainty } from '../../tdc/zero-uncertainty';
import { decimal } from '../../units/decimal';
import { MM_PER_INCH, formatComputedLength } from '../../units/length';
import type { RoundFinding, SitsOn } from '../readings/read-rounds';
import { crankOf, resolutionOf } from '../readings/zero-passes';
import { type View, type ViewContext, atLobe, scaleOf, scaleKnown, counting, sign } from './view';

/** The lift that the wanted centreline means, and what it gains for each degree of advance: by the card's own lifts, else by its lobe. */
function liftTarget(context: ViewContext, valve: Valve, sitsOn: SitsOn) {
  if (!scaleKnown(context, valve, sitsOn)) return null;
  const wanted = context.wanted[valve];
  if (wanted === null) return null;
  const printed = context.build.card?.body[valve]?.liftAtTdc ?? [];
  const read = liftForCentreline(valve, printed, wanted);
  if (read && read.perAdvance !== 0)
    return {
      ...read,
      remark: read.extrapolated ? 'Outside the centrelines that the card prints: extrapolated.' : null,
    };
  const { curve, shape, centreline } = context.card[valve];
  if (!curve || shape !== 'full' || centreline === null) return null;
  const { lift, slope } = lobeAt(advanced(curve, sign(valve) * (centreline - wanted)), 0);
  return {
    lift,
    perAdvance: slope,
    remark: 'The card prints no lift at TDC for two centrelines: compared with a lobe fitted through the card.',
  };
}

/** Lift at overlap TDC, mm at the lobe; with a wheel carried to true TDC. */
export function tdcLiftViews(
  context: ViewContext,
  valve: Valve,
  rounds: readonly RoundFinding[],
  method: ReadMethodName,
): View[] {
  const described = context.build.description.body;
  const group = counting(rounds.filter((round) => round.lift !== null));
  const [first] = group;
  if (!first) return [];
  const target = liftTarget(context, valve, first.sitsOn);
  const scale = scaleOf(context, valve, first.sitsOn);
  const lifts = group.map(
    (round) => atLobe(context, valve, first.sitsOn, round.lift ?? 0) - (target?.perAdvance ?? 0) * (round.pastTdc ?? 0),
  );
  const mean = lifts.reduce((sum, each) => sum + each, 0) / lifts.length;
  const withWheel = group.every((round) => round.pastTdc !== null);
  const each = (resolutionOf(described) * Math.SQRT2) / Math.sqrt(12) / scale;
  return [
    {
      method,
      bank: 1,
      valve,
      key: `${method} ${valve}`,
      title: `${valve === 'intake' ? 'Intake' : 'Exhaust'} lift at TDC${withWheel ? '' : ', without a wheel'}`,
      shows: formatComputedLength(mean, described.units),
      detail: group.length === 1 ? 'from one reading' : `the mean of ${group.length} readings`,
      value: mean,
      unit: 'mm',
      standard: each,
      expanded: NORMAL_95 * each,
      budget: [{ from: 'the indicator', standard: each }],
      count: group.length,
      spread: Math.max(...lifts) - Math.min(...lifts),
      delta: null,
      deltaExpanded: null,
      weight: null,
      against: target
        ? `${formatComputedLength(target.lift, described.units)}, ${formatSlope(target.perAdvance, described.units)}`
        : null,
      proved: withWheel ? group.some((round) => round.zeroProved) : true,
      remark: target ? target.remark : whyNone(context, valve, first.sitsOn),
      differs: false,
    },
  ];
}

/** Why there is nothing to compare it with. */
const whyNone = (context: ViewContext, valve: Valve, sitsOn: SitsOn): string =>
  scaleKnown(context, valve, sitsOn) ? NOTHING_PRINTED : NO_RATIO;
const NOTHING_PRINTED = 'The card says nothing to compare it with.';
const NO_RATIO =
  'It was read at the valve, and the card speaks of the lobe: without the rocker ratio the two cannot be compared. Give the ratio with the engine or on the card.';

const formatSlope = (perDegree: number, units: 'in' | 'mm'): string =>
  units === 'in'
    ? `${decimal(Math.abs(perDegree) / MM_PER_INCH, 4)} in a degree`
    : `${decimal(Math.abs(perDegree), 3)} mm a degree`;

/** TDC found by where the piston just stops: its standard uncertainty, crank degrees, the bias that nobody has taken off included. */
export function withoutWheel({ build }: ViewContext): number {
  const described = build.description.body;
  const engine = crankOf(described);
  const resolution = resolutionOf(described);
  const { standard } = zeroUncertainty({
    method: 'first-stop',
    half: 0,
    engine,
    readOn: { on: 'wheel', radius: 200, graduation: 0.1 },
    resolution,
    passes: [0],
  });
  return Math.hypot(standard, firstStopBias(engine ?? USUAL_CRANK, resolution));
}
