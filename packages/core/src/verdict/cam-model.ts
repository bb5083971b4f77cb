import { VALVES, type Valve } from '../cam/card';
import { centrelineForLift, liftForCentreline } from '../cam/lift-at-tdc';
import { type Lobe, lobeAt } from '../cam/lobe';
import { wrap180 } from '../units/angle';
import type {
  CardFact,
  CentreMeans,
  Evidence,
  FlankObservation,
  Observation,
  TdcLiftObservation,
} from './observations';

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
const PRIOR = {
  /** Where a nose stands of which the card says nothing. */
  nose: 10,
  /** Half of the whole duration of common lobes, and their steepness. */
  half: { mean: 150, standard: 15 },
  power: { mean: 2.2, standard: 0.5, shaped: 2 },
  /** Event centre at 0.050 in less the middle of an equal drop: about +0.5° with 1.2° (1-sigma); at the foot nearly twice that. Common practice, no source. */
  lean: { mean: 0.9, standard: 2.2 },
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
   * says, crank degrees: near the nose 0.050 in below the peak, and as the root of the drop at others; and at each other height.
   */
  width: { nose: 6, flank: 2 },
  /** Where a builder takes the base circle to be, mm: the part of it that is his habit, or the cam’s run-out. */
  base: BASE_ZERO,
} as const;

/** Height of the events, and drop from the peak, that a centreline is counted at, mm: 0.050 in. */
const COUNTED_AT = 1.27;

/** What the shape of a lobe is called in a budget. */
export const SHAPE = 'the lobe’s shape';
/** And what a centreline may be the middle of. */
export const LEAN = 'lean of the lobe';

/** Places of the unknowns of one valve in the list; −1 where there is none. */
type Places = Readonly<
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
    const { lobe, shape } = evidence.lobes[valve];
    const nose = put({
      name: 'nose',
      valve,
      mean: lobe.nose,
      standard: loose ? PRIOR.other.nose : PRIOR.nose,
      from: 'the card',
    });
    if (!seen) return { ...NOWHERE, nose };
    const { half, power } = PRIOR;
    const ofLobe = (name: UnknownName, mean: number, standard: number, from: string = SHAPE): number =>
      put({ name, valve, mean, standard, from });
    const atValve = mine.some((each) => each.atValve);
    if (single && common < 0) common = put({ ...advance, valve: null });
    return {
      nose,
      half: ofLobe('half', loose ? lobe.half : half.mean, loose ? PRIOR.other.half : half.standard),
      power: ofLobe(
        'power',
        loose ? lobe.power : power.mean,
        !loose && shape === 'full' ? power.shaped : power.standard,
      ),
      lean: ofLobe('lean', loose ? 0 : PRIOR.lean.mean, PRIOR.lean.standard, LEAN),
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

/** A predicted value, how it moves with each unknown, and with the indicator's own figure (degrees for each mm). */
export interface Predicted {
  readonly value: number;
  readonly row: Float64Array;
  readonly byFigure: number;
}

/** The first guess, and every better one: values of the unknowns in their order. */
export type Guess = Float64Array;

const valueOf = (guess: Guess, at: number): number => (at < 0 ? 0 : (guess[at] ?? 0));

/** A lobe as guessed. */
function lobeOf(evidence: Evidence, layout: Layout, guess: Guess, valve: Valve): Lobe {
  const { nose, half, power, lean, peak } = layout.of[valve];
  if (half < 0) return evidence.lobes[valve].lobe;
  const at = (place: number): number => guess[place] ?? 0;
  return { nose: at(nose), half: at(half), power: at(power), lean: at(lean), peak: at(peak) };
}

/** How much later than its lobe says a valve is seen: TDC's error, the advance, and what the lobes are ground apart. */
function moved(layout: Layout, guess: Guess, valve: Valve, zero: string): number {
  const { advance, apart } = layout.of[valve];
  return valueOf(guess, layout.tdc.get(zero) ?? -1) - valueOf(guess, advance) + valueOf(guess, apart);
}

/** Writes how a value moves with where the valve is seen. */
function setMoved(layout: Layout, row: Float64Array, valve: Valve, zero: string, by: number): void {
  const { nose, advance, apart } = layout.of[valve];
  row[nose] = by;
  row[advance] = -by;
  if (apart >= 0) row[apart] = by;
  const tdc = layout.tdc.get(zero);
  if (tdc !== undefined) row[tdc] = by;
}

/** How far below the top of its family's limits a flank is still one, share of the peak. */
const TOP = 0.995;
const FOOT = 0.004;

/** Where a flank stands at a lift, and how that moves with the lobe: crank degrees, for each mm or each unit. */
export function flankOf(lobe: Lobe, flank: 'opening' | 'closing', height: number) {
  const { peak, nose, half, power, lean } = lobe;
  const lift = Math.max(FOOT * peak, Math.min(TOP * peak, height));
  const q = (lift / peak) ** (1 / power);
  const share = 1 - q;
  const u = Math.sqrt(share);
  const side = flank === 'opening' ? -1 : 1;
  const byShare = lean + (side * half) / (2 * u);
  return {
    angle: nose + lean * share + side * half * u,
    byHalf: side * u,
    byLean: share,
    byPower: (byShare * q * Math.log(lift / peak)) / (power * power),
    byLift: (-byShare * q) / (power * lift),
    byPeak: (byShare * q) / (power * peak),
  };
}

/**
 * The nose by itself: common ones are blunt, whatever the flanks are like. 0.050 in below the peak they stand 40 to 48° from it, and as the root of the drop at
 * others; common practice, no source. Steepness 1 is that root.
 */
const BLUNT = 44;
export const noseOf = (lobe: Lobe): Lobe => ({
  ...lobe,
  power: 1,
  half: BLUNT * Math.sqrt(lobe.peak / COUNTED_AT),
  lean: lobe.lean / lobe.power,
});

/** As `flankOf`, of the nose: it has a width of its own, so that neither the lobe’s nor its steepness nor its peak moves it. */
function noseFlank(lobe: Lobe, flank: 'opening' | 'closing', height: number): ReturnType<typeof flankOf> {
  const { angle, byLean, byLift } = flankOf(noseOf(lobe), flank, height);
  const leaning = (lobe.lean * byLean) / lobe.power;
  return {
    angle,
    byHalf: 0,
    byLean: byLean / lobe.power,
    byPower: -leaning / lobe.power,
    byLift,
    // Seen at one drop: `byLift` comes in again with the peak that it is counted from.
    byPeak: -byLift - leaning / lobe.peak,
  };
}

function predictFlank(evidence: Evidence, layout: Layout, guess: Guess, observation: FlankObservation): Predicted {
  const { valve, flank, from, figure, atValve, zero } = observation;
  const row = new Float64Array(layout.unknowns.length);
  const places = layout.of[valve];
  const lobe = lobeOf(evidence, layout, guess, valve);
  const known = evidence.lobes[valve];
  const scale = 1 + valueOf(guess, places.scale);
  const ratio = atValve ? known.ratio * (1 + valueOf(guess, places.ratio)) : 1;
  const lash = atValve ? known.lash + valueOf(guess, places.lash) : 0;
  const base = from === 'base' ? valueOf(guess, layout.base) : 0;
  const height = from === 'base' ? (figure * scale + base + lash) / ratio : lobe.peak - (figure * scale) / ratio;
  const at = from === 'base' ? flankOf(lobe, flank, height) : noseFlank(lobe, flank, height);
  const up = from === 'base' ? 1 : -1;
  const width = layout.widths.get(observation) ?? -1;
  const byWidth = (flank === 'opening' ? -1 : 1) * (from === 'base' ? 1 : Math.sqrt(figure / ratio / COUNTED_AT));
  setMoved(layout, row, valve, zero, 1);
  if (width >= 0) row[width] = byWidth;
  row[places.half] = at.byHalf;
  row[places.lean] = at.byLean;
  row[places.power] = at.byPower;
  row[places.peak] = at.byPeak + (from === 'peak' ? at.byLift : 0);
  row[places.scale] = (up * at.byLift * figure) / ratio;
  if (from === 'base') row[layout.base] = at.byLift / ratio;
  if (places.ratio >= 0 && atValve) {
    row[places.ratio] =
      (-up * at.byLift * (figure * scale + (from === 'base' ? base + lash : 0)) * known.ratio) / ratio ** 2;
    if (from === 'base') row[places.lash] = at.byLift / ratio;
  }
  const wider = byWidth * valueOf(guess, width);
  return { value: at.angle + wider + moved(layout, guess, valve, zero), row, byFigure: (up * at.byLift) / ratio };
}

/** The card's own lifts say more of it than a fitted lobe: then the lift stands for the place of the nose. */
export const byCatalogue = (evidence: Evidence, { valve, lift, atValve }: TdcLiftObservation): number | null =>
  atValve ? null : centrelineForLift(evidence.lobes[valve].catalogue, lift);

/** Steps for the derivatives of a lift by difference. */
const STEPS = { half: 0.01, power: 0.001, lean: 0.01, peak: 0.001, scale: 0.001, ratio: 0.001, lash: 0.001 } as const;
const TURN = 0.01;

function predictTdcLift(evidence: Evidence, layout: Layout, guess: Guess, observation: TdcLiftObservation): Predicted {
  const { valve, past, atValve, zero } = observation;
  const row = new Float64Array(layout.unknowns.length);
  const places = layout.of[valve];
  const centreline = byCatalogue(evidence, observation);
  if (centreline !== null) {
    const slope = liftForCentreline(valve, evidence.lobes[valve].catalogue, centreline)?.perAdvance ?? 1;
    const printed = evidence.card.find((fact) => fact.of === 'centre' && fact.valve === valve);
    const counted = centreOf(evidence, layout, guess, valve, printed?.of === 'centre' ? printed.means : 'unsaid');
    addCounted(row, places, counted, 1);
    setMoved(layout, row, valve, zero, 1);
    const byFigure = 1 / Math.max(1e-4, Math.abs(slope));
    // A base circle taken too high leaves less lift, which looks like a later intake and an earlier exhaust.
    const byBase = slope > 0 ? byFigure : -byFigure;
    row[layout.base] = byBase;
    const value = counted.value + moved(layout, guess, valve, zero) + byBase * valueOf(guess, layout.base);
    return { value, row, byFigure };
  }
  const known = evidence.lobes[valve];
  const lift = (at: Guess, later: number): number => {
    const ofLobe = lobeAt(lobeOf(evidence, layout, at, valve), past - later).lift;
    const ratio = known.ratio * (1 + valueOf(at, places.ratio));
    const travel = atValve ? Math.max(0, ofLobe * ratio - known.lash - valueOf(at, places.lash)) : ofLobe;
    return (travel - valueOf(at, layout.base)) / (1 + valueOf(at, places.scale));
  };
  const later = moved(layout, guess, valve, zero);
  const value = lift(guess, later);
  setMoved(layout, row, valve, zero, (lift(guess, later + TURN) - value) / TURN);
  const tried = guess.slice();
  for (const name of Object.keys(STEPS) as (keyof typeof STEPS)[]) {
    const place = places[name];
    if (place < 0) continue;
    const was = tried[place] ?? 0;
    tried[place] = was + STEPS[name];
    row[place] = (lift(tried, later) - value) / STEPS[name];
    tried[place] = was;
  }
  row[layout.base] = -1;
  return { value, row, byFigure: 1 };
}

/** A centreline as it may be counted: where it stands, how it moves with the lean at the foot, and how far the two ways of counting it leave it open. */
export interface Counted {
  readonly value: number;
  readonly byLean: number;
  readonly byPower: number;
  readonly byPeak: number;
  readonly standard: number;
}

/**
 * A printed or wanted centreline by the guess. Each school's own reading is compared in its own terms: an equal drop with a centreline that may be one,
 * a wanted one in those of whoever wants it. Else it lies between the two, and may be either.
 */
export function centreOf(
  evidence: Evidence,
  layout: Layout,
  guess: Guess,
  valve: Valve,
  means: CentreMeans | 'wanted',
): Counted {
  const { nose, lean } = layout.of[valve];
  if (lean < 0) return { value: valueOf(guess, nose), byLean: 0, byPower: 0, byPeak: 0, standard: 0 };
  const { ofLobe, ofCam } = layout.schools[valve];
  const lobe = lobeOf(evidence, layout, guess, valve);
  const least = Math.min(1, COUNTED_AT / lobe.peak);
  const ofDrop = least / lobe.power;
  const left = least ** (1 / lobe.power);
  const share = 1 - left - ofDrop;
  // Said or shown by the card, it counts; else it is taken as that of whoever measured.
  let byEvents = 0.5;
  if (means === 'nose' || (means !== 'events' && !ofCam.events)) byEvents = 0;
  else if (means === 'events' || means === 'as-events' || (means === 'wanted' && !ofCam.drops)) byEvents = 1;
  let open = 0;
  if (means === 'as-events' && ofCam.events) open = NO_NEWS;
  else if (byEvents === 0.5)
    open =
      ofLobe.drops && ofLobe.events
        ? EITHER * 0.5 * share * Math.hypot(lobe.lean, OPEN_LEAN)
        : 0.6 * share * PRIOR.lean.standard;
  const byLean = ofDrop + byEvents * share;
  // How that share moves with the lobe’s shape.
  const dropByPower = -ofDrop / lobe.power;
  const leftByPower = (-left * Math.log(least)) / lobe.power ** 2;
  const shareByPower = dropByPower - byEvents * (leftByPower + dropByPower);
  const shareByPeak = (-ofDrop + byEvents * (left / lobe.power + ofDrop)) / lobe.peak;
  return {
    value: lobe.nose + byLean * lobe.lean,
    byLean,
    byPower: shareByPower * lobe.lean,
    byPeak: shareByPeak * lobe.lean,
    standard: open,
  };
}
/** A centreline that only repeats its card’s events says nothing beside them, crank degrees. */
const NO_NEWS = 5;
/** One of two places, told as a standard uncertainty: half of their distance stands for 95 of 100 nearly by itself. */
const EITHER = 0.75;
/** How a centreline moves with each unknown of its lobe, times a factor. */
function addCounted(row: Float64Array, places: Places, { byLean, byPower, byPeak }: Counted, by: number): void {
  row[places.nose] = by;
  row[places.lean] = by * byLean;
  row[places.power] = by * byPower;
  row[places.peak] = by * byPeak;
}

/** A lean is hardly known better than this, crank degrees at the foot. */
const OPEN_LEAN = 0.3;

/** What an observation should have been, by the guess. Flanks and lifts by the catalogue in crank degrees, other lifts in mm. */
export function predict(evidence: Evidence, layout: Layout, guess: Guess, observation: Observation): Predicted {
  if (observation.kind === 'flank') return predictFlank(evidence, layout, guess, observation);
  if (observation.kind === 'tdc-lift') return predictTdcLift(evidence, layout, guess, observation);
  const { valve, atValve } = observation;
  const row = new Float64Array(layout.unknowns.length);
  const places = layout.of[valve];
  const known = evidence.lobes[valve];
  const ratio = atValve ? known.ratio * (1 + valueOf(guess, places.ratio)) : 1;
  const scale = 1 + valueOf(guess, places.scale);
  const peak = valueOf(guess, places.peak);
  const travel = peak * ratio - (atValve ? known.lash + valueOf(guess, places.lash) : 0) - valueOf(guess, layout.base);
  row[places.peak] = ratio / scale;
  row[places.scale] = -travel / (scale * scale);
  row[layout.base] = -1 / scale;
  if (atValve && places.ratio >= 0) {
    row[places.ratio] = (peak * known.ratio) / scale;
    row[places.lash] = -1 / scale;
  }
  return { value: travel / scale, row, byFigure: 1 };
}

/** What was observed, in the terms of `predict`, as near to the prediction as whole turns allow. */
export function observedNear(evidence: Evidence, observation: Observation, predicted: number): number {
  if (observation.kind === 'flank') return predicted + wrap180(observation.angle - predicted);
  if (observation.kind === 'peak-lift') return observation.lift;
  const centreline = byCatalogue(evidence, observation);
  if (centreline === null) return observation.lift;
  return (observation.valve === 'intake' ? centreline : -centreline) + observation.past;
}

/** A figure of the card by the guess, and how it moves; null where it speaks of a lobe that nobody looks at. */
export function predictCard(evidence: Evidence, layout: Layout, guess: Guess, fact: CardFact): Predicted | null {
  const row = new Float64Array(layout.unknowns.length);
  if (!('valve' in fact)) {
    const [i, e] = [layout.of.intake.nose, layout.of.exhaust.nose];
    if (i < 0 || e < 0) return null;
    const [intake, exhaust] = VALVES.map((valve) => centreOf(evidence, layout, guess, valve, 'unsaid'));
    if (!intake || !exhaust) return null;
    const [byIntake, byExhaust] = fact.of === 'separation' ? [0.5, -0.5] : [-0.5, -0.5];
    addCounted(row, layout.of.intake, intake, byIntake);
    addCounted(row, layout.of.exhaust, exhaust, byExhaust);
    return { value: byIntake * intake.value + byExhaust * exhaust.value, row, byFigure: 0 };
  }
  const places = layout.of[fact.valve];
  if (places.nose < 0) return null;
  if (fact.of === 'centre') {
    const counted = centreOf(evidence, layout, guess, fact.valve, fact.means);
    addCounted(row, places, counted, 1);
    return { value: counted.value, row, byFigure: 0 };
  }
  if (places.half < 0) return null;
  const lobe = lobeOf(evidence, layout, guess, fact.valve);
  if (!('height' in fact)) {
    row[places.peak] = 1;
    return { value: lobe.peak, row, byFigure: 0 };
  }
  const { height } = fact;
  const one = (flank: 'opening' | 'closing', side: number): number => {
    const { angle, byHalf, byLean, byPower, byPeak } = flankOf(lobe, flank, height);
    const add = (place: number, by: number): void => {
      row[place] = (row[place] ?? 0) + side * by;
    };
    add(places.nose, 1);
    add(places.half, byHalf);
    add(places.lean, byLean);
    add(places.power, byPower);
    add(places.peak, byPeak);
    return side * angle;
  };
  const value = fact.of === 'duration' ? one('closing', 1) + one('opening', -1) : one(fact.of, 1);
  return { value, row, byFigure: 0 };
}
