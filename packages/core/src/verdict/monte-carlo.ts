import type { Valve } from '../cam/card';
import type { Lobe } from '../cam/lobe';
import type { Random } from '../statistics/random';
import type { ErrorSource } from '../statistics/coverage';
import { gainsOf, times } from '../statistics/least-squares';
import { figureOf, zeroOf } from './blocks';
import { noseOf } from './flank';
import { BINS, type DrawnPart } from './drawn';
import type { Placed } from './place-cam';
import type { Weighing } from './weigh';

/** A flank that was read once: drawn through the lobe itself, not through its slope. */
interface DrawnFlank {
  readonly gain: number;
  readonly flank: 'opening' | 'closing';
  readonly lobe: Lobe;
  /** Lift of the lobe at which it was read, mm, and what an error of the indicator adds to it for each mm. */
  readonly height: number;
  readonly perFigure: number;
  /** Half-width of the rounding of the wheel, crank degrees. */
  readonly halfStep: number;
  /** Half-width of the zero of the indicator, mm: the same for all flanks of a round. */
  readonly halfZero: number;
}

/** Everything that a drawing of the errors needs: plain values, to be sent to a worker. */
export interface DrawingCase {
  /** Errors that enter in a straight line, crank degrees of the result: half-widths of the even ones; the normal ones together are one normal. */
  readonly halves: readonly number[];
  readonly normal: number;
  /** Flanks of one round share the zero of the indicator. */
  readonly rounds: readonly (readonly DrawnFlank[])[];
  /** Half-width of the reading of the indicator, mm. */
  readonly halfFigure: number;
  /** What the law of propagation says: standard uncertainty and 95 % half-width. */
  readonly standard: number;
  readonly expanded: number;
}

const SQRT3 = Math.sqrt(3);
/** Errors below this move nothing, crank degrees. */
const LEAST = 1e-5;

/** What is to be drawn to check the interval of a cam's place. */
export function drawingCase(
  weighing: Weighing,
  placed: Placed,
  stated: { readonly standard: number; readonly expanded: number },
): DrawingCase {
  const { evidence, layout, guess, found, solved, card } = weighing;
  const terms: Pick<ErrorSource, 'standard' | 'rectangular'>[] = [];
  const rounds: DrawnFlank[][] = [];
  const lobeOf = (valve: Valve): Lobe => {
    const { nose, half, power, lean, peak } = layout.of[valve];
    const at = (place: number): number => (guess[place] ?? 0) + (solved.unknowns[place] ?? 0);
    return { nose: at(nose), half: at(half), power: at(power), lean: at(lean), peak: at(peak) };
  };
  found.forEach((each, index) => {
    const gains = placed.gains[index] ?? [];
    const once = each.observations.every(
      (members) => members.length === 1 && members[0]?.kind === 'flank' && members[0].standard === null,
    );
    for (const { standard, rectangular, place, byFigure, from } of each.own)
      if (!once || (!byFigure && !(from === 'reading the wheel' && rectangular)))
        terms.push({ standard: Math.abs(gains[place] ?? 0) * standard, rectangular });
    if (!once) {
      const common = each.shared?.reduce((sum, by, place) => sum + by * (gains[place] ?? 0), 0) ?? 0;
      terms.push({ standard: Math.abs(common), rectangular: true });
      return;
    }
    rounds.push(
      each.observations.flatMap((members, place): DrawnFlank[] => {
        const [first] = members;
        if (first?.kind !== 'flank') return [];
        const { valve, flank, from, figure, atValve, step } = first;
        const lobe = from === 'peak' ? noseOf(lobeOf(valve)) : lobeOf(valve);
        const { ratio, lash } = evidence.lobes[valve];
        const through = atValve ? ratio : 1;
        const height = from === 'base' ? (figure + (atValve ? lash : 0)) / through : lobe.peak - figure / through;
        const perFigure = (from === 'base' ? 1 : -1) / through;
        const halfZero = SQRT3 * zeroOf(evidence, first);
        return [{ gain: gains[place] ?? 0, flank, lobe, height, perFigure, halfStep: step / 2, halfZero }];
      }),
    );
  });
  // The card and what is believed beforehand: as they enter the weighing.
  const towards = times(solved.covariance, placed.wanted, layout.unknowns.length);
  for (const each of card) {
    const gain = Math.abs(gainsOf(each.block, towards)[0] ?? 0);
    terms.push(
      { standard: gain * each.rounding, rectangular: true },
      { standard: gain * each.open, rectangular: false },
    );
  }
  for (const standard of placed.beside) terms.push({ standard, rectangular: false });
  layout.unknowns.forEach(({ standard }, at) =>
    terms.push({ standard: Math.abs(towards[at] ?? 0) / Math.max(standard, 1e-4), rectangular: false }),
  );
  const { standard, expanded } = stated;
  return {
    halves: terms.flatMap((term) => (term.rectangular && term.standard > LEAST ? [term.standard * SQRT3] : [])),
    normal: Math.hypot(...terms.map((term) => (term.rectangular ? 0 : term.standard))),
    rounds,
    halfFigure: SQRT3 * figureOf(evidence),
    standard,
    expanded,
  };
}

/** Draws between two reports of how far it is. */
const SLICE = 25_000;

/**
 * Draws the errors of a result again and again, each from its own distribution, through the lobe as it is, and sees where the middle 95 % of the results lie.
 * @param draws a million gives the ends of the interval to about 0.2 % of its width.
 * @yields how many have been drawn; the last value is the result.
 * Source: JCGM 101:2008, clause 7 (7.7 for the interval).
 */
export function* drawErrors(
  { halves, normal, rounds, halfFigure, expanded }: DrawingCase,
  draws: number,
  random: Random,
): Generator<number, DrawnPart> {
  const reach = Math.max(4 * expanded, 1e-6);
  const bins = new Uint32Array(BINS);
  const flanks = rounds.map((round) =>
    round.map((each) => {
      const { peak, half, power, lean, nose } = each.lobe;
      const side = each.flank === 'opening' ? -half : half;
      const share = 1 / power;
      // As `flankOf`, without what is not needed here.
      const angle = (lift: number): number => {
        const left = 1 - (Math.min(lift, peak) / peak) ** share;
        return nose + lean * left + side * Math.sqrt(left);
      };
      return {
        gain: each.gain,
        height: each.height,
        perFigure: each.perFigure,
        halfStep: each.halfStep,
        halfZero: each.halfZero,
        angle,
        at: angle(each.height),
      };
    }),
  );
  let [sum, squares] = [0, 0];
  for (let drawn = 0; drawn < draws; drawn += 1) {
    if (drawn > 0 && drawn % SLICE === 0) yield drawn;
    let off = random.normal(normal);
    for (const half of halves) off += random.within(half);
    for (const round of flanks) {
      const zero = random.within(1);
      for (const each of round) {
        const lift = each.height + each.perFigure * (zero * each.halfZero + random.within(halfFigure));
        off += each.gain * (each.angle(Math.max(0, lift)) - each.at + random.within(each.halfStep));
      }
    }
    sum += off;
    squares += off * off;
    const bin = Math.floor(((off + reach) / (2 * reach)) * BINS);
    const into = Math.max(0, Math.min(BINS - 1, bin));
    bins[into] = (bins[into] ?? 0) + 1;
  }
  return { draws, sum, squares, bins, reach };
}
