import type { Valve } from '../cam/card';
import type { OrderFinding, RockerValve, RockersFinding, TriedFinding } from '../findings/derive-rockers';
import type { TheoryFinding } from '../findings/lift-theory';
import { type LengthUnit, formatComputedLength, formatLength, inches } from '../units/length';
import type { Report } from './report-schema';
import { computedDegrees } from '../units/degrees';
import type { Rocker } from '../valve-train/rocker';
import { capital } from './capital';

type Rockers = Report['rockers'];
type Mounted = Rockers['mounted'];

/** Rockers and pushrods as the Report has them. */
export function reportRockers({ applies, setUp, valves }: RockersFinding, units: LengthUnit): Rockers {
  const mounted = setUp?.body.mounted ?? null;
  return {
    applies,
    entry: setUp?.id ?? null,
    sentence: sentenceOf(mounted, valves, units),
    mounted,
    arm: setUp?.body.arm ?? null,
    tip: setUp?.body.tip ?? null,
    step: setUp?.body.step ?? null,
    valves: valves.map((each) => ({
      valve: each.valve,
      ratio: each.rocker?.ratio ?? null,
      lift: each.rocker?.lift ?? null,
      least: each.least,
      problem: each.problem,
      words: valveWords(each, mounted, units),
      next: each.next,
      chosen: each.chosen?.entry ?? null,
      trials: each.trials.map((trial) => ({
        entry: trial.entry,
        cylinder: trial.cylinder,
        length: trial.length,
        pattern: trial.pattern,
        offset: trial.offset,
        seen: trial.seen,
        lift: trial.lift,
        verdict: trial.verdict,
        shows: formatComputedLength(trial.length, units),
        words: trialWords(trial, each, units),
      })),
      arm: each.arm,
      path: each.path,
      theory: each.theory.map((one) => ({
        cylinder: one.cylinder,
        theory: one.theory,
        lost: one.lost,
        bends: one.bends,
        words: theoryWords(one, units),
        right: one.names === 'nothing',
      })),
      order: each.order && {
        ...orderPart(each.order),
        ...orderWords(each.order, each.valve, units),
        effect: each.rocker && lengthEffect(each.order, each.rocker.ratio, units),
      },
    })),
  };
}

const orderPart = ({ others: _others, trouble: _trouble, ...order }: OrderFinding) => order;

function sentenceOf(mounted: Mounted, valves: readonly RockerValve[], units: LengthUnit): string {
  if (mounted === null) return 'How are the rockers mounted, and how long is the arm?';
  const open = valves.find(({ order }) => order === null);
  if (!open) return 'The pushrods can be ordered.';
  const { valve, problem, trials, chosen, next } = open;
  if (problem) return `${problem.message} ${problem.remedy}`;
  const what = mounted === 'stud' ? 'an adjustable pushrod' : 'shims under the stand';
  if (trials.length === 0)
    return `${capital(valve)}: try ${what}. Mark the tip, turn it over twice, and look at the pattern and at the arm at mid-lift.`;
  if (chosen)
    return `${capital(valve)}: this geometry is right. Measure the pushrod that it needs, at zero lash, with the lifter that will run.`;
  const tried =
    next === null ? '' : `${formatComputedLength(next, units)}${mounted === 'stud' ? '' : ' of shims'} next`;
  if (open.answers.length > 1 && next !== null)
    return `${capital(valve)}: two would leave such a pattern. Look where the arm stands at mid-lift; or try ${tried}.`;
  return next === null
    ? `${capital(valve)}: look at the pattern on the tip, or at the arm at mid-lift.`
    : `${capital(valve)}: try ${tried}.`;
}

function valveWords(
  { problem, answers, chosen, trials, least, rocker, arm }: RockerValve,
  mounted: Mounted,
  units: LengthUnit,
): string {
  if (problem) return `${problem.message} ${problem.remedy}`;
  if (!rocker || least === null) return '';
  const theory = `By lobe and ratio the valve lifts ${formatComputedLength(rocker.lift, units)}; the narrowest pattern of this arm is ${formatComputedLength(least, units)}.`;
  const [first, second] = answers;
  if (!first) return trials.length === 0 ? theory : `${theory} Nothing tells the length yet.`;
  const what = mounted === 'stud' ? 'length' : 'stack of shims';
  const told = (each: typeof first): string =>
    `${formatComputedLength(each.length, units)} ±${formatComputedLength(each.expanded, units)}`;
  if (second && !chosen)
    return `${theory} Two ${mounted === 'stud' ? 'lengths' : 'stacks'} would leave such a pattern: ${told(first)}, or ${told(second)}. Look where the arm stands at mid-lift, or try another: then only one is left.`;
  return `${theory} The right ${what} by all trials is ${told(first)}. ${sideWords(arm, rocker)}`.trim();
}

/** How far the arm leans at most: what pushes the valve aside in its guide. */
function sideWords(arm: RockerValve['arm'], { arm: length, lift }: Rocker): string {
  if (!arm) return '';
  const degrees = (sine: number): string => computedDegrees((Math.asin(Math.min(1, sine)) * 180) / Math.PI);
  const furthest = Math.max(Math.abs(arm.closed), Math.abs(arm.open));
  return `In the last trial it leaned up to ${degrees(furthest)} off square, which pushes the valve aside in its guide; ${degrees(lift / (2 * length))} is the least.`;
}

const SEEN = {
  right: 'the arm square at mid-lift',
  above: 'the roller still above the right angle at mid-lift',
  below: 'the roller below the right angle at mid-lift',
} as const;

/**
 * The pattern on a tip, in words.
 * @param width of it, mm; `least` the narrowest that this rocker can leave.
 * @param offset from the middle of the tip, outward, mm.
 */
function patternWords(
  width: number,
  offset: TriedFinding['offset'],
  least: number | null,
  onPhoto: boolean,
  units: LengthUnit,
): string {
  const narrowest = least === null ? '' : `, ${formatComputedLength(least, units)} is the least`;
  const aside = offset ? `, ${formatComputedLength(Math.abs(offset), units)} ${offset > 0 ? 'outward' : 'inward'}` : '';
  return `pattern ${formatComputedLength(width, units)}${onPhoto ? ' on a photo' : ''}${narrowest}${aside}`;
}

function trialWords(trial: TriedFinding, { least, rocker }: RockerValve, units: LengthUnit): string {
  const { pattern, offset, seen, lift, short, verdict, problem, onPhoto } = trial;
  if (problem) return `${problem.message} ${problem.remedy}`;
  const full = short === null || rocker === null ? '' : ` of ${formatComputedLength(rocker.lift, units)}`;
  const told = [
    pattern === null ? null : patternWords(pattern, offset, least, onPhoto, units),
    seen && SEEN[seen],
    lift === null ? null : `lifts ${formatLength(lift, units)}${full}`,
  ].filter((each) => each !== null);
  const said = `${told.join('; ')}.`;
  switch (verdict) {
    case 'this-one':
      return `This one: ${said}`;
    case 'this-one-by-pattern':
      return `This one: ${said} Mid-lift and pattern disagree: a narrow pattern with full lift wins.`;
    default:
      return said.charAt(0).toUpperCase() + said.slice(1);
  }
}

const NAMES: Readonly<Record<TheoryFinding['names'], string>> = {
  nothing: 'Nothing is lost.',
  geometry: 'It is lost with light springs already: ratio, lash or geometry.',
  deflection: 'It is lost under the running springs only: something bends.',
  both: 'Part is lost with light springs already, by ratio, lash or geometry; the rest bends under the running springs.',
  unsaid: 'Read it with checking springs too: what is lost then is ratio, lash or geometry, the rest bends.',
  above: 'That is more than can be: check the ratio, the lobe and the zero of the indicator.',
};

function theoryWords({ cylinder, theory, checking, running, unsaid, names }: TheoryFinding, units: LengthUnit): string {
  const read = [
    checking === null ? null : `${formatLength(checking, units)} with checking springs`,
    running === null ? null : `${formatLength(running, units)} with running springs`,
    checking === null && running === null && unsaid !== null ? formatLength(unsaid, units) : null,
  ].filter((each) => each !== null);
  return `Cylinder ${cylinder}: ${read.join(', ')} of ${formatComputedLength(theory, units)}. ${NAMES[names]}`;
}

const LIFTER: Readonly<Record<OrderFinding['lifter'], string>> = {
  own: 'with the lifter that will run',
  'made-solid': 'with the lifter that will run, made solid',
  'carried-over': 'carried over from a solid lifter by the nut’s place',
  other: 'with another lifter than will run',
};

const TROUBLE: Readonly<Record<OrderFinding['trouble'][number], string>> = {
  'preload-past-travel':
    'The length to order presses the plunger to its end: it would hold the valve open. Take the next shorter.',
  'no-preload': 'The length to order leaves no preload: take the next longer.',
  'thread-short': 'The nut holds by less thread than the stud is thick: another stud or a longer pushrod.',
  'touches-head': 'The pushrod touches the head: it needs room through the whole lift.',
  'other-lifter':
    'Seats differ in height from lifter to lifter: measure again with the one that will run, or carry it over by the nut’s place.',
};

function orderWords(order: OrderFinding, valve: Valve, units: LengthUnit): { words: string; trouble: string[] } {
  const { measured, length, preload, wanted, lifter, others, trouble } = order;
  const gives =
    wanted === 0
      ? `${formatComputedLength(Math.abs(preload), units)} ${preload < 0 ? 'shorter' : 'longer'} than measured, taken up by the adjuster`
      : `preload ${formatComputedLength(preload, units)}, ${formatComputedLength(wanted, units)} wanted`;
  return {
    words: `${capital(valve)} pushrods: order ${formatComputedLength(length, units)}. Measured ${formatComputedLength(measured, units)} at zero lash, ${LIFTER[lifter]}; ${gives}.`,
    trouble: [
      ...trouble.map((each) => TROUBLE[each]),
      ...(others.length > 0
        ? [
            `Two lengths were measured for the ${valve}, and none replaces the other: the later one counts. Save it again.`,
          ]
        : []),
    ],
  };
}

/** What another length than the one to order does, is told for so much of it: 0.010 in, or 0.25 mm. */
const LONGER: Readonly<Record<LengthUnit, number>> = { in: inches('0.010'), mm: 0.25 };

/** What a longer pushrod does to lash, preload and the gap between valve and piston. */
function lengthEffect({ wanted }: OrderFinding, ratio: number, units: LengthUnit): string {
  const longer = formatLength(LONGER[units], units);
  const takes = formatComputedLength(LONGER[units] * ratio, units);
  return wanted > 0
    ? `Each ${longer} longer is as much more preload; pumped up, its lifter then leaves ${takes} less between valve and piston.`
    : `Each ${longer} longer, the adjuster left as it is, takes ${takes} at the valve: first of its lash, then of the gap to the piston. Set again, it changes neither.`;
}
