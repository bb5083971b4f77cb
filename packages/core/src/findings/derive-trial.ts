import { type CompletedCard, completeCard } from '../cam/complete-card';
import { type Target, aheadOfCard, targetCentreline } from '../cam/target';
import { READ_METHODS, type ReadMethodName, type RulingMethod } from '../measure/read-methods';
import type { Evidence } from '../verdict/observations';
import { DEFAULT_LIMIT } from '../verdict/limits';
import { gravest } from '../verdict/verdict';
import { type ClosingFinding, closingCheck } from './closing-check';
import { type LobeTable, deriveLobes } from './derive-lobes';
import { judgeByScale } from './by-scale';
import { type CamFinding, type Conditions, type Decision, decideTrial, placeViews } from './derive-verdict';
import type { BodyOf, EntryOf } from '../record/entry';
import type { Build } from '../record/fold';
import type { Ground, Trial } from '../record/parts';
import { remember } from '../record/remember';
import { type RoundFinding, bankOf, findRound } from './readings/read-rounds';
import { type TraceFinding, findTraces } from './readings/read-traces';
import { findViews } from './views/find-views';
import { gatherEvidence } from './gather-evidence';
import type { View, ViewContext } from './views/view';
import { type SettingFinding, findSettings } from './readings/zero-passes';

/** What was read at one bank of cylinders: its cams stand apart from those of the other. */
export interface BankFinding {
  readonly bank: 1 | 2;
  readonly rounds: readonly RoundFinding[];
  readonly traces: readonly TraceFinding[];
  readonly views: readonly View[];
  readonly evidence: Evidence;
  readonly decision: Decision;
}

export interface TrialFinding {
  readonly id: string;
  readonly number: number;
  readonly note: string | null;
  /** When it was begun, by the device's clock: for people. */
  readonly begunAt: string;
  readonly why: Trial['why'];
  readonly banks: readonly BankFinding[];
  /** All banks together. */
  readonly rounds: readonly RoundFinding[];
  readonly traces: readonly TraceFinding[];
  readonly views: readonly View[];
  /** The cylinder whose lobes place the cam; of two banks, that of the first. */
  readonly cylinder: number;
  /** The lobes of all cylinders beside each other, where more than one was read. */
  readonly lobes: readonly LobeTable[];
  /** Has anything moved since TDC? */
  readonly closing: ClosingFinding;
  readonly decision: Pick<Decision, 'cams' | 'verdict' | 'faults'>;
}

export type InForce = Pick<BodyOf<'target.set'>, 'target' | 'limit'> & {
  /** Of a twin-cam engine, where it has one of its own. */
  readonly exhaust: Target | null;
  readonly judgedBy: RulingMethod | null;
};

/** The target that holds: as the builder set it, else straight to the card with the usual limit. */
export function targetInForce(build: Ground): InForce {
  const set = build.target?.body;
  const twin = build.description.body.engine.cams === 'twin';
  return set
    ? {
        target: set.target,
        exhaust: twin ? (set.exhaust ?? null) : null,
        limit: set.limit,
        judgedBy: set.judgedBy ?? null,
      }
    : { target: { kind: 'card' }, exhaust: null, limit: DEFAULT_LIMIT, judgedBy: null };
}

/** Where each cam shall sit: its centreline as printed, and how far ahead of its card that is; null where nothing says it. */
export function aimOf(build: Ground, card: CompletedCard): Pick<ViewContext, 'ahead' | 'wanted'> {
  const { target, exhaust } = targetInForce(build);
  const intake = targetCentreline(card.intake.centreline, target);
  const ahead = aheadOfCard(card.intake.centreline, target);
  const following = ahead === null ? null : ({ kind: 'ahead-of-card', advance: ahead } as const);
  const aim = exhaust ?? following;
  const wanted = aim && targetCentreline(card.exhaust.centreline, aim, 'exhaust');
  return {
    ahead: { intake: ahead, exhaust: aim && aheadOfCard(card.exhaust.centreline, aim, 'exhaust') },
    wanted: {
      intake: intake.ok ? intake.centreline : null,
      exhaust: wanted?.ok ? wanted.centreline : null,
    },
  };
}

/** Completing a card costs more than deriving the readings; a card hardly ever changes. */
const sameCard = remember<object, CompletedCard>();

/** The card as far as it goes: an empty one where there is none. */
export function cardOf(build: Ground): CompletedCard {
  const { units } = build.description.body;
  const { card } = build;
  return sameCard(card ?? build.description, [units], () => completeCard(card?.body ?? {}, units));
}

/** What a trial leans on may change without changing what decides it: its decision is kept with its first reading. */
const sameDecision = remember<object, Decision>();

function decideOnce(
  trial: Trial,
  evidence: Evidence,
  whole: Evidence,
  rule: RulingMethod | null,
  context: ViewContext,
  conditions: Conditions,
): Decision {
  // A second bank is decided beside the first, from other readings: each keeps its own.
  const holder = evidenceHolder(trial, conditions.bank, context);
  if (!holder) return decideTrial(evidence, whole, rule, context, conditions);
  const { build, card } = context;
  const from: unknown[] = [card, build.description, build.target, build.asItStands, build.card];
  from.push(
    rule,
    conditions.limit,
    conditions.zeroProved,
    conditions.last,
    conditions.closing.state,
    conditions.closing.by,
  );
  addInputs(from, evidence);
  if (whole !== evidence) addInputs(from, whole);
  return sameDecision(holder, from, () => decideTrial(evidence, whole, rule, context, conditions));
}

function evidenceHolder(trial: Trial, bank: 1 | 2, { build }: ViewContext): object | undefined {
  const mine = ({ body }: { readonly body: { readonly cylinder: number } }): boolean =>
    bankOf(body.cylinder, build) === bank;
  return trial.rounds.find((round) => round.readings.some(mine))?.readings.find(mine) ?? trial.traces.find(mine);
}

/**
 * Everything that a decision is made from: a later proof moves the angles of readings, a point left out those of a trace, and who reads more finely later
 * changes what the earlier ones are worth, though their entries stay.
 */
function addInputs(to: unknown[], { observations, zeros, settled }: Evidence): void {
  to.push(settled);
  for (const each of observations) {
    to.push(each.entry, each.view);
    if (each.kind === 'flank') to.push(each.angle, each.figure, each.zero, each.step, each.standard);
    else if (each.kind === 'tdc-lift') to.push(each.lift, each.past, each.zero, each.step);
    else to.push(each.lift);
  }
  for (const [zero, standard] of zeros) to.push(zero, standard);
}

/** What a trial leans on, and where it stands among the others. */
interface TrialPlace {
  readonly at: number;
  readonly last: boolean;
  /** As it was last fitted, up to this trial. */
  readonly drive: EntryOf<'drive.fitted'> | null;
}

function deriveTrial(trial: Trial, { at, last, drive }: TrialPlace, build: Ground, card: CompletedCard): TrialFinding {
  const { settings, known } = leaningOn(build);
  const { limit, judgedBy } = targetInForce(build);
  const aim = aimOf(build, card);
  const all = trial.rounds.map((round) => findRound(round, build, settings));
  const allTraces = findTraces(trial, build, settings);
  const closing = closingCheck(build, trial, settings);
  const own = measuredCylinder(all);
  const banked = build.description.body.engine.secondBank === undefined ? ([1] as const) : ([1, 2] as const);
  const banks = banked.map((bank): BankFinding => {
    const rounds = all.filter((each) => each.bank === bank && (bank === 2 || each.cylinder === own));
    const traces = banked.length === 1 ? allTraces : allTraces.filter((each) => each.bank === bank);
    const context: ViewContext = { build, card, ...aim, traces, known };
    const views = findViews(trial, rounds, context, bank);
    const evidence = gatherEvidence(trial, rounds, context, { odd: false, closed: closing.state === 'same' });
    const odd = rounds.some(({ problem, holds, lacking }) => problem !== null && holds && lacking === 0);
    const whole = odd
      ? gatherEvidence(trial, rounds, context, { odd: true, closed: closing.state === 'same' })
      : evidence;
    const byReadings = decideOnce(trial, evidence, whole, judgedBy, context, {
      limit,
      zeroProved: provedOf(rounds, traces),
      last,
      views,
      bank,
      closing,
    });
    const decision = withScale(byReadings, judgeByScale(trial, drive, build, bank));
    const placed = placeViews(views, decision);
    return { bank, rounds, traces, views: bank === 1 ? placed : placed.map(ofSecondBank), evidence, decision };
  });
  const [first, second] = banks;
  return {
    id: trial.id,
    number: at + 1,
    note: trial.note ?? null,
    begunAt: trial.begunAt,
    why: trial.why,
    banks,
    rounds: all,
    traces: allTraces,
    cylinder: own,
    lobes: deriveLobes(trial, all, build, card),
    closing,
    views: second ? banks.flatMap(({ views }) => views) : (first?.views ?? []),
    decision: second ? decideTogether(banks) : (first?.decision ?? { cams: [], verdict: null, faults: [] }),
  };
}

/** The cylinder whose lobes place the cam: the first, unless nothing was read there. What was read of the others is looked at beside it. */
const measuredCylinder = (rounds: readonly RoundFinding[]): number =>
  rounds.some(({ cylinder }) => cylinder === 1) ? 1 : (rounds.find(({ bank }) => bank === 1)?.cylinder ?? 1);

/** Cams of which nothing was read but the angle of their phaser are judged by that. */
function withScale(decision: Decision, byScale: readonly CamFinding[]): Decision {
  const added = byScale.filter(({ cam }) => !decision.cams.some((each) => each.cam === cam));
  if (added.length === 0) return decision;
  const cams = [...decision.cams, ...added];
  return { ...decision, cams, verdict: gravest(cams.map(({ verdict }) => verdict)) };
}

const ofSecondBank = (view: View): View => ({
  ...view,
  bank: 2,
  key: `bank 2 ${view.key}`,
  title: `Bank 2: ${view.title.charAt(0).toLowerCase()}${view.title.slice(1)}`,
});

function decideTogether(banks: readonly BankFinding[]): TrialFinding['decision'] {
  const cams = banks.flatMap(({ decision }) => decision.cams);
  return {
    cams,
    verdict: gravest(cams.map(({ verdict }) => verdict)),
    faults: banks.flatMap(({ decision }) => decision.faults),
  };
}

/** Do readings that place the cam lean on a proved zero? A lift at TDC without a wheel leans on none. */
const provedOf = (rounds: readonly RoundFinding[], traces: readonly TraceFinding[]): boolean =>
  rounds.some(
    ({ method, problem, zeroProved, pastTdc }) => problem === null && placesCam(method, zeroProved, pastTdc),
  ) || traces.some((trace) => trace.placed && trace.zeroProved);

const placesCam = (method: ReadMethodName, zeroProved: boolean, pastTdc: number | null): boolean => {
  const { reads } = READ_METHODS[method];
  return (reads === 'flanks' && zeroProved) || (reads === 'tdc-lift' && (zeroProved || pastTdc === null));
};

const sameLeaning = remember<
  Ground,
  { readonly settings: ReadonlyMap<string, SettingFinding>; readonly known: ViewContext['known'] }
>();

/** What all trials lean on, worked out once: where the wheel stood, and what a pair of each kind is worth. */
const leaningOn = (build: Ground) =>
  sameLeaning(build, [], () => ({ settings: findSettings(build), known: new Map() }));

const sameTrial = remember<Trial, TrialFinding>();

/** The trials with what was measured in each, and their verdicts. Those to which nothing was added are not worked out again. */
export function deriveTrials({ ground, trials }: Build, card: CompletedCard): TrialFinding[] {
  let drive: TrialPlace['drive'] = null;
  return trials.map((trial, at) => {
    drive = trial.drive ?? drive;
    const place: TrialPlace = { at, last: at === trials.length - 1, drive };
    return sameTrial(trial, [ground, card, place.at, place.last, drive], () => deriveTrial(trial, place, ground, card));
  });
}

/** Every position of the wheel. */
export const settingsOf = ({ ground }: Build): ReadonlyMap<string, SettingFinding> => leaningOn(ground).settings;
