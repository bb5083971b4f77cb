import type { Valve } from '../cam/card';
import { READ_METHODS, type ReadMethodName } from '../measure/read-methods';
import { type Cam, camsOf } from '../record/cams-of';
import type { DriveFinding } from './derive-drive';
import type { TrialFinding } from './derive-trial';
import type { PredictedView } from '../record/entry';
import type { Build } from '../record/fold';
import { followsDownOf } from './at-hand';
import type { View } from './views/view';
import { advanceOfChange } from './what-it-gave';

/** A prediction beside what was then measured. */
export interface ProofRow {
  readonly predicted: PredictedView;
  readonly measured: View | null;
  /** How far ahead of the prediction the cam came, crank degrees of advance; null for lifts, and until it is measured. */
  readonly off: number | null;
  /** Is the difference one that both can have by chance? */
  readonly agrees: boolean | null;
}

/** A reading that would show whether the move worked. */
export interface ProofReading {
  readonly method: ReadMethodName;
  readonly valve: Valve;
  readonly bank: 1 | 2;
  readonly readings: number;
}

/** nothing: no move was made. due: what shows it is still to be read. proved; off: it sits outside the limit still. doubt: the readings do not say. accepted: it is left as it is, knowingly. */
export interface ProofFinding {
  readonly state: 'nothing' | 'due' | 'proved' | 'off' | 'doubt' | 'accepted';
  /** stays: nothing has to be moved. find-tdc: before anything can be read. wrong-way: it went against what was expected. */
  readonly because:
    | 'nothing-moved'
    | 'stays'
    | 'find-tdc'
    | 'read'
    | 'read-again'
    | 'read-angle'
    | 'proved'
    | 'wrong-way'
    | 'not-there'
    | 'doubt'
    | 'accepted';
  readonly rows: readonly ProofRow[];
  readonly next: readonly ProofReading[];
}

const AGREES = 2.5;

/**
 * Did the move do what it should? The shortest set of readings that would show it, then prediction against measurement.
 * @param accepted where the cams sit is left as it is, knowingly.
 */
export function deriveProof(
  build: Build,
  trials: readonly TrialFinding[],
  drive: DriveFinding,
  zeroProved: boolean,
  accepted: boolean,
): ProofFinding {
  const trial = trials.at(-1);
  const held = build.trial;
  if (!trial || !held || trials.length < 2 || trial.why !== 'moved') {
    const stays = trial?.decision.verdict?.kind === 'leave';
    const because = stays ? 'stays' : accepted ? 'accepted' : 'nothing-moved';
    return { state: 'nothing', because, rows: [], next: [] };
  }
  const rows = (held.move?.predicted ?? []).map((predicted) => proofRow(predicted, trial, trials));
  const next = nextReadings(build, trials, trial);
  const verdict = trial.decision.verdict;
  if (next.length > 0 || !verdict || anglesLacking(trials.at(-2), trial))
    return { state: 'due', because: dueBecause(trials, next, zeroProved), rows, next };
  if (verdict.kind === 'leave') return { state: 'proved', because: 'proved', rows, next };
  if (accepted) return { state: 'accepted', because: 'accepted', rows, next };
  if (verdict.kind === 'move')
    return { state: 'off', because: wentWrongWay(drive, trial) ? 'wrong-way' : 'not-there', rows, next };
  return { state: 'doubt', because: 'doubt', rows, next };
}

/** Is a cam that was judged by its angle before the move to be read again? */
const anglesLacking = (before: TrialFinding | undefined, { decision }: TrialFinding): boolean =>
  (before?.decision.cams ?? []).some(
    ({ cam, bank, verdict }) =>
      verdict.judged.basis.scale !== undefined && !decision.cams.some((each) => each.cam === cam && each.bank === bank),
  );

/** Was a trial judged by the angles of phasers, and this cam by nothing else? What nobody has read before is not asked for now. */
function goesByAngle(trial: TrialFinding | undefined, cam: Cam['cam'], bank: 1 | 2): boolean {
  const cams = trial?.decision.cams ?? [];
  if (!cams.some(({ verdict }) => verdict.judged.basis.scale !== undefined)) return false;
  const own = cams.find((each) => each.cam === cam && each.bank === bank);
  return own === undefined || own.verdict.judged.basis.scale !== undefined;
}

/** What has to be done before the move is known to have worked. */
function dueBecause(
  trials: readonly TrialFinding[],
  next: readonly ProofReading[],
  zeroProved: boolean,
): ProofFinding['because'] {
  const before = trials.at(-2);
  const byScale = before?.decision.cams.some(({ verdict }) => verdict.judged.basis.scale !== undefined) ?? false;
  if (next.length === 0 && byScale) return 'read-angle';
  if (!zeroProved) return 'find-tdc';
  return next.length > 0 ? 'read' : 'read-again';
}

function proofRow(predicted: PredictedView, trial: TrialFinding, trials: readonly TrialFinding[]): ProofRow {
  // Each trace has a view of its own: one of the same lobe stands for it.
  const traced = trials.flatMap(({ traces }) => traces).find(({ id }) => `trace ${id}` === predicted.view)?.valve;
  const measured = trial.views.find(
    ({ key, method, valve }) => key === predicted.view || (READ_METHODS[method].reads === 'curve' && valve === traced),
  );
  if (!measured) return { predicted, measured: null, off: null, agrees: null };
  const change = measured.value - predicted.value;
  const standard = Math.hypot(predicted.standard, measured.standard ?? 0);
  return {
    predicted,
    measured,
    off: advanceOfChange(measured, change),
    agrees: Math.abs(change) <= AGREES * Math.max(standard, 1e-6),
  };
}

const wentWrongWay = ({ moves }: DriveFinding, { id }: TrialFinding): boolean =>
  moves
    .get(id)
    ?.cams.some(
      ({ expected, gave, standard }) =>
        expected !== null && gave !== null && standard !== null && expected * gave < 0 && Math.abs(gave) > 2 * standard,
    ) ?? false;

/** For each cam the fewest readings that place it, of the method that placed it before: then the card and how the lobe leans fall out of the comparison. */
function nextReadings(build: Build, trials: readonly TrialFinding[], trial: TrialFinding): ProofReading[] {
  const before = trials.at(-2);
  return camsOf(build).flatMap(({ cam, bank }): ProofReading[] => {
    if (trial.decision.cams.some((each) => each.cam === cam && each.bank === bank)) return [];
    if (goesByAngle(before, cam, bank)) return [];
    const mine = (before?.views ?? []).filter(
      (view) => view.bank === bank && view.valve !== 'both' && (cam === 'single' || view.valve === cam),
    );
    const usable = mine
      .filter(({ method }) => READ_METHODS[method].reads === 'flanks')
      .sort((a, b) => readingsOf(a.method) - readingsOf(b.method) || (a.standard ?? 9) - (b.standard ?? 9));
    // One side alone leans on the zero of the base circle: only where nothing else can be read.
    const pairs = usable.filter(({ method }) => READ_METHODS[method].slots.length > 1);
    const best =
      (followsDownOf(build) ? pairs[0] : undefined) ??
      usable[0] ??
      mine.find(({ method }) => READ_METHODS[method].reads === 'tdc-lift');
    const method = best?.method ?? (followsDownOf(build) ? 'centreline' : 'opening-only');
    const valve = best && best.valve !== 'both' ? best.valve : cam === 'exhaust' ? 'exhaust' : 'intake';
    return [{ method, valve, bank, readings: readingsOf(method) }];
  });
}

const readingsOf = (method: ReadMethodName): number => READ_METHODS[method].slots.length;
