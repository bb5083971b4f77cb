import { centrelineRemark } from '../cam/target';
import { NO_CLOSING_CHECK } from '../findings/closing-check';
import { type Findings, findAll } from '../findings/find-all';
import { stationState, stationsOf } from '../findings/station-states';
import type { Entry } from '../record/entry';
import { type Build, fold } from '../record/fold';
import { noVerdict } from './no-verdict';
import { problemsOf } from './problems';
import { reportClearance } from './report-clearance';
import { reportCrank } from './report-crank';
import { reportDrive, reportMoves } from './report-drive';
import { reportLash } from './report-lash';
import { reportMove } from './report-move';
import { reportPhotos, withPhotos } from './report-photos';
import { reportProof } from './report-proof';
import type { Report, ReportVerdict } from './report-schema';
import { reportRockers } from './report-rockers';
import { reportSign } from './report-sign';
import { reportTrial } from './report-trial';
import { standingLobe } from '../findings/standing-lobe';
import { reportLobePlan } from './report-lobes';
import { reportWear } from './report-wear';
import { reportClosing, reportZero } from './report-zero';
import { troubledGroups } from './left-out';
import { makeSheet } from './sheet';
import { speechOf } from './speech';

export type { Report } from './report-schema';
export type { Station } from '../record/entries/stations';

/**
 * Everything that follows from a logbook. Pure: the same entries give the same report.
 * @param entries of one build.
 * @returns null when nothing says what engine this is.
 */
export function derive(entries: readonly Entry[]): Report | null {
  const build = fold(entries);
  return build && tell(findAll(build), entries);
}

/** What was found, in words. */
function tell(found: Findings, entries: readonly Entry[]): Report {
  const { build, card, drive, trial } = found;
  const { units } = build.description.body;
  const speech = speechOf(build);
  const trials = found.trials.map((each) => reportTrial(each, card, found.cylinder, speech));
  const [last] = trials.slice(-1);
  const judged: ReportVerdict | null = last?.verdict ?? null;
  const moves = reportMoves(drive);
  const clearance = reportClearance(found.clearance, units);
  const accepted = reportAccepted(found.accepted);
  const troubled = troubledGroups(found.zero, found.trials);
  const told = {
    prepare: { ...found.prepare, checks: [...found.prepare.checks] },
    zero: reportZero(build, found.zero, found.settings),
    crank: reportCrank(found.crank, units),
    trials,
    moves,
    proof: reportProof(found.proof, {
      verdict: judged,
      accepted: accepted.find(({ view }) => view === null)?.words ?? null,
      // A cam that is judged in its maker's scale has the tolerance of that.
      limit: last?.cams.length ? Math.max(...last.cams.map((cam) => cam.limit)) : found.target.limit,
      banked: build.description.body.engine.secondBank !== undefined,
      gave: moves.find((each) => each.trial === trial?.id)?.words ?? null,
    }),
    rockers: reportRockers(found.rockers, units),
    lash: reportLash(found.lash, build),
    clearance: { entry: build.clearance?.id ?? null, valves: clearance },
    sign: reportSign(found.sign, {
      units,
      verdict: judged,
      clearance,
      views: last?.views ?? [],
      lobes: last?.everyLobe ?? [],
    }),
    accepted,
    wear: reportWear(found.wear, units),
  };
  const sheet = makeSheet(entries, found, told, troubled);
  const photos = reportPhotos(build, entries, sheet);
  return {
    format: 'yosoku-report',
    version: 1,
    build: describedOf(build, entries),
    entries: { total: build.entryCount, voided: build.voided.size },
    stations: stationsOf(found).map((station) => ({ station, state: stationState(station, found) })),
    ...told,
    card: cardOf(found),
    target: targetOf(found),
    read: {
      ...found.plan,
      open: [...found.plan.open],
      everyLobe: reportLobePlan(found.plan.everyLobe),
      heights: [...found.plan.heights],
      closing: reportClosing(trial?.closing ?? NO_CLOSING_CHECK, units),
    },
    verdict: judged ?? noVerdict(found, last?.faults[0]),
    standing: standingOf(found),
    drive: reportDrive(drive),
    experience: [...drive.experience],
    move: reportMove(found.move, build, drive, judged),
    problems: problemsOf(found, troubled),
    photos,
    sheet: withPhotos(sheet, photos),
  };
}

/** Both lobes where they stand now. */
const standingOf = ({ build, trials, card }: Findings): Report['standing'] => ({
  intake: standingLobe(build, trials, trials.length - 1, card, 'intake'),
  exhaust: standingLobe(build, trials, trials.length - 1, card, 'exhaust'),
});

/** What was left as it is, in words. */
const reportAccepted = (accepted: Findings['accepted']): Report['accepted'] =>
  accepted.map(({ entry, view, reason, said, stands }) => ({
    entry,
    view,
    reason,
    stands,
    words: stands ? `Left as it is: ${reason}` : `It was left as it is when it was “${said}” That is no longer so.`,
  }));

function describedOf({ description }: Build, entries: readonly Entry[]): Report['build'] {
  const { name, units, wheel, rings = [], like = [], engine, instruments } = description.body;
  return {
    id: description.buildId,
    name,
    practice: entries.some(({ kind, body }) => kind === 'build.described' && 'practice' in body),
    units,
    wheel,
    rings: [...rings],
    like: [...like],
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
  };
}

function cardOf({ build, card }: Findings): Report['card'] {
  return {
    entry: build.card?.id ?? null,
    others: build.otherCards.map(({ id }) => id),
    name: build.card?.body.name ?? null,
    printed: printedOf(build),
    intakeCentreline: card.intake.centreline,
    exhaustCentreline: card.exhaust.centreline,
    lobeLift: card.intake.lobeLift,
    lobeSeparation: card.lobeSeparation,
    figures: [...card.figures],
    contradictions: card.contradictions.map(({ figures, message, remedy }) => ({
      figures: [...figures],
      message,
      remedy,
    })),
    overlaps: [...card.overlaps],
    lobes: { intake: card.intake.curve, exhaust: card.exhaust.curve },
    remark: card.intake.centreline === null ? null : centrelineRemark(card.intake.centreline),
  };
}

/** The card's own figures, without what only the logbook needs. */
function printedOf({ card }: Build): Report['card']['printed'] {
  if (!card) return null;
  const { replaces: _replaces, ...printed } = card.body;
  return printed;
}

function targetOf({ build, target, aim, wanted, aimed }: Findings): Report['target'] {
  return {
    entry: build.target?.id ?? null,
    kind: target.target.kind,
    wanted: target.target,
    exhaust: target.exhaust,
    exhaustCentreline: aim.wanted.exhaust,
    intakeCentreline: wanted.ok ? wanted.centreline : null,
    ahead: aim.ahead.intake,
    limit: target.limit,
    judgedBy: target.judgedBy,
    problem: aimed || wanted.ok ? null : wanted.problem,
  };
}
