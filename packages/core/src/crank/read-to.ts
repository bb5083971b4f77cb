import type { WheelReading } from './wheel';

/** Steps that people read to, coarsest first: of a wheel crank degrees, of a tape mm. */
const WHEEL_STEPS = [1, 0.5, 0.25, 0.1] as const;
const TAPE_STEPS = { mm: [1, 0.5], in: [25.4 / 16, 25.4 / 32, 25.4 / 64] } as const;
const ROUNDING = 1e-6;

const isWhole = (value: number): boolean => Math.abs(value - Math.round(value)) < ROUNDING;

/** Finest step on wheels, crank degrees, and on tapes, mm; null where nothing was read on one. */
export interface ReadTo {
  readonly wheel: number | null;
  readonly tape: number | null;
}

/**
 * How finely somebody reads, from what he wrote down: the coarsest step that all of it fits. Nearly everybody reads whole or half degrees, whatever the
 * keypad offers.
 * @param shown readings of wheels, as they were typed. Those of a tape are looked at by themselves.
 * @returns crank degrees for wheels, mm for tapes; null where nothing was read on one.
 * @example readTo([{ ring: '0-180', shows: 65.5, side: 'after' }, { ring: '0-180', shows: 20, side: 'before' }]) // { wheel: 0.5, tape: null }
 * Source: common practice, no source.
 */
export function readTo(shown: readonly WheelReading[]): ReadTo {
  const fits = (values: readonly number[], steps: readonly number[]): number | null =>
    values.length === 0
      ? null
      : (steps.find((step) => values.every((value) => isWhole(value / step))) ?? steps.at(-1) ?? null);
  const onWheel = shown.flatMap((each) => (each.ring === 'rim' ? [] : [each.shows]));
  const onRim = shown.flatMap((each) => (each.ring === 'rim' ? [each] : []));
  const unit = onRim[0]?.unit ?? 'mm';
  return {
    wheel: fits(onWheel, WHEEL_STEPS),
    tape: fits(
      onRim.map(({ shows }) => shows),
      TAPE_STEPS[unit],
    ),
  };
}
