import { VALVES, type Valve } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import {
  type MeasuredGap,
  type Tightest,
  USUAL_MINIMUM,
  type ValveSetting,
  carryGap,
  roomToMove,
} from '../clearance/valve-to-piston';
import { type Outcome, type Problem, problem } from '../problem';
import type { TrialFinding } from './derive-trial';
import type { Build } from '../record/fold';
import { orderOf } from './derive-rockers';
import { crankOf } from './readings/zero-passes';
import { standingLobe } from './standing-lobe';
import { type ValveTravel, tracedLobe, valveTravel } from './valve-travel';
import { preloadOf } from '../valve-train/lash';

/** Valve to piston, as it stands now. Lengths mm, crank degrees. */
export interface ClearanceFinding {
  readonly valve: Valve;
  readonly minimum: number;
  readonly angle: number | null;
  readonly pocket: ValveSetting['pocket'];
  readonly state: 'unknown' | 'enough' | 'tight';
  readonly gaps: readonly {
    readonly entry: string;
    readonly trial: string;
    readonly at: number;
    readonly gap: number;
  }[];
  readonly tightest: Tightest | null;
  /** From where to where the cam may be moved; null where that is not known, or nowhere holds (then `state` is tight). */
  readonly room: { readonly from: number; readonly to: number } | null;
  /** How the valve follows its lobe; null where nobody knows. */
  readonly travel: ValveTravel | null;
  /** A hydraulic lifter that pumps up holds the valve so much further open than at zero lash, and this is then left; mm. null with solid ones. */
  readonly pumped: { readonly by: number; readonly leaves: number | null } | null;
  /** Why nothing is known, or null. */
  readonly problem: Problem | null;
}

/** Everything that a sweep of one valve needs. */
export interface GapCase {
  readonly setting: ValveSetting;
  readonly measured: readonly MeasuredGap[];
}

/** What the gap of a valve is worked out from, or what is missing for it. */
export function gapCaseOf(
  build: Build,
  trials: readonly TrialFinding[],
  card: CompletedCard,
  valve: Valve,
): Outcome<{ readonly found: GapCase }> {
  const crank = crankOf(build.description.body);
  const facing = build.clearance?.body[valve];
  const now = standingLobe(build, trials, trials.length - 1, card, valve)?.lobe;
  const gaps = gapsOf(build, valve);
  if (gaps.length === 0)
    return problem(
      'No clearance was measured yet.',
      'Measure it at some places round overlap TDC, or push the valve to the piston at one.',
    );
  if (!crank) return problem('Stroke and rod are not known.', 'Give them at the engine.');
  if (!facing)
    return problem('How valve and piston face each other is not stated.', 'Give the valve’s angle to the bore.');
  if (!now)
    return problem(
      `Where the ${valve} lobe stands now has not been measured.`,
      'Measure it at Read: the gap follows its lift.',
    );
  const travel = valveTravel(build, trials, card, valve);
  if (travel === null)
    return problem(
      'The rocker ratio is not known.',
      'Give it at the engine: 1 where the cam works on the valve itself. The gap follows the lift of the valve.',
    );
  const setting: ValveSetting = {
    valve,
    crank,
    angle: facing.angle,
    pocket: facing.pocket,
    lobe: now,
    traced: tracedLobe(build, trials, card, valve, now),
    ratio: travel.ratio,
    lash: travel.lash,
    through: travel.through,
  };
  const measured = gaps.flatMap(({ trial, at, gap }): MeasuredGap[] => {
    const place = trials.findIndex(({ id }) => id === trial);
    const then = place < 0 ? null : standingLobe(build, trials, place, card, valve)?.lobe;
    return then ? [{ at, gap, camAhead: now.nose - then.nose }] : [];
  });
  return measured.length > 0
    ? { ok: true, found: { setting, measured } }
    : problem('Where the cam stood when it was measured is not known.', 'Measure cam and clearance in one trial.');
}

/** The gaps of a valve in the last trial that has any. */
function gapsOf(build: Build, valve: Valve): ClearanceFinding['gaps'] {
  const trial = build.trials.findLast(({ gaps }) => gaps.some(({ body }) => body.valve === valve));
  return (trial?.gaps ?? [])
    .filter(({ body }) => body.valve === valve)
    .flatMap(({ id, body }) => body.gaps.map(({ at, gap }) => ({ entry: id, trial: body.trial, at, gap })));
}

/** A sweep costs more than all other deriving: kept with the entry that holds its gaps, and what it was made from. */
const swept = new WeakMap<
  object,
  { readonly from: string; readonly tightest: Tightest; readonly room: ClearanceFinding['room'] }
>();

function sweepOnce(holder: object, { setting, measured }: GapCase, minimum: number) {
  const from = JSON.stringify([setting, measured, minimum]);
  const known = swept.get(holder);
  if (known?.from === from) return known;
  const gap = carryGap(setting, measured);
  const fresh = { from, tightest: gap.tightest(0), room: roomToMove(gap, minimum) };
  swept.set(holder, fresh);
  return fresh;
}

/** Valve-to-piston clearance of the first bank, both valves. */
export function deriveClearance(
  build: Build,
  trials: readonly TrialFinding[],
  card: CompletedCard,
): readonly ClearanceFinding[] {
  return VALVES.map((valve): ClearanceFinding => {
    const facing = build.clearance?.body[valve];
    const minimum = facing?.minimum ?? USUAL_MINIMUM[valve];
    const gaps = gapsOf(build, valve);
    const travel = valveTravel(build, trials, card, valve);
    const common = {
      valve,
      minimum,
      angle: facing?.angle ?? null,
      pocket: facing?.pocket ?? ('unknown' as const),
      gaps,
      travel,
    };
    const by = travel && pumpedUp(build, valve, travel.ratio);
    const pumped = (gap: number | null): ClearanceFinding['pumped'] =>
      by === null ? null : { by, leaves: gap === null ? null : gap - by };
    const found = gapCaseOf(build, trials, card, valve);
    if (!found.ok)
      return {
        ...common,
        state: 'unknown',
        tightest: null,
        room: null,
        pumped: pumped(null),
        problem: found.problem,
      };
    const holder =
      build.trials.flatMap((trial) => trial.gaps).findLast(({ body }) => body.valve === valve) ?? found.found;
    const { tightest, room } = sweepOnce(holder, found.found, minimum);
    const state = tightest.gap >= minimum ? 'enough' : 'tight';
    return { ...common, state, tightest, room, pumped: pumped(tightest.gap), problem: null };
  });
}

/**
 * How much further open a hydraulic lifter holds its valve when it has pumped up, mm: its plunger stands as high then as it can, and what
 * it was pressed down comes on top of the lift. By the pushrods to order, else by the turns of the adjusters where their thread is known.
 * @returns null with solid lifters, and where nothing of the preload is known.
 * Source: geometry; that lifters pump up when their valves float, common practice, no source.
 */
function pumpedUp(build: Build, valve: Valve, ratio: number): number | null {
  const order = orderOf(build, valve);
  if (order && order.wanted > 0) return Math.max(0, order.preload) * ratio;
  const wanted = build.lashJobs.at(-1)?.begun.body.wanted;
  return wanted?.kind === 'preload' && wanted.pitch !== undefined
    ? preloadOf(wanted.turns, wanted.pitch, ratio).atPushrod * ratio
    : null;
}
