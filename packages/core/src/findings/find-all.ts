import { targetCentreline } from '../cam/target';
import type { CompletedCard } from '../cam/complete-card';
import type { CylinderKnown } from '../cam/what-if';
import type { Described } from '../record/entry';
import type { Build } from '../record/fold';
import { remember } from '../record/remember';
import { type AcceptedFinding, deriveAccepted, placeAccepted } from './accepted';
import { type ClearanceFinding, deriveClearance } from './derive-clearance';
import { type CrankFinding, deriveCrank } from './derive-crank';
import { type DriveFinding, deriveDrive } from './derive-drive';
import { type LashFinding, deriveLash } from './derive-lash';
import { type MoveStationFinding, deriveMove } from './derive-move';
import { type PrepareFinding, derivePrepare } from './derive-prepare';
import { type ProofFinding, deriveProof } from './derive-proof';
import { type RockersFinding, deriveRockers } from './derive-rockers';
import { type SignFinding, deriveSign } from './derive-sign';
import {
  type InForce,
  type TrialFinding,
  aimOf,
  cardOf,
  deriveTrials,
  settingsOf,
  targetInForce,
} from './derive-trial';
import { type WearFinding, deriveWear } from './derive-wear';
import { type ZeroFinding, deriveZero } from './derive-zero';
import { type ReadPlan, planReading } from './read-plan';
import { type SettingFinding, crankOf } from './readings/zero-passes';
import type { ViewContext } from './views/view';

/** Everything that follows from a build: facts, codes and numbers. The Report makes sentences of them. */
export interface Findings {
  readonly build: Build;
  readonly prepare: PrepareFinding;
  readonly settings: ReadonlyMap<string, SettingFinding>;
  readonly zero: ZeroFinding;
  readonly crank: CrankFinding;
  readonly card: CompletedCard;
  readonly cylinder: CylinderKnown;
  readonly target: InForce;
  readonly aim: Pick<ViewContext, 'ahead' | 'wanted'>;
  /** The intake centreline that is wanted, or why nothing gives it. */
  readonly wanted: ReturnType<typeof targetCentreline>;
  /** Is anything known of where the cam shall sit? A card of events alone gives no centreline, and may still say it. */
  readonly aimed: boolean;
  readonly plan: ReadPlan;
  readonly trials: readonly TrialFinding[];
  /** The trial that is being read. */
  readonly trial: TrialFinding | undefined;
  /** What of it was left as it is, knowingly. */
  readonly accepted: readonly AcceptedFinding[];
  readonly wear: readonly WearFinding[];
  readonly drive: DriveFinding;
  readonly clearance: readonly ClearanceFinding[];
  readonly rockers: RockersFinding;
  readonly lash: LashFinding;
  readonly move: MoveStationFinding;
  readonly proof: ProofFinding;
  readonly sign: SignFinding;
}

/** What follows from a build, station by station. */
export function findAll(build: Build): Findings {
  const zero = deriveZero(build);
  const settings = settingsOf(build);
  const card = cardOf(build);
  const cylinder = cylinderOf(build.description.body);
  const trials = deriveTrials(build, card);
  const trial = trials.at(-1);
  const target = targetInForce(build);
  const wanted = targetCentreline(card.intake.centreline, target.target);
  const judged = (trial?.decision.verdict ?? null) !== null;
  const drive = deriveDrive(build, trials);
  const clearance = deriveClearance(build, trials, card);
  const lash = deriveLash(build, trials, card);
  const proved = zero.state === 'proved';
  const accepted = deriveAccepted(build, trial, target.limit);
  const stays = placeAccepted(accepted);
  const proof = deriveProof(build, trials, drive, proved, stays);
  return {
    build,
    prepare: derivePrepare(build),
    settings,
    zero,
    crank: deriveCrank(build),
    card,
    cylinder,
    target,
    aim: aimOf(build, card),
    wanted,
    aimed: wanted.ok || judged,
    plan: planReading(build, trial, target.judgedBy, card),
    trials,
    trial,
    accepted,
    wear: deriveWear(trials),
    drive,
    clearance,
    rockers: deriveRockers(build, trials, card),
    lash,
    move: deriveMove(build, trial, drive, clearance, card, cylinder, stays),
    proof,
    // What was read without a wheel leans on no zero.
    sign: deriveSign(build, trials, proved || (judged && !isOnWheel(trial)), proof, clearance, lash, accepted),
  };
}

const isOnWheel = (trial: TrialFinding | undefined): boolean =>
  trial !== undefined &&
  (trial.traces.length > 0 || trial.rounds.some(({ readings }) => readings.some(({ at }) => at !== null)));

const sameCylinder = remember<Described, CylinderKnown>();

const cylinderOf = (described: Described): CylinderKnown =>
  sameCylinder(described, [], () => {
    const { bore, compression } = described.engine;
    return {
      crank: crankOf(described),
      bore: bore ?? null,
      ratio: compression?.given === 'ratio' ? compression.ratio : null,
      chamber: compression?.given === 'chamber' ? compression.volume : null,
    };
  });
