import fc from 'fast-check';
import { lobeAt } from '../cam/lobe';
import { firingTdcs } from '../crank/firing';
import { type LashEngine, lashOrders, restingStops } from './lash-orders';
import { type Seat, clearOfRamp, cycleOf } from './resting';

/** A mild cam as its events are printed, crank degrees: opens 28 before TDC, closes 62 after BDC; opens 66 before BDC, closes 26 after TDC. */
const MILD: Readonly<Record<'intake' | 'exhaust', Seat>> = {
  intake: { opens: -28, closes: 242, slack: 0 },
  exhaust: { opens: -246, closes: 26, slack: 0 },
};
const EIGHT = [1, 5, 4, 2, 6, 3, 7, 8];

const orderOf = (engine: LashEngine, name: string) => {
  const found = lashOrders(engine).find(({ order }) => order === name);
  if (!found) throw new Error(`${name} is laid out`);
  return found;
};
const tableOf = (engine: LashEngine, name: string) =>
  orderOf(engine, name).stops.map(({ at, valves }) => [
    at,
    valves
      .map(({ cylinder, valve }) => `${cylinder}${valve === 'intake' ? 'i' : 'e'}`)
      .sort()
      .join(' '),
  ]);

/**
 * Which of two stops each valve is set at, written from the strokes by hand: a cylinder on its compression or power stroke rests on
 * both, one on its exhaust stroke on its intake, one on its intake stroke on its exhaust. Common practice, no source.
 */
function twoStopsByHand(order: readonly number[]): readonly (readonly [number, string])[] {
  const first: string[] = [];
  const second: string[] = [];
  const step = 720 / order.length;
  order.forEach((cylinder, at) => {
    // Cylinder 1 fires; this one fires so far after it, so it is that far before its firing TDC.
    const before = at * step;
    const [intake, exhaust] =
      before === 0
        ? [true, true]
        : before < 360
          ? // Compression, then intake, as one goes back: its exhaust rests, its intake is at work.
            [before < 90 - 20, true]
          : before === 360
            ? [false, false]
            : // Exhaust, then power: its intake rests, its exhaust is at work.
              [true, before > 630 + 20];
    (intake ? first : second).push(`${cylinder}i`);
    (exhaust ? first : second).push(`${cylinder}e`);
  });
  return [
    [0, first.sort().join(' ')],
    [360, second.sort().join(' ')],
  ];
}

test('two stops, a turn apart, for a four, a six and an eight: against tables written by hand from the strokes', () => {
  const four = { firing: { order: [1, 3, 4, 2] }, seats: MILD };
  expect(tableOf(four, 'two-stops')).toEqual([
    [0, '1e 1i 2i 3e'],
    [360, '2e 3i 4e 4i'],
  ]);
  const six = { firing: { order: [1, 5, 3, 6, 2, 4] }, seats: MILD };
  expect(tableOf(six, 'two-stops')).toEqual([
    [0, '1e 1i 2i 3e 4i 5e'],
    [360, '2e 3i 4e 5i 6e 6i'],
  ]);
  const eight = { firing: { order: EIGHT }, seats: MILD };
  expect(tableOf(eight, 'two-stops')).toEqual(twoStopsByHand(EIGHT));
  expect(orderOf(eight, 'two-stops').caught).toEqual([]);
});

test('by firing order: each cylinder at its own firing TDC, odd firing too, as far from its ramps as it can be', () => {
  const odd = { firing: { order: [1, 6, 5, 4, 3, 2], angles: [0, 90, 240, 330, 480, 570] }, seats: MILD };
  expect(tableOf(odd, 'firing')).toEqual([
    [0, '1e 1i'],
    [90, '6e 6i'],
    [240, '5e 5i'],
    [330, '4e 4i'],
    [480, '3e 3i'],
    [570, '2e 2i'],
  ]);
  // Of the intake it is 118° since it closed; of the exhaust 114° until it opens.
  expect(orderOf(odd, 'firing').nearest).toBeCloseTo(114, 9);
  expect(orderOf(odd, 'fewest').nearest).toBeGreaterThanOrEqual(20);
});

test('with a long cam the printed two stops catch valves on their ramp, and they are named', () => {
  const race = {
    intake: { opens: -70, closes: 290, slack: 0 },
    exhaust: { opens: -285, closes: 85, slack: 0 },
  };
  const { caught, stops } = orderOf({ firing: { order: EIGHT }, seats: race }, 'two-stops');
  expect(caught.length).toBeGreaterThan(0);
  expect(caught.every(({ clear }) => clear !== null && clear < 10)).toBe(true);
  // Reckoned by hand: cylinder 2 fires 270° on, so it stands at 90 of its own cycle: its exhaust closed 5° before.
  const first = stops[0]?.valves ?? [];
  expect(first.find(({ cylinder, valve }) => cylinder === 2 && valve === 'exhaust')?.clear).toBeCloseTo(5, 9);
});

test('as it is worked, nobody is sent to a ramp: whom two stops would catch is set at its own firing TDC', () => {
  const engine = {
    firing: { order: EIGHT },
    seats: { intake: { opens: -70, closes: 290, slack: 0 }, exhaust: { opens: -285, closes: 85, slack: 0 } },
  };
  const printed = orderOf(engine, 'two-stops');
  const worked = restingStops(printed.stops, engine);
  const near = printed.stops.flatMap(({ valves }) => valves).filter(({ clear }) => (clear ?? 0) < 20);
  expect(near.length).toBeGreaterThan(0);
  expect(worked.slice(0, 2).map(({ at }) => at)).toEqual([0, 360]);
  const set = worked.flatMap(({ at, valves }) => valves.map((each) => ({ at, ...each })));
  expect(new Set(set.map(({ cylinder, valve }) => `${cylinder} ${valve}`)).size).toBe(16);
  expect(set).toHaveLength(16);
  for (const { clear } of set) expect(clear).toBeGreaterThanOrEqual(20);
  for (const { cylinder, valve } of near)
    expect(set.find((each) => each.cylinder === cylinder && each.valve === valve)?.at).toBe(
      90 * EIGHT.indexOf(cylinder),
    );
});

test('by its partner: an intake rests while its exhaust begins to open, an exhaust while its intake closes', () => {
  const { stops, caught } = orderOf({ firing: { order: [1, 3, 4, 2] }, seats: MILD }, 'partner');
  expect(stops).toHaveLength(8);
  expect(caught).toEqual([]);
  for (const { watched, valves } of stops) {
    expect(valves).toHaveLength(1);
    expect(valves[0]?.cylinder).toBe(watched?.cylinder);
    expect(valves[0]?.valve).toBe(watched?.seen === 'exhaust-opens' ? 'intake' : 'exhaust');
  }
  // Two turns in all, never back.
  const places = stops.map(({ at }) => at ?? -1);
  expect([...places].sort((a, b) => a - b)).toEqual(places);
});

test('without seat events only what needs none is offered, and nothing is claimed', () => {
  const offered = lashOrders({ firing: { order: [1, 3, 4, 2] }, seats: null });
  expect(offered.map(({ order, nearest }) => [order, nearest])).toEqual([
    ['firing', null],
    ['partner', null],
  ]);
  expect(offered[1]?.stops.every(({ at }) => at === null)).toBe(true);
});

const cam = fc.record({
  cylinders: fc.integer({ min: 1, max: 12 }),
  intakeOpens: fc.integer({ min: -90, max: 5 }),
  exhaustCloses: fc.integer({ min: -5, max: 90 }),
  intakeLength: fc.integer({ min: 220, max: 400 }),
  exhaustLength: fc.integer({ min: 220, max: 400 }),
  seed: fc.integer({ min: 1, max: 1e6 }),
});

const engineOf = (each: typeof cam extends fc.Arbitrary<infer T> ? T : never): LashEngine => {
  const order = Array.from({ length: each.cylinders }, (_, at) => at + 1);
  // Any order of firing, evenly or not.
  const spread = (at: number): number => ((each.seed * (at + 1)) % 97) / 97;
  const angles = order.map((_, at) => (at === 0 ? 0 : ((at + 0.4 * spread(at)) * 720) / each.cylinders));
  return {
    firing: { order, angles },
    seats: {
      intake: { opens: each.intakeOpens, closes: each.intakeOpens + each.intakeLength, slack: 0 },
      exhaust: { opens: each.exhaustCloses - each.exhaustLength, closes: each.exhaustCloses, slack: 0 },
    },
  };
};

test('10,000 random cams: every valve is set once, at least 20° clear of its ramp, at the fewest stops', () => {
  fc.assert(
    fc.property(cam, (each) => {
      const { firing, seats } = engineOf(each);
      const { stops } = orderOf({ firing, seats }, 'fewest');
      const set = stops.flatMap(({ at, valves }) => valves.map((own) => ({ at, ...own })));
      const names = new Set(set.map(({ cylinder, valve }) => `${cylinder} ${valve}`));
      if (names.size !== 2 * each.cylinders || set.length !== names.size) return false;
      const after = new Map(firingTdcs(firing).map((tdc) => [tdc.cylinder, tdc.after as number]));
      // Told again from the cycle: neither open there, nor within 20° on either side.
      return set.every(({ at, cylinder, valve }) => {
        const seat = seats?.[valve];
        const here = cycleOf(at ?? 0, after.get(cylinder) ?? 0);
        return [-720, 0, 720].every(
          (turn) => seat && (here + turn <= seat.opens - 20 + 1e-6 || here + turn >= seat.closes + 20 - 1e-6),
        );
      });
    }),
    { numRuns: 10_000, seed: 19 },
  );
});

test('where it says three, no two places of the crank would have done: tried degree by degree', () => {
  fc.assert(
    fc.property(cam, (each) => {
      const { firing, seats } = engineOf(each);
      const { stops } = orderOf({ firing, seats }, 'fewest');
      const after = firingTdcs(firing);
      const restsAt = Array.from({ length: 720 }, (_, at) => {
        let rests = 0n;
        after.forEach((tdc, i) => {
          (['intake', 'exhaust'] as const).forEach((valve, j) => {
            const seat = seats?.[valve];
            if (seat && clearOfRamp(seat, cycleOf(at, tdc.after)) >= 20) rests |= 1n << BigInt(2 * i + j);
          });
        });
        return rests;
      });
      const all = (1n << BigInt(2 * each.cylinders)) - 1n;
      const two = restsAt.some((one, i) => restsAt.slice(i).some((other) => (one | other) === all));
      return stops.length > 2 ? !two : true;
    }),
    { numRuns: 60, seed: 20 },
  );
});

test('the clearance from the ramp is that of the lobe: where it says 0 the lobe has just begun', () => {
  const lobe = { peak: 8, nose: 108, half: 140, power: 3, lean: 4 };
  const seat = { opens: lobe.nose + lobe.lean - lobe.half, closes: lobe.nose + lobe.lean + lobe.half, slack: 0 };
  for (let at = -360; at < 360; at += 1) expect(lobeAt(lobe, at).lift > 0).toBe(clearOfRamp(seat, at) < 0);
});
