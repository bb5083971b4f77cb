import { targetCentreline } from '../cam/card';
import { formatLength } from '../units/length';
import { deriveCrank } from './derive-crank';
import { type PrepareFinding, derivePrepare } from './derive-prepare';
import { findRebase } from './derive-rebase';
import { type TrialFinding, cardRemark, deriveTrials, nextReading, targetInForce } from './derive-trial';
import { type ZeroFinding, deriveZero } from './derive-zero';
import { findSettings } from './zero-passes';
import type { Entry } from './entry';
import { type Build, fold } from './fold';
import { makeSheet, troubledGroups } from './sheet';
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
  const trials = deriveTrials(build, settings);
  const trial = trials.at(-1);
  const { target, limit } = targetInForce(build);
  const wanted = targetCentreline(build.card?.body.intake ?? {}, target);
  const verdict = trial?.verdict ?? waitingVerdict(build, zero, trial, wanted.ok);
  const { engine, instruments } = described;

  return {
    format: 'yosoku-report',
    version: 1,
    build: {
      id: build.description.buildId,
      name: described.name,
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
      },
      instruments: {
        wheelDiameter: instruments?.wheelDiameter ?? null,
        graduation: instruments?.graduation ?? null,
        pointerGap: instruments?.pointerGap ?? null,
        resolution: instruments?.resolution ?? null,
      },
    },
    entries: { total: build.entryCount, voided: build.voided.size },
    stations: stationStates(build, prepare, zero, trial, wanted.ok),
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
      intakeCentreline: build.card?.body.intake.centreline ?? null,
      lobeLift: build.card?.body.intake.lobeLift ?? null,
      remark: cardRemark(build),
    },
    target: {
      entry: build.target?.id ?? null,
      kind: target.kind,
      intakeCentreline: wanted.ok ? wanted.centreline : null,
      limit,
      problem: wanted.ok ? null : wanted.problem,
    },
    read: {
      trial: build.trial?.id ?? null,
      ...nextReading(build.trial, trial, (mm) => formatLength(mm, described.units)),
    },
    trials: trials.map((each) => ({
      ...each,
      rounds: each.rounds.map((round) => ({ ...round, readings: [...round.readings] })),
    })),
    verdict,
    problems: findProblems(build, zero, trials),
    sheet: makeSheet(entries, build, { prepare, zero, crank, trials }).map((section) => ({
      ...section,
      rows: [...section.rows],
    })),
  };
}

function findProblems(build: Build, zero: ZeroFinding, trials: readonly TrialFinding[]): Report['problems'] {
  return [
    ...troubledGroups(zero, trials),
    ...[...build.adrift].map(([id, message]) => ({
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
  const read = trial?.centreline ? 'done' : (trial?.rounds.length ?? 0) > 0 ? 'begun' : 'due';
  const unproved = trial?.centreline && !trial.rounds.some((round) => round.centreline !== null && round.zeroProved);
  return [
    { station: 'prepare', state: prepareState },
    { station: 'zero', state: ZERO_STATES[zero.state] },
    { station: 'card', state: targetKnown ? 'done' : build.card ? 'begun' : 'due' },
    { station: 'read', state: unproved ? 'void' : read },
    {
      station: 'decide',
      state: trial?.verdict?.kind === 'leave' ? 'done' : trial?.verdict ? 'begun' : 'due',
    },
  ];
}

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
): ReportVerdict {
  const wait = (headline: string, action: string): ReportVerdict => ({
    kind: 'waiting',
    delta: null,
    move: null,
    headline,
    action,
    why: 'A verdict needs a proved TDC, a target from the card, and one pair of readings either side of peak.',
  });
  const troubled = trial?.rounds.find((round) => round.problem)?.problem;
  if (zero.state !== 'proved' && !trial?.centreline)
    return wait('No verdict yet: TDC is not proved.', 'Find it at Zero, and prove it.');
  if (!targetKnown)
    return wait(
      'No verdict yet: nothing to compare with.',
      build.card
        ? 'The card gives no intake centreline. Enter it, or set a target of your own.'
        : 'Enter the card, or set a target of your own.',
    );
  if (troubled)
    return wait('No verdict yet: a pair of readings does not hold.', `${troubled.message} ${troubled.remedy}`);
  return wait(
    'No verdict yet: the cam has not been measured.',
    'Read the wheel at the same drop before and after peak.',
  );
}
