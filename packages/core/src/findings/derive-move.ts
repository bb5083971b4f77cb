import { USUAL_HEIGHT } from '../cam/usual-height';
import { VALVES, type Valve } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import { type CylinderKnown, whatIf } from '../cam/what-if';
import { tableOf } from '../timing-set/hardware';
import { type CamToMove, type Plan, type PlannedPart, planMove } from '../timing-set/plan-move';
import type { FittedPart } from '../timing-set/fitted-part';
import { directSet } from '../timing-set/set-by-indicator';
import { wrap360 } from '../units/angle';
import { type Cam, camsOf } from '../record/cams-of';
import type { ClearanceFinding } from './derive-clearance';
import type { DriveFinding, PartFinding } from './derive-drive';
import type { CamFinding } from './derive-verdict';
import type { TrialFinding } from './derive-trial';
import { type WorkTime, workTime } from './work-time';
import type { PredictedView } from '../record/entry';
import type { Build } from '../record/fold';
import { lastCentreline, predictViews } from './predict-views';
import { measuredLobe } from './measured-lobe';

/** One way of moving. Crank degrees of advance. */
export interface PlanFinding {
  /** In the order of the work. */
  readonly parts: readonly {
    readonly part: PartFinding;
    readonly planned: PlannedPart;
    /** What shows it at the indicator, for the one cam that it turns; null where no reading says it. */
    readonly direct: DirectFinding | null;
  }[];
  readonly cams: readonly {
    readonly cam: Cam;
    readonly by: number;
    readonly leaves: number;
    readonly standard: number;
  }[];
  /** Cams that go with it though nobody has measured them. */
  readonly blind: readonly Cam[];
  readonly remaining: number;
  readonly inside: boolean;
  readonly frontApart: boolean;
  readonly wheelOff: boolean;
  readonly time: WorkTime;
  /** How well the place of the cams is known, and how closely they shall sit, crank degrees. */
  readonly known: number;
  readonly limit: number;
  /** What comes too near to its piston by it, and how far it may go; null where no place holds. */
  readonly breaks: readonly { readonly valve: Valve; readonly by: number; readonly room: ClearanceFinding['room'] }[];
  /** Is the clearance not known that it changes? */
  readonly clearanceUnknown: boolean;
  readonly predicted: readonly PredictedView[];
  readonly becomes: { readonly separation: number | null; readonly overlap: number | null };
}

/** Where to hold the crank, ring position in crank degrees, and the drop that the indicator then shows, mm. */
export interface DirectFinding {
  readonly valve: Valve;
  readonly drop: number;
  readonly crank: number;
  /** What the wheel as it is set shows at true TDC, crank degrees. */
  readonly offset: number;
}

/** A cam, and by how much it sits off. */
interface Off {
  readonly cam: Cam;
  readonly delta: number;
}

/** What there is to say of it: the sentence is made in the Report. */
export type MoveSays =
  | {
      readonly code:
        'no-verdict' | 'not-now' | 'on-target' | 'accepted' | 'unfitted' | 'reaches' | 'breaks' | 'no-room';
    }
  /** Nothing that is fitted turns `cams`, or brings them nearer; `off` is everything that sits off its target. */
  | { readonly code: 'nothing-turns' | 'nothing-nearer'; readonly off: readonly Off[]; readonly cams: readonly Cam[] }
  /** What is fitted does not reach; `wanted` of the cam that is left furthest off. */
  | { readonly code: 'out-of-reach'; readonly wanted: number | null };

/** waiting: there is nothing to move by. stay: on the target. unfitted: nobody has said what is on the drive. plans; short: what is fitted does not reach. */
export interface MoveStationFinding {
  readonly state: 'waiting' | 'stay' | 'unfitted' | 'plans' | 'short';
  readonly says: MoveSays;
  readonly plans: readonly PlanFinding[];
}

const OVERLAP_AT = USUAL_HEIGHT.in;

type Measured = Cam & { readonly found: CamFinding };

/** What moves are worked out from. */
interface MoveCase {
  readonly build: Build;
  readonly trial: TrialFinding;
  readonly drive: DriveFinding;
  readonly clearance: readonly ClearanceFinding[];
  readonly card: CompletedCard;
  readonly cylinder: CylinderKnown;
  readonly cams: readonly Measured[];
}

const nothing = (state: MoveStationFinding['state'], says: MoveSays): MoveStationFinding => ({
  state,
  says,
  plans: [],
});

/**
 * What to set where, so that every cam comes to its target.
 * @param accepted where they sit is left as it is, knowingly.
 */
export function deriveMove(
  build: Build,
  trial: TrialFinding | undefined,
  drive: DriveFinding,
  clearance: readonly ClearanceFinding[],
  card: CompletedCard,
  cylinder: CylinderKnown,
  accepted: boolean,
): MoveStationFinding {
  const verdict = trial?.decision.verdict;
  if (!trial || !verdict) return nothing('waiting', { code: 'no-verdict' });
  if (verdict.kind === 'leave') return nothing('stay', { code: 'on-target' });
  if (accepted) return nothing('stay', { code: 'accepted' });
  if (verdict.kind !== 'move') return nothing('waiting', { code: 'not-now' });
  if (drive.parts.length === 0) return nothing('unfitted', { code: 'unfitted' });
  const cams = camsOf(build).flatMap((cam): Measured[] => {
    const found = trial.decision.cams.find((each) => each.cam === cam.cam && each.bank === cam.bank);
    return found ? [{ ...cam, found }] : [];
  });
  return movesFor({ build, trial, drive, clearance, card, cylinder, cams });
}

/** The ways of moving, the best first, and why none of them reaches where none does. */
function movesFor(of: MoveCase): MoveStationFinding {
  const asked = of.cams.map(({ key, found, cam, bank }): CamToMove => ({
    cam: key,
    delta: found.verdict.delta,
    room: roomOf(of.clearance, cam, bank),
  }));
  const parts = of.drive.parts.map(({ part, hardware, at, turns, response }) => ({
    part,
    hardware,
    at,
    turns: turns.map(({ key }) => key),
    response,
  }));
  const plans = planMove(parts, asked).map((plan) => planFinding(plan, of));
  const [best] = plans;
  if (!best) return nothing('short', noPlan(of.cams, parts));
  if (best.breaks.length > 0) return { state: 'short', says: { code: 'breaks' }, plans };
  if (best.inside) return { state: 'plans', says: { code: 'reaches' }, plans };
  const held = asked.some(({ delta, room }) => room !== null && (-delta > room.to || -delta < room.from));
  if (held) return { state: 'short', says: { code: 'no-room' }, plans };
  const worst = [...best.cams].sort((a, b) => Math.abs(b.leaves) - Math.abs(a.leaves))[0];
  return {
    state: 'short',
    says: { code: 'out-of-reach', wanted: worst ? worst.by - worst.leaves : null },
    plans,
  };
}

/** No plan at all: nothing that is fitted turns the cam that is off, or none of it brings it nearer than it stands. */
function noPlan(cams: readonly Measured[], parts: readonly FittedPart[]): MoveSays {
  const moving = cams.filter(({ found }) => found.verdict.kind === 'move');
  const turned = moving.filter(({ key }) => parts.some(({ turns }) => turns.includes(key)));
  const off = moving.map((cam) => ({ cam, delta: cam.found.verdict.delta }));
  return turned.length === 0
    ? { code: 'nothing-turns', off, cams: moving }
    : { code: 'nothing-nearer', off, cams: turned };
}

/** Where both valves of a cam leave room for it; null where neither is known. Only the first bank's clearance is measured. */
function roomOf(clearance: readonly ClearanceFinding[], cam: Cam['cam'], bank: 1 | 2): CamToMove['room'] {
  if (bank !== 1) return null;
  const mine = clearance.filter(({ valve, state }) => state !== 'unknown' && (cam === 'single' || valve === cam));
  if (mine.length === 0) return null;
  const nowhere = { from: Infinity, to: -Infinity };
  return mine.reduce(
    (room, { room: its }) => ({
      from: Math.max(room.from, (its ?? nowhere).from),
      to: Math.min(room.to, (its ?? nowhere).to),
    }),
    { from: -Infinity, to: Infinity },
  );
}

function planFinding(plan: Plan, of: MoveCase): PlanFinding {
  const { build, trial, drive, clearance, card, cylinder, cams } = of;
  // A cam that is judged in its maker's scale has the tolerance of that.
  const limit = Math.min(...cams.map(({ found }) => found.verdict.judged.limit));
  const moved = cams.flatMap((cam) => {
    const mine = plan.cams.find((each) => each.cam === cam.key);
    return mine ? [{ cam, by: mine.by, leaves: mine.leaves, standard: mine.standard }] : [];
  });
  const parts = partsInOrder(plan, drive).map((each) => ({
    ...each,
    direct: directOf(trial, each.part.turns, moved),
  }));
  const shift = { intake: 0, exhaust: 0 };
  for (const { cam, by } of moved)
    if (cam.bank === 1) for (const valve of VALVES) if (cam.cam === 'single' || cam.cam === valve) shift[valve] = by;
  const [first] = trial.banks;
  const lobes = { intake: measuredLobe(first, card, 'intake'), exhaust: measuredLobe(first, card, 'exhaust') };
  const { separation, overlap } = whatIf(lobes, shift, OVERLAP_AT, cylinder);
  return {
    parts,
    cams: moved,
    blind: blindOf(parts, cams),
    remaining: plan.remaining,
    inside: plan.remaining <= limit + 1e-9,
    frontApart: plan.frontApart,
    wheelOff: plan.wheelOff,
    time: workTime(build, plan),
    known: Math.max(0, ...cams.map(({ found }) => found.verdict.expanded)),
    limit,
    breaks: clearance.flatMap(({ valve, room, state }) => {
      const by = shift[valve];
      if (state === 'unknown' || Math.abs(by) < 1e-6) return [];
      return room === null || by > room.to || by < room.from ? [{ valve, by, room }] : [];
    }),
    clearanceUnknown: VALVES.some(
      (valve) => Math.abs(shift[valve]) > 1e-6 && clearance.find((each) => each.valve === valve)?.state === 'unknown',
    ),
    predicted: predictViews(
      build,
      trial,
      card,
      moved.filter(({ by }) => Math.abs(by) > 1e-6),
    ),
    becomes: { separation, overlap },
  };
}

/** What takes the front apart comes first; then what turns every cam before what turns one: the others are brought home against it. */
function partsInOrder(plan: Plan, drive: DriveFinding) {
  const isInFront = (part: PartFinding): number => (tableOf(part.hardware).work === 'front-apart' ? 1 : 0);
  return plan.parts
    .flatMap((mine) => {
      const part = drive.parts.find((each) => each.part === mine.part);
      return part ? [{ part, planned: woundUp(part, mine) }] : [];
    })
    .sort((a, b) => isInFront(b.part) - isInFront(a.part) || b.part.turns.length - a.part.turns.length);
}

/** A phaser is set further by what its spring takes back in two turns. */
function woundUp({ hardware, angle }: PartFinding, mine: PlannedPart): PlannedPart {
  if (hardware.kind !== 'phaser' || !angle || !('at' in mine.to)) return mine;
  const at = Math.min(hardware.to, Math.max(hardware.from, mine.to.at + angle.windUp));
  return { ...mine, to: { at } };
}

/** Cams that go with the others though nobody has measured them. */
function blindOf(parts: readonly { readonly part: PartFinding }[], measured: readonly Cam[]): Cam[] {
  const turned = parts.flatMap(({ part }) => part.turns);
  return [...new Map(turned.map((cam) => [cam.key, cam])).values()].filter(
    ({ key }) => !measured.some((each) => each.key === key),
  );
}

/** Where to hold the crank, and what the indicator shall show, for the one cam that a part turns. */
function directOf(trial: TrialFinding, turns: readonly Cam[], moved: PlanFinding['cams']): DirectFinding | null {
  for (const { cam, bank, key } of turns) {
    const by = moved.find((each) => each.cam.key === key)?.by;
    if (by === undefined) continue;
    for (const valve of cam === 'single' ? VALVES : ([cam] as const)) {
      const read = lastCentreline(
        trial.banks.find((each) => each.bank === bank),
        valve,
      );
      if (!read) continue;
      const forward = wrap360(read.closing - read.opening);
      const nose = read.opening + forward / 2 - by;
      const { crank } = directSet(read.opening, read.opening + forward, nose);
      return { valve, drop: read.drop, crank, offset: read.offset };
    }
  }
  return null;
}
