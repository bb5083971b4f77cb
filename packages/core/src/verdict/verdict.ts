import { type CrankDeg, crankDeg } from '../units/angle';
import type { RulingMethod } from '../measure/read-methods';
import type { FaultName } from './faults';
import type { NextRound } from './next-reading';
import type { PrintedAngle } from './observations';

/**
 * A worn or stacked-up drive puts a cam 2 to 8 degrees out. Beyond this something else is wrong, and turning the cam
 * on such a figure could bend valves. Common practice, no source.
 */
export const BELIEVABLE = 15;
/** Readings that disagree more than chance makes them once in 200 times are not weighed together. */
export const CHANCE = 0.005;
/** A repeat that narrows what is known by less than this share is not worth its time. */
const WORTHWHILE = 0.15;
/** Repeats further apart than this are not repeats of one thing, however wide the limit, crank degrees. Common practice, no source. */
const REPEATS_AGREE = 1;
/** Figures that differ by less are the same. */
export const ROUNDING = 1e-9;

export const VERDICT_KINDS = ['leave', 'move', 'measure-again', 'do-not-move', 'wrong-cam', 'lsa-off'] as const;
export type VerdictKind = (typeof VERDICT_KINDS)[number];

/** A fault that is spoken of, with the readings that it concerns. */
export interface FaultFinding {
  readonly fault: FaultName;
  /** Did the closing check show it, or do the readings lead to it? */
  readonly seen: boolean;
  /** By how much it explains the readings better than "nothing is wrong": χ². */
  readonly better: number;
  readonly entries: readonly string[];
  /** The valve whose readings they are; null where they are of both, or of none. */
  readonly valve: 'intake' | 'exhaust' | null;
  /** How far it moved them, crank degrees or mm; null where that is known beforehand. */
  readonly amount: number | null;
  /** The figure of the card that is wrong, if it is one. */
  readonly printed: PrintedAngle | null;
}

/** What a verdict rests on that no reading has shown. */
export type Beside = 'nothing-moved' | 'one-pair' | 'card-contradicts' | 'card-by-events' | 'card-meaning';
/** What has to be done before the cam is moved, or left, since no reading shows what it would. */
export const FIRSTS = ['read-pair', 'read-both-ways', 'closing-check'] as const;
export type First = (typeof FIRSTS)[number];

/** What was weighed, and against what. */
export interface Basis {
  /** The method that the shop's rule lets speak; null where all speak together. */
  readonly rule: RulingMethod | null;
  /** How many measurements count. */
  readonly count: number;
  /** The centreline that it is compared with, as printed; null for the card. */
  readonly against: { readonly valve: 'intake' | 'exhaust'; readonly centreline: number } | null;
  /** Was anything left out that the card contradicts itself about? */
  readonly contradicted: boolean;
  /** Judged by the angle of a phaser in its maker's own scale: nominal, what is allowed either way, what it showed. */
  readonly scale?: { readonly nominal: number; readonly tolerance: number; readonly shows: number };
}

export interface Judged {
  readonly cam: 'single' | 'intake' | 'exhaust';
  /** Which bank of cylinders, where there are two. */
  readonly bank?: 1 | 2 | null;
  /** The cam's advance against the target, crank degrees. */
  readonly delta: number;
  /** Half-width of its 95 % interval, crank degrees. */
  readonly expanded: number;
  /** How far repeats of one thing lie apart at most, crank degrees. */
  readonly spread: number;
  /** How far from the target the cam may sit, crank degrees. */
  readonly limit: number;
  /** Was the zero that the readings lean on proved? */
  readonly zeroProved: boolean;
  readonly basis: Basis;
  /** How likely chance alone makes the readings disagree so much. */
  readonly chance: number;
  /** Explanations that fit better than "nothing is wrong", best first. */
  readonly named: readonly FaultFinding[];
  /** What may have happened although nothing is accused, likeliest first; empty where nothing hints at anything. */
  readonly doubted: readonly FaultFinding[];
  /** Is the closing check still to be made, which would tell whether the wheel moved? */
  readonly closingDue: boolean;
  readonly first: readonly First[];
  /** Lobes whose card contradicts itself, and which were read one way only. */
  readonly oneSided: readonly ('intake' | 'exhaust')[];
  /** Entry of the reading that fits worst, where they disagree. */
  readonly worst: string | null;
  /** What to read next, and how well the place would be known then. */
  readonly next: NextRound | null;
  /** How far ahead of its card the target is, crank degrees; null where the card does not say. */
  readonly ahead: number | null;
  readonly beside: readonly Beside[];
  /** By how much the closing check showed the wheel to have moved, crank degrees; null where it has not, or nobody looked. */
  readonly moved: number | null;
  /** Could all that was read be weighed together? */
  readonly converged: boolean;
}

/** Why a verdict is what it is: the first of these that holds. */
export type Because =
  | 'zero-unproved'
  | 'moved'
  | 'not-weighed'
  | 'fault'
  | 'disagree'
  | 'target-far'
  | 'not-believable'
  | 'repeats-apart'
  | 'doubted'
  | 'way-unknown'
  | 'too-coarse'
  | 'inside'
  | 'outside';

export interface Verdict {
  readonly kind: VerdictKind;
  readonly because: Because;
  /** The cam's advance against the target, crank degrees: positive early, negative late. */
  readonly delta: CrankDeg;
  /** Half-width of its 95 % interval, crank degrees. */
  readonly expanded: number;
  /** The move that would cure it, crank degrees, −delta: positive advances. 0 unless the kind is `move`. */
  readonly move: CrankDeg;
  readonly judged: Judged;
}

/**
 * The judgement on a cam's place: the move is −δ. Its sentence is made in the Report.
 * @example judge({ delta: -2.5, expanded: 0.6, limit: 1, zeroProved: true, … })
 *   // { kind: 'move', because: 'outside', delta: -2.5, move: 2.5, … }
 * Source: what is late is advanced by as much; common practice, no source.
 */
export function judge(judged: Judged): Verdict {
  const delta = crankDeg(judged.delta);
  const because = reasonOf(judged);
  const kind = kindOf(because, judged);
  return { kind, because, delta, expanded: judged.expanded, move: crankDeg(kind === 'move' ? -delta : 0), judged };
}

function reasonOf(judged: Judged): Because {
  const { limit, expanded, spread } = judged;
  if (!judged.zeroProved) return 'zero-unproved';
  if (judged.moved !== null) return 'moved';
  if (!judged.converged) return 'not-weighed';
  if (judged.named.length > 0) return 'fault';
  if (judged.chance < CHANCE) return 'disagree';
  const off = Math.abs(judged.delta);
  // Seen from its card it may sit quite well: then its target is what no ordinary drive reaches.
  if (off > BELIEVABLE)
    return judged.ahead !== null && Math.abs(judged.delta + judged.ahead) <= BELIEVABLE / 3
      ? 'target-far'
      : 'not-believable';
  if (spread > Math.max(limit, REPEATS_AGREE) + ROUNDING) return 'repeats-apart';
  // A cam that is left where it is on a reading that may be wrong is as wrong as one that is moved.
  if (judged.doubted.length > 0) return 'doubted';
  if (off <= limit + ROUNDING) return expanded > 2 * limit && narrows(judged) ? 'too-coarse' : 'inside';
  return expanded > off ? 'way-unknown' : 'outside';
}

function kindOf(because: Because, { named }: Judged): VerdictKind {
  switch (because) {
    case 'inside':
      return 'leave';
    case 'outside':
      return 'move';
    case 'zero-unproved':
    case 'moved':
    case 'target-far':
    case 'not-believable':
      return 'do-not-move';
    case 'not-weighed':
    case 'disagree':
    case 'repeats-apart':
    case 'way-unknown':
    case 'too-coarse':
    case 'doubted':
      return 'measure-again';
    case 'fault': {
      const [likely, ...others] = named;
      const alone = others.length === 0 ? likely?.fault : undefined;
      return alone === 'wrong-cam' || alone === 'lsa-off' ? alone : 'do-not-move';
    }
  }
}

/** Would what can be read next tell so much more that it is worth its time? */
export const narrows = ({ next, expanded }: Judged): boolean =>
  next !== null && next.expanded < (1 - WORTHWHILE) * expanded;

const GRAVITY: readonly VerdictKind[] = ['do-not-move', 'wrong-cam', 'lsa-off', 'measure-again', 'move', 'leave'];

/** Which of several cams' verdicts is spoken of first: the gravest, and of equals the first. */
export const gravest = <V extends { readonly kind: VerdictKind }>(verdicts: readonly V[]): V | null =>
  [...verdicts].sort((a, b) => GRAVITY.indexOf(a.kind) - GRAVITY.indexOf(b.kind))[0] ?? null;
