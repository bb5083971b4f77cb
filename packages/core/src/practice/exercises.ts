import { eventCentre } from '../cam/card';
import type { Lobe } from '../cam/lobe';
import { firingTdcs } from '../crank/firing';
import { roundOf } from '../crank/rim';
import type { WheelRing } from '../crank/wheel';
import type { VirtualLifter } from '../simulation/follow';
import { type Random, makeRandom } from '../statistics/random';
import { MM_PER_INCH } from '../units/length';
import type { Cause } from './causes';
import { between, either } from './at-random';
import type { PracticeBase, Scenario } from './scenario';
import { lashOf, playOf, rockersOf, withLash, withRockers } from './valve-train-made';

/** tdc: true TDC proved. cam: how far off it sits. proof: moved and proved. cause: what is wrong. lobe: which one is worn. lash: every valve set right. pushrod: the one to order. play: the cam’s end play cured. free: nothing is asked. */
export type Goal = 'tdc' | 'cam' | 'proof' | 'cause' | 'lobe' | 'lash' | 'pushrod' | 'play' | 'free';

export interface Exercise {
  readonly title: string;
  /** What is asked, in a sentence. */
  readonly task: string;
  /** 1 to 5. */
  readonly level: 1 | 2 | 3 | 4 | 5;
  readonly minutes: number;
  readonly goal: Goal;
  /** Is the degree wheel set and proved when it begins? */
  readonly tdc: 'to-find' | 'proved';
  /** Every step is said without asking. */
  readonly guided: boolean;
  /** Does the wheel carry a second set of numbers? */
  readonly twoRings?: true;
  /** Is there no wheel, only the rim of the balancer and a tape? */
  readonly noWheel?: true;
  /** Can the lobes of all cylinders be measured? One of them is worn then. */
  readonly everyLobe?: true;
  /** Can the lash be felt and set? all: every valve is off. one: a single one was set on its ramp. */
  readonly lash?: 'all' | 'one';
  /** Are its rockers on studs, with an adjustable pushrod to try? */
  readonly pushrods?: true;
  /** Can the cam be pushed to and fro behind its cover? */
  readonly play?: true;
  readonly make: (random: Random) => Twist;
}

/** What is wrong with the engine, and how. Left out: nothing. */
interface Twist {
  readonly cause?: Cause;
  /** How far ahead of the card the cams sit, crank degrees. */
  readonly ahead?: number;
  readonly slack?: number;
  readonly lifter?: VirtualLifter;
  readonly slips?: { readonly after: number; readonly by: number };
  readonly ground?: (lobe: Lobe) => Lobe;
  /** By how much the card prints the intake centreline wrong, crank degrees. */
  readonly misprint?: number;
}

/** Crank degrees. */
const half = (value: number): number => Math.round(value * 2) / 2;

const FAULTS: Readonly<Record<Cause, (random: Random) => Twist>> = {
  'cam-off': (random) => ({ ahead: either(random) * half(between(random, 4, 8)) }),
  'tooth-out': (random) => ({ ahead: (either(random) * 720) / 42 + half(between(random, -1, 1)) }),
  'wrong-cam': (random) => {
    const longer = between(random, 8, 14);
    const higher = between(random, 0.5, 1.2);
    return { ground: (lobe) => ({ ...lobe, half: lobe.half + longer, peak: lobe.peak + higher }) };
  },
  'wheel-slipped': (random) => ({
    slips: { after: between(random, 1000, 1300), by: either(random) * half(between(random, 5, 10)) },
  }),
  'card-figure': (random) => ({ misprint: half(between(random, 2.75, 3.75)) }),
  sticking: (random) => ({ lifter: { kind: 'sticking' }, ahead: half(between(random, -3, 3)) }),
  'bleed-down': (random) => ({ lifter: { kind: 'bleeding', perDegree: between(random, 0.005, 0.008) } }),
  slack: (random) => ({ slack: half(between(random, 6, 10)), ahead: half(between(random, -3, 3)) }),
};

const one =
  (cause: Cause): Exercise['make'] =>
  (random) => ({ cause, ...FAULTS[cause](random) });

/** Every exercise, from the first to the hardest. A new one is a line here. */
export const EXERCISES = {
  'find-tdc': {
    title: 'Find true TDC',
    task: 'The wheel is not set. Find true TDC with the piston stop, set the wheel, prove it.',
    level: 1,
    minutes: 5,
    goal: 'tdc',
    tdc: 'to-find',
    guided: true,
    make: () => ({}),
  },
  centreline: {
    title: 'Read a centreline',
    task: 'TDC is proved. Read the intake centreline: how far from its card does the cam sit?',
    level: 2,
    minutes: 6,
    goal: 'cam',
    tdc: 'proved',
    guided: true,
    make: one('cam-off'),
  },
  'two-rings': {
    title: 'Two sets of numbers',
    task: 'The wheel has one row of numbers for centrelines and one for events. Read the intake both ways, each on its own row: how far from its card does the cam sit?',
    level: 2,
    minutes: 9,
    goal: 'cam',
    tdc: 'proved',
    guided: false,
    twoRings: true,
    make: one('cam-off'),
  },
  'no-wheel': {
    title: 'No wheel at all',
    task: 'A tape, and the balancer’s rim, 7¼ in (184.2 mm) across, with a mark that nobody trusts. Find TDC with marks of your own, then read the intake centreline along the rim: how far off its card is the cam?',
    level: 3,
    minutes: 12,
    goal: 'cam',
    tdc: 'to-find',
    guided: false,
    noWheel: true,
    make: one('cam-off'),
  },
  'from-bare': {
    title: 'The whole job',
    task: 'Find TDC, read the cam, move it into the limit, and prove it.',
    level: 3,
    minutes: 20,
    goal: 'proof',
    tdc: 'to-find',
    guided: false,
    make: (random) => ({ ...one('cam-off')(random), slack: 2 }),
  },
  slack: {
    title: 'A worn chain',
    task: 'The drive has slack that would mislead you. Say where the cam sits all the same.',
    level: 3,
    minutes: 10,
    goal: 'cam',
    tdc: 'proved',
    guided: false,
    make: one('slack'),
  },
  sticking: {
    title: 'What goes up',
    task: 'The lifters have no springs. Say where the cam sits.',
    level: 3,
    minutes: 10,
    goal: 'cam',
    tdc: 'proved',
    guided: false,
    make: one('sticking'),
  },
  bleeding: {
    title: 'Hydraulic lifters',
    task: 'The durations come out short. Say where the cam sits, and what is wrong.',
    level: 4,
    minutes: 12,
    goal: 'cause',
    tdc: 'proved',
    guided: false,
    make: one('bleed-down'),
  },
  slipping: {
    title: 'Two lobes that disagree',
    task: 'Measure intake and exhaust. They cannot both be right: find out why.',
    level: 4,
    minutes: 15,
    goal: 'cause',
    tdc: 'proved',
    guided: false,
    make: one('wheel-slipped'),
  },
  'worn-lobe': {
    title: 'One lobe of many',
    task: 'It misses on one cylinder. Read the lift of every lobe and find the one that is worn.',
    level: 4,
    minutes: 20,
    goal: 'lobe',
    tdc: 'proved',
    guided: false,
    everyLobe: true,
    make: () => ({}),
  },
  'lash-partner': {
    title: 'Set the lash by its partner',
    task: 'Every valve is off. Set them all to 0.016 in (0.41 mm): the intake while its exhaust begins to open, the exhaust while its intake closes. Then go round again.',
    level: 3,
    minutes: 20,
    goal: 'lash',
    tdc: 'proved',
    guided: true,
    everyLobe: true,
    lash: 'all',
    make: () => ({}),
  },
  'loose-valve': {
    title: 'One valve that ticks',
    task: 'They were all set to 0.016 in (0.41 mm), and one ticks: it was set on its ramp. Measure each where it rests, find it, set it, and look at it again.',
    level: 4,
    minutes: 15,
    goal: 'lash',
    tdc: 'proved',
    guided: false,
    everyLobe: true,
    lash: 'one',
    make: () => ({}),
  },
  'right-pushrod': {
    title: 'The right pushrod',
    task: 'Find the length of pushrod that leaves the narrowest pattern on the tip, in three trials if you can; order the intake pushrods to the step of 0.050 in (1.27 mm), no preload.',
    level: 3,
    minutes: 12,
    goal: 'pushrod',
    tdc: 'proved',
    guided: false,
    pushrods: true,
    make: () => ({}),
  },
  'end-play': {
    title: 'A cam that walks',
    task: 'A button behind the cover holds the cam endways, and its play is wrong. Measure it with the cover as it will run, file or shim the button to 0.005 to 0.010 in (0.13 to 0.25 mm), and measure it again.',
    level: 2,
    minutes: 8,
    goal: 'play',
    tdc: 'proved',
    guided: false,
    play: true,
    make: () => ({}),
  },
  'other-cam': {
    title: 'From an unmarked box',
    task: 'A cam came without its box. Is it the one of the card?',
    level: 4,
    minutes: 15,
    goal: 'cause',
    tdc: 'proved',
    guided: false,
    make: one('wrong-cam'),
  },
  misprint: {
    title: 'The cam, or its card?',
    task: 'The cam came with its card, and something does not fit. Read the intake by its centreline and by its events, each twice: is it the cam, or the card?',
    level: 4,
    minutes: 15,
    goal: 'cause',
    tdc: 'proved',
    guided: false,
    make: one('card-figure'),
  },
  'runs-badly': {
    title: 'It runs badly: find out why',
    task: 'Put together yesterday, and it runs badly. Measure what you need, and say what is wrong.',
    level: 5,
    minutes: 25,
    goal: 'cause',
    tdc: 'to-find',
    guided: false,
    make: (random) => {
      const causes: readonly Cause[] = ['tooth-out', 'wrong-cam', 'wheel-slipped', 'bleed-down', 'slack', 'cam-off'];
      return one(causes[Math.floor(random.even() * causes.length)] ?? 'tooth-out')(random);
    },
  },
  free: {
    title: 'Free play',
    task: 'Turn it, measure it, move it. Nothing is asked.',
    level: 1,
    minutes: 10,
    goal: 'free',
    tdc: 'to-find',
    guided: false,
    make: () => ({}),
  },
} as const satisfies Readonly<Record<string, Exercise>>;

export type ExerciseName = keyof typeof EXERCISES;
export const EXERCISE_NAMES = Object.keys(EXERCISES) as [ExerciseName, ...ExerciseName[]];

/** What free play lets one choose. */
export interface OwnTwist {
  readonly ahead: number;
  readonly slack: number;
  readonly lifter: VirtualLifter['kind'];
}

/** The other row of numbers on a wheel with two. */
const secondRing = ({ ring }: WheelRing): WheelRing => (ring === '0-90' ? { ring: '0-180' } : { ring: '0-90' });

/** The balancer of the practice engine, mm across. */
const BALANCER = 7.25 * MM_PER_INCH;

/** All cylinders as they fire, and a lobe of one beside the first that has lost some hundredths of a millimetre. */
function othersOf({ engine }: PracticeBase, random: Random): NonNullable<Scenario['engine']['others']> {
  const tdcs = firingTdcs({ order: engine.firingOrder, angles: engine.firingAngles });
  return {
    fires: Object.fromEntries(tdcs.map(({ cylinder, after }) => [cylinder, after])),
    worn: {
      cylinder: 1 + Math.floor(random.even() * engine.cylinders),
      valve: random.even() < 0.5 ? 'intake' : 'exhaust',
      by: between(random, 0.3, 0.6),
    },
  };
}

const BLEEDS = 0.006;
const ordinary = { slack: 1.5, lifter: { kind: 'solid' } } as const;

/** The engine with what an exercise wants of it: no wheel but its rim, a card with lash or with the ratio of its rockers. */
function fittedOut(on: PracticeBase, { noWheel, lash, pushrods }: Exercise): PracticeBase {
  if (noWheel) return { ...on, ring: { ring: 'rim', round: roundOf(BALANCER), unit: on.units } };
  if (lash) return withLash(on);
  return pushrods ? withRockers(on) : on;
}

/**
 * The same with another intake centreline on its card: off to the side where its events have their middle. That far lobes lean; off to the other, the card would
 * contradict itself before anything is read.
 */
function misprinted(on: PracticeBase, by: number): PracticeBase {
  const { intake } = on.card;
  const [line] = intake?.timing ?? [];
  if (intake?.centreline === undefined || line?.opens === undefined || line.closes === undefined) return on;
  const side = eventCentre('intake', line.opens, line.closes) < intake.centreline ? -1 : 1;
  return { ...on, card: { ...on.card, intake: { ...intake, centreline: intake.centreline + side * by } } };
}

/**
 * Makes an exercise up: the same seed makes the same engine.
 * @param own free play: what is wrong is the builder's to choose.
 */
export function makeScenario(name: ExerciseName, on: PracticeBase, seed: number, own?: OwnTwist): Scenario {
  const random = makeRandom(seed);
  const { make, tdc, twoRings, everyLobe, lash, pushrods, play }: Exercise = EXERCISES[name];
  const fitted = fittedOut(on, EXERCISES[name]);
  const twist: Twist = own
    ? {
        ahead: own.ahead,
        slack: own.slack,
        lifter: own.lifter === 'bleeding' ? ({ kind: 'bleeding', perDegree: BLEEDS } as const) : { kind: own.lifter },
      }
    : make(random);
  const base = misprinted(fitted, twist.misprint ?? 0);
  const { cause = 'cam-off', ahead = 0, ground = (lobe: Lobe) => lobe, slips = null } = twist;
  const { stroke = 0, rod = 0, pinOffset, rotation } = base.engine;
  return {
    base,
    engine: {
      crank: { stroke, rod, ...(pinOffset === undefined ? {} : { pinOffset }) },
      rotation,
      ring: base.ring,
      ...(twoRings && { rings: [secondRing(base.ring)] }),
      lobes: { intake: ground(base.lobes.intake), exhaust: ground(base.lobes.exhaust) },
      ...(everyLobe && { others: othersOf(base, random) }),
      ...(lash && { lash: lashOf(base, lash, random) }),
      ...(pushrods && { rockers: rockersOf(base, random) }),
      ...(play && { endPlay: playOf(random) }),
      lifter: twist.lifter ?? ordinary.lifter,
      slack: twist.slack ?? ordinary.slack,
      slips,
    },
    advance: { intake: ahead, exhaust: ahead },
    // Anywhere, in quarters of a degree; and met somewhere on the way up.
    mount: tdc === 'proved' ? 0 : either(random) * (Math.round(between(random, 6, 40) * 4) / 4),
    crank: -Math.round(between(random, 60, 120)) - 360,
    cause,
    seed,
  };
}
