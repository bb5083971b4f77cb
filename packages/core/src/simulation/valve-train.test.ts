import type { Valve } from '../cam/card';
import { slopesAt } from '../cam/lobe-slopes';
import { type Lobe, flanksAt, lobeAt } from '../cam/lobe';
import { centrelineForLift } from '../cam/lift-at-tdc';
import { readTrace } from '../cam/trace';
import { centreline, events, opensOnly } from '../measure/methods/flank-pair';
import { combineRounds, pairTerms } from '../measure/read-uncertainty';
import { wrap180 } from '../units/angle';
import { makeRandom } from '../statistics/random';
import { type CamErrors, NO_CAM_ERRORS, type VirtualValveTrain, makeValveTrain } from './valve-train';

const UPRIGHT: Record<Valve, Lobe> = {
  intake: { peak: 8.4, nose: 107, half: 152, power: 3, lean: 0 },
  exhaust: { peak: 8.2, nose: -111, half: 156, power: 3.1, lean: 0 },
};
const LEANING: Record<Valve, Lobe> = {
  intake: { ...UPRIGHT.intake, lean: 5 },
  exhaust: { ...UPRIGHT.exhaust, lean: -4 },
};
const SOLID: VirtualValveTrain = {
  lobes: UPRIGHT,
  lifter: { kind: 'solid' },
  ratio: 1.5,
  lash: 0.3,
  slack: 3,
  ring: { ring: '0-360', sense: 'rising' },
  mount: 0,
};
const DROP = 1.27;

/** Before both valves, on the base circle, coming forward. */
const START = { intake: -120, exhaust: -340 } as const;
type Engine = ReturnType<typeof makeValveTrain>;

function dropPair(engine: Engine, valve: Valve) {
  engine.comeForwardTo(engine.noseOf(valve));
  engine.zeroIndicator(valve, 'lifter');
  engine.turn(-90);
  engine.turnUntil(valve, 'lifter', -DROP, 1, 'rising');
  const opening = engine.position();
  engine.turn(5);
  engine.turnUntil(valve, 'lifter', -DROP, 1, 'falling');
  return { opening, closing: engine.position() };
}

function heightPair(engine: Engine, valve: Valve, height = DROP) {
  engine.comeForwardTo(START[valve]);
  engine.zeroIndicator(valve, 'lifter');
  engine.turnUntil(valve, 'lifter', height, 1, 'rising');
  const opening = engine.position();
  const shows = engine.turnUntil(valve, 'lifter', height, 1, 'falling');
  return { opening, closing: shows ? engine.position() : null };
}

const centreOf = (valve: Valve, pair: ReturnType<typeof dropPair>, zero = 0): number => {
  const found = centreline(valve, pair, zero);
  if (!found.ok) throw new Error(found.problem.message);
  return found.centreline;
};
const eventsOf = (valve: Valve, { opening, closing }: ReturnType<typeof heightPair>, zero = 0) => {
  const found = events(valve, { opening, closing: closing ?? 0 }, zero);
  if (!found.ok) throw new Error(found.problem.message);
  return found.events;
};

describe('without errors every method recovers the phase within 0.02°', () => {
  test.each(['intake', 'exhaust'] as const)('%s', (valve) => {
    const random = makeRandom(3);
    const sign = valve === 'intake' ? 1 : -1;
    for (const advance of [-6.3, 0, 2.5])
      for (const mount of [0, 77.7, -160]) {
        const engine = makeValveTrain({ ...SOLID, mount }, NO_CAM_ERRORS, random);
        engine.assemble({ intake: advance, exhaust: advance });
        const printed = sign * UPRIGHT[valve].nose;
        // δ = ICL of the card − ICL, or ECL − ECL of the card.
        expect(sign * (printed - centreOf(valve, dropPair(engine, valve), mount))).toBeCloseTo(advance, 2);
        const found = eventsOf(valve, heightPair(engine, valve), mount);
        const card = flanksAt(UPRIGHT[valve], DROP);
        expect(sign * (printed - found.centre)).toBeCloseTo(advance, 2);
        expect(found.duration).toBeCloseTo((card?.closing ?? 0) - (card?.opening ?? 0), 2);
        const opensOfCard = opensOnly(valve, card?.opening ?? 0, 0);
        expect(opensOnly(valve, heightPair(engine, valve).opening, mount) - opensOfCard).toBeCloseTo(advance, 2);
        // Lift at TDC against a catalogue that prints it degree by degree: between coarser ones a straight line is not the curve.
        const lifts = [-4, -3, -2, -1, 0, 1, 2, 3]
          .map((by) => printed + by)
          .map((at) => ({
            centreline: at,
            lift: lobeAt({ ...UPRIGHT[valve], nose: sign * at }, 0).lift,
          }));
        if (Math.abs(advance) < 3) {
          engine.comeForwardTo(START[valve]);
          engine.zeroIndicator(valve, 'lifter');
          engine.comeForwardTo(0);
          const stands = centrelineForLift(lifts, engine.indicator(valve, 'lifter')) ?? NaN;
          expect(Math.abs(sign * (printed - stands) - advance)).toBeLessThan(0.02);
        }
      }
  });

  test('a full trace, every 2° and rounded to nothing', () => {
    const engine = makeValveTrain({ ...SOLID, lobes: LEANING, mount: 31 }, NO_CAM_ERRORS, makeRandom(4));
    engine.assemble({ intake: 4 });
    engine.comeForwardTo(-120);
    engine.zeroIndicator('intake', 'lifter');
    const points = Array.from({ length: 230 }, () => {
      engine.turn(2);
      return { angle: engine.position(), lift: engine.indicator('intake', 'lifter') };
    });
    const read = readTrace(points, { liftSd: 1e-5, angleSd: 0, closes: 0.03 });
    if (!read.ok) throw new Error(read.problem.message);
    const card = flanksAt(LEANING.intake, DROP);
    const middle = ((card?.opening ?? 0) + (card?.closing ?? 0)) / 2;
    expect(middle - ((read.curve.centre(DROP)?.angle ?? 0) - 31)).toBeCloseTo(4, 2);
    expect(read.curve.lift(31)).toBeCloseTo(lobeAt(LEANING.intake, 4).lift, 3);
  });
});

test('on a leaning lobe events and centreline disagree, the events on the side of the lean', () => {
  const engine = makeValveTrain({ ...SOLID, lobes: LEANING }, NO_CAM_ERRORS, makeRandom(5));
  const lean = eventsOf('intake', heightPair(engine, 'intake')).centre - centreOf('intake', dropPair(engine, 'intake'));
  expect(lean).toBeGreaterThan(1);
  const share = (lift: number): number => 1 - (lift / 8.4) ** (1 / 3);
  expect(lean).toBeCloseTo(5 * (share(DROP) - share(8.4 - DROP)), 2);
  // The exhaust's is printed before TDC, so its lean of −4 shows as a larger figure too.
  const exhaust =
    eventsOf('exhaust', heightPair(engine, 'exhaust')).centre - centreOf('exhaust', dropPair(engine, 'exhaust'));
  expect(exhaust).toBeGreaterThan(1);
});

describe('what lifters and drives do', () => {
  const pairs = (train: Partial<VirtualValveTrain>) => {
    const engine = makeValveTrain({ ...SOLID, ...train }, NO_CAM_ERRORS, makeRandom(6));
    return { engine, pair: heightPair(engine, 'intake') };
  };

  // Common practice, no source: bleeding opens a little late, closes much too early, and the centre comes out early.
  test('a bleeding lifter: late, short, centre early', () => {
    const honest = eventsOf('intake', pairs({}).pair);
    const bled = eventsOf('intake', pairs({ lifter: { kind: 'bleeding', perDegree: 0.004 } }).pair);
    expect(bled.opens).toBeLessThan(honest.opens);
    expect(honest.opens - bled.opens).toBeLessThan(honest.closes - bled.closes);
    expect(bled.centre).toBeLessThan(honest.centre - 1);
  });

  test('a sticking roller never comes down: only the opening side can be read', () => {
    const { pair } = pairs({ lifter: { kind: 'sticking' } });
    expect(pair.closing).toBeNull();
    expect(opensOnly('intake', pair.opening, 0)).toBeCloseTo(opensOnly('intake', pairs({}).pair.opening, 0), 6);
  });

  test('slack shows between the two directions, and nowhere else', () => {
    const { engine } = pairs({ slack: 3 });
    engine.comeForwardTo(START.intake);
    engine.zeroIndicator('intake', 'lifter');
    engine.turnUntil('intake', 'lifter', 2.5, 1, 'rising');
    const there = engine.position();
    engine.turn(20);
    engine.turnUntil('intake', 'lifter', 2.5, -1, 'falling');
    expect(wrap180(there - engine.position())).toBeCloseTo(3, 3);
    // Backed up well past and come again: as if nothing had been.
    engine.turn(-30);
    engine.turnUntil('intake', 'lifter', 2.5, 1, 'rising');
    expect(wrap180(there - engine.position())).toBeCloseTo(0, 6);
  });

  test('at the valve: lift × ratio − lash', () => {
    const { engine } = pairs({});
    engine.comeForwardTo(START.intake);
    engine.zeroIndicator('intake', 'valve');
    engine.comeForwardTo(engine.noseOf('intake'));
    expect(engine.indicator('intake', 'valve')).toBeCloseTo(8.4 * 1.5 - 0.3, 6);
  });
});

// GUM: the stated interval covers the truth 95 times in 100; a rectangular term that dominates may only make it wider.
describe('with errors the stated interval covers the truth', () => {
  const conditions = [
    ['a large wheel, a coarse indicator', { step: 0.25, resolution: 0.05, eye: 0.1 }, 1],
    ['a small wheel, three rounds', { step: 0.5, resolution: 0.02, eye: 0.1 }, 3],
  ] as const;
  const TDC = 0.12;

  test.each(conditions)('%s', (_what, errors: CamErrors, rounds) => {
    const random = makeRandom(90 + rounds);
    const covered = { centreline: 0, centre: 0, duration: 0, opens: 0, exhaust: 0 };
    const trials = 1200;
    const truth = flanksAt(LEANING.intake, DROP);
    const nose = flanksAt(LEANING.intake, 8.4 - DROP);
    const exhaustNose = flanksAt(LEANING.exhaust, 8.2 - DROP);
    for (let trial = 0; trial < trials; trial += 1) {
      const mount = random.within(180);
      const advance = random.within(5);
      const engine = makeValveTrain({ ...SOLID, lobes: LEANING, mount }, errors, random);
      engine.assemble({ intake: advance, exhaust: advance });
      const zero = mount + random.normal(TDC);
      const known = { trace: null, card: LEANING.intake, scale: 1 };
      const terms = (height: number, card = LEANING.intake) =>
        pairTerms(slopesAt(height, { ...known, card }), {
          wheelStep: errors.step,
          resolution: errors.resolution,
          tdc: TDC,
        });
      const take = <T>(read: () => T): T[] => Array.from({ length: rounds }, read);
      const low = take(() => eventsOf('intake', heightPair(engine, 'intake'), zero));
      const check = (
        name: keyof typeof covered,
        values: readonly number[],
        of: ReturnType<typeof terms>['centre'],
        really: number,
      ): void => {
        const { mean, expanded } = combineRounds(values, of);
        if (Math.abs(mean - really) <= expanded) covered[name] += 1;
      };
      const lowTerms = terms(DROP);
      const [opening, closing] = [(truth?.opening ?? 0) - advance, (truth?.closing ?? 0) - advance];
      check(
        'centre',
        low.map((each) => each.centre),
        lowTerms.centre,
        (opening + closing) / 2,
      );
      check(
        'duration',
        low.map((each) => each.duration),
        lowTerms.duration,
        closing - opening,
      );
      check(
        'opens',
        low.map((each) => each.opens),
        lowTerms.opening,
        -opening,
      );
      check(
        'centreline',
        take(() => centreOf('intake', dropPair(engine, 'intake'), zero)),
        terms(8.4 - DROP).centre,
        ((nose?.opening ?? 0) + (nose?.closing ?? 0)) / 2 - advance,
      );
      check(
        'exhaust',
        take(() => centreOf('exhaust', dropPair(engine, 'exhaust'), zero)),
        terms(8.2 - DROP, LEANING.exhaust).centre,
        -(((exhaustNose?.opening ?? 0) + (exhaustNose?.closing ?? 0)) / 2 - advance),
      );
    }
    for (const [name, count] of Object.entries(covered)) {
      expect([name, count / trials >= 0.93]).toEqual([name, true]);
      expect([name, count / trials <= 0.998]).toEqual([name, true]);
    }
  });
});
