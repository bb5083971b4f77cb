import { VALVES, type Valve } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import { peakOf, slopesAt } from '../cam/lobe-slopes';
import { type LobePlace, type NextLobe, lobePlaces, nextLobe } from '../measure/lobe-round';
import { READ_METHODS } from '../measure/read-methods';
import { pairTerms } from '../measure/read-uncertainty';
import type { Ground, Trial } from '../record/parts';
import { median } from '../statistics/median';
import { NORMAL_95 } from '../statistics/normal';
import { BASE_ZERO, PRIOR } from '../verdict/unknowns';
import { springsOf } from './lift-theory';
import type { RoundFinding } from './readings/read-rounds';
import { resolutionOf, wheelStepOf } from './readings/zero-passes';

/** How a figure of a lobe stands beside those of the others. perhaps: at the edge of what can be read. alone: too few to compare. */
export type BesideOthers = 'same' | 'perhaps' | 'differs' | 'alone';

export interface ComparedFigure {
  /** mm, or degrees of a centreline as printed. */
  readonly value: number;
  readonly count: number;
  /** From the middle of all, and what the readings cannot tell from nothing, 95 %. */
  readonly apart: number;
  readonly expanded: number;
  readonly state: BesideOthers;
}

export interface LobeRow {
  readonly cylinder: number;
  readonly lift: ComparedFigure | null;
  readonly centreline: ComparedFigure | null;
}

/** All lobes of one kind, read with the indicator on one thing. */
export interface LobeTable {
  readonly valve: Valve;
  readonly at: 'lobe' | 'valve';
  /** Middle of the lifts, mm, and what the card prints of the lobe; null where there is none. */
  readonly usual: number | null;
  readonly printed: number | null;
  /** Do the lifts differ among themselves by more than can be read, so that no single one stands out? mm from least to greatest, or null. */
  readonly uneven: number | null;
  readonly rows: readonly LobeRow[];
}

/** The figures of a table that are another than those of the other cylinders, as far as known. */
export const lobesThatDiffer = ({ rows }: Pick<LobeTable, 'rows'>) =>
  rows.flatMap(({ cylinder, ...figures }) =>
    (['lift', 'centreline'] as const).flatMap((figure) => {
      const found = figures[figure];
      return found?.state === 'differs' ? [{ cylinder, figure, apart: found.apart, expanded: found.expanded }] : [];
    }),
  );

/** Lobes of one camshaft are ground to within this of each other, mm (1 sigma): 0.0005 in. From memory. */
const GROUND = 0.0127;
/** Ratios of the rockers of one set, as a share (1 sigma). From memory. */
const ROCKERS = 0.01;
/** Beyond so many standard uncertainties it is asked for again, and called another: of sixteen good lobes one in a thousand rounds is accused. */
const PERHAPS = 3;
const DIFFERS = 4;
/** Fewer say that they differ, and not which of them is wrong. */
const FEWEST = 3;
/** A median of n values errs so much more than their mean. */
const MEDIAN_ERRS = 1.2533;
/** Standard deviation from the median of the distances. */
const FROM_MEDIAN = 1.4826;
/** Scatter so many times of what is expected is no scatter of readings. */
const UNEVEN = 2.5;

/** The lobes of a trial beside each other: lift, and the centreline where it was read. Only kinds of which more than one cylinder was read. */
export function deriveLobes(
  trial: Trial,
  rounds: readonly RoundFinding[],
  build: Ground,
  card: CompletedCard,
): LobeTable[] {
  // Mostly one cylinder was read: then there is nothing to stand beside it.
  if (rounds.every(({ cylinder }) => cylinder === rounds[0]?.cylinder)) return [];
  const sound = rounds.filter(({ problem, lacking }) => problem === null && lacking === 0);
  const springs = springsOf(trial);
  return VALVES.flatMap((valve) =>
    (['lobe', 'valve'] as const).flatMap((at): LobeTable[] => {
      const mine = sound.filter((each) => each.valve === valve && (each.sitsOn === 'valve') === (at === 'valve'));
      const lifts = byCylinder(
        underOneSpring(
          mine.filter(({ method }) => READ_METHODS[method].reads === 'peak-lift'),
          springs,
        ),
        ({ lift }) => lift,
      );
      const centres = byCylinder(comparable(mine, build), ({ centreline }) => centreline);
      if (lifts.size < 2 && centres.size < 2) return [];
      const { values: lift, scatter } = compare(lifts, (count, value) => liftError(count, value, at, build));
      const { values: centre } = compare(centres, (count) => centreError(count, valve, at, build, card));
      const all = [...lifts.values()].flat();
      return [
        {
          valve,
          at,
          usual: all.length > 0 ? median([...lifts.values()].map(mean)) : null,
          printed: at === 'lobe' ? card[valve].lobeLift : card[valve].valveLift,
          uneven: scatter ? Math.max(...all) - Math.min(...all) : null,
          rows: [...new Set([...lifts.keys(), ...centres.keys()])]
            .sort((a, b) => a - b)
            .map((cylinder) => ({
              cylinder,
              lift: lift.get(cylinder) ?? null,
              centreline: centre.get(cylinder) ?? null,
            })),
        },
      ];
    }),
  );
}

/** Lifts under full springs lack what bends: only those under the springs of the last one stand beside each other. */
function underOneSpring(rounds: readonly RoundFinding[], springs: ReturnType<typeof springsOf>): RoundFinding[] {
  const of = (round: RoundFinding | undefined) => springs.get(round?.readings[0]?.entry ?? '');
  const last = of(rounds.at(-1));
  return rounds.filter((round) => of(round) === last);
}

/** Centrelines that can stand beside each other: on proved zeros, and of one camshaft. The cams of two banks sit as each was set. */
const comparable = (rounds: readonly RoundFinding[], { description }: Ground): readonly RoundFinding[] =>
  description.body.engine.secondBank === undefined ? rounds.filter(({ zeroProved }) => zeroProved) : [];

function byCylinder(
  rounds: readonly RoundFinding[],
  figure: (round: RoundFinding) => number | null,
): Map<number, number[]> {
  const found = new Map<number, number[]>();
  for (const round of rounds) {
    const value = figure(round);
    if (value !== null) found.set(round.cylinder, [...(found.get(round.cylinder) ?? []), value]);
  }
  return found;
}

const mean = (values: readonly number[]): number => values.reduce((sum, each) => sum + each, 0) / values.length;

/** What one lift may err by, as far as it may differ from that of a good lobe beside it: dial, zero on the base circle, grinding, rockers. */
function liftError(count: number, lift: number, at: 'lobe' | 'valve', { description }: Ground): number {
  const look = resolutionOf(description.body) / 4;
  const reading = Math.hypot(look, look, BASE_ZERO) / Math.sqrt(count);
  return Math.hypot(reading, GROUND, at === 'valve' ? ROCKERS * lift : 0);
}

/** And one centreline, crank degrees: TDC errs alike in all of them. */
function centreError(
  count: number,
  valve: Valve,
  at: 'lobe' | 'valve',
  { description }: Ground,
  card: CompletedCard,
): number {
  const scale = at === 'valve' ? (card[valve].ratio ?? 1) : 1;
  const known = { trace: null, card: card[valve].curve, scale };
  const terms = pairTerms(slopesAt(peakOf(known) - DROP, known), {
    wheelStep: wheelStepOf(description.body),
    resolution: resolutionOf(description.body),
    tdc: 0,
  });
  return Math.hypot(terms.centre.wheel, terms.centre.indicator / Math.sqrt(count), PRIOR.apart);
}
/** The drop that centrelines are usually read at, mm. Common practice, no source. */
const DROP = 1.27;

/** Each figure beside the middle of all. Where several stand off there is no middle to trust, and it is said of the whole. */
function compare(
  figures: ReadonlyMap<number, readonly number[]>,
  errorOf: (count: number, value: number) => number,
): { readonly values: ReadonlyMap<number, ComparedFigure>; readonly scatter: boolean } {
  const means = [...figures.values()].map(mean);
  const middle = median(means);
  const usual = errorOf(1, middle);
  const scattered = FROM_MEDIAN * median(means.map((each) => Math.abs(each - middle)));
  const few = figures.size < FEWEST;
  const values = new Map<number, ComparedFigure>();
  for (const [cylinder, readings] of figures) {
    const value = mean(readings);
    const own = errorOf(readings.length, middle);
    // A rough hand is seen in all of them, and excuses each.
    const standard = Math.hypot(
      Math.max(own, Math.min(scattered, UNEVEN * own)),
      (MEDIAN_ERRS * usual) / Math.sqrt(figures.size),
    );
    const apart = value - middle;
    const times = Math.abs(apart) / standard;
    values.set(cylinder, {
      value,
      count: readings.length,
      apart,
      expanded: NORMAL_95 * standard,
      state: few ? 'alone' : times > DIFFERS ? 'differs' : times > PERHAPS ? 'perhaps' : 'same',
    });
  }
  const spread = means.length > 0 ? Math.max(...means) - Math.min(...means) : 0;
  return { values, scatter: few ? spread > DIFFERS * Math.SQRT2 * usual : scattered > UNEVEN * usual };
}

/** Where to go on: the lobe that is read next, and how many are read of how many. */
export interface LobePlan {
  readonly next: NextLobe | null;
  readonly read: number;
  readonly all: number;
}

/** Half of the whole lift of a common lobe, crank degrees, and where common noses stand. From memory. */
const COMMON = { half: 150, intake: 108, exhaust: 112 } as const;

/** The order in which every lobe is read with the least turning, from where the last reading left the crank. */
export function planLobes(rounds: readonly RoundFinding[], build: Ground, card: CompletedCard): LobePlan {
  const { engine } = build.description.body;
  const places = lobePlaces(
    { order: engine.firingOrder, angles: engine.firingAngles },
    { intake: card.intake.centreline ?? COMMON.intake, exhaust: card.exhaust.centreline ?? COMMON.exhaust },
  );
  const peaks = rounds.filter(({ method, lift }) => READ_METHODS[method].reads === 'peak-lift' && lift !== null);
  const read = new Set(peaks.map(keyOf));
  const last = peaks.at(-1);
  const at = last ? (places.find((place) => keyOf(place) === keyOf(last))?.peak ?? null) : null;
  const half = Math.max(card.intake.curve?.half ?? COMMON.half, card.exhaust.curve?.half ?? COMMON.half);
  return {
    next: nextLobe(places, (place) => read.has(keyOf(place)), at, half),
    read: places.filter((place) => read.has(keyOf(place))).length,
    all: places.length,
  };
}

const keyOf = ({ cylinder, valve }: Pick<LobePlace, 'cylinder' | 'valve'>): string => `${cylinder} ${valve}`;
