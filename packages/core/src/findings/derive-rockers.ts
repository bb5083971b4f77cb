import { VALVES, type Valve } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import { type Outcome, type Problem, problem } from '../problem';
import type { BodyOf, EntryOf } from '../record/entry';
import type { Build } from '../record/fold';
import {
  MOST_LIFT,
  type MidLift,
  type RightLength,
  type TrialVerdict,
  judgeTrial,
  rightLengths,
} from '../valve-train/pushrod-trials';
import {
  type ArmAt,
  type Rocker,
  armAt,
  leastPath,
  pathAcross,
  pushrodToOrder,
  rockerTrouble,
  turnedBy,
} from '../valve-train/rocker';
import type { TrialFinding } from './derive-trial';
import { type TheoryFinding, liftTheory } from './lift-theory';
import { lobeLiftHere } from './measured-lobe';
import { statedRatio } from './stated-ratio';

/** A length that was tried. Lengths mm. */
export interface TriedFinding {
  readonly entry: string;
  readonly cylinder: number;
  readonly length: number;
  readonly pattern: number | null;
  readonly offset: number | null;
  /** Was the pattern measured on a photo? */
  readonly onPhoto: boolean;
  readonly seen: MidLift | null;
  readonly lift: number | null;
  /** Lift less what lobe and ratio make of it. */
  readonly short: number | null;
  readonly verdict: TrialVerdict | null;
  readonly problem: Problem | null;
}

/** The pushrod to order for the valves of one kind. Lengths mm. */
export interface OrderFinding {
  readonly entry: string;
  readonly measured: number;
  readonly wanted: number;
  readonly length: number;
  /** What the length to order really presses the plunger down. */
  readonly preload: number;
  readonly lifter: BodyOf<'pushrod.measured'>['lifter'];
  /** As they were entered beside it. */
  readonly travel: number | null;
  readonly engagement: number | null;
  readonly stud: number | null;
  readonly clears: boolean | null;
  /** Another entry says another length for the same valves. */
  readonly others: readonly string[];
  readonly trouble: readonly (
    'preload-past-travel' | 'no-preload' | 'thread-short' | 'touches-head' | 'other-lifter'
  )[];
}

export interface RockerValve {
  readonly valve: Valve;
  /** What the geometry follows from, or why it does not. */
  readonly rocker: Rocker | null;
  readonly problem: Problem | null;
  readonly least: number | null;
  readonly trials: readonly TriedFinding[];
  /** Where the right length lies, the likeliest first. */
  readonly answers: readonly RightLength[];
  /** The length to try or take next, to the supplier's step. */
  readonly next: number | null;
  /** The trial that is good, where there is one. */
  readonly chosen: TriedFinding | null;
  /** The arm as it stood in the last trial, by all of them. */
  readonly arm: ArmAt | null;
  readonly path: number | null;
  readonly order: OrderFinding | null;
  /** Lifts read at the valves against what lobe and ratio make of them. */
  readonly theory: readonly TheoryFinding[];
}

export interface RockersFinding {
  /** Has this engine rockers at all, as far as anybody has said? */
  readonly applies: boolean;
  readonly setUp: EntryOf<'rockers.set-up'> | null;
  readonly valves: readonly RockerValve[];
}

/** Rocker geometry and pushrods, of each kind of valve. */
export function deriveRockers(build: Build, trials: readonly TrialFinding[], card: CompletedCard): RockersFinding {
  const lifter = build.asItStands?.body.lifter;
  const { rockerRatio } = build.description.body.engine;
  const said = build.rockers !== null || build.rockerTrials.length > 0 || build.pushrods.size > 0;
  const known = rockerRatio !== undefined || VALVES.some((valve) => card[valve].ratio !== null);
  return {
    applies: said || (lifter !== 'bucket' && (known || lifter === 'hydraulic')),
    setUp: build.rockers,
    valves: VALVES.map((valve) => valveOf(build, trials, card, valve)),
  };
}

function valveOf(build: Build, trials: readonly TrialFinding[], card: CompletedCard, valve: Valve): RockerValve {
  const found = rockerOf(build, trials, card, valve);
  const rocker = found.ok ? found.rocker : null;
  const tip = build.rockers?.body.tip ?? null;
  const tried = build.rockerTrials
    .filter(({ body }) => body.valve === valve)
    .map((entry) => triedOf(entry, rocker, tip));
  return {
    valve,
    rocker,
    problem: found.ok ? null : found.problem,
    least: rocker && leastPath(rocker),
    trials: tried,
    ...(rocker ? geometryOf(build, valve, rocker, tried) : UNKNOWN_GEOMETRY),
    order: orderOf(build, valve),
    theory: liftTheory(build, card, valve),
  };
}

/** A posterior costs as much as all other deriving of a short logbook: kept with what it was made from. */
const answered = new Map<Valve, { readonly from: string; readonly answers: readonly RightLength[] }>();
type Mounting = 'stud' | 'shaft';

function answersOnce(
  valve: Valve,
  rocker: Rocker,
  mounted: Mounting,
  sound: readonly TriedFinding[],
): readonly RightLength[] {
  const from = JSON.stringify([mounted, rocker, sound.map(({ length, pattern, seen }) => [length, pattern, seen])]);
  const known = answered.get(valve);
  if (known?.from === from) return known.answers;
  const answers = rightLengths(rocker, mounted, sound);
  answered.set(valve, { from, answers });
  return answers;
}

type Geometry = Pick<RockerValve, 'answers' | 'next' | 'chosen' | 'arm' | 'path'>;
const UNKNOWN_GEOMETRY: Geometry = { answers: [], next: null, chosen: null, arm: null, path: null };

/** Where the right length lies by all trials, and how the arm stood in the last one. */
function geometryOf({ rockers }: Build, valve: Valve, rocker: Rocker, tried: readonly TriedFinding[]): Geometry {
  const isStud = rockers?.body.mounted === 'stud';
  const sound = tried.filter((each) => each.problem === null);
  const answers = answersOnce(valve, rocker, isStud ? 'stud' : 'shaft', sound);
  const chosen = sound.findLast(({ verdict }) => verdict === 'this-one' || verdict === 'this-one-by-pattern') ?? null;
  const [best] = answers;
  const last = sound.at(-1);
  if (!best || !last) return { ...UNKNOWN_GEOMETRY, answers, chosen };
  const mid = (last.length - best.length) / turnedBy(rocker)[isStud ? 'pushrod' : 'pivot'];
  return {
    answers,
    chosen,
    next: chosen ? null : toStep(best.length, isStud ? rockers.body.step : undefined),
    arm: armAt(rocker, mid),
    path: pathAcross(rocker, mid),
  };
}

const toStep = (length: number, step: number | undefined): number =>
  step === undefined ? length : Math.round(length / step) * step;

/** Arm, ratio and lift, or what is missing. */
function rockerOf(
  build: Build,
  trials: readonly TrialFinding[],
  card: CompletedCard,
  valve: Valve,
): Outcome<{ readonly rocker: Rocker }> {
  const arm = build.rockers?.body.arm;
  const ratio = statedRatio(build, card, valve);
  const lift = lobeLiftHere(trials, card, valve);
  if (arm === undefined)
    return problem('How the rockers are mounted is not said.', 'Give the arm from its pivot to the roller.');
  if (ratio === null) return problem('The rocker ratio is not known.', 'Give it at the engine.');
  if (lift === null)
    return problem(`The lift of the ${valve} lobe is not known.`, 'Enter the card, or measure it at Read.');
  const rocker = { arm, ratio, lift: lift * ratio };
  const trouble = rockerTrouble(rocker);
  return trouble.ok ? { ok: true, rocker } : trouble;
}

function triedOf({ id, body }: EntryOf<'rocker.tried'>, rocker: Rocker | null, tip: number | null): TriedFinding {
  const { cylinder, length, pattern = null, offset = null, seen = null, lift = null } = body;
  const onPhoto = body.onPhoto !== undefined;
  const common = { entry: id, cylinder, length, pattern, offset, onPhoto, seen, lift };
  const short = rocker && lift !== null ? lift - rocker.lift : null;
  const wide = tip !== null && pattern !== null && pattern > tip;
  const high = rocker !== null && lift !== null && lift > MOST_LIFT * rocker.lift;
  const trouble = wide
    ? problem('The pattern is wider than the tip.', 'Measure it again, or correct the diameter of the tip.')
    : high
      ? problem(
          'The valve lifts more than lobe and ratio can make of it.',
          'Read it once more; check the ratio and the zero of the indicator.',
        )
      : null;
  return {
    ...common,
    short,
    problem: trouble?.problem ?? null,
    verdict: rocker && !trouble ? judgeTrial(rocker, { length, pattern, seen }, { offset, tip, lift }) : null,
  };
}

/** What is to be ordered for the valves of one kind; null where nothing was measured. */
export function orderOf(build: Build, valve: Valve): OrderFinding | null {
  const all = build.pushrods.get(valve) ?? [];
  const last = all.at(-1);
  if (!last) return null;
  const { length: measured, preload: wanted, lifter, travel, engagement, stud, clears } = last.body;
  const { length, preload } = pushrodToOrder({ measured, preload: wanted, step: build.rockers?.body.step ?? 0 });
  const trouble: OrderFinding['trouble'][number][] = [];
  if (travel !== undefined && preload >= travel) trouble.push('preload-past-travel');
  if (wanted > 0 && preload <= 0) trouble.push('no-preload');
  if (engagement !== undefined && stud !== undefined && engagement < stud) trouble.push('thread-short');
  if (clears === false) trouble.push('touches-head');
  if (lifter === 'other') trouble.push('other-lifter');
  return {
    entry: last.id,
    measured,
    wanted,
    length,
    preload,
    lifter,
    travel: travel ?? null,
    engagement: engagement ?? null,
    stud: stud ?? null,
    clears: clears ?? null,
    others: all.slice(0, -1).map(({ id }) => id),
    trouble,
  };
}
