import { centrelineRemark, targetCentreline } from '../cam/target';
import { deriveCrank } from '../findings/derive-crank';
import { type PrepareFinding, derivePrepare } from '../findings/derive-prepare';
import { findRebase } from '../findings/derive-rebase';
import { NO_CLOSING_CHECK } from '../findings/closing-check';
import { type TrialFinding, aimOf, cardOf, deriveTrials, targetInForce } from '../findings/derive-trial';
import { type ZeroFinding, deriveZero } from '../findings/derive-zero';
import { planReading } from '../findings/read-plan';
import { reportTrial } from './report-trial';
import { crankOf, findSettings } from '../findings/readings/zero-passes';
import { type ClearanceFinding, deriveClearance } from '../findings/derive-clearance';
import { deriveDrive } from '../findings/derive-drive';
import { type MoveStationFinding, deriveMove } from '../findings/derive-move';
import { type ProofFinding, deriveProof } from '../findings/derive-proof';
import { type SignFinding, deriveSign } from '../findings/derive-sign';
import { deriveWear } from '../findings/derive-wear';
import { reportDrive, reportMoves } from './report-drive';
import type { CylinderKnown } from '../cam/what-if';
import type { CompletedCard } from '../cam/complete-card';
import { READ_METHODS, RULING_METHODS } from '../measure/read-methods';
import type { Entry } from '../record/entry';
import { type Build, fold } from '../record/fold';
import { type TroubledGroup, makeSheet, troubledGroups } from './sheet';
import type { Report, ReportVerdict } from './report-schema';

export { type Report, type Station, reportSchema } from './report-schema';

/**
 * Everything that follows from a logbook. Pure: the same entries give the same report.
 * @param entries of one build.
 * @returns null when nothing says what engine this is.
 */
export function derive(entries: readonly Entry[]): Report | null {
  const build = fold(entries);
  if (!build) return null;
  const described = build.description.body;
  const zero = deriveZero(build);
  const settings = findSettings(build);
  const prepare = derivePrepare(build);
  const crank = deriveCrank(build);
  const card = cardOf(build);
  const trials = deriveTrials(build, settings, card);
  const trial = trials.at(-1);
  const { target, exhaust, limit, judgedBy } = targetInForce(build);
  const aim = aimOf(build, card);
  const wanted = targetCentreline(card.intake.centreline, target);
  const troubled = troubledGroups(zero, trials);
  const plan = planReading(build, trial, judgedBy);
  // A card of events alone gives no centreline, and may still say where the cam shall sit.
  const aimed = wanted.ok || (trial?.decision.verdict ?? null) !== null;
  const verdict =
    trial?.decision.verdict ?? waitingVerdict(build, zero, trial, wanted.ok, card.contradictions.length > 0);
  const { engine, instruments } = described;
  const wear = deriveWear(trials, described.units);
  const cylinder: CylinderKnown = {
    crank: crankOf(described),
    bore: engine.bore ?? null,
    ratio: engine.compression?.given === 'ratio' ? engine.compression.ratio : null,
    chamber: engine.compression?.given === 'chamber' ? engine.compression.volume : null,
  };

  const drive = deriveDrive(build, trials);
  const clearance = deriveClearance(build, trials, card);
  const move = deriveMove(build, trial, drive, clearance, card, cylinder);
  const proof = deriveProof(build, trials, drive, zero.state === 'proved');
  // What was read without a wheel leans on no zero.
  const onWheel = trial?.rounds.some(({ readings }) => readings.some(({ at }) => at !== null)) || trial?.traces.length;
  const sign = deriveSign(
    build,
    trials,
    zero.state === 'proved' || (verdict.delta !== null && !onWheel),
    proof,
    clearance,
  );

  return {
    format: 'yosoku-report',
    version: 1,
    build: {
      id: build.description.buildId,
      name: described.name,
      practice: entries.some(({ kind, body }) => kind === 'build.described' && 'practice' in body),
      units: described.units,
      wheel: described.wheel,
      engine: {
        cylinders: engine.cylinders,
        firingOrder: [...engine.firingOrder],
        rotation: engine.rotation,
        stroke: engine.stroke ?? null,
        rod: engine.rod ?? null,
        pinOffset: engine.pinOffset ?? null,
        firingAngles: engine.firingAngles ? [...engine.firingAngles] : null,
        cams: engine.cams ?? 'single',
        secondBank: engine.secondBank ?? null,
        rockerRatio: engine.rockerRatio ?? null,
        bore: engine.bore ?? null,
        compression: engine.compression ?? null,
      },
      instruments: {
        wheelDiameter: instruments?.wheelDiameter ?? null,
        graduation: instruments?.graduation ?? null,
        pointerGap: instruments?.pointerGap ?? null,
        resolution: instruments?.resolution ?? null,
      },
    },
    entries: { total: build.entryCount, voided: build.voided.size },
    stations: [...stationStates(build, prepare, zero, trial, aimed), ...closingStations(move, proof, clearance, sign)],
    prepare: { ...prepare, checks: [...prepare.checks] },
    zero: {
      id: build.zero?.id ?? null,
      method: zero.method,
      ring: zero.ring,
      setting: build.zero?.current.id ?? null,
      state: zero.state,
      sentence: zero.sentence,
      step: zero.step,
      correction: zero.correction && { ...zero.correction, ways: [...zero.correction.ways] },
      uncertainty: zero.uncertainty && { ...zero.uncertainty, budget: [...zero.uncertainty.budget] },
      remark: zero.remark,
      odd: zero.odd,
      result: zero.result,
      passes: zero.passes.map((pass) => ({ ...pass, readings: [...pass.readings] })),
      rebase: findRebase(build, zero, settings),
    },
    crank: {
      ...crank,
      cylinders: [...crank.cylinders],
      mark: crank.mark && { ...crank.mark, tape: [...crank.mark.tape] },
    },
    card: {
      entry: build.card?.id ?? null,
      name: build.card?.body.name ?? null,
      printed: printedCard(build),
      intakeCentreline: card.intake.centreline,
      exhaustCentreline: card.exhaust.centreline,
      lobeLift: card.intake.lobeLift,
      lobeSeparation: card.lobeSeparation,
      figures: [...card.figures],
      contradictions: card.contradictions.map((each) => ({ ...each, figures: [...each.figures] })),
      overlaps: [...card.overlaps],
      lobes: { intake: card.intake.curve, exhaust: card.exhaust.curve },
      remark: card.intake.centreline === null ? null : centrelineRemark(card.intake.centreline),
    },
    target: {
      entry: build.target?.id ?? null,
      kind: target.kind,
      wanted: target,
      exhaust,
      exhaustCentreline: aim.wanted.exhaust,
      intakeCentreline: wanted.ok ? wanted.centreline : null,
      ahead: aim.ahead.intake,
      limit,
      judgedBy,
      problem: aimed || wanted.ok ? null : wanted.problem,
    },
    read: { ...plan, open: [...plan.open], heights: [...plan.heights], closing: trial?.closing ?? NO_CLOSING_CHECK },
    trials: trials.map((each) => reportTrial(each, card, cylinder)),
    verdict,
    drive: reportDrive(drive),
    moves: reportMoves(drive),
    experience: [...drive.experience],
    move: writable(move),
    proof: writable(proof),
    clearance: { entry: build.clearance?.id ?? null, valves: writable(clearance) },
    sign: writable(sign),
    wear: [...wear],
    problems: findProblems(build, card, troubled),
    sheet: makeSheet(entries, build, {
      prepare,
      zero,
      crank,
      card,
      trials,
      troubled,
      wear,
      drive,
      proof,
      clearance,
      sign,
    }).map((section) => ({
      ...section,
      rows: [...section.rows],
    })),
  };
}

/** The card's own figures, without what only the logbook needs. */
function printedCard(build: Build): Report['card']['printed'] {
  if (!build.card) return null;
  const { replaces: _replaces, ...printed } = build.card.body;
  return printed;
}

function findProblems(build: Build, card: CompletedCard, troubled: readonly TroubledGroup[]): Report['problems'] {
  return [
    ...card.contradictions.map(({ message, remedy }) => ({
      entries: build.card ? [build.card.id] : [],
      message,
      remedy,
    })),
    ...troubled,
    ...[...build.unlinked].map(([id, message]) => ({
      entries: [id],
      message,
      remedy: 'It is kept, but nothing is worked out from it.',
    })),
  ];
}

function stationStates(
  build: Build,
  prepare: PrepareFinding,
  zero: ZeroFinding,
  trial: TrialFinding | undefined,
  targetKnown: boolean,
): Report['stations'] {
  const answered = prepare.checks.filter((each) => each.state !== 'due').length;
  const prepareState = !prepare.asItStands ? 'due' : answered === prepare.checks.length ? 'done' : 'begun';
  const placing = trial?.views.filter(({ method, valve }) => PLACES_CAM.has(method) && valve !== 'both') ?? [];
  const begun = (trial?.rounds.length ?? 0) + (trial?.traces.length ?? 0) > 0;
  const read = placing.length > 0 ? 'done' : begun ? 'begun' : 'due';
  const unproved = placing.length > 0 && !placing.some((view) => view.proved);
  return [
    { station: 'prepare', state: prepareState },
    { station: 'zero', state: ZERO_STATES[zero.state] },
    { station: 'card', state: targetKnown ? 'done' : build.card ? 'begun' : 'due' },
    { station: 'read', state: unproved ? 'void' : read },
    {
      station: 'decide',
      state: trial?.decision.verdict?.kind === 'leave' ? 'done' : trial?.decision.verdict ? 'begun' : 'due',
    },
  ];
}

/** The stations after the verdict. */
function closingStations(
  move: MoveStationFinding,
  proof: ProofFinding,
  clearance: readonly ClearanceFinding[],
  sign: SignFinding,
): Report['stations'] {
  const still = move.state === 'stay';
  const tight = clearance.some(({ state }) => state === 'tight');
  const enough = clearance.filter(({ state }) => state === 'enough').length;
  const ticked = sign.checks.find(({ check }) => check === 'clearance')?.state !== 'due';
  return [
    { station: 'move', state: still ? 'done' : move.plans.length > 0 ? 'begun' : 'due' },
    {
      station: 'prove',
      state:
        proof.state === 'proved' || (proof.state === 'nothing' && still)
          ? 'done'
          : proof.state === 'off'
            ? 'void'
            : proof.state === 'nothing'
              ? 'due'
              : 'begun',
    },
    {
      station: 'clear',
      state: tight ? 'void' : enough === clearance.length || ticked ? 'done' : enough > 0 ? 'begun' : 'due',
    },
    {
      station: 'sign',
      state: sign.closed ? 'done' : sign.checks.some(({ entry }) => entry !== null) ? 'begun' : 'due',
    },
  ];
}

type Writable<T> = T extends (infer U)[] | readonly (infer U)[]
  ? Writable<U>[]
  : T extends object
    ? { -readonly [K in keyof T]: Writable<T[K]> }
    : T;

/** The Report is plain data of its own; what was found is never changed by whoever holds it. */
const writable = <T>(found: T): Writable<T> => found as Writable<T>;

/** Methods whose readings say where the cam sits. */
const PLACES_CAM: ReadonlySet<string> = new Set(RULING_METHODS);

const ZERO_STATES = {
  none: 'due',
  open: 'begun',
  found: 'begun',
  set: 'begun',
  rough: 'begun',
  proved: 'done',
  failed: 'void',
  void: 'void',
} as const;

/** What is missing before there can be a verdict, in the order of the work. */
function waitingVerdict(
  build: Build,
  zero: ZeroFinding,
  trial: TrialFinding | undefined,
  targetKnown: boolean,
  contradicted: boolean,
): ReportVerdict {
  const wait = (headline: string, action: string): ReportVerdict => ({
    kind: 'waiting',
    beside: [],
    delta: null,
    expanded: null,
    move: null,
    headline,
    action,
    why: 'A verdict needs a proved TDC, a target from the card, and one measurement of the cam that can be compared with it.',
  });
  const troubled = [...(trial?.rounds ?? []), ...(trial?.traces ?? [])].find((each) => each.problem)?.problem;
  const measured = trial?.views.some(({ method, valve }) => PLACES_CAM.has(method) && valve !== 'both') ?? false;
  if (zero.state !== 'proved' && !measured && (zero.state !== 'none' || build.asItStands?.body.wheel !== false))
    return wait('No verdict yet: TDC is not proved.', 'Find it at Zero, and prove it.');
  if (!targetKnown)
    return wait(
      'No verdict yet: nothing to compare with.',
      build.card
        ? contradicted
          ? 'The card contradicts itself about the intake centreline. Settle it, or set a target of your own.'
          : 'The card gives no intake centreline. Enter it, or set a target of your own.'
        : 'Enter the card, or set a target of your own.',
    );
  const hint = trial?.decision.faults[0];
  if (troubled)
    return wait(
      'No verdict yet: a measurement does not hold.',
      hint ? `${troubled.message} Most likely ${hint.words}. ${hint.check}` : `${troubled.message} ${troubled.remedy}`,
    );
  const half = trial?.rounds.find((round) => round.lacking > 0 && READ_METHODS[round.method].reads !== 'curve');
  if (half && !measured)
    return wait(
      'No verdict yet: one side of the nose is missing.',
      'Read the other side at the same figure; or, where the lifter does not follow, read the opening side only.',
    );
  if (measured)
    return wait(
      'No verdict yet: what was measured has nothing to be compared with.',
      'The card prints no figure for it. Give the card’s events or lift, or measure the intake centreline.',
    );
  return wait(
    'No verdict yet: the cam has not been measured.',
    'Read the wheel at the same drop before and after peak.',
  );
}
