import { VALVES } from '../cam/card';
import type { LashWorld } from '../simulation/lash-world';
import type { PlayWorld } from '../simulation/play-world';
import type { RockerWorld } from '../simulation/rocker-world';
import { BLADE_STEP, valveKey } from '../simulation/valve-lash';
import type { Random } from '../statistics/random';
import { inches } from '../units/length';
import { between, either } from './at-random';
import type { PracticeBase } from './scenario';

/** Valve trains of practice engines, made up. */

/** What the exercises want set, mm: 0.016 in; and the rocker ratio. */
export const PRACTICE_LASH = 16 * BLADE_STEP;
const PRACTICE_RATIO = 1.5;

/** Valves as they are met: every one off by some thousandths, or one that is loose by what its ramp stood up. */
export function lashOf({ engine }: PracticeBase, kind: 'all' | 'one', random: Random): LashWorld {
  const keys = engine.firingOrder.flatMap((cylinder) => VALVES.map((valve) => ({ cylinder, valve })));
  const at = keys[Math.floor(random.even() * keys.length)];
  const loose = kind === 'one' && at ? { ...at, by: Math.round(between(random, 6, 14)) * BLADE_STEP } : null;
  const off = (): number => either(random) * Math.round(between(random, 3, 9)) * BLADE_STEP;
  const gaps = keys.map(({ cylinder, valve }) => {
    const isLoose = loose?.cylinder === cylinder && loose.valve === valve;
    return [valveKey(cylinder, valve), PRACTICE_LASH + (kind === 'all' ? off() : isLoose ? loose.by : 0)] as const;
  });
  return { ratio: PRACTICE_RATIO, gaps: Object.fromEntries(gaps), loose };
}

/** The card with what the valves are to be set to. */
export const withLash = ({ card, ...base }: PracticeBase): PracticeBase => ({
  ...base,
  card: {
    ...card,
    intake: { ...card.intake, lashCold: PRACTICE_LASH, ratio: PRACTICE_RATIO },
    exhaust: { ...card.exhaust, lashCold: PRACTICE_LASH, ratio: PRACTICE_RATIO },
  },
});

/** The card with the ratio of the rockers. */
export const withRockers = ({ card, ...base }: PracticeBase): PracticeBase => ({
  ...base,
  card: {
    ...card,
    intake: { ...card.intake, ratio: PRACTICE_RATIO },
    exhaust: { ...card.exhaust, ratio: PRACTICE_RATIO },
  },
});

/** Pushrods that can be had, mm. */
const PUSHROD_STEP = inches('0.050');

/** A right length that nobody could guess, and an adjustable pushrod that is well off it. Sizes from memory. */
export function rockersOf({ lobes }: PracticeBase, random: Random): RockerWorld {
  const right = inches('7.6') + between(random, 0, 20);
  return {
    rocker: { arm: inches('1.45'), ratio: PRACTICE_RATIO, lift: lobes.intake.peak * PRACTICE_RATIO },
    tip: inches('0.34'),
    right,
    gain: between(random, 0.92, 1.08),
    first: Math.round((right + either(random) * between(random, 4, 9)) / PUSHROD_STEP) * PUSHROD_STEP,
    step: PUSHROD_STEP,
  };
}

/** A button that is too long, or too short, behind a cover that gives. */
export const playOf = (random: Random): PlayWorld => ({
  play: (either(random) > 0 ? Math.round(between(random, 14, 24)) : Math.round(between(random, 1, 3))) * BLADE_STEP,
  flex: Math.round(between(random, 4, 8)) * BLADE_STEP,
});
