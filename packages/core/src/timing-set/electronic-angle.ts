import type { Hardware } from './hardware';
import { asCrank } from './kinds/kind';

export type PhaserHardware = Extract<Hardware, { kind: 'phaser' }>;

/** A phaser's angle, read in its maker's scale. */
export interface AngleRead {
  readonly nominal: number;
  readonly shows: number;
  /** What it had been set to with the drive loose; null where nobody had set it. */
  readonly setTo: number | null;
}

export interface AngleCorrection {
  /** nominal − measured, in the maker's scale, with its sign. */
  readonly correction: number;
  /** The same as advance, crank degrees. */
  readonly advance: number;
  /** What the spring takes back in two turns, in the maker's scale; 0 until it was seen. */
  readonly windUp: number;
  readonly seen: number;
  /** What to set it to with the drive loose. */
  readonly setTo: number;
}

/**
 * The correction of a phaser's angle and what to set it to, so that after two turns of the crank it shows the nominal.
 * @param reads in their order; the last one counts, all of them show what the spring takes back.
 * @returns null without a reading.
 * Source: common practice, no source.
 */
export function correctAngle(hardware: PhaserHardware, reads: readonly AngleRead[]): AngleCorrection | null {
  const last = reads.at(-1);
  if (!last) return null;
  const taken = reads.flatMap(({ shows, setTo }) => (setTo === null ? [] : [setTo - shows]));
  const windUp = taken.length === 0 ? 0 : taken.reduce((sum, each) => sum + each, 0) / taken.length;
  const correction = last.nominal - last.shows;
  return {
    correction,
    advance: asCrank(hardware.sense === 'grows-early' ? correction : -correction, hardware.stamped),
    windUp,
    seen: taken.length,
    setTo: last.nominal + windUp,
  };
}
