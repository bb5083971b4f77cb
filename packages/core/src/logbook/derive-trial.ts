import { centrelineRemark, targetCentreline } from '../cam/card';
import { formatReading, ringPosition } from '../crank/wheel';
import { combineRepeats, intakeCentreline } from '../measure/equal-drop';
import type { Problem } from '../problem';
import { formatLength } from '../units/length';
import { DEFAULT_LIMIT, type Verdict, judge } from '../verdict/verdict';
import { type SettingFinding, zeroOfReading } from './zero-passes';
import type { BodyOf, EntryOf } from './entry';
import type { Build, Round, Trial } from './fold';

/** A reading as recorded, and its ring position, crank degrees. */
export interface ReadingFinding {
  readonly entry: string;
  readonly flank: 'opening' | 'closing';
  readonly shows: string;
  readonly at: number;
  /** The zero.set entry that it leans on. */
  readonly setting: string | null;
}

export interface RoundFinding {
  readonly id: string;
  readonly drop: number | null;
  /** Crank degrees ATDC, null while incomplete or out of order. */
  readonly centreline: number | null;
  /** Does it lean on a proved zero that still holds? */
  readonly zeroProved: boolean;
  /** How far the zero was re-based for it, crank degrees, or null. */
  readonly rebasedBy: number | null;
  readonly problem: Problem | null;
  readonly readings: readonly ReadingFinding[];
}

export interface TrialFinding {
  readonly id: string;
  readonly number: number;
  readonly note: string | null;
  readonly rounds: readonly RoundFinding[];
  readonly centreline: { readonly mean: number; readonly spread: number; readonly count: number } | null;
  readonly verdict: Verdict | null;
}

/** What comes next at the indicator. */
export interface ReadStep {
  readonly flank: 'opening' | 'closing';
  /** The pair that lacks this reading; null opens a new one. */
  readonly round: string | null;
  readonly drop: number | null;
  readonly sentence: string;
}

/** The target that holds: as the builder set it, else straight to the card with the usual limit. */
export const targetInForce = (build: Build): Pick<BodyOf<'target.set'>, 'target' | 'limit'> =>
  build.target?.body ?? { target: { kind: 'card' }, limit: DEFAULT_LIMIT };

function findRound(round: Round, build: Build, settings: ReadonlyMap<string, SettingFinding>): RoundFinding {
  const { readings } = round;
  const flank = (side: 'opening' | 'closing'): readonly EntryOf<'reading.taken'>[] =>
    readings.filter((entry) => entry.body.shows.flank === side);
  const [opening, closing] = [flank('opening'), flank('closing')];
  const [first] = readings;
  const zeros = readings.map((reading) => zeroOfReading(reading, build, settings));
  const [zero] = zeros;
  const base: RoundFinding = {
    id: round.id,
    drop: first?.body.shows.drop ?? null,
    centreline: null,
    zeroProved: zeros.length > 0 && zeros.every((each) => each?.proved ?? false),
    rebasedBy: zero?.rebasedBy ?? null,
    problem: null,
    readings: readings.map(({ id, body }) => ({
      entry: id,
      flank: body.shows.flank,
      shows: formatReading(body.wheel),
      at: ringPosition(body.wheel),
      setting: body.setting,
    })),
  };
  const trouble = (message: string, remedy: string): RoundFinding => ({ ...base, problem: { message, remedy } });

  const lift = build.card?.body.intake.lobeLift;
  if (lift !== undefined && base.drop !== null && base.drop >= lift) {
    const inUnits = (mm: number): string => formatLength(mm, build.description.body.units);
    return trouble(
      `A drop of ${inUnits(base.drop)} is not less than the whole lobe lift, ${inUnits(lift)} on the card.`,
      'Undo the pair and read it at a smaller drop, or correct the card.',
    );
  }
  if (readings.some((entry) => entry.body.approach === 'backward'))
    return trouble(
      'It was read turning backwards, so the slack of the drive is in it.',
      'Back up well past and come again, the way it runs.',
    );
  if (opening.length > 1 || closing.length > 1)
    return trouble('The same side of the nose was recorded twice in one pair.', 'Undo the one that is wrong.');
  const [before, after] = [opening[0], closing[0]];
  if (!before || !after) return base;
  if (before.body.shows.drop !== after.body.shows.drop)
    return trouble('The two sides were read at different drops.', 'Undo one of them and read it at the same drop.');
  if (before.body.setting !== after.body.setting)
    return trouble('The wheel was set anew between the two readings.', 'Undo the pair and read both again.');
  if (before.body.setting !== null && !zero)
    return trouble('The zero that it leans on has been undone or is not in the logbook.', 'Read the pair again.');

  if (zeros.some((each) => each?.proved !== zero?.proved || each?.rebasedBy !== zero?.rebasedBy))
    return trouble('The zero was disturbed between the two readings.', 'Read the pair again on a proved zero.');

  const found = intakeCentreline(
    { opening: ringPosition(before.body.wheel), closing: ringPosition(after.body.wheel) },
    zero?.proved ? zero.offset : 0,
  );
  return found.ok ? { ...base, centreline: found.centreline } : { ...base, problem: found.problem };
}

/** The trials with their centrelines and verdicts. Pairs on a proved zero count alone where there are any. */
export function deriveTrials(build: Build, settings: ReadonlyMap<string, SettingFinding>): TrialFinding[] {
  const { target, limit } = targetInForce(build);
  const wanted = targetCentreline(build.card?.body.intake ?? {}, target);
  return build.trials.map((trial, at) => {
    const rounds = trial.rounds.map((round) => findRound(round, build, settings));
    const usable = rounds.filter((round) => round.centreline !== null);
    const proved = usable.filter((round) => round.zeroProved);
    const counting = proved.length > 0 ? proved : usable;
    const combined = combineRepeats(counting.flatMap((round) => round.centreline ?? []));
    const centreline = combined && { ...combined, count: counting.length };
    return {
      id: trial.id,
      number: at + 1,
      note: trial.note ?? null,
      rounds,
      centreline,
      verdict:
        centreline && wanted.ok
          ? judge({ measured: centreline, target: wanted.centreline, limit, zeroProved: proved.length > 0 })
          : null,
    };
  });
}

/** The next reading of a trial, in words for the hands. `usualDrop` in millimetres is used when no pair has been begun. */
export function nextReading(
  trial: Trial | null,
  finding: TrialFinding | undefined,
  inUnits: (mm: number) => string,
): ReadStep {
  const open = finding?.rounds.find(
    (round) => round.problem === null && round.centreline === null && round.readings.length === 1,
  );
  const openEntry = trial?.rounds.find((round) => round.id === open?.id)?.readings[0];
  if (openEntry?.body.shows.flank === 'opening') {
    const { drop } = openEntry.body.shows;
    return {
      flank: 'closing',
      round: openEntry.body.round,
      drop,
      sentence: `Over the nose and down to ${inUnits(drop)} again, still turning the way it runs. Read the wheel.`,
    };
  }
  if (openEntry) {
    const { drop } = openEntry.body.shows;
    return {
      flank: 'opening',
      round: openEntry.body.round,
      drop,
      sentence: `The other side: back up well past, come forward to ${inUnits(drop)} before peak. Read the wheel.`,
    };
  }
  const drop = finding?.rounds.at(-1)?.drop ?? null;
  return {
    flank: 'opening',
    round: null,
    drop,
    sentence: `Zero the indicator at peak lift. Back up well past, come forward to ${drop === null ? 'the drop' : inUnits(drop)} before peak. Read the wheel.`,
  };
}

/** Remarks on the card that do not stop the work. */
export function cardRemark(build: Build): string | null {
  const centreline = build.card?.body.intake.centreline;
  return centreline === undefined ? null : centrelineRemark(centreline);
}
