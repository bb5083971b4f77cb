import type { Valve } from '../cam/card';
import { centrelineForLift, liftForCentreline } from '../cam/lift-at-tdc';
import { type Lobe, lobeAt } from '../cam/lobe';
import { wrap180 } from '../units/angle';
import type { CardFact, Evidence, FlankObservation, Observation, TdcLiftObservation } from './observations';

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
  'nose' | 'half' | 'power' | 'lean' | 'peak' | 'scale' | 'ratio' | 'lash' | 'advance' | 'apart' | 'tdc';

/** All from memory. Crank degrees, mm, or shares. */
const PRIOR = {
  /** Where a nose stands of which the card says nothing. */
  nose: 10,
  /** Half of the whole duration of common lobes, and their steepness. */
  half: { mean: 155, standard: 15 },
  power: { mean: 3, standard: 0.7, shaped: 3 },
  /** Event centre against nose: ±1° at 0.050 in (1-sigma), which is about half of the lean at the foot. */
  lean: 2.1,
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
} as const;

/** What the shape of a lobe is called in a budget. */
export const SHAPE = 'the lobe’s shape';

/** Places of the unknowns of one valve in the list; −1 where there is none. */
type Places = Readonly<
  Record<'nose' | 'half' | 'power' | 'lean' | 'peak' | 'scale' | 'ratio' | 'lash' | 'advance' | 'apart', number>
>;

export interface Layout {
  readonly unknowns: readonly Unknown[];
  readonly of: Readonly<Record<Valve, Places>>;
  readonly tdc: ReadonlyMap<string, number>;
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
      lean: ofLobe('lean', 0, PRIOR.lean, 'lean of the lobe'),
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
  return { unknowns, of, tdc };
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

function predictFlank(evidence: Evidence, layout: Layout, guess: Guess, observation: FlankObservation): Predicted {
  const { valve, flank, from, figure, atValve, zero } = observation;
  const row = new Float64Array(layout.unknowns.length);
  const places = layout.of[valve];
  const lobe = lobeOf(evidence, layout, guess, valve);
  const known = evidence.lobes[valve];
  const scale = 1 + valueOf(guess, places.scale);
  const ratio = atValve ? known.ratio * (1 + valueOf(guess, places.ratio)) : 1;
  const lash = atValve ? known.lash + valueOf(guess, places.lash) : 0;
  const height = from === 'base' ? (figure * scale + lash) / ratio : lobe.peak - (figure * scale) / ratio;
  const at = flankOf(lobe, flank, height);
  const up = from === 'base' ? 1 : -1;
  setMoved(layout, row, valve, zero, 1);
  row[places.half] = at.byHalf;
  row[places.lean] = at.byLean;
  row[places.power] = at.byPower;
  row[places.peak] = at.byPeak + (from === 'peak' ? at.byLift : 0);
  row[places.scale] = (up * at.byLift * figure) / ratio;
  if (places.ratio >= 0 && atValve) {
    row[places.ratio] = (-up * at.byLift * (figure * scale + (from === 'base' ? lash : 0)) * known.ratio) / ratio ** 2;
    if (from === 'base') row[places.lash] = at.byLift / ratio;
  }
  return { value: at.angle + moved(layout, guess, valve, zero), row, byFigure: (up * at.byLift) / ratio };
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
    setMoved(layout, row, valve, zero, 1);
    const value = valueOf(guess, places.nose) + moved(layout, guess, valve, zero);
    return { value, row, byFigure: 1 / Math.max(1e-4, Math.abs(slope)) };
  }
  const known = evidence.lobes[valve];
  const lift = (at: Guess, later: number): number => {
    const ofLobe = lobeAt(lobeOf(evidence, layout, at, valve), past - later).lift;
    const ratio = known.ratio * (1 + valueOf(at, places.ratio));
    const travel = atValve ? Math.max(0, ofLobe * ratio - known.lash - valueOf(at, places.lash)) : ofLobe;
    return travel / (1 + valueOf(at, places.scale));
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
  return { value, row, byFigure: 1 };
}

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
  const travel = peak * ratio - (atValve ? known.lash + valueOf(guess, places.lash) : 0);
  row[places.peak] = ratio / scale;
  row[places.scale] = -travel / (scale * scale);
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
    const [byIntake, byExhaust] = fact.of === 'separation' ? [0.5, -0.5] : [-0.5, -0.5];
    row[i] = byIntake;
    row[e] = byExhaust;
    return { value: byIntake * valueOf(guess, i) + byExhaust * valueOf(guess, e), row, byFigure: 0 };
  }
  const places = layout.of[fact.valve];
  if (places.nose < 0) return null;
  if (fact.of === 'nose') {
    row[places.nose] = 1;
    return { value: valueOf(guess, places.nose), row, byFigure: 0 };
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
