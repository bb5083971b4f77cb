import { USUAL_HEIGHT } from '../cam/usual-height';
import { VALVES, type Valve } from '../cam/card';
import { READ_METHODS, type RulingMethod } from '../measure/read-methods';
import { chanceOf } from '../statistics/chi-squared';
import { budgetOf, expandedOf } from '../statistics/coverage';
import { squareOf } from '../statistics/least-squares';
import { diagnose } from '../verdict/diagnose';
import { nextReading } from '../verdict/next-reading';
import type { Evidence, Observation } from '../verdict/observations';
import { type Placed, advanceOf, placeOf } from '../verdict/place-cam';
import { type Basis, CHANCE, type FaultFinding, type Verdict, gravest, judge } from '../verdict/verdict';
import { type Weighing, narrowed, weigh } from '../verdict/weigh';
import { besideOf, firstOf, oneSidedOf } from './beside';
import type { ClosingFinding } from './closing-check';
import type { Ground } from '../record/parts';
import { followsDownOf } from './at-hand';
import { type Suspected, concerns, faultOf, suspectedOf } from './suspected';
import type { View, ViewContext } from './views/view';

/** Where a cam sits, and what is to be done about it. */
export interface CamFinding {
  readonly cam: 'single' | 'intake' | 'exhaust';
  readonly bank: 1 | 2;
  readonly verdict: Verdict;
  readonly standard: number;
  /** What the uncertainty comes from, largest first, crank degrees. */
  readonly budget: readonly { readonly from: string; readonly standard: number }[];
  /** How likely chance alone makes the readings disagree so much. */
  readonly chance: number;
  /** The method that the shop's rule lets speak; null where all speak together. */
  readonly rule: RulingMethod | null;
}

/** A view's own say in where its cam sits. */
export interface ViewPlace {
  readonly delta: number;
  readonly expanded: number;
  /** Its share in the verdict; null where the rule of the shop leaves it out. */
  readonly weight: number | null;
}

export interface Decision {
  readonly cams: readonly CamFinding[];
  /** The gravest of the cams' verdicts. */
  readonly verdict: Verdict | null;
  readonly faults: readonly FaultFinding[];
  readonly places: ReadonlyMap<string, ViewPlace>;
}

const NOTHING: Decision = { cams: [], verdict: null, faults: [], places: new Map() };
/** A place that is known no better than this says nothing, crank degrees. */
const KNOWS_NOTHING = 5;
/** What a trial is judged under. */
export interface Conditions {
  readonly limit: number;
  readonly zeroProved: boolean;
  readonly last: boolean;
  readonly views: readonly View[];
  readonly bank: 1 | 2;
  readonly closing: ClosingFinding;
}

/** A cam, the valve that it is looked at by, and the readings that speak of it. */
interface Speaking {
  readonly cam: CamFinding['cam'];
  readonly lead: Valve;
  readonly speaks: Weighing;
  readonly rule: RulingMethod | null;
  readonly placed: Placed | null;
}

/**
 * The verdict on a trial: all of its readings weighed together, or those of the shop's rule.
 * @param evidence readings of rounds that hold.
 * @param whole readings of all rounds, those that make no sense together among them: they are left out, and looked at for what went wrong.
 * @param rule the method that shall speak, or null.
 */
export function decideTrial(
  evidence: Evidence,
  whole: Evidence,
  rule: RulingMethod | null,
  context: ViewContext,
  conditions: Conditions,
): Decision {
  const hints = whole === evidence ? [] : diagnose(whole).named.map((each) => faultOf(each, whole));
  const weighing = weigh(evidence);
  if (!weighing) return { ...NOTHING, faults: hints };
  // A card that contradicts itself is believed as far as the readings bear it out. Else nothing is compared with its doubtful figures: nobody is accused for a
  // misprint.
  if (isDoubtful(evidence) && !bearsOut(weighing))
    return decideTrial(withoutDoubtful(evidence), withoutDoubtful(whole), rule, context, conditions);
  const cams = evidence.cams === 'single' ? (['single'] as const) : VALVES;
  const found = cams.map((cam) => speakingOf(cam, weighing, evidence, rule));
  const places = new Map(found.flatMap((each) => placesOf(each, weighing, evidence)));
  const furthest = Math.max(0, ...found.map(advanceOfSpeaking));
  const suspected = suspectedOf(weighing, evidence, whole, furthest, conditions.closing);
  const judged = found.flatMap((each) => judgedOf(each, weighing, evidence, suspected, context, conditions) ?? []);
  return {
    cams: judged,
    verdict: gravest(judged.map(({ verdict }) => verdict)),
    faults: suspected.faults.length > 0 ? suspected.faults : hints,
    places,
  };
}

const isDoubtful = ({ card }: Evidence): boolean => card.some((fact) => 'doubtful' in fact);
const withoutDoubtful = (evidence: Evidence): Evidence => ({
  ...evidence,
  card: evidence.card.filter((fact) => !('doubtful' in fact)),
});
/** Readings that go worse with a card than those of one good job in twenty do not bear out what it contradicts itself about. */
const BORNE_OUT = 0.05;
const bearsOut = ({ converged, solved, freedom }: Weighing): boolean =>
  converged && chanceOf(solved.chiSquared, freedom) > BORNE_OUT;

/** How far a cam sits from its card by what speaks of it, crank degrees; 0 where nothing places it. */
const advanceOfSpeaking = ({ lead, speaks, placed }: Speaking): number =>
  placed ? Math.abs(advanceOf(speaks, lead)) : 0;

const isOf =
  (cam: CamFinding['cam']) =>
  ({ valve }: Observation): boolean =>
    cam === 'single' || valve === cam;

/** All that was read of a cam, or what the shop's rule lets speak of it. */
function speakingOf(
  cam: CamFinding['cam'],
  weighing: Weighing,
  evidence: Evidence,
  rule: RulingMethod | null,
): Speaking {
  const lead = cam === 'single' ? leadOf(weighing) : cam;
  const mine = isOf(cam);
  const ruled = rule !== null && evidence.observations.some((each) => mine(each) && each.method === rule);
  const speaks = ruled
    ? narrowed(weighing, (each) => each.kind === 'peak-lift' || each.method === rule || !mine(each))
    : weighing;
  return { cam, lead, speaks, rule: ruled ? rule : null, placed: placeOf(speaks, lead) };
}

/** Where each view by itself puts the cam. */
function placesOf({ cam, lead, placed }: Speaking, weighing: Weighing, evidence: Evidence): [string, ViewPlace][] {
  const shares = sharesOf(placed?.weights ?? new Map());
  const views = new Set(evidence.observations.filter(isOf(cam)).map(({ view }) => view));
  return [...views].flatMap((view): [string, ViewPlace][] => {
    const ofView = (each: Observation): boolean => each.view === view;
    // What could not be weighed together is looked at piece by piece.
    const own = weighing.converged
      ? narrowed(weighing, ofView)
      : weigh({ ...evidence, observations: evidence.observations.filter(ofView) });
    const alone = own?.converged ? placeOf(own, lead) : null;
    if (!alone) return [];
    const { standard, expanded } = expandedOf(alone.sources);
    if (standard > KNOWS_NOTHING) return [];
    return [[view, { delta: alone.delta, expanded, weight: shares.get(view) ?? null }]];
  });
}

/** The verdict on one cam; null where nothing is known of its place. */
function judgedOf(
  { cam, lead, speaks, rule, placed }: Speaking,
  weighing: Weighing,
  evidence: Evidence,
  { faults, doubts }: Suspected,
  context: ViewContext,
  { limit, last, zeroProved, bank, closing, views }: Conditions,
): CamFinding | null {
  if (!placed) return null;
  const { standard, expanded } = expandedOf(placed.sources);
  if (standard > KNOWS_NOTHING) return null;
  const undecided = isUndecided(placed.delta, expanded, limit);
  const oneSided = oneSidedOf(speaks, lead);
  const { engine } = context.build.description.body;
  const chance = chanceOf(weighing.solved.chiSquared, weighing.freedom);
  const speaksOf = (fault: FaultFinding): boolean => cam === 'single' || concerns(fault, evidence, cam);
  return {
    cam,
    bank,
    standard,
    budget: budgetOf(placed.sources),
    chance,
    rule,
    verdict: judge({
      cam,
      bank: engine.secondBank === undefined ? null : bank,
      delta: placed.delta,
      expanded,
      spread: spreadOf(views, cam),
      limit,
      zeroProved,
      basis: basisOf(context, evidence, placed.weights, rule, cam),
      chance,
      named: speaks.converged ? faults.filter(speaksOf) : [],
      doubted: doubts.filter(speaksOf),
      closingDue: closing.state === 'due',
      first: firstOf(speaks, lead, closing.state, oneSided),
      oneSided,
      worst: chance < CHANCE ? worstOf(weighing) : null,
      next: undecided && last ? nextReading(weighing, lead, readableOf(context.build)) : null,
      ahead: evidence.ahead[placedBy(cam)],
      moved: closing.state === 'moved' ? (closing.by ?? 0) : null,
      converged: speaks.converged,
      beside: besideOf(speaks, lead, placed, closing.state, oneSided),
    }),
  };
}

/** The valve whose target a cam is set by. */
const placedBy = (cam: CamFinding['cam']): Valve => (cam === 'exhaust' ? 'exhaust' : 'intake');

/** Does where it sits leave open whether it is within the limit, or on which side? Crank degrees. */
const isUndecided = (delta: number, expanded: number, limit: number): boolean =>
  Math.abs(delta) > limit ? expanded > Math.abs(delta) : expanded > 2 * limit;

/** The reading that fits worst with the rest. */
function worstOf({ found, solved }: Weighing): string | null {
  let [worst, most]: [string | null, number] = [null, 0];
  for (const { block, observations } of found) {
    const off = squareOf(block, solved.unknowns) / block.rows.length;
    const entry = observations[0]?.[0]?.entry;
    if (entry === undefined || off <= most) continue;
    most = off;
    worst = entry;
  }
  return worst;
}

/** A measurement with a smaller share than this is not counted among those that a verdict rests on. */
const WEIGHS = 0.02;

/** What a verdict rests on and what it was compared with. */
function basisOf(
  { wanted, card, build }: ViewContext,
  evidence: Evidence,
  weights: ReadonlyMap<string, number>,
  rule: RulingMethod | null,
  cam: CamFinding['cam'],
): Basis {
  const valve = cam === 'exhaust' ? 'exhaust' : 'intake';
  const aim = wanted[valve];
  const byCard = aim === null || (cam === 'exhaust' && build.target?.body.exhaust === undefined);
  return {
    rule,
    count: [...weights.values()].filter((weight) => weight > WEIGHS).length,
    against: byCard ? null : { valve, centreline: aim },
    contradicted: card.contradictions.some(({ lean }) => lean === undefined || !isDoubtful(evidence)),
  };
}

/** A valve of a single cam that was looked at: either says where it sits. */
export const leadOf = ({ layout }: Weighing): Valve => (layout.of.intake.advance >= 0 ? 'intake' : 'exhaust');

/** Weights as shares of one. A view whose errors are mostly those of another may weigh less than nothing: it has no share. */
function sharesOf(weights: ReadonlyMap<string, number>): Map<string, number> {
  let total = 0;
  for (const weight of weights.values()) total += Math.max(0, weight);
  return new Map([...weights].map(([view, weight]) => [view, Math.max(0, weight) / (total || 1)]));
}

/** How far repeats of one view lie apart, crank degrees. */
const spreadOf = (views: readonly View[], cam: CamFinding['cam']): number =>
  Math.max(
    0,
    ...views
      .filter(
        ({ unit, valve, method }) =>
          unit === 'crank degrees' && READ_METHODS[method].gives !== 'slack' && (cam === 'single' || valve === cam),
      )
      .map(({ spread }) => spread),
  );

const readableOf = (build: Ground) => {
  const height = USUAL_HEIGHT[build.description.body.units];
  return { drop: height, checking: height, followsDown: followsDownOf(build) };
};

/** The views with what each has to say of the cam's place. */
export const placeViews = (views: readonly View[], { places }: Decision): View[] =>
  views.map((view) => {
    const place = places.get(view.key);
    if (!place) return view;
    return {
      key: view.key,
      method: view.method,
      bank: view.bank,
      valve: view.valve,
      title: view.title,
      shows: view.shows,
      detail: view.detail,
      value: view.value,
      unit: view.unit,
      standard: view.standard,
      expanded: view.expanded,
      budget: view.budget,
      count: view.count,
      spread: view.spread,
      delta: place.delta,
      deltaExpanded: place.expanded,
      weight: place.weight,
      against: view.against,
      proved: view.proved,
      remark: view.remark,
      differs: view.differs,
    };
  });
