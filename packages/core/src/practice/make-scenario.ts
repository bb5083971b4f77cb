import { eventCentre } from '../cam/card';
import type { Lobe } from '../cam/lobe';
import { firingTdcs } from '../crank/firing';
import { roundOf } from '../crank/rim';
import type { WheelRing } from '../crank/wheel';
import type { VirtualLifter } from '../simulation/follow';
import { type Random, makeRandom } from '../statistics/random';
import { MM_PER_INCH } from '../units/length';
import { between, either } from './at-random';
import type { Exercise } from './exercise';
import { EXERCISES, type ExerciseName } from './exercises';
import type { PracticeBase, Scenario } from './scenario';
import type { Twist } from './twists';
import { lashOf, playOf, rockersOf, withLash, withRockers } from './valve-train-made';

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
