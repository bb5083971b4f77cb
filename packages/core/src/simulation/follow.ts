import { VALVES, type Valve } from '../cam/card';
import { type Lobe, lobeAt } from '../cam/lobe';

/**
 * solid: follows the lobe. bleeding: a hydraulic one under its spring, losing so many mm for each crank degree off the base circle.
 * sticking: a roller lifter without a spring, which stays where the nose has lifted it.
 */
export type VirtualLifter =
  | { readonly kind: 'solid' }
  | { readonly kind: 'bleeding'; readonly perDegree: number }
  | { readonly kind: 'sticking' };

/** What the crank drives. Lengths mm, angles crank degrees. */
export interface DrivenCam {
  /** The lobes as the cam stands when its advance is 0. */
  readonly lobes: Readonly<Record<Valve, Lobe>>;
  readonly lifter: VirtualLifter;
  /** Play of the drive: how far the crank turns back before the cam follows. */
  readonly slack: number;
}

export type PerValve = Readonly<Record<Valve, number>>;

/** How crank, cam and lifters stand. */
export interface CamStand {
  /** Crank degrees from overlap TDC, not wrapped: grows as the engine runs. */
  readonly crank: number;
  /** How far the cam is behind the drive: 0 turned forward, the whole slack turned back. */
  readonly lag: number;
  readonly lifted: PerValve;
  /** What a lifter has lost by bleeding, mm. */
  readonly lost: PerValve;
}

/** How far the crank may turn from one look to the next, degrees: a lifter that remembers is looked at often. */
export const STRIDE = { solid: 4, bleeding: 0.5, sticking: 0.5 } as const;
/** Less lift than this is the base circle, mm. */
const OFF_BASE = 0.01;

/** Lift of the lobe itself, mm, with the cam `advance` crank degrees ahead. */
export const lobeLift = (cam: DrivenCam, advance: PerValve, valve: Valve, crank: number, lag: number): number =>
  lobeAt(cam.lobes[valve], crank + lag + advance[valve]).lift;

/** Lifters pushed down on their lobes, the slack taken up forward. */
export const standAt = (cam: DrivenCam, advance: PerValve, crank: number): CamStand => ({
  crank,
  lag: 0,
  lifted: { intake: lobeLift(cam, advance, 'intake', crank, 0), exhaust: lobeLift(cam, advance, 'exhaust', crank, 0) },
  lost: { intake: 0, exhaust: 0 },
});

function followed(cam: DrivenCam, advance: PerValve, from: CamStand, valve: Valve, crank: number, lag: number) {
  const lift = lobeLift(cam, advance, valve, crank, lag);
  const { lifter } = cam;
  if (lifter.kind === 'sticking')
    return { lifted: lift === 0 && from.lifted[valve] === 0 ? 0 : Math.max(from.lifted[valve], lift), lost: 0 };
  if (lifter.kind === 'solid') return { lifted: lift, lost: 0 };
  const lost = lift > OFF_BASE ? from.lost[valve] + lifter.perDegree * Math.abs(crank - from.crank) : 0;
  return { lifted: Math.max(0, lift - lost), lost };
}

/** One stride, crank degrees, positive the way it runs: no further than `STRIDE`. */
export function follow(cam: DrivenCam, advance: PerValve, from: CamStand, by: number): CamStand {
  const crank = from.crank + by;
  const lag = Math.min(cam.slack, Math.max(0, from.lag - by));
  const [intake, exhaust] = VALVES.map((valve) => followed(cam, advance, from, valve, crank, lag)) as [
    ReturnType<typeof followed>,
    ReturnType<typeof followed>,
  ];
  return {
    crank,
    lag,
    lifted: { intake: intake.lifted, exhaust: exhaust.lifted },
    lost: { intake: intake.lost, exhaust: exhaust.lost },
  };
}
