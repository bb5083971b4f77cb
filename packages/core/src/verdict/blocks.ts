import { NORMAL_95 } from '../statistics/normal';
import { printedAbout } from '../cam/lift-at-tdc';
import { EYE, FELT, repeatsOf } from '../measure/read-uncertainty';
import { type Predicted, byCatalogue, observedNear, predict, predictCard } from './cam-model';
import { centreOf } from './centre-means';
import type { ErrorSource } from '../statistics/coverage';
import type { Block } from '../statistics/least-squares';
import type { CardFact, Evidence, Observation, TdcLiftObservation } from './observations';
import { MM_PER_INCH } from '../units/length';
import { BASE_ZERO, type Guess, type Layout, SHAPE } from './unknowns';

/** Observations of one place, or of both flanks at one height, as one block; and what made each value err. */
export interface Found {
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
export interface Printed {
  readonly fact: CardFact;
  readonly block: Block;
  readonly rounding: number;
  readonly open: number;
}

const SQRT12 = Math.sqrt(12);
const square = (value: number): number => value * value;
/** Nothing is known better than this, crank degrees² or mm². */
export const LEAST = 1e-8;
/**
 * No real lobe is quite of the family that stands for it: where the card prints nothing each flank may by itself lie so far off, and a lift at TDC without the
 * card’s own lifts says no more than that. Crank degrees, from memory.
 */
const LIKENESS = { each: 0.25, atTdc: 4 } as const;
/** Lift below which it says nothing at all of a ramp, which no card prints: mm at the lobe. From memory. */
const RAMP = 0.15;
/**
 * Between two lifts at TDC that a card prints, and beyond them, the lobe bends: its slope grows by so much in a degree, mm. From memory. And they are printed
 * in thousandths of an inch.
 */
const BENDS = 0.006;
const LIFT_PRINTED = (MM_PER_INCH * 0.001) / SQRT12;

/** Observations of one place together, both flanks of a height side by side; points of a curve and, if wanted, rounds by themselves. */
export function groupsOf(observations: readonly Observation[], grouped: boolean): (readonly Observation[])[][] {
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

export function foundOf(
  evidence: Evidence,
  layout: Layout,
  guess: Guess,
  group: readonly (readonly Observation[])[],
): Found {
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
    // What the fingers felt no dial has shown, nor was zeroed.
    const felt = Number(first.kind === 'flank' && first.felt);
    const figure = (1 - felt) * Math.abs(guessed.byFigure) * each;
    // The zero of the indicator errs anew at each round, as the reading itself does.
    const zero = (1 - felt) * zeroOf(evidence, first);
    const eye = first.kind === 'peak-lift' || step === 0 ? 0 : EYE * (first.kind === 'flank' ? 1 : perDegree);
    const feel = (felt * FELT) / Math.SQRT2;
    const anew = Math.hypot(figure, Math.abs(guessed.byFigure) * zero, eye, feel);
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
        put('the feel', feel / Math.sqrt(count), false);
      }
      zeroes.push(scatters ? 0 : guessed.byFigure * zero);
    }
    // The same fingers feel it late or early in the same way each time.
    put('the feel', feel, false);
    if (first.kind === 'flank' && first.from === 'base' && layout.widths.has(first)) put(SHAPE, LIKENESS.each, false);
    if (first.kind === 'tdc-lift') put(SHAPE, shapeAtTdc(evidence, first, perDegree, guessed.byFigure), false);
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

/**
 * How far the shape of the lobe may put a lift at TDC off. By the card's own lifts, crank degrees: what is straight between two of them bends in the lobe.
 * By the likeness of its lobe, mm: what a few degrees of its flank are, and a ramp below it.
 */
function shapeAtTdc(evidence: Evidence, observation: TdcLiftObservation, perDegree: number, byFigure: number): number {
  const { valve, lift, atValve } = observation;
  const { catalogue, ratio } = evidence.lobes[valve];
  const centreline = byCatalogue(evidence, observation);
  const about = centreline === null ? null : printedAbout(catalogue, lift);
  if (centreline === null || !about) return Math.hypot(LIKENESS.atTdc * perDegree, RAMP * (atValve ? ratio : 1));
  const [from, to] = about.map((each) => Math.abs(centreline - each.centreline));
  return byFigure * Math.hypot((BENDS * (from ?? 0) * (to ?? 0)) / 2, LIFT_PRINTED);
}

/** Rounds in which both flanks were read. */
function pairsOf(group: readonly (readonly Observation[])[]): number {
  const [one = [], other = []] = group;
  const rounds = new Set(one.map(({ round }) => round));
  return other.filter(({ round }) => rounds.has(round)).length;
}

/** The card's figures as values. */
export function factsOf(evidence: Evidence, layout: Layout, guess: Guess): Printed[] {
  const blocks: Printed[] = [];
  for (const fact of evidence.card) {
    const predicted = predictCard(evidence, layout, guess, fact);
    if (!predicted) continue;
    const open = fact.of === 'centre' ? centreOf(evidence, layout, guess, fact.valve, fact.means).standard : 0;
    blocks.push({
      fact,
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
