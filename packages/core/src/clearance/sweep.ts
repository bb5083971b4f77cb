import { FURTHEST_SWEPT, type MeasuredGap, type ValveSetting, carryGap } from './valve-to-piston';

/** The gap over the crank as the cam stands, and the least of it over the cam's place. */
export interface Sweep {
  readonly overCrank: readonly { readonly at: number; readonly gap: number }[];
  readonly overCam: readonly { readonly moved: number; readonly gap: number; readonly at: number }[];
}

const CRANK_FROM = -40;
const CRANK_STEP = 1;
const CAM_STEP = 0.5;

/** Sweeps crank and cam: some five thousand gaps for each that was measured; for a worker. */
export function sweepGap(setting: ValveSetting, measured: readonly MeasuredGap[]): Sweep {
  const gap = carryGap(setting, measured);
  const places = Array.from({ length: (-2 * CRANK_FROM) / CRANK_STEP + 1 }, (_, i) => CRANK_FROM + i * CRANK_STEP);
  const moves = Array.from({ length: (2 * FURTHEST_SWEPT) / CAM_STEP + 1 }, (_, i) => i * CAM_STEP - FURTHEST_SWEPT);
  return {
    overCrank: places.map((at) => ({ at, gap: gap.at(at, 0) })),
    overCam: moves.map((moved) => ({ moved, ...gap.tightest(moved) })),
  };
}
