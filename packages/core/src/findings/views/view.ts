import type { Valve } from '../../cam/card';
import type { CompletedCard } from '../../cam/complete-card';
import { slopesAt } from '../../cam/lobe-slopes';
import type { ReadMethodName } from '../../measure/read-methods';
import { type Combined, type PairTerms, type ReadSource, pairTerms } from '../../measure/read-uncertainty';
import { shortDecimal } from '../../units/decimal';
import { computedDegrees } from '../../units/degrees';
import type { Ground } from '../../record/parts';
import type { RoundFinding, SitsOn } from '../readings/read-rounds';
import type { TraceFinding } from '../readings/read-traces';
import { UNPROVED_TDC, resolutionOf, wheelStepOf } from '../readings/zero-passes';

/** One way of looking at the readings of a trial: what it found, how well, and what that makes of the cam's place. */
export interface View {
  readonly key: string;
  readonly method: ReadMethodName;
  /** Bank of cylinders; 1 where there is only one. */
  readonly bank: 1 | 2;
  readonly valve: Valve | 'both';
  readonly title: string;
  /** The figure in words, and what else belongs to it. */
  readonly shows: string;
  readonly detail: string | null;
  readonly value: number;
  readonly unit: 'crank degrees' | 'cam degrees' | 'mm' | 'ratio';
  /** Of the value, in its own unit. */
  readonly standard: number | null;
  readonly expanded: number | null;
  readonly budget: readonly { readonly from: ReadSource; readonly standard: number }[];
  readonly count: number;
  readonly spread: number;
  /** The cam's advance against the target as this view has it, crank degrees, and its 95 % half-width; null where nothing compares. */
  readonly delta: number | null;
  readonly deltaExpanded: number | null;
  /** Its share in the verdict; null where it has none. */
  readonly weight: number | null;
  /** What it was compared with. */
  readonly against: string | null;
  readonly proved: boolean;
  /** Something to know about it, or null. */
  readonly remark: string | null;
  /** Is it another figure than the card’s, beyond what the readings can? */
  readonly differs: boolean;
}

export interface ViewContext {
  readonly build: Ground;
  readonly card: CompletedCard;
  /** How far ahead of the card each cam shall sit, crank degrees; null where that cannot be said. */
  readonly ahead: Readonly<Record<Valve, number | null>>;
  /** The centreline to aim at, as printed, or null. */
  readonly wanted: Readonly<Record<Valve, number | null>>;
  readonly traces: readonly TraceFinding[];
  /** Uncertainties that were worked out already: the same heights come again in every trial. */
  readonly known: Map<string, PairTerms>;
}

const ratioOf = ({ build, card }: ViewContext, valve: Valve): number | null =>
  build.description.body.engine.rockerRatio?.[valve] ?? card[valve].ratio;

/** Lift at what the indicator sits on for each 1 of lobe. */
export const scaleOf = (context: ViewContext, valve: Valve, sitsOn: SitsOn): number =>
  sitsOn === 'valve' ? (ratioOf(context, valve) ?? 1) : 1;

/** Can a lift at what the indicator sits on be told as lift of the lobe? At the valve only with the rocker ratio. */
export const scaleKnown = (context: ViewContext, valve: Valve, sitsOn: SitsOn): boolean =>
  sitsOn !== 'valve' || ratioOf(context, valve) !== null;

/** A lift at what the indicator sits on, as lift of the lobe, mm: at the valve (lift + lash) ÷ ratio. */
export function atLobe(context: ViewContext, valve: Valve, sitsOn: SitsOn, lift: number): number {
  if (sitsOn !== 'valve') return lift;
  return (lift + (lashOf(context, valve) ?? 0)) / scaleOf(context, valve, sitsOn);
}

/** The lash that a valve is set to, mm, as the card prints it. */
export function lashOf({ build }: ViewContext, valve: Valve): number | null {
  const printed = build.card?.body[valve];
  return printed?.lashHot ?? printed?.lashCold ?? null;
}

const traceOf = ({ traces }: ViewContext, valve: Valve, sitsOn: SitsOn): TraceFinding | undefined =>
  traces.find((each) => each.valve === valve && each.curve && (each.sitsOn === 'valve') === (sitsOn === 'valve'));

/** What is known of the shape of a lobe, for the slopes of its flanks. */
export function knownOf(context: ViewContext, valve: Valve, sitsOn: SitsOn) {
  return {
    trace: traceOf(context, valve, sitsOn)?.curve ?? null,
    card: context.card[valve].curve,
    scale: scaleOf(context, valve, sitsOn),
  };
}

/** What the readings of rounds at one height are good for. */
export function termsAt(context: ViewContext, rounds: readonly RoundFinding[], height: number): PairTerms {
  const [first] = rounds;
  const { valve, sitsOn, zero } = first ?? { valve: 'intake', sitsOn: 'lifter', zero: null };
  const shape = knownOf(context, valve, sitsOn);
  const key = `${valve} ${sitsOn} ${height} ${zero?.standard} ${zero?.step}`;
  const before = shape.trace ? undefined : context.known.get(key);
  if (before) return before;
  const terms = pairTerms(slopesAt(height, shape), {
    wheelStep: zero?.step ?? wheelStepOf(context.build.description.body),
    resolution: resolutionOf(context.build.description.body),
    tdc: zero?.standard ?? UNPROVED_TDC,
  });
  if (!shape.trace) context.known.set(key, terms);
  return terms;
}

/** Rounds on a proved zero count alone where there are any. */
export function counting(rounds: readonly RoundFinding[]): readonly RoundFinding[] {
  const proved = rounds.filter((round) => round.zeroProved);
  return proved.length > 0 ? proved : rounds;
}

/** `pairsWords(2, 'pair', 0.5)` is "the mean of 2 pairs 0.5° apart". */
export const pairsWords = (count: number, noun: string, spread: number): string =>
  count === 1 ? `from one ${noun}` : `the mean of ${count} ${noun}s ${computedDegrees(spread)} apart`;

type Told = Pick<View, 'key' | 'title' | 'shows' | 'detail' | 'proved'> &
  Partial<Pick<View, 'unit' | 'against' | 'remark' | 'budget' | 'differs'>>;

/** A view of one combined figure, in crank degrees unless told otherwise. What it means for the cam's place comes of weighing the readings. */
export const makeView = (method: ReadMethodName, valve: View['valve'], found: Combined, told: Told): View => ({
  key: told.key,
  method,
  bank: 1,
  valve,
  title: told.title,
  shows: told.shows,
  detail: told.detail,
  value: found.mean,
  unit: told.unit ?? 'crank degrees',
  standard: found.standard,
  expanded: found.expanded,
  budget: told.budget ?? found.budget,
  count: found.count,
  spread: found.spread,
  delta: null,
  deltaExpanded: null,
  weight: null,
  against: told.against ?? null,
  proved: told.proved,
  remark: told.remark ?? null,
  differs: told.differs ?? false,
});

/** Groups that were read at one height with the indicator on one thing. */
export function groups(rounds: readonly RoundFinding[]): (readonly RoundFinding[])[] {
  const byHeight = new Map<string, RoundFinding[]>();
  for (const round of rounds) {
    const key = `${round.height} ${round.sitsOn === 'valve'}`;
    const group = byHeight.get(key);
    if (group) group.push(round);
    else byHeight.set(key, [round]);
  }
  return [...byHeight.values()].map(counting);
}

/** Key of the view of what was read at one height. */
export const viewKey = (method: ReadMethodName, valve: Valve, height: number, atValve: boolean): string =>
  `${method} ${valve} ${height} ${atValve}`;

/** A later intake has a larger centreline, a later exhaust a smaller one. */
export const sign = (valve: Valve): 1 | -1 => (valve === 'intake' ? 1 : -1);

/** As few decimals as it takes, two at most. `plainDegrees(107)` is "107". */
export const plainDegrees = (value: number): string => shortDecimal(value, 2);
