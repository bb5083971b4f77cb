import type { Valve } from '../cam/card';
import { type Lobe, advanced, lobeAt, wrap720 } from '../cam/lobe';
import { type SliderCrank, pistonDrop } from '../crank/slider-crank';

/** How piston and valve face each other: a pocket cut parallel to the valve head, a flat crown, or nobody knows. */
export const POCKETS = ['parallel', 'flat', 'unknown'] as const;
export type Pocket = (typeof POCKETS)[number];

/** Lift of a lobe, and of its valve with it, from none to full, mm: what was traced of both. */
export type ThroughTheLift = readonly (readonly [lobe: number, valve: number])[];

/** Lift of a lobe as it was traced, in even steps of the crank about its nose. mm, crank degrees. */
export interface TracedLobe {
  readonly from: number;
  readonly step: number;
  readonly lifts: readonly number[];
}

/** Lengths mm, angles degrees. */
export interface ValveSetting {
  readonly valve: Valve;
  readonly crank: SliderCrank;
  /** Between valve and bore. */
  readonly angle: number;
  readonly pocket: Pocket;
  readonly lobe: Lobe;
  /** Its lift as it was traced: used instead of the likeness, about the nose of `lobe`. */
  readonly traced?: TracedLobe | null;
  /** Valve travel for each 1 of lobe, and what the lash takes off it. */
  readonly ratio: number;
  readonly lash: number;
  /** Where the lift of the valve was traced beside that of its lobe: used instead of ratio and lash. */
  readonly through?: ThroughTheLift | null;
}

/** The gap that was found at a place of the crank, the lobe then standing as it stood. Crank degrees past overlap TDC, mm. */
export interface MeasuredGap {
  readonly at: number;
  readonly gap: number;
  /** How far ahead of where it stands now the cam stood then, crank degrees. */
  readonly camAhead: number;
}

/** The tightest place. */
export interface Tightest {
  readonly gap: number;
  readonly at: number;
}

const RAD = Math.PI / 180;
/** Either side of overlap TDC valve and piston can meet: beyond this the piston has long gone. Common practice says within about 15. */
const LOOKED_AT = 60;
const COARSE = 2;

/** Lift at the valve, mm. */
export const valveLift = (setting: ValveSetting, at: number, ahead = 0): number =>
  openedBy(setting, lobeLift(setting, at, ahead));

function lobeLift({ lobe, traced }: ValveSetting, at: number, ahead: number): number {
  const standing = ahead === 0 ? lobe : advanced(lobe, ahead);
  if (!traced) return lobeAt(standing, at).lift;
  const place = (wrap720(at - standing.nose) - traced.from) / traced.step;
  const before = Math.floor(place);
  const [low, high] = [traced.lifts[before] ?? 0, traced.lifts[before + 1] ?? 0];
  return low + (place - before) * (high - low);
}

/**
 * How far a valve stands open for a lift of its lobe, mm.
 * @example openedBy({ ratio: 1.6, lash: 0.3 }, 5) // 7.7
 */
export const openedBy = (
  { ratio, lash, through }: Pick<ValveSetting, 'ratio' | 'lash' | 'through'>,
  lobe: number,
): number => (through ? alongTrace(through, lobe) : Math.max(0, lobe * ratio - lash));

/** Between the points of a trace in straight lines; above the last, on by the ratio that it has there. */
function alongTrace(through: ThroughTheLift, lobe: number): number {
  const next = through.findIndex(([lift]) => lift >= lobe);
  const after = through[next];
  const before = through[next - 1];
  if (after && before) return before[1] + ((lobe - before[0]) / (after[0] - before[0])) * (after[1] - before[1]);
  const last = through.at(-1);
  return after?.[1] ?? (last ? (last[1] * lobe) / last[0] : 0);
}

/** What the piston's way counts for along the valve: in a parallel pocket by its cosine, against a flat crown by one over it; unknown: what leaves less. */
function along(way: number, angle: number, pocket: Pocket): number {
  const cosine = Math.cos(angle * RAD);
  if (pocket === 'parallel') return way * cosine;
  if (pocket === 'flat') return way / cosine;
  return Math.min(way * cosine, way / cosine);
}

/** The gap between a valve and its piston, wherever crank and cam are put. Crank degrees, mm. */
export interface Gap {
  /** At a place of the crank past overlap TDC, the cam advanced by `moved` from where it stands now. */
  readonly at: (crank: number, moved: number) => number;
  /** The tightest place round overlap TDC: by steps, then closer by the golden section (Kiefer 1953). */
  readonly tightest: (moved: number) => Tightest;
}

/**
 * Carries measured gaps to other places: c(θ) = c_ref + (y(θ) − y_ref)·cos γ − (lift(θ) − lift_ref); of several that were measured, the one that leaves least counts.
 * @param measured at least one.
 * Source: geometry of the slider-crank (Heywood, Internal Combustion Engine Fundamentals, ch. 2); the rule for the pocket derived here.
 */
export function carryGap(setting: ValveSetting, measured: readonly MeasuredGap[]): Gap {
  const from = measured.map(({ at, gap, camAhead }) => ({
    drop: pistonDrop(setting.crank, at),
    shut: gap + valveLift(setting, at, camAhead),
  }));
  const at = (crank: number, moved: number): number => {
    const [drop, lift] = [pistonDrop(setting.crank, crank), valveLift(setting, crank, moved)];
    let least = Infinity;
    for (const { drop: then, shut } of from)
      least = Math.min(least, shut + along(drop - then, setting.angle, setting.pocket) - lift);
    return least;
  };
  const tightest = (moved: number): Tightest => {
    let best = { at: 0, gap: Infinity };
    for (let crank = -LOOKED_AT; crank <= LOOKED_AT; crank += COARSE) {
      const gap = at(crank, moved);
      if (gap < best.gap) best = { at: crank, gap };
    }
    let [low, high] = [best.at - COARSE, best.at + COARSE];
    for (let i = 0; i < 16; i += 1) {
      const [a, b] = [low + GOLDEN * (high - low), high - GOLDEN * (high - low)];
      if (at(a, moved) < at(b, moved)) high = b;
      else low = a;
    }
    const crank = (low + high) / 2;
    return { at: crank, gap: at(crank, moved) };
  };
  return { at, tightest };
}

const GOLDEN = (3 - Math.sqrt(5)) / 2;

/** A cam is not looked at further than this, crank degrees either way. */
export const FURTHEST_SWEPT = 20;
const FINE = 0.05;

/**
 * Where the cam may be moved to without the gap falling below a minimum: from so much to so much advance, crank degrees, nearest to where it stands now.
 * @returns null where it is too tight as far as anybody looks.
 */
export function roomToMove({ tightest }: Gap, minimum: number): { readonly from: number; readonly to: number } | null {
  const holds = (moved: number): boolean => tightest(moved).gap >= minimum;
  /** Halves the way from a place that holds to one that does not. */
  const edge = (good: number, bad: number): number => {
    let [inside, outside] = [good, bad];
    while (Math.abs(outside - inside) > FINE) {
      const middle = (inside + outside) / 2;
      if (holds(middle)) inside = middle;
      else outside = middle;
    }
    return inside;
  };
  const [back, now, on] = [holds(-FURTHEST_SWEPT), holds(0), holds(FURTHEST_SWEPT)];
  if (now)
    return {
      from: back ? -FURTHEST_SWEPT : edge(0, -FURTHEST_SWEPT),
      to: on ? FURTHEST_SWEPT : edge(0, FURTHEST_SWEPT),
    };
  if (back) return { from: -FURTHEST_SWEPT, to: edge(-FURTHEST_SWEPT, 0) };
  if (on) return { from: edge(FURTHEST_SWEPT, 0), to: FURTHEST_SWEPT };
  return null;
}

/** Least clearances that are usually kept, mm: 0.080 in for the intake, 0.100 in for the exhaust. From memory; the engine maker's manual has the last word. */
export const USUAL_MINIMUM: Readonly<Record<Valve, number>> = { intake: 2.032, exhaust: 2.54 };
