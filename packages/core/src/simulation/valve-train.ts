import { wrap720 } from '../cam/lobe';
import type { Valve } from '../cam/card';
import { type WheelReading, type WheelRing, readingAt } from '../crank/wheel';
import { type CamStand, type DrivenCam, type PerValve, STRIDE, follow, standAt } from './follow';
import type { Random } from '../statistics/random';

/** A valve train that does not exist, whose truth is known. Lengths mm, angles crank degrees. */
export interface VirtualValveTrain extends DrivenCam {
  readonly ratio: number;
  readonly lash: number;
  readonly ring: WheelRing;
  /** Ring position under the pointer at true TDC. */
  readonly mount: number;
}

/** How the measuring errs. All 0: not at all. */
export interface CamErrors {
  /** The wheel is read to whole steps, crank degrees. */
  readonly step: number;
  /** Standard deviation of the eye at the pointer, crank degrees. */
  readonly eye?: number;
  /** The indicator shows whole steps of this, mm: its zero and each reading fall anywhere in one. */
  readonly resolution: number;
}

export const NO_CAM_ERRORS: CamErrors = { step: 0, resolution: 0 };
export type SitsOn = 'lobe' | 'lifter' | 'bucket' | 'valve';

const RUN_UP = 20;
const toStep = (value: number, step: number): number => (step > 0 ? Math.round(value / step) * step : value);

/**
 * An engine to be turned: each assembly has its own advance of the cam; where the cam stands depends on which way the crank was turned last.
 * Turning is in crank degrees, positive the way it runs; 0 is overlap TDC.
 */
export function makeValveTrain(train: VirtualValveTrain, errors: CamErrors, random: Random) {
  let advance: PerValve = { intake: 0, exhaust: 0 };
  let standing: CamStand = {
    crank: -360,
    lag: 0,
    lifted: { intake: 0, exhaust: 0 },
    lost: { intake: 0, exhaust: 0 },
  };
  let zero = 0;
  const stride: number = STRIDE[train.lifter.kind];

  const after = (from: CamStand, by: number): CamStand => follow(train, advance, from, by);
  const travel = ({ lifted }: CamStand, valve: Valve, on: SitsOn): number =>
    on === 'valve' ? Math.max(0, lifted[valve] * train.ratio - train.lash) : lifted[valve];
  const turn = (by: number): void => {
    const steps = Math.ceil(Math.abs(by) / stride);
    for (let i = 0; i < steps; i += 1) standing = after(standing, by / steps);
  };
  const anywhere = (): number => random.within(errors.resolution / 2);

  return {
    /** A new assembly: the cam sits so far ahead. */
    assemble: (ahead: Partial<Record<Valve, number>>): void => {
      advance = { intake: ahead.intake ?? 0, exhaust: ahead.exhaust ?? 0 };
    },
    turn,
    /** Puts the crank so far from overlap TDC, coming the way it runs; lifters pushed down on their lobes just before. */
    comeForwardTo: (crank: number): void => {
      standing = standAt(train, advance, crank - RUN_UP);
      turn(RUN_UP);
    },
    /** The indicator is set to 0 where it is. */
    zeroIndicator: (valve: Valve, on: SitsOn): void => {
      zero = travel(standing, valve, on) + anywhere();
    },
    /** What the indicator shows. */
    indicator: (valve: Valve, on: SitsOn): number => toStep(travel(standing, valve, on) - zero, errors.resolution),
    /** What stands under the pointer. */
    wheel: (): WheelReading =>
      readingAt(train.ring, toStep(train.mount + standing.crank + random.normal(errors.eye ?? 0), errors.step)),
    /** Ring position under the pointer, unread: crank degrees. */
    position: (): number => toStep(train.mount + standing.crank, errors.step),
    /**
     * Turns until the indicator shows a figure, and no further than a turn and a half. Rising or falling says which side of the nose.
     * @returns whether it ever showed it.
     */
    turnUntil: (valve: Valve, on: SitsOn, shown: number, direction: 1 | -1, moving: 'rising' | 'falling'): boolean => {
      const wanted = zero + shown + anywhere();
      for (let turned = 0; turned < 540; turned += stride) {
        const next = after(standing, direction * stride);
        const [now, then] = [travel(standing, valve, on), travel(next, valve, on)];
        if (moving === 'rising' ? now < wanted && then >= wanted : now > wanted && then <= wanted) {
          let [low, high] = [0, stride];
          for (let halving = 0; halving < 24; halving += 1) {
            const middle = (low + high) / 2;
            const at = travel(after(standing, direction * middle), valve, on);
            if (moving === 'rising' ? at < wanted : at > wanted) low = middle;
            else high = middle;
          }
          standing = after(standing, direction * high);
          return true;
        }
        standing = next;
      }
      return false;
    },
    /** Where the valve's nose stands on this cam as assembled: cycle angle, crank degrees. */
    noseOf: (valve: Valve): number => wrap720(train.lobes[valve].nose - advance[valve]),
  };
}

export type ValveTrain = ReturnType<typeof makeValveTrain>;
