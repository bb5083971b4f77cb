import { USUAL_HEIGHT } from '../cam/usual-height';
import { VALVES } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import { type CylinderKnown, whatIf } from '../cam/what-if';
import { formatReading, readingAt } from '../crank/wheel';
import { type Setting, reachOf, settingLabel, tableOf } from '../timing-set/hardware';
import { type Step, type DirectWords, instruct } from '../timing-set/instruct';
import { type CamToMove, type Plan, type PlannedPart, planMove } from '../timing-set/plan-move';
import type { FittedPart } from '../timing-set/fitted-part';
import { directSet } from '../timing-set/set-by-indicator';
import { whatWouldReach } from '../timing-set/what-would-reach';
import { wrap360 } from '../units/angle';
import { atMostDegrees, computedDegrees } from '../units/degrees';
import { formatLength } from '../units/length';
import { type Cam, camsOf } from '../record/cams-of';
import type { ClearanceFinding } from './derive-clearance';
import { type DriveFinding, type PartFinding, signedDegrees } from './derive-drive';
import type { CamFinding } from './derive-verdict';
import { type TrialFinding, targetInForce } from './derive-trial';
import type { PredictedView } from '../record/entry';
import type { Build } from '../record/fold';
import { lastCentreline, predictViews } from './predict-views';
import { measuredLobe } from './measured-lobe';

/** One way of moving, written out. */
export interface PlanFinding {
  readonly parts: readonly {
    readonly part: string;
    readonly name: string;
    /** "the slotted pulley of the intake cam" */
    readonly called: string;
    readonly from: string;
    readonly to: string;
    /** "to the +4 keyway", "by the indicator". */
    readonly put: string;
    readonly setting: Setting;
    readonly gives: number;
    readonly label: number;
  }[];
  readonly cams: readonly {
    readonly cam: Cam['cam'];
    readonly bank: 1 | 2;
    readonly name: string;
    readonly by: number;
    readonly leaves: number;
    readonly standard: number;
    readonly words: string;
  }[];
  readonly remaining: number;
  readonly inside: boolean;
  readonly work: string;
  readonly wheelOff: boolean;
  /** What comes too near to its piston by it, in words; empty where nothing does. */
  readonly breaks: readonly string[];
  /** Is the clearance not known that it changes? */
  readonly clearanceUnknown: boolean;
  readonly steps: readonly Step[];
  readonly predicted: readonly PredictedView[];
  readonly becomes: { readonly separation: number | null; readonly overlap: number | null };
}

/** waiting: there is nothing to move by. stay: on the target. unfitted: nobody has said what is on the drive. plans; short: what is fitted does not reach. */
export interface MoveStationFinding {
  readonly state: 'waiting' | 'stay' | 'unfitted' | 'plans' | 'short';
  readonly sentence: string;
  /** What comes of it, or null. */
  readonly then: string | null;
  readonly plans: readonly PlanFinding[];
}

const OVERLAP_AT = USUAL_HEIGHT.in;

/** What to set where, so that every cam comes to its target. */
export function deriveMove(
  build: Build,
  trial: TrialFinding | undefined,
  drive: DriveFinding,
  clearance: readonly ClearanceFinding[],
  card: CompletedCard,
  cylinder: CylinderKnown,
): MoveStationFinding {
  const { limit } = targetInForce(build);
  const verdict = trial?.decision.verdict;
  const nothing = (state: MoveStationFinding['state'], sentence: string): MoveStationFinding => ({
    state,
    sentence,
    then: null,
    plans: [],
  });
  if (!trial || !verdict)
    return nothing('waiting', 'There is no verdict yet to move by. Measure the cam, then decide.');
  if (verdict.kind === 'leave') return nothing('stay', 'The cam is on target. Do not move it.');
  if (verdict.kind !== 'move') return nothing('waiting', `Do not move anything now. ${verdict.headline}`);
  if (drive.parts.length === 0)
    return nothing('unfitted', 'Say what timing hardware is on the drive: then it can be planned what to set.');
  const cams = camsOf(build).flatMap((cam) => {
    const found = trial.decision.cams.find((each) => each.cam === cam.cam && each.bank === cam.bank);
    return found ? [{ ...cam, found }] : [];
  });
  const asked = cams.map(({ key, found, cam, bank }): CamToMove => ({
    cam: key,
    delta: found.verdict.delta,
    room: roomOf(clearance, cam, bank),
  }));
  const parts = drive.parts.map(({ part, hardware, at, turns, response }) => ({
    part,
    hardware,
    at,
    turns: turns.map(({ key }) => key),
    response,
  }));
  const found = planMove(parts, asked);
  const plans = found.map((plan) => written(plan, build, trial, drive, clearance, card, cylinder, cams, limit));
  const [best] = plans;
  if (!best) return nothing('short', shortWords(cams, parts));
  if (best.inside && best.breaks.length === 0)
    return { state: 'plans', sentence: setWords(best), then: leavesWords(best), plans };
  if (best.breaks.length > 0)
    return {
      state: 'short',
      sentence: 'Every way to the target brings a valve too near to its piston.',
      then: best.breaks.join(' '),
      plans,
    };
  const held = asked.some(({ delta, room }) => room !== null && (-delta > room.to || -delta < room.from));
  if (held)
    return {
      state: 'short',
      sentence: `Its target would bring a valve too near to its piston. As far as there is room: ${lower(setWords(best))}`,
      then: `${leavesWords(best)} For the rest the clearance has to be made first, or the target changed.`,
      plans,
    };
  const worst = [...best.cams].sort((a, b) => Math.abs(b.leaves) - Math.abs(a.leaves))[0];
  return {
    state: 'short',
    sentence: `What is fitted does not reach. The nearest: ${lower(setWords(best))}`,
    then: `${leavesWords(best)} ${worst ? whatWouldReach(worst.by - worst.leaves) : ''}`.trim(),
    plans,
  };
}

const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

const setWords = ({ parts }: PlanFinding): string =>
  `${parts.map(({ called, put }, at) => `${at === 0 ? 'Set' : 'and'} ${called} ${put}`).join(', ')}.`;

/** Of many cams only those that move are spoken of. */
const leavesWords = ({ cams }: PlanFinding): string =>
  cams
    .filter(({ by }) => cams.length <= 2 || Math.abs(by) > 1e-6)
    .map(({ words }) => words)
    .join(' ');

/** No plan at all: nothing that is fitted turns the cam that is off, or none of it brings it nearer than it stands. */
function shortWords(
  cams: readonly { readonly key: string; readonly name: string; readonly found: CamFinding }[],
  parts: readonly FittedPart[],
): string {
  const off = cams.filter(({ found }) => found.verdict.kind === 'move');
  const turned = off.filter(({ key }) => parts.some(({ turns }) => turns.includes(key)));
  const reach = off.map(({ found }) => whatWouldReach(-found.verdict.delta)).join(' ');
  const name = (some: typeof off): string => some.map((each) => each.name).join(' and ');
  return turned.length === 0
    ? `Nothing that is fitted turns ${name(off)}. ${reach}`
    : `Nothing that is fitted brings ${name(turned)} nearer than it stands: stay, or fit something finer. ${reach}`;
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

function written(
  plan: Plan,
  build: Build,
  trial: TrialFinding,
  drive: DriveFinding,
  clearance: readonly ClearanceFinding[],
  card: CompletedCard,
  cylinder: CylinderKnown,
  cams: readonly (Cam & { readonly found: CamFinding })[],
  limit: number,
): PlanFinding {
  const { rotation } = build.description.body.engine;
  const known = { drive: build.asItStands?.body.drive ?? null, rotation, camTurns: drive.camTurns };
  const moved = cams.flatMap((cam) => {
    const planned = plan.cams.find((each) => each.cam === cam.key);
    return planned ? [{ ...planned, cam }] : [];
  });
  const fitted = plan.parts.flatMap((planned) => {
    const part = drive.parts.find((each) => each.part === planned.part);
    return part ? [{ part, planned: woundUp(part, planned) }] : [];
  });
  // What takes the front apart comes first; then what turns every cam before what turns one: the others are brought home against it.
  const isInFront = ({ part }: (typeof fitted)[number]): number =>
    tableOf(part.hardware).work === 'front-apart' ? 1 : 0;
  const inOrder = [...fitted].sort((a, b) => isInFront(b) - isInFront(a) || b.part.turns.length - a.part.turns.length);
  const shift = { intake: 0, exhaust: 0 };
  for (const { cam, by } of moved)
    if (cam.bank === 1) for (const valve of VALVES) if (cam.cam === 'single' || cam.cam === valve) shift[valve] = by;
  const [first] = trial.banks;
  const lobes = { intake: measuredLobe(first, card, 'intake'), exhaust: measuredLobe(first, card, 'exhaust') };
  const { separation, overlap } = whatIf(lobes, shift, OVERLAP_AT, cylinder);
  const broken = clearance.filter(({ valve, room, state }) => {
    const by = shift[valve];
    if (state === 'unknown' || Math.abs(by) < 1e-6) return false;
    return room === null || by > room.to || by < room.from;
  });
  return {
    parts: inOrder.map(({ part, planned }) => ({
      part: part.part,
      name: part.name,
      called: calledOf(part, cams.length),
      from: settingLabel(part.hardware, planned.from),
      to: settingLabel(part.hardware, planned.to),
      put: isByIndicator(part) ? 'by the indicator' : `to ${settingLabel(part.hardware, planned.to)}`,
      setting: planned.to,
      gives: planned.gives,
      label: planned.label,
    })),
    cams: moved.map(({ cam, by, leaves, standard }) => ({
      cam: cam.cam,
      bank: cam.bank,
      name: cam.name,
      by,
      leaves,
      standard,
      words: camWords(cam, by, leaves, limit),
    })),
    remaining: plan.remaining,
    inside: plan.remaining <= limit + 1e-9,
    work: [workWords(plan), ...alsoTurned(fitted, cams)].join(' '),
    wheelOff: plan.wheelOff,
    breaks: broken.map(
      ({ valve, room }) =>
        `It brings the ${valve} valve nearer to its piston than the least that is wanted${room && shift[valve] > 0 ? `: at most ${atMostDegrees(Math.max(0, room.to))} of advance` : room ? `: at most ${atMostDegrees(Math.max(0, -room.from))} of retard` : ''}.`,
    ),
    clearanceUnknown: VALVES.some(
      (valve) => Math.abs(shift[valve]) > 1e-6 && clearance.find((each) => each.valve === valve)?.state === 'unknown',
    ),
    steps: instruct(
      inOrder.map(({ part, planned }) => ({
        name: part.name,
        hardware: part.hardware,
        planned,
        cams: part.turns.map(({ name }) => name).join(' and '),
        direct: directWords(build, trial, part.turns, moved),
      })),
      known,
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

/** A part as it is spoken of: of one cam of several, by that cam. */
function calledOf({ name, turns }: PartFinding, cams: number): string {
  const known = /^(the|a|an|my|our)\s|’s\s|'s\s/i.test(name) || /^\S*[A-Z]{2}/.test(name);
  const [only] = turns;
  const ofOne = cams > 1 && turns.length === 1 && only !== undefined;
  // Many are named after their cam: it is not said twice.
  const own = ofOne ? name.replace(/,? ?\(?(intake|exhaust)\)?$/i, '') || name : name;
  const plain = known ? own : `the ${lower(own)}`;
  return ofOne ? `${plain} of ${only.name}` : plain;
}

/** Without a scale or a mark nothing but the indicator says where it is. */
function isByIndicator({ hardware }: PartFinding): boolean {
  const reach = reachOf(hardware);
  return reach.kind === 'range' && !reach.scale;
}

/** A phaser is set further by what its spring takes back in two turns. */
function woundUp({ hardware, angle }: PartFinding, planned: PlannedPart): PlannedPart {
  if (hardware.kind !== 'phaser' || !angle || !('at' in planned.to)) return planned;
  const at = Math.min(hardware.to, Math.max(hardware.from, planned.to.at + angle.windUp));
  return { ...planned, to: { at } };
}

function camWords(cam: Cam, by: number, leaves: number, limit: number): string {
  const name = cam.name.charAt(0).toUpperCase() + cam.name.slice(1);
  const left =
    Math.abs(leaves) < 0.05 ? 'on its target' : `${computedDegrees(Math.abs(leaves))} ${leaves < 0 ? 'late' : 'early'}`;
  const inside = Math.abs(leaves) <= limit ? '' : ', outside the limit';
  return Math.abs(by) < 1e-6
    ? `${name} stays where it is, ${left}${inside}.`
    : `${name} moves ${signedDegrees(by)} and should then sit ${left}${inside}.`;
}

/** A cam that goes with the others though nobody has measured it. */
function alsoTurned(fitted: readonly { readonly part: PartFinding }[], measured: readonly Cam[]): string[] {
  const blind = fitted.flatMap(({ part }) =>
    part.turns.filter(({ key }) => !measured.some((each) => each.key === key)),
  );
  return [...new Set(blind.map(({ name }) => name))].map(
    (name) => `${name.charAt(0).toUpperCase()}${name.slice(1)} goes with it, and has not been measured.`,
  );
}

function workWords({ frontApart, wheelOff }: Plan): string {
  if (wheelOff) return 'The front comes apart and the degree wheel comes off: find TDC again.';
  if (frontApart) return 'The front comes apart. The wheel stays on.';
  return 'Set in place; nothing comes apart.';
}

/** Where to hold the crank, and what the indicator shall show, for the one cam that a part turns. */
function directWords(
  build: Build,
  trial: TrialFinding,
  turns: readonly Cam[],
  moved: readonly { readonly cam: Cam; readonly by: number }[],
): DirectWords | null {
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
      const { wheel, units } = build.description.body;
      return {
        crank: formatReading(readingAt(wheel, Math.round(2 * (crank + read.offset)) / 2)),
        crankAnew: formatReading(readingAt(wheel, Math.round(2 * crank) / 2)),
        shows: formatLength(read.drop, units),
        valve,
      };
    }
  }
  return null;
}
