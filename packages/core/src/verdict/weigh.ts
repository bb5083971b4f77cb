import { wrap180 } from '../units/angle';
import { type Found, LEAST, type Printed, factsOf, foundOf, groupsOf } from './blocks';
import { observedNear, predict } from './cam-model';
import { downhill, misfit, withinLimits } from './descend';
import { type Belief, type Block, type Solved, leastSquares } from '../statistics/least-squares';
import type { Evidence, Observation } from './observations';
import { type Guess, type Layout, layOut } from './unknowns';

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

const square = (value: number): number => value * value;
const MOST_ROUNDS = 40;
/** A guess that still changes after so many rounds swings about its place, since what is flat there weighs less: half steps end that. */
const SWINGS = 8;
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
/** A step that is expected to better χ² by less changes nothing that is said. */
const NOTHING_GAINED = 0.05;

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
