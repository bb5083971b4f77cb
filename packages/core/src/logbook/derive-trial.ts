import { type CompletedCard, completeCard } from '../cam/complete-card';
import { aheadOfCard, targetCentreline } from '../cam/target';
import type { RulingMethod } from '../measure/read-methods';
import type { LengthUnit } from '../units/length';
import type { Evidence } from '../verdict/observations';
import { DEFAULT_LIMIT } from '../verdict/limits';
import { type Decision, decideTrial, placeViews } from './derive-verdict';
import type { BodyOf } from './entry';
import type { Build, Trial } from './fold';
import { type RoundFinding, findRound } from './read-rounds';
import { type TraceFinding, findTraces } from './read-traces';
import { findViews } from './views/find-views';
import { gatherEvidence } from './gather-evidence';
import type { View, ViewContext } from './views/view';
import type { SettingFinding } from './zero-passes';

export interface TrialFinding {
  readonly id: string;
  readonly number: number;
  readonly note: string | null;
  /** When it was begun, by the device's clock: for people. */
  readonly begunAt: string;
  readonly why: Trial['why'];
  readonly rounds: readonly RoundFinding[];
  readonly traces: readonly TraceFinding[];
  readonly views: readonly View[];
  readonly evidence: Evidence;
  readonly decision: Decision;
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

/** A trial is derived again at every reading of the next one: its decision is kept with its first entry, and what it was made from. */
const decided = new WeakMap<object, { readonly from: readonly unknown[]; readonly decision: Decision }>();

function decideOnce(
  trial: Trial,
  evidence: Evidence,
  whole: Evidence,
  rule: RulingMethod | null,
  context: ViewContext,
  told: Parameters<typeof decideTrial>[4],
): Decision {
  const holder = trial.rounds[0]?.readings[0] ?? trial.traces[0];
  if (!holder) return decideTrial(evidence, whole, rule, context, told);
  const { build, card } = context;
  const from: unknown[] = [card, build.description, build.target, build.asItStands, build.card];
  from.push(rule, told.limit, told.zeroProved, told.last);
  addInputs(from, evidence);
  if (whole !== evidence) addInputs(from, whole);
  const known = decided.get(holder);
  if (known?.from.length === from.length && from.every((part, at) => part === known.from[at])) return known.decision;
  const decision = decideTrial(evidence, whole, rule, context, told);
  decided.set(holder, { from, decision });
  return decision;
}

/** Everything that a decision is made from: a later proof moves the angles of readings, a point left out those of a trace, though their entries stay. */
function addInputs(to: unknown[], { observations, zeros, settled }: Evidence): void {
  to.push(settled);
  for (const each of observations)
    to.push(
      each.entry,
      each.kind === 'flank' ? each.angle : each.lift,
      each.kind === 'flank' ? each.figure : each.view,
    );
  for (const [zero, standard] of zeros) to.push(zero, standard);
}

function deriveTrial(
  trial: Trial,
  at: number,
  build: Build,
  settings: ReadonlyMap<string, SettingFinding>,
  card: CompletedCard,
  known: ViewContext['known'],
  last: boolean,
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
  const evidence = gatherEvidence(rounds, context, { odd: false });
  const odd = rounds.some(({ problem, holds, lacking }) => problem !== null && holds && lacking === 0);
  const whole = odd ? gatherEvidence(rounds, context, { odd: true }) : evidence;
  const decision = decideOnce(trial, evidence, whole, judgedBy, context, {
    limit,
    zeroProved: provedOf(rounds, traces),
    last,
    views,
  });
  return {
    id: trial.id,
    number: at + 1,
    note: trial.note ?? null,
    begunAt: trial.begunAt,
    why: trial.why,
    rounds,
    traces,
    views: placeViews(views, decision),
    evidence,
    decision,
  };
}

/** Do readings that place the cam lean on a proved zero? A lift at TDC without a wheel leans on none. */
const provedOf = (rounds: readonly RoundFinding[], traces: readonly TraceFinding[]): boolean =>
  rounds.some(
    ({ method, problem, zeroProved, pastTdc }) =>
      problem === null &&
      (method === 'lift-at-tdc' ? zeroProved || pastTdc === null : BY_WHEEL.has(method) && zeroProved),
  ) || traces.some((trace) => trace.placed && trace.zeroProved);

/** Methods that place the cam by the wheel, reading by reading. */
const BY_WHEEL: ReadonlySet<string> = new Set(['centreline', 'events', 'opening-only']);

/** The trials with what was measured in each, and their verdicts. */
export function deriveTrials(
  build: Build,
  settings: ReadonlyMap<string, SettingFinding>,
  card: CompletedCard,
): TrialFinding[] {
  const known: ViewContext['known'] = new Map();
  return build.trials.map((trial, at) =>
    deriveTrial(trial, at, build, settings, card, known, at === build.trials.length - 1),
  );
}
