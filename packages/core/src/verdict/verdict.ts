import { type CrankDeg, crankDeg, toCam } from '../units/angle';
import { decimal, shortDecimal } from '../units/decimal';
import { computedDegrees } from '../units/degrees';
import type { FaultName } from './faults';

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
const ROUNDING = 1e-9;

export const VERDICT_KINDS = ['leave', 'move', 'measure-again', 'do-not-move', 'wrong-cam', 'lsa-off'] as const;
export type VerdictKind = (typeof VERDICT_KINDS)[number];

/** A fault as it is spoken of. */
export interface NamedFault {
  readonly fault: FaultName;
  /** To stand after "most likely". */
  readonly words: string;
  readonly check: string;
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
  /** What it was measured by and compared with, in words. */
  readonly basis: string;
  /** How likely chance alone makes the readings disagree so much. */
  readonly chance: number;
  /** Explanations that fit better than "nothing is wrong", best first. */
  readonly named: readonly NamedFault[];
  /** What may have happened although nothing is accused, and what would tell; null where nothing hints at anything. */
  readonly doubted: { readonly words: string; readonly tells: string } | null;
  /** What no reading can show of these, and what would: done before the cam is moved, each after "First". */
  readonly first: readonly string[];
  /** The reading that fits worst, in words. */
  readonly worst: string | null;
  /** What to read next, in words, and how well the place would be known then. */
  readonly next: { readonly words: string; readonly expanded: number } | null;
  /** How far ahead of its card the target is, crank degrees; null where the card does not say. */
  readonly ahead: number | null;
  /** What stands beside it, each a sentence. */
  readonly beside: readonly string[];
  /** What the closing check showed to have moved, in words; null where nothing has, or nobody looked. */
  readonly moved: string | null;
  /** Could all that was read be weighed together? */
  readonly converged: boolean;
}

export interface Verdict {
  readonly kind: VerdictKind;
  /** The cam's advance against the target, crank degrees: positive early, negative late. */
  readonly delta: CrankDeg;
  /** Half-width of its 95 % interval, crank degrees. */
  readonly expanded: number;
  /** The move that would cure it, crank degrees, −delta: positive advances. 0 unless the kind is `move`. */
  readonly move: CrankDeg;
  readonly headline: string;
  readonly action: string;
  /** What it rests on that no reading has shown, and which one would: each a sentence. */
  readonly beside: readonly string[];
  readonly why: string;
}

const CAM_WORDS = { single: 'cam', intake: 'intake cam', exhaust: 'exhaust cam' } as const;

/**
 * The judgement on a cam's place, in the words of a foreman: the move is −δ.
 * @example judge({ delta: -2.5, expanded: 0.6, limit: 1, zeroProved: true, … })
 *   // "The cam sits 2.5° late, ±0.6°." "Advance it 2.5°: turn the cam the way it runs."
 * Source: 66 and 153 against 107 is 2.5° late, common practice, no source.
 */
export function judge(judged: Judged): Verdict {
  const { limit, zeroProved, expanded, named, chance, next, worst, spread } = judged;
  const delta = crankDeg(judged.delta);
  const off = Math.abs(delta);
  const size = sizeAgainst(off, limit);
  const side = delta > 0 ? 'early' : 'late';
  const within = `±${computedDegrees(Math.max(expanded, 0.05))}`;
  const cam = judged.bank ? `${CAM_WORDS[judged.cam]} of bank ${judged.bank}` : CAM_WORDS[judged.cam];
  const sits = off < 0.05 ? `The ${cam} sits on the target, ${within}.` : `The ${cam} sits ${size} ${side}, ${within}.`;
  const later =
    judged.cam === 'exhaust'
      ? 'A smaller exhaust centreline is a later cam.'
      : 'A larger intake centreline is a later cam.';
  const why = `${judged.basis}; limit ±${shortDecimal(limit, 2)}°. ${later}`;
  const still = { delta, expanded, move: crankDeg(0), why, beside: [] };
  const narrows = next !== null && next.expanded < (1 - WORTHWHILE) * expanded;
  const again = narrows
    ? ` ${next.words}`
    : next
      ? ' Reading the same again would hardly help.'
      : ' Measure it by a finer method, or more often.';

  if (!zeroProved)
    return {
      ...still,
      kind: 'do-not-move',
      headline: 'Do not move it yet: TDC is not proved.',
      action: `${sits.replace(`, ${within}`, '')} But that counts from a zero that has not been proved. Go back to Zero and prove it.`,
    };
  if (judged.moved !== null)
    return {
      ...still,
      kind: 'do-not-move',
      headline: `Do not move the ${cam} yet: ${judged.moved}.`,
      action: 'Find TDC again, then repeat what was read since: nothing says which readings it took with it.',
    };
  if (!judged.converged)
    return {
      ...still,
      kind: 'measure-again',
      headline: `Do not move the ${cam} yet: the readings could not be weighed together.`,
      action: 'Each is shown with what it says by itself. Read the centreline or the events once more.',
    };
  const [likely, ...others] = named;
  if (likely) return { ...still, ...accused(likely, others, cam) };
  if (chance < CHANCE)
    return {
      ...still,
      kind: 'measure-again',
      headline: `Do not move the ${cam} yet: the readings do not agree.`,
      action: `By chance they differ this much less than once in ${chance < 0.001 ? 'a thousand' : 'two hundred'} times. ${worst ? `${worst} fits worst: read it again` : 'Read them again'}, always coming forward, and undo what does not belong.`,
    };
  if (off > BELIEVABLE) return { ...still, ...unbelievable(judged, size, side, cam) };
  if (spread > Math.max(limit, REPEATS_AGREE) + ROUNDING)
    return {
      ...still,
      kind: 'measure-again',
      headline: `Do not move the ${cam} yet: your repeats differ by ${computedDegrees(spread)}.`,
      action: 'Measure it again, always coming forward, and undo the reading that does not belong.',
    };
  if (off > limit + ROUNDING && expanded > off)
    return {
      ...still,
      kind: 'measure-again',
      headline: `Do not move the ${cam} yet: ${size} ${side}, but only known to ${within}.`,
      action: `That is too uncertain to say which way to move it.${again}`,
      beside: judged.beside,
    };
  if (off <= limit + ROUNDING && expanded > 2 * limit && narrows)
    return {
      ...still,
      kind: 'measure-again',
      headline: `Measure the ${cam} again: ${off < 0.05 ? 'on the target' : `${size} ${side}`}, but only known to ${within}.`,
      action: `That is too coarse for a limit of ±${shortDecimal(limit, 2)}°.${again}`,
      beside: judged.beside,
    };
  if (off > limit + ROUNDING && judged.doubted)
    return {
      ...still,
      kind: 'measure-again',
      headline: `Do not move the ${cam} yet: ${size} ${side}, but something may be wrong.`,
      action: `It may be that ${judged.doubted.words}. ${judged.doubted.tells}`,
    };
  if (off <= limit + ROUNDING)
    return {
      ...still,
      kind: 'leave',
      headline: sits,
      action: `${off < 0.05 ? 'That' : `${size} ${side}`} is inside your limit of ±${shortDecimal(limit, 2)}°. Leave it.${expanded > limit + ROUNDING ? ` It is known to ${within} only, so it may lie just outside.` : ''}`,
      beside: judged.beside,
    };
  return {
    ...still,
    kind: 'move',
    move: crankDeg(-delta),
    headline: sits,
    action: after(
      judged.first,
      delta > 0
        ? `Retard it ${size}: turn the cam against the way it runs.`
        : `Advance it ${size}: turn the cam the way it runs.`,
    ),
    beside: judged.beside,
    why: `${why} ${size} at the crank is ${decimal(toCam(crankDeg(off)), 2)}° at the cam.`,
  };
}

/** "First read the pair once more. Then advance it 2.5°: …" */
const after = (first: readonly string[], action: string): string =>
  first.length === 0
    ? action
    : `First ${first.join(', and ')}. Then ${action.charAt(0).toLowerCase()}${action.slice(1)}`;

/** What is said where a fault explains the readings: the likeliest, the check that tells, and what the readings cannot tell from it. */
function accused(
  likely: NamedFault,
  others: readonly NamedFault[],
  cam: string,
): Pick<Verdict, 'kind' | 'headline' | 'action'> {
  const alone = others.length === 0;
  const also = others.length > 0 ? ` It may also be that ${others.map(({ words }) => words).join('; or that ')}.` : '';
  if (alone && likely.fault === 'wrong-cam')
    return {
      kind: 'wrong-cam',
      headline: `Do not fit it: most likely ${likely.words}.`,
      action: likely.check,
    };
  if (alone && likely.fault === 'lsa-off')
    return {
      kind: 'lsa-off',
      headline: `Moving the ${cam} cannot cure it: most likely ${likely.words}.`,
      action: likely.check,
    };
  return {
    kind: 'do-not-move',
    headline: `Do not move the ${cam} yet: most likely ${likely.words}.`,
    action: `${likely.check}${also}`,
  };
}

/** A cam that no ordinary drive puts there, or a target that no ordinary drive reaches. */
function unbelievable(
  { delta, ahead }: Judged,
  size: string,
  side: string,
  cam: string,
): Pick<Verdict, 'kind' | 'headline' | 'action'> {
  // Seen from its card it may sit quite well.
  if (ahead !== null && Math.abs(delta + ahead) <= BELIEVABLE / 3)
    return {
      kind: 'do-not-move',
      headline: `Do not move the ${cam}: its target is ${size} away, and no timing set reaches that far.`,
      action: `It sits ${computedDegrees(Math.abs(delta + ahead))} from its card. Check the target at Card.`,
    };
  return {
    kind: 'do-not-move',
    headline: `Do not move the ${cam}: ${size} ${side} is not believable.`,
    action:
      'No ordinary drive is that far out. Check that it was the right lobe, the side of the wheel, the card, and that the timing marks are not a tooth out.',
  };
}

/** Which of several cams' verdicts is spoken of first: the gravest. */
const GRAVITY: readonly VerdictKind[] = ['do-not-move', 'wrong-cam', 'lsa-off', 'measure-again', 'move', 'leave'];

/** One verdict out of those of the cams: the gravest speaks, and where none forbids a move, each has its say. */
export function together(
  verdicts: readonly Verdict[],
  names: readonly string[] = ['Intake', 'Exhaust'],
): Verdict | null {
  const [first] = [...verdicts].sort((a, b) => GRAVITY.indexOf(a.kind) - GRAVITY.indexOf(b.kind));
  if (!first || verdicts.length < 2) return first ?? null;
  if (first.kind !== 'move' && first.kind !== 'leave') return first;
  const all = verdicts.map((verdict, at) => ({ ...verdict, name: names[at] ?? '' }));
  // Of four cams only those that are to be moved are spoken of one by one.
  const moving = all.filter(({ kind }) => kind === 'move');
  const told = verdicts.length > 2 && moving.length > 0 ? moving : all;
  const rest = all.length - told.length;
  const others = rest === 0 ? '' : ` The ${rest === 1 ? 'other sits' : `other ${rest} sit`} inside the limit.`;
  return {
    ...first,
    headline: `${told.map(({ headline }) => headline).join(' ')}${others}`,
    action: told.map(({ name, action }) => `${name}: ${action}`).join(' '),
    beside: [...new Set(told.flatMap(({ beside }) => beside))],
    why: all.map(({ name, why }) => `${name}: ${why}`).join(' '),
  };
}

/** One decimal, or two where one would read as the limit itself although the value is over it. */
function sizeAgainst(size: number, limit: number): string {
  const blurred = size > limit + ROUNDING && decimal(size, 1) === decimal(limit, 1);
  return computedDegrees(size, blurred ? 2 : 1);
}

/** `shortDecimal(107, 2)` is "107"; `shortDecimal(0.5, 2)` is "0.5". */
