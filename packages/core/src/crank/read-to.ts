import { MM_PER_INCH } from '../units/length';
import type { WheelReading } from './wheel';

/** Steps that people read to, coarsest first: of a wheel crank degrees, of a tape mm. */
const WHEEL_STEPS = [1, 0.5, 0.25, 0.1] as const;
const TAPE_STEPS = { mm: [1, 0.5], in: [MM_PER_INCH / 16, MM_PER_INCH / 32, MM_PER_INCH / 64] } as const;
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
export function readTo(shown: Iterable<WheelReading>): ReadTo {
  const wheel = new Coarsest(WHEEL_STEPS);
  let tape: Coarsest | null = null;
  // In one pass and without lists: a logbook is derived again at every key.
  for (const each of shown) {
    if (each.ring !== 'rim') wheel.add(each.shows);
    else (tape ??= new Coarsest(TAPE_STEPS[each.unit])).add(each.shows);
  }
  return { wheel: wheel.step, tape: tape?.step ?? null };
}

/** The coarsest of some steps, coarsest first, that all values so far are whole numbers of; the last where none is. */
class Coarsest {
  private at = 0;
  private any = false;
  constructor(private readonly steps: readonly number[]) {}

  add(value: number): void {
    this.any = true;
    while (this.at < this.steps.length - 1 && !isWhole(value / (this.steps[this.at] ?? 1))) this.at += 1;
  }

  get step(): number | null {
    return this.any ? (this.steps[this.at] ?? null) : null;
  }
}
