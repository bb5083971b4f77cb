import { formatReading, readingAt, type WheelRing } from '../crank/wheel';
import { reachOf, settingLabel } from '../timing-set/hardware';
import { type DirectWords, instruct } from '../timing-set/instruct';
import { whatWouldReach } from '../timing-set/what-would-reach';
import { atMostDegrees, computedDegrees } from '../units/degrees';
import { type LengthUnit, formatLength } from '../units/length';
import type { DriveFinding, PartFinding } from '../findings/derive-drive';
import type { DirectFinding, MoveSays, MoveStationFinding, PlanFinding } from '../findings/derive-move';
import type { Cam } from '../record/cams-of';
import { lateOrEarly } from './place-words';
import type { Build } from '../record/fold';
import type { Report, ReportVerdict } from './report-schema';
import { capital } from './capital';

type ReportedPlan = Report['move']['plans'][number];

/** The move as the Report has it. */
export function reportMove(
  move: MoveStationFinding,
  build: Build,
  drive: DriveFinding,
  verdict: ReportVerdict | null,
): Report['move'] {
  const plans = move.plans.map((plan) => reportPlan(plan, build, drive));
  const [best] = plans;
  return { state: move.state, ...moveWords(move.says, best, verdict), plans };
}

function moveWords(
  says: MoveSays,
  best: ReportedPlan | undefined,
  verdict: ReportVerdict | null,
): Pick<Report['move'], 'sentence' | 'then'> {
  const set = best ? setWords(best) : '';
  const leaves = best ? leavesWords(best) : '';
  switch (says.code) {
    case 'no-verdict':
      return { sentence: 'There is no verdict yet to move by. Measure the cam, then decide.', then: null };
    case 'on-target':
      return { sentence: 'The cam is on target. Do not move it.', then: null };
    case 'accepted':
      return { sentence: 'It is left as it is. Take that back at Decide to plan a move.', then: null };
    case 'not-now':
      return { sentence: `Do not move anything now. ${verdict?.headline ?? ''}`, then: null };
    case 'unfitted':
      return {
        sentence: 'Say what timing hardware is on the drive: then it can be planned what to set.',
        then: null,
      };
    case 'nothing-turns':
      return { sentence: `Nothing that is fitted turns ${namesOf(says.cams)}. ${reachWords(says.off)}`, then: null };
    case 'nothing-nearer':
      return {
        sentence: `Nothing that is fitted brings ${namesOf(says.cams)} nearer than it stands: stay, or fit something finer. ${reachWords(says.off)}`,
        then: null,
      };
    case 'reaches':
      return { sentence: `Set ${set}.`, then: leaves };
    case 'breaks':
      return {
        sentence: 'Every way to the target brings a valve too near to its piston.',
        then: best?.breaks.join(' ') ?? null,
      };
    case 'no-room':
      return {
        sentence: `Its target would bring a valve too near to its piston. As far as there is room: set ${set}.`,
        then: `${leaves} For the rest the clearance has to be made first, or the target changed.`,
      };
    case 'out-of-reach':
      return {
        sentence: `What is fitted does not reach. The nearest: set ${set}.`,
        then: says.wanted === null ? leaves : `${leaves} ${whatWouldReach(says.wanted)}`.trim(),
      };
  }
}

const namesOf = (cams: readonly Cam[]): string => cams.map(({ name }) => name).join(' and ');
const reachWords = (off: Extract<MoveSays, { readonly off: unknown }>['off']): string =>
  off.map(({ delta }) => whatWouldReach(-delta)).join(' ');

/** To stand after "Set": "the slotted pulley of the intake cam to +3, and the keyway gear to +4". */
const setWords = ({ parts }: ReportedPlan): string => parts.map(({ called, put }) => `${called} ${put}`).join(', and ');

/** Of many cams only those that move are spoken of. */
const leavesWords = ({ cams }: ReportedPlan): string =>
  cams
    .filter(({ by }) => cams.length <= 2 || Math.abs(by) > 1e-6)
    .map(({ words }) => words)
    .join(' ');

function reportPlan(plan: PlanFinding, build: Build, drive: DriveFinding): ReportedPlan {
  const { limit } = plan;
  const { engine, units, wheel } = build.description.body;
  const steps = instruct(
    plan.parts.map(({ part, planned, direct }) => ({
      name: part.name,
      hardware: part.hardware,
      planned,
      cams: namesOf(part.turns),
      direct: direct && directWords(direct, wheel, units),
    })),
    { drive: build.asItStands?.body.drive ?? null, rotation: engine.rotation, camTurns: drive.camTurns },
  );
  return {
    parts: plan.parts.map(({ part, planned }) => ({
      part: part.part,
      name: part.name,
      called: calledOf(part, plan.cams.length),
      from: settingLabel(part.hardware, planned.from),
      to: settingLabel(part.hardware, planned.to),
      put: isByIndicator(part) ? 'by the indicator' : `to ${settingLabel(part.hardware, planned.to)}`,
      setting: planned.to,
      gives: planned.gives,
      label: planned.label,
    })),
    cams: plan.cams.map(({ cam, by, leaves, standard }) => ({
      cam: cam.cam,
      bank: cam.bank,
      name: cam.name,
      by,
      leaves,
      standard,
      words: camWords(cam, by, leaves, limit),
    })),
    remaining: plan.remaining,
    inside: plan.inside,
    work: [workWords(plan), ...plan.blind.map(blindWords)].join(' '),
    wheelOff: plan.wheelOff,
    breaks: plan.breaks.map(breakWords),
    clearanceUnknown: plan.clearanceUnknown,
    steps,
    predicted: [...plan.predicted],
    becomes: plan.becomes,
  };
}

function breakWords({ valve, by, room }: PlanFinding['breaks'][number]): string {
  const nearer = `It brings the ${valve} valve nearer to its piston than the least that is wanted`;
  if (!room) return `${nearer}.`;
  return by > 0
    ? `${nearer}: at most ${atMostDegrees(Math.max(0, room.to))} of advance.`
    : `${nearer}: at most ${atMostDegrees(Math.max(0, -room.from))} of retard.`;
}

/** A part as it is spoken of: of one cam of several, by that cam. */
function calledOf({ name, turns }: PartFinding, cams: number): string {
  const known = /^(the|a|an|my|our)\s|’s\s|'s\s/i.test(name) || /^\S*[A-Z]{2}/.test(name);
  const [only] = turns;
  const ofOne = cams > 1 && turns.length === 1 && only !== undefined;
  // Many are named after their cam: it is not said twice.
  const own = ofOne ? name.replace(/,? ?\(?(intake|exhaust)\)?$/i, '') || name : name;
  const plain = known ? own : `the ${own.charAt(0).toLowerCase()}${own.slice(1)}`;
  return ofOne ? `${plain} of ${only.name}` : plain;
}

/** Without a scale or a mark nothing but the indicator says where it is. */
function isByIndicator({ hardware }: PartFinding): boolean {
  const reach = reachOf(hardware);
  return reach.kind === 'range' && !reach.scale;
}

function camWords(cam: Cam, by: number, leaves: number, limit: number): string {
  const name = capital(cam.name);
  const left =
    Math.abs(leaves) < 0.05 ? 'on its target' : `${computedDegrees(Math.abs(leaves))} ${lateOrEarly(leaves)}`;
  const inside = Math.abs(leaves) <= limit ? '' : ', outside the limit';
  return Math.abs(by) < 1e-6
    ? `${name} stays where it is, ${left}${inside}.`
    : `${name} is ${by > 0 ? 'advanced' : 'retarded'} ${computedDegrees(Math.abs(by))} and should then sit ${left}${inside}.`;
}

const blindWords = ({ name }: Cam): string => `${capital(name)} goes with it, and has not been measured.`;

function workWords(plan: PlanFinding): string {
  const { frontApart, wheelOff, time, known, limit } = plan;
  const what = wheelOff
    ? 'The front comes apart and the degree wheel comes off: find TDC again.'
    : frontApart
      ? 'The front comes apart. The wheel stays on.'
      : 'Set in place; nothing comes apart.';
  const long = `About ${spellMinutes(time.minutes)} with reading it again${TIME_FROM[time.from]}.`;
  // A second assembly costs more than a second pair of readings.
  const saves =
    frontApart && known > limit
      ? ` It is known to ±${computedDegrees(known)} only, and shall sit within ±${computedDegrees(limit)}: a pair more read now may save taking it apart twice.`
      : '';
  return `${what} ${long}${saves}`;
}

const QUARTERS = ['', 'a quarter of an hour', 'half an hour', 'three quarters of an hour', 'an hour'] as const;

const TIME_FROM = {
  usual: '',
  here: ', as it took here before',
  shop: ', as it took on other engines of the shop',
} as const;

/** Time as it is said at the bench: `spellMinutes(80)` is "an hour and a quarter". */
function spellMinutes(minutes: number): string {
  const quarters = Math.max(1, Math.round(minutes / 15));
  if (quarters <= 4) return QUARTERS[quarters] ?? '';
  const [hours, rest] = [Math.floor(quarters / 4), quarters % 4];
  const whole = hours === 1 ? 'an hour' : `${hours} hours`;
  return rest === 0
    ? whole
    : `${whole} and ${QUARTERS[rest]?.replace(' of an hour', '').replace('half an hour', 'a half') ?? ''}`;
}

/** Where the crank is held, as the wheel reads it now and as one reads that is set to true TDC, to half a degree. */
function directWords({ valve, drop, crank, offset }: DirectFinding, wheel: WheelRing, units: LengthUnit): DirectWords {
  const at = (ring: number): string => formatReading(readingAt(wheel, Math.round(2 * ring) / 2));
  return { crank: at(crank + offset), crankAnew: at(crank), shows: formatLength(drop, units), valve };
}
