import { type AngleCorrection, type AngleRead, correctAngle } from '../timing-set/electronic-angle';
import { type Setting, advanceOfSetting } from '../timing-set/hardware';
import { type ObservedMove, type Response, isSame, learnResponse } from '../timing-set/learned-response';
import { type Cam, camsOf, turnedBy } from '../record/cams-of';
import type { TrialFinding } from './derive-trial';
import { tookFrom } from './work-time';
import type { FittedHardware } from '../record/entry';
import type { Build } from '../record/fold';
import type { Trial } from '../record/parts';
import { remember } from '../record/remember';
import { whatItGave } from './what-it-gave';

/** A part of the drive as it stands now, and what is known of it. */
export interface PartFinding extends FittedHardware {
  readonly turns: readonly Cam[];
  readonly response: Response;
  /** Moves of it that were measured in this build. */
  readonly own: readonly ObservedMove[];
  readonly angle:
    | (AngleCorrection & {
        readonly nominal: number;
        readonly tolerance: number | null;
        readonly shows: number;
        readonly stands: number;
      })
    | null;
}

/** A move that was made before a trial. */
export interface MoveFinding {
  readonly trial: string;
  readonly parts: readonly {
    readonly fitted: FittedHardware;
    readonly to: Setting;
    /** By the labels, crank degrees of advance. */
    readonly label: number | null;
  }[];
  readonly cams: readonly {
    readonly cam: Cam;
    /** By the labels, as expected, and as measured; crank degrees of advance. */
    readonly label: number | null;
    readonly expected: number | null;
    readonly gave: number | null;
    readonly standard: number | null;
  }[];
}

/** A move of one part that was measured: what the shop learns of that piece. */
export interface LearnedMove extends ObservedMove {
  readonly library: string;
}

export interface DriveFinding {
  readonly entry: string | null;
  readonly camTurns: 'with-crank' | 'against-crank';
  readonly parts: readonly PartFinding[];
  readonly moves: ReadonlyMap<string, MoveFinding>;
  readonly experience: readonly LearnedMove[];
}

interface Standing {
  readonly entry: string | null;
  readonly camTurns: DriveFinding['camTurns'];
  readonly parts: readonly FittedHardware[];
}

/** How the drive stands at the end of a trial: as it was said there, else as the move before the trial left it. */
function after(before: Standing, trial: Trial): Standing {
  if (trial.drive) {
    const { camTurns, parts } = trial.drive.body;
    return { entry: trial.drive.id, camTurns, parts };
  }
  return { ...before, parts: moved(before.parts, trial) };
}

const moved = (parts: readonly FittedHardware[], { move }: Trial): readonly FittedHardware[] =>
  move
    ? parts.map((part) => {
        const set = move.parts.find((each) => each.part === part.part);
        return set && advanceOfSetting(part.hardware, set.to) !== null ? { ...part, at: set.to } : part;
      })
    : parts;

/** The hardware of the drive, trial by trial: where it stood, what each move gave, what that teaches. */
export function deriveDrive(build: Build, trials: readonly TrialFinding[]): DriveFinding {
  const cams = camsOf(build);
  const turning = build.asItStands?.body.drive === 'gear' ? 'against-crank' : 'with-crank';
  let standing: Standing = { entry: null, camTurns: turning, parts: [] };
  const moves = new Map<string, MoveFinding>();
  const observed = new Map<string, ObservedMove[]>();
  build.trials.forEach((trial, at) => {
    const before = standing;
    const [then, now] = [trials[at - 1], trials[at]];
    if (then && now && trial.why === 'moved') {
      const made = sameMove(now, [then, trial, build.ground, ...before.parts], () =>
        moveOf(before, trial, then, now, cams),
      );
      moves.set(trial.id, made.finding);
      if (made.observed) {
        const took = tookFrom(build.trials[at - 1], trial);
        const known = observed.get(made.observed.part) ?? [];
        observed.set(made.observed.part, [...known, { ...made.observed.move, ...(took === null ? {} : { took }) }]);
      }
    }
    standing = after(before, trial);
  });
  const parts = standing.parts.map((part): PartFinding => {
    const own = observed.get(part.part) ?? [];
    const response = learnResponse(part.hardware, [...part.experience, ...own]);
    const angle = angleOf(build, part);
    return {
      ...part,
      at: angle ? { at: angle.stands } : part.at,
      turns: turnedBy(part, cams),
      response,
      own,
      angle,
    };
  });
  return {
    entry: standing.entry,
    camTurns: standing.camTurns,
    parts,
    moves,
    experience: standing.parts.flatMap(({ part, library }) =>
      library === null ? [] : (observed.get(part) ?? []).map((move) => ({ ...move, library })),
    ),
  };
}

const sameMove = remember<TrialFinding, ReturnType<typeof moveOf>>();

function moveOf(before: Standing, trial: Trial, then: TrialFinding, now: TrialFinding, cams: readonly Cam[]) {
  const set = (trial.move?.parts ?? []).flatMap(({ part, to }) => {
    const fitted = before.parts.find((each) => each.part === part);
    return fitted && !isSame(fitted.at, to) ? [{ fitted, to, label: labelOf(fitted, to) }] : [];
  });
  const found = cams.map((cam) => {
    const mine = set.filter(({ fitted }) => turnedBy(fitted, cams).some(({ key }) => key === cam.key));
    const gave = whatItGave(then, now, cam);
    const expected = trial.move?.cams.find((each) => each.cam === cam.cam && each.bank === cam.bank);
    return {
      cam,
      label: mine.length === 0 ? null : mine.reduce((sum, { label }) => sum + (label ?? 0), 0),
      expected: expected?.by ?? null,
      gave: gave?.gave ?? null,
      standard: gave?.standard ?? null,
    };
  });
  const finding: MoveFinding = {
    trial: trial.id,
    parts: set,
    cams: found,
  };
  const [only, ...others] = set;
  // Two parts put elsewhere at once: what each of them gave nobody knows.
  if (!only || others.length > 0) return { finding, observed: null };
  const turned = turnedBy(only.fitted, cams).map(({ key }) => key);
  const measured = found.filter(({ cam, gave }) => turned.includes(cam.key) && gave !== null);
  if (measured.length === 0) return { finding, observed: null };
  const mean = (of: (each: (typeof found)[number]) => number | null): number =>
    measured.reduce((sum, each) => sum + (of(each) ?? 0), 0) / measured.length;
  return {
    finding,
    observed: {
      part: only.fitted.part,
      move: {
        from: only.fitted.at,
        to: only.to,
        gave: mean(({ gave }) => gave),
        standard: mean(({ standard }) => standard),
      },
    },
  };
}

function labelOf({ hardware, at }: FittedHardware, to: Setting): number | null {
  const [from, until] = [advanceOfSetting(hardware, at), advanceOfSetting(hardware, to)];
  return from === null || until === null ? null : until - from;
}

/** What a phaser's own angle says, over all trials: it stands where it was last read, or last set, whichever came later. */
function angleOf(build: Build, part: FittedHardware): PartFinding['angle'] {
  const { hardware } = part;
  if (hardware.kind !== 'phaser') return null;
  let said: { readonly at: number; readonly wound: boolean } | null = null;
  const reads: AngleRead[] = [];
  let tolerance: number | null = null;
  for (const trial of build.trials) {
    const set = trial.move?.parts.find((each) => each.part === part.part)?.to;
    const fitted = trial.drive?.body.parts.find((each) => each.part === part.part)?.at;
    // A move is made before the trial that measures it; what is fitted there says where everything stands.
    if (set && 'at' in set) said = { at: set.at, wound: true };
    if (fitted && 'at' in fitted) said = { at: fitted.at, wound: false };
    for (const { body } of trial.phasers) {
      if (body.part !== part.part) continue;
      const setTo = body.setTo ?? (set && 'at' in set ? set.at : null);
      reads.push({ nominal: body.nominal, shows: body.shows, setTo });
      said = null;
      tolerance = body.tolerance ?? null;
    }
  }
  const last = reads.at(-1);
  const found = correctAngle(hardware, reads);
  if (!last || !found) return null;
  // Two turns after it was set its spring has taken back what it always takes.
  const stands = said === null ? last.shows : said.wound ? said.at - found.windUp : said.at;
  return { ...found, nominal: last.nominal, tolerance, shows: last.shows, stands };
}
