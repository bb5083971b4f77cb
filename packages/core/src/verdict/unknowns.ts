import { USUAL_HEIGHT } from '../cam/usual-height';
import type { Valve } from '../cam/card';
import type { Lobe } from '../cam/lobe';
import type { Evidence, FlankObservation, Observation } from './observations';

/**
 * How lobe, cam and measuring make the readings. Unknown are the lobes as ground, how far ahead the cam sits, and what the measuring brings with it:
 * each has a place in one list.
 */
export interface Unknown {
  readonly name: UnknownName;
  readonly valve: Valve | null;
  /** What is believed before anything is measured. */
  readonly mean: number;
  readonly standard: number;
  /** What it is called in a budget of uncertainty. */
  readonly from: string;
}

type UnknownName =
  | 'nose'
  | 'half'
  | 'power'
  | 'lean'
  | 'peak'
  | 'scale'
  | 'ratio'
  | 'lash'
  | 'advance'
  | 'apart'
  | 'tdc'
  | 'base'
  | 'width';

/** Up to 0.002 in, half of it the same in all rounds and half anew: each as a standard uncertainty, mm. From memory. */
export const BASE_ZERO = 0.0508 / Math.sqrt(6);

/** All from memory. Crank degrees, mm, or shares. */
export const PRIOR = {
  /** Where a nose stands of which the card says nothing. */
  nose: 10,
  /** Half of the whole duration of common lobes, and their steepness. */
  half: { mean: 150, standard: 15 },
  power: { mean: 2.2, standard: 0.5, shaped: 2 },
  /**
   * Event centre at 0.050 in less the middle of an equal drop: about +0.5° with 1.2° (1-sigma); at the foot nearly twice that. Common practice, no source.
   * Where the card's own figures lie further apart, nothing is believed of it beforehand.
   */
  lean: { mean: 0.9, standard: 2.2, unknown: 7 },
  peak: 1.5,
  /** An indicator a few degrees out of line: 1 − cos α. */
  scale: 0.007,
  /** A rocker's ratio against what is said of it, and lash against what was set. */
  ratio: 0.03,
  lash: 0.05,
  /** The lobes of another cam: nose and half-width, crank degrees. */
  other: { nose: 6, half: 12 },
  /** Lobes are ground to within about a quarter of a cam degree of each other. */
  apart: 0.5,
  /**
   * No real lobe is quite of the family that stands for it. Where the card prints nothing its two flanks may lie so far further in or out than the family
   * says, crank degrees: near the nose 0.050 in below the peak, and as the root of the drop at others; and at each other height. Whoever believed noses to be
   * within 3° of the usual would find a slip inside a pair a little more often, and call sound lobes worn whose noses are as wide as 50 to 52°.
   */
  width: { nose: 6, flank: 2 },
  /** Where a builder takes the base circle to be, mm: the part of it that is his habit, or the cam’s run-out. */
  base: BASE_ZERO,
} as const;

/** Height of the events, and drop from the peak, that a centreline is counted at, mm: 0.050 in. */
export const COUNTED_AT = USUAL_HEIGHT.in;

/** What the shape of a lobe is called in a budget. */
export const SHAPE = 'the lobe’s shape';
/** And what a centreline may be the middle of. */
export const LEAN = 'lean of the lobe';

/** Places of the unknowns of one valve in the list; −1 where there is none. */
export type Places = Readonly<
  Record<'nose' | 'half' | 'power' | 'lean' | 'peak' | 'scale' | 'ratio' | 'lash' | 'advance' | 'apart', number>
>;

interface Schools {
  readonly drops: boolean;
  readonly events: boolean;
}

export interface Layout {
  readonly unknowns: readonly Unknown[];
  readonly of: Readonly<Record<Valve, Places>>;
  readonly tdc: ReadonlyMap<string, number>;
  /** Where the base circle was taken to be; −1 where nothing counts from it. */
  readonly base: number;
  /** How much wider than its family the lobe is where these were read; of those that the card says nothing of. */
  readonly widths: ReadonlyMap<Observation, number>;
  /** What was read of each lobe, and what of its whole cam: drops from the peak, heights above the base circle. */
  readonly schools: Readonly<Record<Valve, { readonly ofLobe: Schools; readonly ofCam: Schools }>>;
}

/** What is believed of a lobe's form before anything is measured: crank degrees, the steepness a bare number. */
type Believed = Readonly<Record<'nose' | 'half' | 'power' | 'lean', Pick<Unknown, 'mean' | 'standard'>>>;

/** @param loose a lobe of another cam: somewhere about the card's. */
function believedOf({ lobes, leanUnknown }: Evidence, valve: Valve, loose: boolean): Believed {
  const { lobe, shape } = lobes[valve];
  const { nose, half, power, lean, other } = PRIOR;
  const leans = leanUnknown.includes(valve) ? lean.unknown : lean.standard;
  if (loose)
    return {
      nose: { mean: lobe.nose, standard: other.nose },
      half: { mean: lobe.half, standard: other.half },
      power: { mean: lobe.power, standard: power.standard },
      lean: { mean: 0, standard: leans },
    };
  return {
    nose: { mean: lobe.nose, standard: nose },
    half,
    power: { mean: power.mean, standard: shape === 'full' ? power.shaped : power.standard },
    lean: { mean: lean.mean, standard: leans },
  };
}

/** Nothing is known beforehand of where the cam sits. Crank degrees. */
const ANYWHERE = 1e5;

/**
 * The unknowns that these observations bring up.
 * @param believable standard deviation of the cam's place, crank degrees, where it shall be believed near its card; null: anywhere.
 * @param loose take the card's lobes as good as unknown: another cam.
 */
export function layOut(
  evidence: Evidence,
  observations: readonly Observation[],
  believable: number | null,
  loose: boolean,
): Layout {
  const unknowns: Unknown[] = [];
  const put = (unknown: Unknown): number => unknowns.push(unknown) - 1;
  const joined = evidence.card.some(({ of }) => of === 'separation' || of === 'ground-in');
  const single = evidence.cams === 'single';
  const advance = { name: 'advance', mean: 0, standard: believable ?? ANYWHERE, from: 'the cam' } as const;
  let common = -1;
  const placesOf = (valve: Valve): Places => {
    const mine = observations.filter((each) => each.valve === valve);
    const seen = mine.length > 0;
    if (!seen && !joined) return NOWHERE;
    const { lobe } = evidence.lobes[valve];
    const believed = believedOf(evidence, valve, loose);
    const nose = put({ name: 'nose', valve, ...believed.nose, from: 'the card' });
    if (!seen) return { ...NOWHERE, nose };
    const ofLobe = (name: UnknownName, mean: number, standard: number, from: string = SHAPE): number =>
      put({ name, valve, mean, standard, from });
    const atValve = mine.some((each) => each.atValve);
    if (single && common < 0) common = put({ ...advance, valve: null });
    return {
      nose,
      half: put({ name: 'half', valve, ...believed.half, from: SHAPE }),
      power: put({ name: 'power', valve, ...believed.power, from: SHAPE }),
      lean: put({ name: 'lean', valve, ...believed.lean, from: LEAN }),
      peak: ofLobe('peak', lobe.peak, PRIOR.peak),
      scale: ofLobe('scale', 0, PRIOR.scale, 'the indicator’s line'),
      ratio: atValve ? ofLobe('ratio', 0, PRIOR.ratio, 'ratio and lash') : -1,
      lash: atValve ? ofLobe('lash', 0, PRIOR.lash, 'ratio and lash') : -1,
      advance: single ? common : put({ ...advance, valve }),
      apart:
        single && valve === 'exhaust'
          ? put({ name: 'apart', valve, mean: 0, standard: PRIOR.apart, from: 'grinding of the lobes' })
          : -1,
    };
  };
  const of = { intake: placesOf('intake'), exhaust: placesOf('exhaust') };
  const tdc = new Map<string, number>();
  for (const each of observations)
    if (each.kind !== 'peak-lift' && !tdc.has(each.zero))
      tdc.set(
        each.zero,
        put({ name: 'tdc', valve: null, mean: 0, standard: evidence.zeros.get(each.zero) ?? 0, from: 'TDC' }),
      );
  const onBase = observations.some((each) => each.kind !== 'flank' || each.from === 'base');
  const base = onBase ? put({ name: 'base', valve: null, mean: 0, standard: PRIOR.base, from: 'the indicator' }) : -1;
  const widthAt = new Map<string, number>();
  const widths = new Map<Observation, number>();
  for (const each of observations) {
    const key = each.kind === 'flank' ? widthKey(evidence, each) : null;
    if (each.kind !== 'flank' || key === null) continue;
    const standard = each.from === 'peak' ? PRIOR.width.nose : PRIOR.width.flank;
    const at = widthAt.get(key) ?? put({ name: 'width', valve: each.valve, mean: 0, standard, from: SHAPE });
    widthAt.set(key, at);
    widths.set(each, at);
  }
  const [intake, exhaust] = [schoolsOf(observations, 'intake'), schoolsOf(observations, 'exhaust')];
  const both = { drops: intake.drops || exhaust.drops, events: intake.events || exhaust.events };
  const schools = {
    intake: { ofLobe: intake, ofCam: single ? both : intake },
    exhaust: { ofLobe: exhaust, ofCam: single ? both : exhaust },
  };
  return { unknowns, of, tdc, base, widths, schools };
}

/** Heights nearer than this are one height, mm. */
const SAME_HEIGHT = 1e-3;

/** Which width of a lobe a flank was read across; null where the card itself, or the shape that is looked for, says how wide it is there. */
function widthKey({ lobes, card }: Evidence, { valve, from, figure, atValve }: FlankObservation): string | null {
  if (from === 'peak') return `${valve} nose`;
  const { ratio, lash, shape } = lobes[valve];
  const height = atValve ? (figure + lash) / ratio : figure;
  const isPrinted = card.some(
    (fact) => 'height' in fact && fact.valve === valve && Math.abs(fact.height - height) < SAME_HEIGHT,
  );
  return shape !== 'full' || isPrinted ? null : `${valve} ${height.toFixed(3)}`;
}

function schoolsOf(observations: readonly Observation[], valve: Valve): Schools {
  let [drops, events] = [false, false];
  for (const each of observations)
    if (each.kind === 'flank' && each.valve === valve) {
      drops ||= each.from === 'peak';
      events ||= each.from === 'base';
    }
  return { drops, events };
}

const NOWHERE: Places = {
  nose: -1,
  half: -1,
  power: -1,
  lean: -1,
  peak: -1,
  scale: -1,
  ratio: -1,
  lash: -1,
  advance: -1,
  apart: -1,
};

/** The first guess, and every better one: values of the unknowns in their order. */
export type Guess = Float64Array;

export const valueOf = (guess: Guess, at: number): number => (at < 0 ? 0 : (guess[at] ?? 0));

/** A lobe as guessed. */
export function lobeOf(evidence: Evidence, layout: Layout, guess: Guess, valve: Valve): Lobe {
  const { nose, half, power, lean, peak } = layout.of[valve];
  if (half < 0) return evidence.lobes[valve].lobe;
  const at = (place: number): number => guess[place] ?? 0;
  return { nose: at(nose), half: at(half), power: at(power), lean: at(lean), peak: at(peak) };
}

/** How much later than its lobe says a valve is seen: TDC's error, the advance, and what the lobes are ground apart. */
export function moved(layout: Layout, guess: Guess, valve: Valve, zero: string): number {
  const { advance, apart } = layout.of[valve];
  return valueOf(guess, layout.tdc.get(zero) ?? -1) - valueOf(guess, advance) + valueOf(guess, apart);
}

/** Writes how a value moves with where the valve is seen. */
export function setMoved(layout: Layout, row: Float64Array, valve: Valve, zero: string, by: number): void {
  const { nose, advance, apart } = layout.of[valve];
  row[nose] = by;
  row[advance] = -by;
  if (apart >= 0) row[apart] = by;
  const tdc = layout.tdc.get(zero);
  if (tdc !== undefined) row[tdc] = by;
}
