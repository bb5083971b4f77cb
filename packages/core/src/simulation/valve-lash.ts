import type { Valve } from '../cam/card';
import { inches } from '../units/length';
import { lobeLift } from './follow';
import type { Stand, WholeEngine } from './whole-engine';

export const valveKey = (cylinder: number, valve: Valve): string => `${cylinder} ${valve}`;

/** Blades come in such steps, mm. */
export const BLADE_STEP = inches('0.001');
const THICKEST = 40;

/** The valve at hand: where the dial would be put. */
export const valveAtHand = ({ dial }: Stand): { readonly cylinder: number; readonly valve: Valve } => ({
  cylinder: dial.cylinder ?? 1,
  valve: dial.on === 'exhaust' ? 'exhaust' : 'intake',
});

/** How far the lobe has lifted a valve's rocker off its base circle, at the valve, mm. */
export function liftedNow(engine: WholeEngine, stand: Stand, cylinder: number, valve: Valve): number {
  const fires = engine.others?.fires[cylinder] ?? 0;
  const ratio = engine.lash?.ratio ?? 1;
  return ratio * lobeLift(engine, stand.advance, valve, stand.crank - fires, stand.lag);
}

/** The gap that a blade finds at a valve, mm: what is left of its lash where the crank stands. */
export function gapNow(engine: WholeEngine, stand: Stand, cylinder: number, valve: Valve): number {
  const base = stand.lash?.gaps[valveKey(cylinder, valve)] ?? 0;
  return Math.max(0, base - liftedNow(engine, stand, cylinder, valve));
}

/** Does the blade in the hand slide under the valve at hand? */
export function bladeSlides(engine: WholeEngine, stand: Stand): boolean {
  const { cylinder, valve } = valveAtHand(stand);
  return gapNow(engine, stand, cylinder, valve) >= (stand.lash?.blade ?? 0) - 1e-9;
}

/** Another blade taken up: thicker or thinner by whole steps. */
export function bladeTaken(stand: Stand, steps: number): Stand {
  if (!stand.lash) return stand;
  const at = Math.round(stand.lash.blade / BLADE_STEP) + steps;
  return { ...stand, lash: { ...stand.lash, blade: Math.max(1, Math.min(THICKEST, at)) * BLADE_STEP } };
}

/** The adjuster of the valve at hand turned until the blade just slides, and locked: right where the valve rests, loose by what its lobe stood up where it does not. */
export function setToBlade(engine: WholeEngine, stand: Stand): Stand {
  if (!stand.lash) return stand;
  const { cylinder, valve } = valveAtHand(stand);
  const gap = stand.lash.blade + liftedNow(engine, stand, cylinder, valve);
  return { ...stand, lash: { ...stand.lash, gaps: { ...stand.lash.gaps, [valveKey(cylinder, valve)]: gap } } };
}
