import { type CompletedCard, completeCard } from '../cam/complete-card';
import { aheadOfCard, targetCentreline } from '../cam/target';
import type { RulingMethod } from '../measure/read-methods';
import type { LengthUnit } from '../units/length';
import { DEFAULT_LIMIT, type Verdict, judge } from '../verdict/verdict';
import type { BodyOf } from './entry';
import type { Build, Trial } from './fold';
import { type RoundFinding, findRound } from './read-rounds';
import { type TraceFinding, findTraces } from './read-traces';
import { findViews, speakingView } from './views/find-views';
import type { View, ViewContext } from './views/view';
import type { SettingFinding } from './zero-passes';

export interface TrialFinding {
  readonly id: string;
  readonly number: number;
  readonly note: string | null;
  readonly rounds: readonly RoundFinding[];
  readonly traces: readonly TraceFinding[];
  readonly views: readonly View[];
  /** The view that the verdict speaks from. */
  readonly speaking: string | null;
  readonly verdict: Verdict | null;
}

type InForce = Pick<BodyOf<'target.set'>, 'target' | 'limit'> & { readonly judgedBy: RulingMethod | null };

/** The target that holds: as the builder set it, else straight to the card with the usual limit. */
export function targetInForce(build: Build): InForce {
  const set = build.target?.body;
  return set
    ? { target: set.target, limit: set.limit, judgedBy: set.judgedBy ?? null }
    : { target: { kind: 'card' }, limit: DEFAULT_LIMIT, judgedBy: null };
}

/** Completing a card costs more than deriving the readings; a card hardly ever changes. Kept with the entry that it came from. */
const completed = new WeakMap<object, { readonly units: LengthUnit; readonly card: CompletedCard }>();

/** The card as far as it goes: an empty one where there is none. */
export function cardOf(build: Build): CompletedCard {
  const { units } = build.description.body;
  if (!build.card) return completeCard({}, units);
  const known = completed.get(build.card);
  if (known?.units === units) return known.card;
  const card = completeCard(build.card.body, units);
  completed.set(build.card, { units, card });
  return card;
}

/** Two lobes, or two heights of one, may lean apart by about this (standard deviation), and the card is rounded. Crank degrees. */
const LEAN_APART = 1;
const CARD_ROUNDED = 0.41;

/** The widest pair of views of one cam that cannot both be right. */
function disagreementOf(
  views: readonly View[],
  speaking: View,
): { readonly between: string; readonly by: number } | null {
  const [mine] = speaking.delta === null ? [] : [speaking.delta];
  if (mine === undefined) return null;
  let worst: { between: string; by: number } | null = null;
  for (const other of views) {
    if (other.delta === null || other.key === speaking.key || !other.proved) continue;
    const by = Math.abs(other.delta - mine);
    const allowed = Math.hypot(other.deltaExpanded ?? 0, speaking.deltaExpanded ?? 0, 2 * LEAN_APART, 2 * CARD_ROUNDED);
    if (by > allowed && by > (worst?.by ?? 0)) worst = { between: betweenWords(speaking, other), by };
  }
  return worst;
}

function betweenWords(a: View, b: View): string {
  if (a.valve !== b.valve) return 'intake and exhaust';
  const name = (view: View): string => METHOD_WORDS[view.method];
  return name(a) === name(b) ? `two measurements of the ${a.valve}` : `${name(a)} and ${name(b)} of the ${a.valve}`;
}

const METHOD_WORDS = {
  centreline: 'the centreline',
  events: 'the events',
  'opening-only': 'the opening',
  'lift-at-tdc': 'the lift at TDC',
  trace: 'the trace',
  identity: 'the lift',
  backlash: 'the slack',
} as const;

function deriveTrial(
  trial: Trial,
  at: number,
  build: Build,
  settings: ReadonlyMap<string, SettingFinding>,
  card: CompletedCard,
  known: ViewContext['known'],
): TrialFinding {
  const { target, limit, judgedBy } = targetInForce(build);
  const wanted = targetCentreline(card.intake.centreline, target);
  const rounds = trial.rounds.map((round) => findRound(round, build, settings));
  const traces = findTraces(trial, build, settings);
  const context: ViewContext = {
    build,
    card,
    ahead: aheadOfCard(card.intake.centreline, target),
    wanted: wanted.ok ? wanted.centreline : null,
    traces,
    known,
  };
  const views = findViews(trial, rounds, context);
  const single = build.description.body.engine.cams !== 'twin';
  const speaking = speakingView(views, judgedBy, single);
  const ofThisCam = views.filter((view) => single || view.valve === 'intake');
  return {
    id: trial.id,
    number: at + 1,
    note: trial.note ?? null,
    rounds,
    traces,
    views,
    speaking: speaking?.key ?? null,
    verdict:
      speaking && speaking.delta !== null
        ? judge({
            delta: speaking.delta,
            expanded: speaking.deltaExpanded,
            spread: speaking.spread,
            limit,
            zeroProved: speaking.proved,
            basis: `${speaking.title}: ${speaking.shows}, ${speaking.method === 'trace' ? 'from the whole curve' : (speaking.detail ?? '')}; wanted ${speaking.against ?? ''}`,
            disagreement: disagreementOf(ofThisCam, speaking),
          })
        : null,
  };
}

/** The trials with what was measured in each, and their verdicts. */
export function deriveTrials(
  build: Build,
  settings: ReadonlyMap<string, SettingFinding>,
  card: CompletedCard,
): TrialFinding[] {
  const known: ViewContext['known'] = new Map();
  return build.trials.map((trial, at) => deriveTrial(trial, at, build, settings, card, known));
}
