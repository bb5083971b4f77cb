import type { Valve } from '../cam/card';
import type { CentreMeans, Evidence } from './observations';
import { COUNTED_AT, type Guess, type Layout, PRIOR, type Places, lobeOf, valueOf } from './unknowns';

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
 * @param leanStandard standard uncertainty of the lobe's lean, crank degrees at the foot: what is read as none may be as much.
 */
export function centreOf(
  evidence: Evidence,
  layout: Layout,
  guess: Guess,
  valve: Valve,
  means: CentreMeans | 'wanted',
  leanStandard = 0,
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
        ? EITHER * 0.5 * share * Math.hypot(lobe.lean, Math.max(leanStandard, OPEN_LEAN))
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
export function addCounted(row: Float64Array, places: Places, { byLean, byPower, byPeak }: Counted, by: number): void {
  row[places.nose] = by;
  row[places.lean] = by * byLean;
  row[places.power] = by * byPower;
  row[places.peak] = by * byPeak;
}

/** A lean is hardly known better than this, crank degrees at the foot. */
const OPEN_LEAN = 0.3;
