import { EYE, NORMAL_95, repeatsOf } from '../measure/read-uncertainty';
import { wrap180 } from '../units/angle';
import {
  BASE_ZERO,
  type Guess,
  type Layout,
  type Predicted,
  type Unknown,
  SHAPE,
  byCatalogue,
  centreOf,
  layOut,
  observedNear,
  predict,
  predictCard,
} from './cam-model';
import type { ErrorSource } from './coverage';
import { type Belief, type Block, type Solved, leastSquares, squareOf } from './least-squares';
import type { Evidence, Observation, TdcLiftObservation } from './observations';

export interface WeighOptions {
  /** Repeats of a place taken together, so that rounding is not worn down. false: each reading by itself, for looking at them one by one. */
  readonly grouped?: boolean;
  /** How near its card the cam is believed to sit beforehand, crank degrees. Left out: anywhere. */
  readonly believable?: number;
  /** The card's lobes are not believed: another cam. */
  readonly loose?: boolean;
  /** Looks once, from the card's lobes, and does not improve the guess. */
  readonly once?: boolean;
  /** Leaves the readings out again: what the card says by itself of all that they bring up. */
  readonly blind?: boolean;
}

/** Observations of one place, or of both flanks at one height, as one block; and what made each value err. */
interface Found {
  readonly block: Block;
  /** One list for each value of the block. */
  readonly observations: readonly (readonly Observation[])[];
  /** Errors that belong to one value: its place in the block, and how far they move it. */
  readonly own: readonly (ErrorSource & { readonly place: number; readonly byFigure: boolean })[];
  /** The zero of the indicator, common to both flanks: how far it moves each value. */
  readonly shared: readonly number[] | null;
  readonly predicted: readonly Predicted[];
}

/** A figure of the card: its rounding, and how far it is open what it means. */
interface Printed {
  readonly block: Block;
  readonly rounding: number;
  readonly open: number;
}

export interface Weighing {
  readonly evidence: Evidence;
  readonly layout: Layout;
  readonly guess: Guess;
  readonly solved: Solved;
  readonly found: readonly Found[];
  /** The card's figures. */
  readonly card: readonly Printed[];
  /** Values that could have disagreed. */
  readonly freedom: number;
  /** Did the guess come to stand still? Where it did not, nothing may be concluded from it. */
  readonly converged: boolean;
}

const SQRT12 = Math.sqrt(12);
const square = (value: number): number => value * value;
const MOST_ROUNDS = 40;
/** A guess that still changes after so many rounds swings about its place, since what is flat there weighs less: half steps end that. */
const SWINGS = 8;
/** Shortest step that is tried, as a share of the whole one. */
const SHORTEST = 1 / 64;
/** A guess is good enough when no unknown moves by more: crank degrees, mm. Everything not named here enters in a straight line. */
const STILL = {
  nose: Infinity,
  half: 1,
  power: 0.03,
  lean: 1,
  peak: 0.05,
  scale: Infinity,
  ratio: 0.02,
  lash: Infinity,
  advance: Infinity,
  apart: Infinity,
  tdc: Infinity,
  base: 0.01,
  width: Infinity,
} as const;
/** A lift at TDC bends with where the cam sits. */
const STILL_WITH_LIFTS = { ...STILL, nose: 0.1, advance: 0.02 } as const;
/** Nothing is known better than this, crank degrees² or mm². */
const LEAST = 1e-8;
/**
 * No real lobe is quite of the family that stands for it: where the card prints nothing each flank may by itself lie so far off, and a lift at TDC without the
 * card’s own lifts says no more than that. Crank degrees, from memory.
 */
const LIKENESS = { each: 0.25, atTdc: 4 } as const;
/** Lifts at TDC that the card prints are carried on this far beyond them, and no further: share of what lies beyond. From memory. */
const BEYOND = 0.2;

/**
 * Weighs all that is known of a trial: the readings, each used once, the card's figures with their rounding, and what is believed of zeros, lobes and
 * instruments beforehand. Linearised about the best guess, which is improved until it stands still (Gauss–Newton, each step only as far as it brings
 * the guess nearer to all of it).
 * @returns null where nothing was observed.
 */
export function weigh(evidence: Evidence, options: WeighOptions = {}): Weighing | null {
  const { grouped = true, believable = null, loose = false, once = false, blind = false } = options;
  const { observations } = evidence;
  if (observations.length === 0) return null;
  const layout = layOut(evidence, observations, believable, loose);
  const groups = blind ? [] : groupsOf(observations, grouped);
  const still = observations.some((each) => each.kind === 'tdc-lift') ? STILL_WITH_LIFTS : STILL;
  const at = (guess: Guess) => {
    const found = groups.map((group) => foundOf(evidence, layout, guess, group));
    const card = loose ? [] : factsOf(evidence, layout, guess);
    const blocks = [...found, ...card].map(({ block }) => block);
    return { guess, found, card, blocks, beliefs: beliefsOf(layout, guess) };
  };
  const start: Guess = Float64Array.from(layout.unknowns, ({ mean }) => mean);
  startNear(evidence, layout, start, observations);
  let here = at(start);
  for (let round = 1; ; round += 1) {
    const solved = once ? leastSquares(here.beliefs, here.blocks) : withinLimits(layout, here);
    const step = solved.unknowns;
    const standsStill = layout.unknowns.every(({ name }, place) => Math.abs(step[place] ?? 0) < still[name]);
    // Or nothing is left to be gained: the slope of χ² is gone, whatever the step.
    const converged = standsStill || misfit(here, here) - solved.chiSquared < NOTHING_GAINED;
    const better =
      converged || once || round === MOST_ROUNDS ? null : downhill(layout, here, step, round > SWINGS ? 0.5 : 1, at);
    if (!better) {
      const { guess, found, card } = here;
      return { evidence, layout, guess, solved, found, card, freedom: freedomOf(layout, found, card), converged };
    }
    here = better;
  }
}

interface Stand {
  readonly guess: Guess;
  readonly blocks: readonly Block[];
  readonly beliefs: readonly Belief[];
}

/** A step from a guess, in which what stands at a limit of the family and wants to go beyond it stays there. */
function withinLimits(layout: Layout, { guess, beliefs, blocks }: Stand): Solved {
  const held = new Set<number>();
  for (;;) {
    const solved = leastSquares(
      beliefs.map((belief, at) => (held.has(at) ? { miss: 0, variance: LEAST } : belief)),
      blocks,
    );
    const before = held.size;
    layout.unknowns.forEach(({ name }, at) => {
      const limits = LIMITS[name];
      const [value, step] = [guess[at] ?? 0, solved.unknowns[at] ?? 0];
      if (limits && ((value <= limits[0] && step < 0) || (value >= limits[1] && step > 0))) held.add(at);
    });
    // Holding one may drive another to its own limit.
    if (held.size === before) return solved;
  }
}

/**
 * A step as far as it really brings the guess nearer to what was read: halved until it does, or just to the limit that it would cross. null where it never does.
 * @param most the largest share of the step that is tried.
 */
function downhill<S extends Stand>(
  layout: Layout,
  from: S,
  step: Float64Array,
  most: number,
  at: (guess: Guess) => S,
): S | null {
  const was = misfit(from, from);
  const shares: number[] = [];
  for (let share = most; share >= SHORTEST; share /= 2) shares.push(share);
  for (const share of [...shares, toLimit(layout, from.guess, step)]) {
    const there = at(
      kept(
        layout,
        from.guess.map((value, place) => value + share * (step[place] ?? 0)),
      ),
    );
    if (misfit(there, from) < was) return there;
  }
  return null;
}

/** The share of a step after which the first unknown has come to a limit of the family. */
function toLimit({ unknowns }: Layout, guess: Guess, step: Float64Array): number {
  let share = 1;
  unknowns.forEach(({ name }, at) => {
    const limits = LIMITS[name];
    const [value, by] = [guess[at] ?? 0, step[at] ?? 0];
    const room = limits && by !== 0 ? (limits[by < 0 ? 0 : 1] - value) / by : Infinity;
    if (room > 0) share = Math.min(share, room);
  });
  return share;
}

/** χ² of a guess, weighed as another has it: where a flank is flat it is known less well, and that must not draw the guess there. */
function misfit({ blocks, beliefs }: Stand, weighedAs: Stand): number {
  let sum = 0;
  for (const { miss, variance } of beliefs) sum += square(miss) / variance;
  blocks.forEach((block, place) => {
    const { covariance } = weighedAs.blocks[place] ?? block;
    sum += squareOf({ ...block, covariance }, NO_STEP);
  });
  return sum;
}
const NO_STEP = new Float64Array(0);
/** A step that is expected to better χ² by less changes nothing that is said. */
const NOTHING_GAINED = 0.05;

const determinantOf = (covariance: Block['covariance']): number =>
  covariance.length === 1 ? covariance[0] : covariance[0] * covariance[2] - square(covariance[1]);

const beliefsOf = ({ unknowns }: Layout, guess: Guess): Belief[] =>
  unknowns.map(({ mean, standard }, at) => ({
    miss: mean - (guess[at] ?? 0),
    variance: Math.max(square(standard), LEAST),
  }));

/** Values that could disagree: those of readings and card, less the cams whose place nobody believes anything of. */
const freedomOf = ({ unknowns }: Layout, found: readonly Found[], card: readonly Printed[]): number =>
  found.reduce((sum, { block }) => sum + block.rows.length, card.length) -
  unknowns.filter(({ name }) => name === 'advance').length;

/** Values of the family of lobes that are still lobes: crank degrees, mm. */
const LIMITS: Readonly<Partial<Record<Unknown['name'], readonly [number, number]>>> = {
  half: [60, 220],
  power: [1.3, 14],
  lean: [-30, 30],
  peak: [1, Infinity],
};

function kept(layout: Layout, guess: Guess): Guess {
  layout.unknowns.forEach(({ name }, at) => {
    const limits = LIMITS[name];
    if (limits) guess[at] = Math.max(limits[0], Math.min(limits[1], guess[at] ?? 0));
  });
  return guess;
}

/** How many readings are asked where the cam is. */
const ASKED = 16;

/** The card's lobes, and each cam where most of its flanks have it: near enough for every angle to be taken on the right turn, whatever one of them says. */
function startNear(evidence: Evidence, layout: Layout, guess: Guess, observations: readonly Observation[]): void {
  layout.unknowns.forEach(({ name, valve }, at) => {
    if (valve === null) return;
    const { lobe } = evidence.lobes[valve];
    if (name === 'half') guess[at] = lobe.half;
    if (name === 'power') guess[at] = lobe.power;
  });
  for (const place of new Set([layout.of.intake.advance, layout.of.exhaust.advance])) {
    if (place < 0) continue;
    const ahead = observations
      .filter((each) => each.kind === 'flank' && layout.of[each.valve].advance === place)
      .slice(0, ASKED)
      .map((each) => {
        const { value } = predict(evidence, layout, guess, each);
        return value - observedNear(evidence, each, value);
      });
    let least = Infinity;
    for (const one of ahead) {
      const apart = ahead.reduce((sum, other) => sum + Math.abs(wrap180(other - one)), 0);
      if (apart >= least) continue;
      least = apart;
      guess[place] = one;
    }
  }
}

/** Observations of one place together, both flanks of a height side by side; points of a curve and, if wanted, rounds by themselves. */
function groupsOf(observations: readonly Observation[], grouped: boolean): (readonly Observation[])[][] {
  const groups = new Map<string, Observation[][]>();
  for (const each of observations) {
    const apart = !grouped || (each.kind === 'flank' && each.standard !== null);
    const key = `${each.view} ${each.atValve} ${each.kind === 'peak-lift' ? '' : each.zero}${apart ? ` ${each.round}` : ''}`;
    const group = groups.get(key) ?? [];
    groups.set(key, group);
    const place = group.find(
      ([first]) => first?.kind !== 'flank' || each.kind !== 'flank' || first.flank === each.flank,
    );
    if (place) place.push(each);
    else group.push([each]);
  }
  return [...groups.values()];
}

/** Standard uncertainty of one look at the dial, mm: a quarter of its step. */
export const figureOf = ({ resolution }: Evidence): number => resolution / 4;

/** And of its zero at one round: on the base circle it is found less well than at a peak. */
export const zeroOf = (evidence: Evidence, observation: Observation): number =>
  observation.kind === 'flank' && (observation.from === 'peak' || observation.standard !== null)
    ? figureOf(evidence)
    : Math.hypot(figureOf(evidence), BASE_ZERO);

function foundOf(evidence: Evidence, layout: Layout, guess: Guess, group: readonly (readonly Observation[])[]): Found {
  const each = figureOf(evidence);
  const sources: (ErrorSource & { place: number; byFigure: boolean })[] = [];
  const predicted: Predicted[] = [];
  const misses: number[] = [];
  const variances: number[] = [];
  const zeroes: number[] = [];
  group.forEach((members, place) => {
    const [first] = members;
    if (!first) return;
    const guessed = predict(evidence, layout, guess, first);
    const { value } = guessed;
    predicted.push(guessed);
    // Each as near to the first as whole turns allow.
    const near = observedNear(evidence, first, value);
    const values = members.map((member) => observedNear(evidence, member, near));
    const count = values.length;
    // A lift was read where the wheel was read: its step comes in through the slope there.
    const perDegree = Math.abs(guessed.row[layout.of[first.valve].advance] ?? 0);
    const step = first.kind === 'peak-lift' ? 0 : (first.step * perDegree) / SQRT12;
    const figure = Math.abs(guessed.byFigure) * each;
    // The zero of the indicator errs anew at each round, as the reading itself does.
    const zero = zeroOf(evidence, first);
    const eye = first.kind === 'peak-lift' || step === 0 ? 0 : EYE * (first.kind === 'flank' ? 1 : perDegree);
    const anew = Math.hypot(figure, Math.abs(guessed.byFigure) * zero, eye);
    const { mean, wheel, stays, random, scatters, factor } = repeatsOf(values, step, anew);
    misses.push(mean - value);
    let variance = 0;
    const put = (from: string, standard: number, rectangular: boolean, byFigure = false): void => {
      if (standard <= 0) return;
      variance += square(standard);
      sources.push({ from, standard, rectangular, place, byFigure });
    };
    if (first.kind === 'flank' && first.standard !== null) {
      put('the trace', first.standard, false);
      zeroes.push(0);
    } else {
      put('reading the wheel', wheel, stays > 0.5 || count === 1);
      if (scatters) put('repeats', (factor / NORMAL_95) * random, false);
      else {
        put('the indicator', figure / Math.sqrt(count), count === 1, count === 1);
        put('reading the wheel', eye / Math.sqrt(count), false);
      }
      zeroes.push(scatters ? 0 : guessed.byFigure * zero);
    }
    if (first.kind === 'flank' && first.from === 'base' && layout.widths.has(first)) put(SHAPE, LIKENESS.each, false);
    if (first.kind === 'tdc-lift') {
      const beyond = beyondCatalogue(evidence, first);
      if (beyond === null) put(SHAPE, LIKENESS.atTdc * perDegree, false);
      else put(SHAPE, BEYOND * beyond, false);
    }
    variances.push(variance);
  });
  const counts = group.map(({ length }) => length);
  const pairs = pairsOf(group);
  const [a = 0, b = 0] = zeroes;
  const [n = 1, m = 1] = counts;
  const first = Math.max((variances[0] ?? 0) + (a * a) / n, LEAST);
  const second = Math.max((variances[1] ?? 0) + (b * b) / m, LEAST);
  const block: Block = {
    rows: predicted.map(({ row }) => row),
    misses,
    covariance: predicted.length === 1 ? [first] : [first, (a * b * pairs) / (n * m), second],
  };
  const shared = zeroes.every((zero) => zero === 0)
    ? null
    : zeroes.map((zero, at) => zero / Math.sqrt(counts[at] ?? 1));
  return { block, observations: group, own: sources, shared, predicted };
}

/** How far outside the centrelines for which the card prints lifts a lift at TDC lies, crank degrees; null where it prints none. */
function beyondCatalogue(evidence: Evidence, observation: TdcLiftObservation): number | null {
  const centreline = byCatalogue(evidence, observation);
  if (centreline === null) return null;
  const printed = evidence.lobes[observation.valve].catalogue.map((each) => each.centreline);
  return Math.max(0, centreline - Math.max(...printed), Math.min(...printed) - centreline);
}

/** Rounds in which both flanks were read. */
function pairsOf(group: readonly (readonly Observation[])[]): number {
  const [one = [], other = []] = group;
  const rounds = new Set(one.map(({ round }) => round));
  return other.filter(({ round }) => rounds.has(round)).length;
}

/** The card's figures as values. */
function factsOf(evidence: Evidence, layout: Layout, guess: Guess): Printed[] {
  const blocks: Printed[] = [];
  for (const fact of evidence.card) {
    const predicted = predictCard(evidence, layout, guess, fact);
    if (!predicted) continue;
    const open = fact.of === 'centre' ? centreOf(evidence, layout, guess, fact.valve, fact.means).standard : 0;
    blocks.push({
      block: {
        rows: [predicted.row],
        misses: [fact.value - predicted.value],
        covariance: [square(fact.standard) + square(open)],
      },
      rounding: fact.standard,
      open,
    });
  }
  return blocks;
}

/**
 * How badly readings and card go together, so that explanations can be compared which have unknowns of their own: χ² and the logarithm of the volume that
 * all could have taken, −2·ln of their probability but for a constant. An explanation that could explain anything pays for it.
 * Source: the marginal likelihood of a linear model with normal errors (e.g. MacKay, Information Theory, Inference, and Learning Algorithms, ch. 28).
 */
export function scoreOf({ layout, solved, found, card }: Weighing): number {
  let score = solved.chiSquared + solved.logNormal;
  for (const { standard } of layout.unknowns) score += Math.log(Math.max(square(standard), LEAST));
  for (const { block } of [...found, ...card]) score += Math.log(determinantOf(block.covariance));
  return score;
}

/** The same with some of the observations only: their blocks are kept as they are, and weighed again with the card and what is believed. */
export function narrowed(weighing: Weighing, keep: (observation: Observation) => boolean): Weighing {
  const found = weighing.found.filter(({ observations }) => {
    const first = observations[0]?.[0];
    return first !== undefined && keep(first);
  });
  const { layout, guess, card } = weighing;
  const solved = leastSquares(
    beliefsOf(layout, guess),
    [...found, ...card].map(({ block }) => block),
  );
  return { ...weighing, found, solved, freedom: freedomOf(layout, found, card) };
}
