import { type CrankDeg, crankDeg, toCam } from '../units/angle';
import { decimal } from '../units/decimal';
import { computedDegrees } from '../units/degrees';

/** Limit of the cam's position unless the builder sets another, crank degrees. Common practice, no source. */
export const DEFAULT_LIMIT = crankDeg(1);
/**
 * A worn or stacked-up drive puts a cam 2 to 8 degrees out. Beyond this something else is wrong, and turning the cam
 * on such a figure could bend valves. Common practice, no source.
 */
const BELIEVABLE = 15;
/** Repeats further apart than this are not repeats of one thing, however wide the limit. Common practice, no source. */
const REPEATS_AGREE = 1;
const ROUNDING = 1e-9;

export interface Evidence {
  /** The cam's advance against the target, crank degrees. */
  readonly delta: number;
  /** Half-width of its 95 % interval, crank degrees; null where it is not known. */
  readonly expanded: number | null;
  /** How far repeats of it lie apart, crank degrees. */
  readonly spread: number;
  /** How far from the target the cam may sit, crank degrees. */
  readonly limit: number;
  /** Was the zero that the readings lean on proved? */
  readonly zeroProved: boolean;
  /** What it was measured by and compared with, in words. */
  readonly basis: string;
  /** Two views of one cam that differ by more than their uncertainty allows, or null. */
  readonly disagreement: { readonly between: string; readonly by: number } | null;
}

export type VerdictKind = 'leave' | 'move' | 'measure-again' | 'do-not-move';

export interface Verdict {
  readonly kind: VerdictKind;
  /** The cam's advance against the target, crank degrees: positive early, negative late. */
  readonly delta: CrankDeg;
  /** Half-width of its 95 % interval, crank degrees; null where it is not known. */
  readonly expanded: number | null;
  /** The move that would cure it, crank degrees, −delta: positive advances. 0 unless the kind is `move`. */
  readonly move: CrankDeg;
  readonly headline: string;
  readonly action: string;
  readonly why: string;
}

/**
 * The judgement on the cam's place: the move is −δ.
 * @example judge({ delta: -2.5, spread: 0, limit: 1, zeroProved: true, … })
 *   // "The cam sits 2.5° late." "Advance it 2.5°: turn the cam the way it runs."
 * Source: 66 and 153 against 107 is 2.5° late, common practice, no source.
 */
export function judge(evidence: Evidence): Verdict {
  const { spread, limit, zeroProved, disagreement, expanded } = evidence;
  const delta = crankDeg(evidence.delta);
  const size = sizeAgainst(Math.abs(delta), limit);
  const early = delta > 0;
  const good = expanded === null || !zeroProved ? '' : `, ±${computedDegrees(Math.max(expanded, 0.05))}`;
  const sits =
    Math.abs(delta) < 0.05
      ? `The cam sits on the target${good}.`
      : `The cam sits ${size} ${early ? 'early' : 'late'}${good}.`;
  const why = `${evidence.basis}; limit ±${trim(limit)}°. A larger intake centreline is a later cam.`;
  const still = { delta, expanded, move: crankDeg(0), why };

  if (!zeroProved)
    return {
      ...still,
      kind: 'do-not-move',
      headline: 'Do not move it yet: TDC is not proved.',
      action: `${sits} But that counts from a zero that has not been proved. Go back to Zero and prove it.`,
    };
  if (disagreement)
    return {
      ...still,
      kind: 'measure-again',
      headline: `Do not move it yet: ${disagreement.between} disagree by ${computedDegrees(disagreement.by)}.`,
      action:
        'One cam cannot sit in two places. Measure both again, always coming forward, and undo what does not belong.',
    };
  if (Math.abs(delta) > BELIEVABLE)
    return {
      ...still,
      kind: 'do-not-move',
      headline: `Do not move it: ${size} ${early ? 'early' : 'late'} is not believable.`,
      action:
        'No ordinary drive is that far out. Check that it was the right lobe, the side of the wheel, the card, and that the timing marks are not a tooth out.',
    };
  if (spread > Math.max(limit, REPEATS_AGREE) + ROUNDING)
    return {
      ...still,
      kind: 'measure-again',
      headline: `Do not move it yet: your measurements differ by ${computedDegrees(spread)}.`,
      action: 'Measure it again, always coming forward, and undo the reading that does not belong.',
    };
  if (expanded !== null && Math.abs(delta) > limit + ROUNDING && expanded > Math.abs(delta))
    return {
      ...still,
      kind: 'measure-again',
      headline: `Do not move it yet: ${size} ${early ? 'early' : 'late'}, but only known to ±${computedDegrees(expanded)}.`,
      action: 'That does not even say which way. Measure it by a finer method, or more often.',
    };
  if (Math.abs(delta) <= limit + ROUNDING)
    return {
      ...still,
      kind: 'leave',
      headline: sits,
      action: `That is inside your limit of ±${trim(limit)}°. Leave it.`,
    };
  return {
    ...still,
    kind: 'move',
    move: crankDeg(-delta),
    headline: sits,
    action: early
      ? `Retard it ${size}: turn the cam against the way it runs.`
      : `Advance it ${size}: turn the cam the way it runs.`,
    why: `${why} ${size} at the crank is ${decimal(toCam(crankDeg(Math.abs(delta))), 2)}° at the cam.`,
  };
}

/** One decimal, or two where one would read as the limit itself although the value is over it. */
function sizeAgainst(size: number, limit: number): string {
  const blurred = size > limit + ROUNDING && decimal(size, 1) === decimal(limit, 1);
  return computedDegrees(size, blurred ? 2 : 1);
}

/** `trim(107)` is "107"; `trim(0.5)` is "0.5". */
const trim = (value: number): string => decimal(value, 2).replace(/\.?0+$/, '');
