import type { Valve } from '../../cam/card';
import { centrelineForLift, liftForCentreline } from '../../cam/lift-at-tdc';
import { type Lobe, advanced, lobeAt } from '../../cam/lobe';
import { USUAL_CRANK, firstStopBias, zeroUncertainty } from '../../crank/zero-uncertainty';
import { combineRounds } from '../../measure/read-uncertainty';
import { decimal } from '../../units/decimal';
import { formatComputedLength } from '../../units/length';
import type { RoundFinding } from '../read-rounds';
import { UNPROVED_TDC, crankOf, resolutionOf, wheelStepOf } from '../zero-passes';
import { type View, type ViewContext, atLobe, scaleOf, counting, off, sign, wantedCentreline } from './view';

/** What the lift at TDC means for the advance: the card's own lifts, else its lobe. */
function liftTarget(context: ViewContext, valve: Valve) {
  const wanted = wantedCentreline(context, valve);
  if (wanted === null) return null;
  const printed = context.build.card?.body[valve]?.liftAtTdc ?? [];
  const read = liftForCentreline(valve, printed, wanted);
  if (read && read.perAdvance !== 0)
    return {
      ...read,
      advanceOf: (lift: number) => off(valve, wanted, centrelineForLift(printed, lift) ?? wanted),
      remark: read.extrapolated ? 'Outside the centrelines that the card prints: extrapolated.' : null,
    };
  const { curve, shape, centreline } = context.card[valve];
  if (!curve || shape !== 'full' || centreline === null) return null;
  const { lift, slope } = lobeAt(advanced(curve, sign(valve) * (centreline - wanted)), 0);
  const [only] = printed;
  // One printed lift fixes the curve there; its slope comes from the fitted lobe.
  const wantedLift = only ? only.lift + slope * sign(valve) * (only.centreline - wanted) : lift;
  return {
    lift: wantedLift,
    perAdvance: slope,
    advanceOf: (measured: number) =>
      advanceFor(curve, sign(valve) * (centreline - wanted), measured + lift - wantedLift),
    remark: only
      ? 'The card prints one lift only: its slope comes from a lobe fitted through the card.'
      : 'The card prints no lift at TDC: compared with a lobe fitted through it.',
  };
}

/** How much further a lobe must be advanced to stand at a lift at TDC, crank degrees: Newton's rule, from where it should stand. */
function advanceFor(curve: Lobe, ahead: number, lift: number): number {
  let further = 0;
  for (let step = 0; step < 5; step += 1) {
    const at = lobeAt(advanced(curve, ahead + further), 0);
    if (Math.abs(at.slope) < FLAT) break;
    further += (lift - at.lift) / at.slope;
  }
  return further;
}

/** A lobe so flat at TDC says nothing of the advance there, mm per crank degree. */
const FLAT = 1e-4;

/** Lift at overlap TDC, mm at the lobe, and what it means for the advance through the slope there; with a wheel carried to true TDC. */
export function tdcLiftViews(context: ViewContext, valve: Valve, rounds: readonly RoundFinding[]): View[] {
  const described = context.build.description.body;
  const group = counting(rounds.filter((round) => round.method === 'lift-at-tdc' && round.lift !== null));
  const [first] = group;
  if (!first) return [];
  const target = liftTarget(context, valve);
  const scale = scaleOf(context, valve, first.sitsOn);
  const lifts = group.map(
    (round) => atLobe(context, valve, first.sitsOn, round.lift ?? 0) - (target?.perAdvance ?? 0) * (round.pastTdc ?? 0),
  );
  const mean = lifts.reduce((sum, each) => sum + each, 0) / lifts.length;
  const withWheel = group.every((round) => round.pastTdc !== null);
  const each = (resolutionOf(described) * Math.SQRT2) / Math.sqrt(12) / scale;
  const slope = Math.abs(target?.perAdvance ?? 0);
  const tdc = withWheel ? (first.zero?.standard ?? UNPROVED_TDC) : withoutWheel(context);
  const terms = {
    wheel: withWheel ? (first.zero?.step ?? wheelStepOf(described)) / Math.sqrt(12) : 0,
    indicator: slope > 0 ? each / slope : 0,
    tdc,
  };
  const found = target
    ? combineRounds(
        lifts.map((lift) => target.advanceOf(lift)),
        terms,
      )
    : null;
  return [
    {
      method: 'lift-at-tdc',
      valve,
      key: `lift-at-tdc ${valve}`,
      title: `${valve === 'intake' ? 'Intake' : 'Exhaust'} lift at TDC${withWheel ? '' : ', without a wheel'}`,
      shows: formatComputedLength(mean, described.units),
      detail: group.length === 1 ? 'from one reading' : `the mean of ${group.length} readings`,
      value: mean,
      unit: 'mm',
      standard: each,
      expanded: 1.96 * each,
      budget: found?.budget ?? [],
      count: group.length,
      spread: found?.spread ?? 0,
      delta: found?.mean ?? null,
      deltaExpanded: found?.expanded ?? null,
      against: target
        ? `${formatComputedLength(target.lift, described.units)}, ${formatSlope(target.perAdvance, described.units)}`
        : null,
      proved: withWheel ? group.some((round) => round.zeroProved) : true,
      remark: target ? target.remark : 'The card says nothing to compare it with.',
    },
  ];
}

const formatSlope = (perDegree: number, units: 'in' | 'mm'): string =>
  units === 'in'
    ? `${decimal(Math.abs(perDegree) / 25.4, 4)} in a degree`
    : `${decimal(Math.abs(perDegree), 3)} mm a degree`;

/** TDC found by where the piston just stops: its standard uncertainty, crank degrees, the bias that nobody has taken off included. */
function withoutWheel({ build }: ViewContext): number {
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
