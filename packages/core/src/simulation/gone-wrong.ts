import { MM_PER_INCH } from '../units/length';
import { VALVES, type Valve } from '../cam/card';
import type { FaultName } from '../verdict/faults';
import type { Observation } from '../verdict/observations';
import type { Wrong } from './measured-cam';
import type { Random } from '../statistics/random';

const sized = (random: Random, from: number, to: number): number =>
  (random.within(1) < 0 ? -1 : 1) * ((from + to) / 2 + random.within((to - from) / 2));
const oneIn = (random: Random, count: number): number =>
  Math.min(count - 1, Math.floor((random.within(0.5) + 0.5) * count));

/** A thorough measurement takes a pair of each centreline, a pair of events and the lift of each lobe: places of its readings on the wheel. */
const ON_WHEEL = [0, 1, 2, 3, 5, 6, 7, 8];
const LIFTS = [4, 9];

const turned = (each: Observation, by: number): Observation =>
  each.kind === 'flank' ? { ...each, angle: each.angle + by, ring: each.ring + by } : each;

/** How each fault is made on a virtual engine that is measured thoroughly; null for those that no reading shows. Sizes as they are met, from memory. */
export const GONE_WRONG: Readonly<Record<FaultName, ((random: Random) => Wrong) | null>> = {
  'wrong-side': (random) => {
    const place = ON_WHEEL[oneIn(random, ON_WHEEL.length)];
    return { written: (each, at) => (each.kind === 'flank' && at === place ? turned(each, -2 * each.ring) : each) };
  },
  'dead-centre': (random) => {
    const place = ON_WHEEL[oneIn(random, ON_WHEEL.length)];
    const mirrored = random.within(1) < 0;
    return {
      quadrants: true,
      written: (each, at) =>
        each.kind === 'flank' && at === place ? turned(each, 180 - (mirrored ? 2 * each.ring : 0)) : each,
    };
  },
  'ring-backwards': (random) => {
    const place = ON_WHEEL[oneIn(random, ON_WHEEL.length)];
    return {
      quadrants: true,
      written: (each, at) =>
        each.kind === 'flank' && at === place
          ? turned(each, 90 - 2 * (each.ring - 90 * Math.floor(each.ring / 90)))
          : each,
    };
  },
  misread: (random) => {
    const place = ON_WHEEL[oneIn(random, ON_WHEEL.length)];
    const by = random.within(1) < 0 ? -10 : 10;
    return { written: (each, at) => (at === place ? turned(each, by) : each) };
  },
  'flanks-exchanged': (random) => {
    const place = ON_WHEEL[2 * oneIn(random, 4)] ?? 0;
    return {
      written: (each, at) =>
        each.kind === 'flank' && (at === place || at === place + 1)
          ? { ...each, flank: each.flank === 'opening' ? 'closing' : 'opening' }
          : each,
    };
  },
  'wheel-slipped': (random) => {
    const from = ON_WHEEL[1 + oneIn(random, ON_WHEEL.length - 1)] ?? 1;
    const by = sized(random, 3, 12);
    return { written: (each, at) => (at >= from ? turned(each, by) : each) };
  },
  'tdc-not-proved': (random) => {
    const by = sized(random, 15, 40);
    return { written: (each) => turned(each, by) };
  },
  'tooth-out': (random) => ({ ahead: ((random.within(1) < 0 ? -1 : 1) * 720) / (34 + oneIn(random, 15)) }),
  backwards: (random) => {
    const place = ON_WHEEL[oneIn(random, ON_WHEEL.length)];
    return { slack: 2.5 + (random.within(0.5) + 0.5) * 3, backwards: (at) => at === place };
  },
  'valves-exchanged': (random) => {
    const only = [...VALVES, null][oneIn(random, 3)];
    return {
      written: (each) => {
        if (only && each.valve !== only) return each;
        const valve = each.valve === 'intake' ? 'exhaust' : 'intake';
        return { ...each, valve, view: each.view.replace(each.valve, valve) };
      },
    };
  },
  'at-valve': (random) => ({ throughRatio: [1.5, 1.6, 1.7][oneIn(random, 3)] ?? 1.5 }),
  'bleed-down': (random) => ({ lifter: { kind: 'bleeding', perDegree: 0.002 + (random.within(0.5) + 0.5) * 0.006 } }),
  sticking: (random) => {
    const valve: Valve = VALVES[oneIn(random, 2)] ?? 'intake';
    const by = Math.abs(sized(random, 5, 30));
    return {
      written: (each) =>
        each.kind === 'flank' && each.valve === valve && each.flank === 'closing' ? turned(each, by) : each,
    };
  },
  'wrong-cam': (random) => {
    const [longer, higher, apart] = [sized(random, 6, 14), sized(random, 0.4, 1.2), random.normal(3)];
    return {
      ground: (lobe, valve) => ({
        ...lobe,
        half: lobe.half + longer,
        peak: lobe.peak + higher,
        nose: lobe.nose + (valve === 'intake' ? apart : -apart),
      }),
    };
  },
  'worn-lobe': (random) => ({
    worn: { valve: VALVES[oneIn(random, 2)] ?? 'intake', by: Math.abs(sized(random, 0.3, 0.9)) },
  }),
  'lsa-off': (random) => {
    const by = sized(random, 5, 10);
    return {
      cams: 'single',
      ground: (lobe, valve) => (valve === 'exhaust' ? { ...lobe, nose: lobe.nose + by } : lobe),
    };
  },
  'other-tdc': null,
  units: (random) => {
    // 0.050 in was read and 0.050 mm written down, or a lift in inches as millimetres.
    const [place, isLift] = [[2, false] as const, [7, false] as const, [4, true] as const, [9, true] as const][
      oneIn(random, 4)
    ] ?? [2, false];
    return {
      written: (each, at) => {
        if (isLift)
          return each.kind === 'peak-lift' && at === place ? { ...each, lift: each.lift / MM_PER_INCH } : each;
        return each.kind === 'flank' && (at === place || at === place + 1) ? { ...each, figure: 0.05 } : each;
      },
    };
  },
  'card-figure': (random) => {
    const by = sized(random, 5, 12);
    const which = random.within(0.5) + 0.5;
    return {
      printed: (facts) => {
        const angles = facts.filter(({ of }) => of === 'opening' || of === 'closing' || of === 'centre');
        const wrong = angles[Math.min(angles.length - 1, Math.floor(which * angles.length))];
        return facts.map((fact) => (fact === wrong ? { ...fact, value: fact.value + by } : fact));
      },
    };
  },
  'cam-degrees': () => ({ written: (each) => (each.kind === 'flank' ? turned(each, -each.ring / 2) : each) }),
  stray: (random) => {
    const place = [...ON_WHEEL, ...LIFTS][oneIn(random, 10)];
    const by = sized(random, 5, 20);
    return {
      written: (each, at) =>
        at !== place ? each : each.kind === 'peak-lift' ? { ...each, lift: each.lift + by / 15 } : turned(each, by),
    };
  },
};
