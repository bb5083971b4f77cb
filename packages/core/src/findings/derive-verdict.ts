import { USUAL_HEIGHT } from '../cam/usual-height';
import { VALVES, type Valve } from '../cam/card';
import type { RulingMethod } from '../measure/read-methods';
import { chanceOf } from '../statistics/chi-squared';
import { budgetOf, expandedOf } from '../statistics/coverage';
import { type Suspect, BELIEVED, diagnose } from '../verdict/diagnose';
import { nextReading } from '../verdict/next-reading';
import type { Evidence, Observation } from '../verdict/observations';
import { advanceOf, placeOf } from '../verdict/place-cam';
import { CHANCE, type Verdict, judge, together } from '../verdict/verdict';
import { type Weighing, narrowed, weigh } from '../verdict/weigh';
import { computedDegrees } from '../units/degrees';
import { besideOf, firstOf } from './beside';
import type { ClosingFinding } from './closing-check';
import type { Build } from '../record/fold';
import { followsDownOf } from './at-hand';
import { type FaultFinding, basisOf, faultOf, labelsOf, nextWords, worstOf } from './verdict-words';
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
  readonly verdict: Verdict | null;
  readonly faults: readonly FaultFinding[];
  readonly places: ReadonlyMap<string, ViewPlace>;
}

const NOTHING: Decision = { cams: [], verdict: null, faults: [], places: new Map() };
/** A place that is known no better than this says nothing, crank degrees. */
const KNOWS_NOTHING = 5;
/** Readings that fit together so well hide no fault: below what one must explain, with room for repeats being looked at one by one. */
const HARMLESS = 3;

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
  told: {
    readonly limit: number;
    readonly zeroProved: boolean;
    readonly last: boolean;
    readonly views: readonly View[];
    readonly bank: 1 | 2;
    readonly closing: ClosingFinding;
  },
): Decision {
  const odd = whole !== evidence;
  const labels = labelsOf(context.build);
  const said = (each: Suspect): FaultFinding => faultOf(each, whole, labels, context.build.description.body.units);
  const hints = odd ? diagnose(whole).named.map(said) : [];
  const weighing = weigh(evidence);
  if (!weighing) return { ...NOTHING, faults: hints };
  const cams = evidence.cams === 'single' ? (['single'] as const) : VALVES;
  const places = new Map<string, ViewPlace>();
  const found: { cam: CamFinding['cam']; lead: Valve; speaks: Weighing; rule: RulingMethod | null }[] = [];
  for (const cam of cams) {
    const lead = cam === 'single' ? leadOf(weighing) : cam;
    const mine = (each: Observation): boolean => cam === 'single' || each.valve === cam;
    const ruled = rule !== null && evidence.observations.some((each) => mine(each) && each.method === rule);
    const speaks = ruled
      ? narrowed(weighing, (each) => each.kind === 'peak-lift' || each.method === rule || !mine(each))
      : weighing;
    const placed = placeOf(speaks, lead);
    const shares = sharesOf(placed?.weights ?? new Map());
    for (const view of new Set(evidence.observations.filter(mine).map((each) => each.view))) {
      const ofView = (each: Observation): boolean => each.view === view;
      // What could not be weighed together is looked at piece by piece.
      const own = weighing.converged
        ? narrowed(weighing, ofView)
        : weigh({ ...evidence, observations: evidence.observations.filter(ofView) });
      const alone = own?.converged ? placeOf(own, lead) : null;
      if (!alone) continue;
      const { standard, expanded } = expandedOf(alone.sources);
      if (standard > KNOWS_NOTHING) continue;
      places.set(view, { delta: alone.delta, expanded, weight: shares.get(view) ?? null });
    }
    if (placed) found.push({ cam, lead, speaks, rule: ruled ? rule : null });
  }
  const chance = chanceOf(weighing.solved.chiSquared, weighing.freedom);
  const ahead = Math.max(...found.map(({ lead, speaks }) => Math.abs(advanceOf(speaks, lead))), 0);
  // Repeats that scatter have widened what is weighed: then it says nothing of whether the readings go together.
  const scattered = weighing.found.some(({ own }) => own.some(({ from }) => from === 'repeats'));
  const moved = told.closing.state === 'moved';
  const looked = !moved && (scattered || weighing.solved.chiSquared + (ahead / BELIEVED) ** 2 >= HARMLESS);
  const { named, doubted } = looked ? diagnose(evidence) : { named: [], doubted: null };
  const faults = moved ? [hasMoved(told.closing)] : named.map(said);
  const doubt = doubted && said(doubted);
  const judged = found.flatMap(({ cam, lead, speaks, rule: spoken }): CamFinding[] => {
    const placed = placeOf(speaks, lead);
    if (!placed) return [];
    const { standard, expanded } = expandedOf(placed.sources);
    if (standard > KNOWS_NOTHING) return [];
    const off = Math.abs(placed.delta);
    const undecided = off > told.limit ? expanded > off : expanded > 2 * told.limit;
    const next = undecided && told.last ? nextReading(weighing, lead, readableOf(context.build)) : null;
    return [
      {
        cam,
        bank: told.bank,
        standard,
        budget: budgetOf(placed.sources),
        chance,
        rule: spoken,
        verdict: judge({
          cam,
          bank: context.build.description.body.engine.secondBank === undefined ? null : told.bank,
          delta: placed.delta,
          expanded,
          spread: spreadOf(told.views, cam),
          limit: told.limit,
          zeroProved: told.zeroProved,
          basis: basisOf(context, placed.weights, spoken, cam),
          chance,
          named: speaks.converged ? faults.filter((each) => cam === 'single' || concerns(each, evidence, cam)) : [],
          doubted:
            doubt && (cam === 'single' || concerns(doubt, evidence, cam))
              ? { words: doubt.words, tells: tellsOf(doubt, told.closing.state) }
              : null,
          first: firstOf(speaks, lead, told.closing.state),
          worst: chance < CHANCE ? worstOf(weighing, labels) : null,
          next: next && { words: nextWords(next, context.build), expanded: next.expanded },
          ahead: evidence.ahead[cam === 'exhaust' ? 'exhaust' : 'intake'],
          moved: told.closing.state === 'moved' ? movedWords(told.closing) : null,
          converged: speaks.converged,
          beside: besideOf(speaks, lead, placed, told.closing.state),
        }),
      },
    ];
  });
  return {
    cams: judged,
    verdict: together(judged.map(({ verdict }) => verdict)),
    faults: faults.length > 0 ? faults : hints,
    places,
  };
}

/** What tells whether it happened: the closing check where that is still to be made, else the fault's own check. */
const tellsOf = ({ fault, check }: FaultFinding, closing: ClosingFinding['state']): string =>
  closing === 'due' && fault === 'wheel-slipped' ? 'Make the closing check: it tells.' : check;

const movedWords = ({ by }: ClosingFinding): string =>
  `the wheel or the pointer has moved by ${computedDegrees(Math.abs(by ?? 0))} since TDC was proved`;

/** The closing check shows it: nothing has to be guessed. */
const hasMoved = (closing: ClosingFinding): FaultFinding => ({
  fault: 'wheel-slipped',
  words: movedWords(closing),
  check: 'Find TDC again, then repeat what was read since: nothing says which readings it took with it.',
  // Seen, not inferred: counted in the half degrees that one contact is good for.
  better: (2 * (closing.by ?? 0)) ** 2,
  entries: [],
});

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
          unit === 'crank degrees' && method !== 'backlash' && (cam === 'single' || valve === cam),
      )
      .map(({ spread }) => spread),
  );

/** A fault of all readings speaks of each cam; one of a few readings of theirs. */
const concerns = ({ entries }: FaultFinding, { observations }: Evidence, cam: Valve): boolean =>
  entries.length === 0 ||
  observations.some(({ entry, valve }) => valve === cam && entries.includes(entry)) ||
  !observations.some(({ entry }) => entries.includes(entry));

const readableOf = (build: Build) => {
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
    };
  });
