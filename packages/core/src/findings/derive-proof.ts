import type { Valve } from '../cam/card';
import { READ_METHODS, type ReadMethodName } from '../measure/read-methods';
import { computedDegrees } from '../units/degrees';
import { camsOf } from '../record/cams-of';
import type { DriveFinding } from './derive-drive';
import { type TrialFinding, targetInForce } from './derive-trial';
import type { Build } from '../record/fold';
import { followsDownOf } from './at-hand';
import { advanceOfChange } from './what-it-gave';

/** A prediction beside what was then measured. */
export interface ProofRow {
  readonly title: string;
  readonly predicted: string;
  readonly measured: string | null;
  /** How far ahead of the prediction the cam came, crank degrees of advance; null for lifts, and until it is measured. */
  readonly off: number | null;
  /** Is the difference one that both can have by chance? */
  readonly agrees: boolean | null;
}

/** A reading that would show whether the move worked. */
export interface ProofReading {
  readonly method: ReadMethodName;
  readonly valve: 'intake' | 'exhaust';
  readonly bank: 1 | 2;
  readonly readings: number;
  readonly words: string;
}

/** nothing: no move was made. due: what shows it is still to be read. proved; off: it sits outside the limit still. doubt: the readings do not say. */
export interface ProofFinding {
  readonly state: 'nothing' | 'due' | 'proved' | 'off' | 'doubt';
  readonly sentence: string;
  readonly rows: readonly ProofRow[];
  readonly next: readonly ProofReading[];
  /** What the hardware really gave, in words. */
  readonly gave: string | null;
}

const AGREES = 2.5;

/** Did the move do what it should? The shortest set of readings that would show it, then prediction against measurement. */
export function deriveProof(
  build: Build,
  trials: readonly TrialFinding[],
  drive: DriveFinding,
  zeroProved: boolean,
): ProofFinding {
  const trial = trials.at(-1);
  const held = build.trial;
  const { limit } = targetInForce(build);
  if (!trial || !held || trials.length < 2 || trial.why !== 'moved')
    return {
      state: 'nothing',
      sentence:
        trial?.decision.verdict?.kind === 'leave'
          ? 'Nothing was moved, and nothing has to be: the verdict stands.'
          : 'Nothing has been moved yet. Decide first, then move.',
      rows: [],
      next: [],
      gave: null,
    };
  const traced = new Map<string, Valve>(
    trials.flatMap(({ traces }) => traces.map(({ id, valve }) => [`trace ${id}`, valve])),
  );
  const rows = (held.move?.predicted ?? []).map((predicted): ProofRow => {
    const view = trial.views.find(
      ({ key, method, valve }) =>
        key === predicted.view ||
        // Each trace has a view of its own: one of the same lobe stands for it.
        (method === 'trace' && traced.get(predicted.view) === valve),
    );
    const change = view ? view.value - predicted.value : 0;
    const off = view ? advanceOfChange(view, change) : null;
    const standard = Math.hypot(predicted.standard, view?.standard ?? 0);
    return {
      title: predicted.title,
      predicted: predicted.shows,
      measured: view?.shows ?? null,
      off,
      agrees: view ? Math.abs(change) <= AGREES * Math.max(standard, 1e-6) : null,
    };
  });
  const gave = drive.moves.get(trial.id)?.words ?? null;
  const next = nextReadings(build, trials, trial);
  const verdict = trial.decision.verdict;
  if (next.length > 0 || !verdict) {
    const count = next.reduce((sum, { readings }) => sum + readings, 0);
    const [first] = next;
    return {
      state: 'due',
      sentence: !zeroProved
        ? 'Find TDC again first: it was lost with the move. Then read the cam.'
        : first
          ? `${count === 1 ? 'One reading shows' : `${count} readings show`} whether it worked. ${next.map(({ words }) => words).join(' ')}`
          : 'Read the cam again.',
      rows,
      next,
      gave,
    };
  }
  if (verdict.kind === 'leave')
    return {
      state: 'proved',
      sentence: `Proved. ${verdict.headline} That is inside ±${computedDegrees(limit)}.`,
      rows,
      next,
      gave,
    };
  if (verdict.kind === 'move') {
    const wrongWay = drive.moves
      .get(trial.id)
      ?.cams.some(
        ({ expected, gave: did, standard }) =>
          expected !== null && did !== null && standard !== null && expected * did < 0 && Math.abs(did) > 2 * standard,
      );
    return {
      state: 'off',
      sentence: wrongWay
        ? `It went the wrong way. ${verdict.headline} Look which way the hardware was put in, then move it again.`
        : `Not there yet. ${verdict.headline} Move it again: what it gave this time is counted in.`,
      rows,
      next,
      gave,
    };
  }
  return { state: 'doubt', sentence: verdict.headline, rows, next, gave };
}

/** For each cam the fewest readings that place it, of the method that placed it before: then the card and how the lobe leans fall out of the comparison. */
function nextReadings(build: Build, trials: readonly TrialFinding[], trial: TrialFinding): ProofReading[] {
  const before = trials.at(-2);
  const several = build.description.body.engine.secondBank !== undefined;
  return camsOf(build).flatMap(({ cam, bank }): ProofReading[] => {
    if (trial.decision.cams.some((each) => each.cam === cam && each.bank === bank)) return [];
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
    const where = several ? ` of bank ${bank}` : '';
    return [
      {
        method,
        valve,
        bank,
        readings: readingsOf(method),
        words: `Read ${READ_METHODS[method].asked(valve)}${where}.`,
      },
    ];
  });
}

const readingsOf = (method: ReadMethodName): number => READ_METHODS[method].slots.length;
