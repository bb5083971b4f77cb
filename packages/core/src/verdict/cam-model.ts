import { VALVES, noseAt } from '../cam/card';
import { centrelineForLift, liftForCentreline } from '../cam/lift-at-tdc';
import { lobeAt } from '../cam/lobe';
import { wrap180 } from '../units/angle';
import { addCounted, centreOf } from './centre-means';
import { flankOf, noseFlank } from './flank';
import type { CardFact, Evidence, FlankObservation, Observation, TdcLiftObservation } from './observations';
import { COUNTED_AT, type Guess, type Layout, lobeOf, moved, setMoved, valueOf } from './unknowns';

/** A predicted value, how it moves with each unknown, and with the indicator's own figure (degrees for each mm). */
export interface Predicted {
  readonly value: number;
  readonly row: Float64Array;
  readonly byFigure: number;
}

/** What the indicator sees a lobe through: its own scale, and at the valve the rocker's ratio and the lash, mm. */
function indicatorOf(evidence: Evidence, { of }: Layout, guess: Guess, { valve, atValve }: Observation) {
  const places = of[valve];
  const scale = 1 + valueOf(guess, places.scale);
  if (!atValve) return { scale, ratio: 1, lash: 0 };
  const known = evidence.lobes[valve];
  return {
    scale,
    ratio: known.ratio * (1 + valueOf(guess, places.ratio)),
    lash: known.lash + valueOf(guess, places.lash),
  };
}

function predictFlank(evidence: Evidence, layout: Layout, guess: Guess, observation: FlankObservation): Predicted {
  const { valve, flank, from, figure, atValve, zero } = observation;
  const row = new Float64Array(layout.unknowns.length);
  const places = layout.of[valve];
  const lobe = lobeOf(evidence, layout, guess, valve);
  const { scale, ratio, lash } = indicatorOf(evidence, layout, guess, observation);
  const fromBase = from === 'base';
  const above = fromBase ? valueOf(guess, layout.base) + lash : 0;
  const travelled = (figure * scale + above) / ratio;
  // From the base circle up, or from the peak down.
  const { up, at, spread } = fromBase
    ? { up: 1, at: flankOf(lobe, flank, travelled), spread: 1 }
    : { up: -1, at: noseFlank(lobe, flank, lobe.peak - travelled), spread: Math.sqrt(figure / ratio / COUNTED_AT) };
  const width = layout.widths.get(observation) ?? -1;
  const byWidth = flank === 'opening' ? -spread : spread;
  setMoved(layout, row, valve, zero, 1);
  if (width >= 0) row[width] = byWidth;
  row[places.half] = at.byHalf;
  row[places.lean] = at.byLean;
  row[places.power] = at.byPower;
  row[places.peak] = fromBase ? at.byPeak : at.byPeak + at.byLift;
  row[places.scale] = (up * at.byLift * figure) / ratio;
  if (fromBase) row[layout.base] = at.byLift / ratio;
  if (places.ratio >= 0 && atValve) {
    row[places.ratio] = (-up * at.byLift * travelled * evidence.lobes[valve].ratio) / ratio;
    if (fromBase) row[places.lash] = at.byLift / ratio;
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
    // And so does an indicator that leans.
    row[places.scale] = byBase * observation.lift;
    const tooLittle = valueOf(guess, layout.base) + observation.lift * valueOf(guess, places.scale);
    const value = counted.value + moved(layout, guess, valve, zero) + byBase * tooLittle;
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

/** What an observation should have been, by the guess. Flanks and lifts by the catalogue in crank degrees, other lifts in mm. */
export function predict(evidence: Evidence, layout: Layout, guess: Guess, observation: Observation): Predicted {
  if (observation.kind === 'flank') return predictFlank(evidence, layout, guess, observation);
  if (observation.kind === 'tdc-lift') return predictTdcLift(evidence, layout, guess, observation);
  const { valve, atValve } = observation;
  const row = new Float64Array(layout.unknowns.length);
  const places = layout.of[valve];
  const { scale, ratio, lash } = indicatorOf(evidence, layout, guess, observation);
  const peak = valueOf(guess, places.peak);
  const travel = peak * ratio - lash - valueOf(guess, layout.base);
  row[places.peak] = ratio / scale;
  row[places.scale] = -travel / (scale * scale);
  row[layout.base] = -1 / scale;
  if (atValve && places.ratio >= 0) {
    row[places.ratio] = (peak * evidence.lobes[valve].ratio) / scale;
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
  return noseAt(observation.valve, centreline) + observation.past;
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
