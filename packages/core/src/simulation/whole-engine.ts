import type { Valve } from '../cam/card';
import type { Rotation } from '../crank/rotation';
import { type SliderCrank, crankAngleAtDrop, pistonDrop } from '../crank/slider-crank';
import { type WheelReading, type WheelRing, readingAt } from '../crank/wheel';
import { wrap360, wrap180 } from '../units/angle';
import type { LashStand, LashWorld } from './lash-world';
import type { PlayStand, PlayWorld } from './play-world';
import type { RockerStand, RockerWorld } from './rocker-world';
import { type CamStand, type DrivenCam, type PerValve, STRIDE, follow, lobeLift, standAt } from './follow';

/** A whole engine that does not exist: crank, cam, wheel, and what is wrong with them. Lengths mm, angles crank degrees. */
export interface WholeEngine extends DrivenCam {
  readonly crank: SliderCrank;
  readonly rotation: Rotation;
  readonly ring: WheelRing;
  /** Further numbers of the same wheel. */
  readonly rings?: readonly WheelRing[] | undefined;
  /** The other cylinders, where every lobe can be measured: when each fires after the first, crank degrees, and the lobe that has lost some lift, mm. */
  readonly others?: {
    readonly fires: Readonly<Record<number, number>>;
    readonly worn: { readonly cylinder: number; readonly valve: Valve; readonly by: number };
  };
  /** Valves whose lash can be felt and set. */
  readonly lash?: LashWorld;
  /** Rockers on studs, with an adjustable pushrod. */
  readonly rockers?: RockerWorld;
  /** A cam that can be pushed to and fro. */
  readonly endPlay?: PlayWorld;
  /** A wheel that is not tight: turned so far after it was set, it has slipped by so much. */
  readonly slips: { readonly after: number; readonly by: number } | null;
}

export type DialPlace = Valve | 'piston';
export const DIAL_PLACES: readonly DialPlace[] = ['intake', 'exhaust', 'piston'];

/** How everything stands that hands can move. Plain data: kept over a reload. */
export interface Stand extends CamStand {
  /** How far each cam sits ahead of the place for which its lobes are given. */
  readonly advance: PerValve;
  /** Ring position under the pointer at true TDC: changed by turning the wheel on its hub. */
  readonly mount: number;
  /** How far below the top the stop holds the piston, mm; null without a stop. */
  readonly stop: number | null;
  readonly dial: {
    readonly on: DialPlace;
    /** At which cylinder; left out: the first. */
    readonly cylinder?: number;
    /** Travel at which it shows 0, mm. */
    readonly zero: number;
  };
  /** Of an engine whose valves can be set. */
  readonly lash?: LashStand;
  readonly rockers?: RockerStand;
  readonly endPlay?: PlayStand;
  /** Turned since the wheel was set last, either way. */
  readonly turned: number;
  readonly slipped: boolean;
  /** How far it has come since it last turned round: negative turning back. */
  readonly run: number;
}

/** Where the stop of the practice engine holds the piston, mm below the top: 0.200 in, well before it. From memory. */
export const STOP_DEPTH = 5.08;
/** The blade that is taken up first, mm: 0.010 in. */
const FIRST_BLADE = 0.254;
const EXACT = 1e-9;

/** The engine as it is met: crank somewhere down, dial on the intake. */
export function met(engine: WholeEngine, advance: PerValve, mount: number, crank: number): Stand {
  const at = standAt(engine, advance, crank);
  return {
    ...at,
    advance,
    mount,
    stop: null,
    dial: { on: 'intake', zero: at.lifted.intake },
    ...(engine.lash ? { lash: { gaps: engine.lash.gaps, blade: FIRST_BLADE } } : {}),
    ...(engine.rockers ? { rockers: { length: engine.rockers.first, shows: null } } : {}),
    ...(engine.endPlay ? { endPlay: { play: engine.endPlay.play, pull: 'none', crept: false } } : {}),
    turned: 0,
    slipped: false,
    run: 0,
  };
}

/** How far the stop lets it turn, crank degrees: `back` ≤ 0 ≤ `on`. Without a stop both are infinite. */
export function room(engine: WholeEngine, stand: Stand): { readonly back: number; readonly on: number } {
  if (stand.stop === null) return { back: -Infinity, on: Infinity };
  const contacts = crankAngleAtDrop(engine.crank, stand.stop);
  if (!contacts) return { back: -Infinity, on: Infinity };
  // The piston comes up every 360°.
  const past = wrap360(stand.crank - contacts.after + EXACT);
  const allowed = 360 + contacts.before - contacts.after;
  return { back: -Math.max(0, past - EXACT), on: Math.max(0, allowed - past + EXACT) };
}

/**
 * Turns the crank by so many degrees, positive the way it runs; a stop may hold it before.
 * @example turned(engine, stand, 500).crank // stand.crank + 500 without a stop, less with one
 */
export function turned(engine: WholeEngine, stand: Stand, by: number): Stand {
  const { back, on } = room(engine, stand);
  const whole = Math.min(on, Math.max(back, by));
  if (whole === 0) return stand;
  const steps = Math.ceil(Math.abs(whole) / STRIDE[engine.lifter.kind]);
  let cam: CamStand = stand;
  for (let i = 0; i < steps; i += 1) cam = follow(engine, stand.advance, cam, whole / steps);
  const since = stand.turned + Math.abs(whole);
  const slips = engine.slips !== null && !stand.slipped && since >= engine.slips.after;
  return {
    ...stand,
    ...cam,
    turned: since,
    slipped: stand.slipped || slips,
    mount: slips ? stand.mount + (engine.slips?.by ?? 0) : stand.mount,
    run: whole > 0 === stand.run > 0 ? stand.run + whole : whole,
  };
}

/** Does the piston stand against the stop, and from which side? */
export function againstStop(engine: WholeEngine, stand: Stand): 'forward' | 'backward' | null {
  const { back, on } = room(engine, stand);
  return on < 1e-6 ? 'forward' : back > -1e-6 ? 'backward' : null;
}

/** How far the piston stands below the top, mm. */
export const pistonBelow = (engine: WholeEngine, stand: Stand): number => pistonDrop(engine.crank, stand.crank);

/** Puts the stop in. @returns null where the piston is higher than the stop would let it be: turn it down first. */
export function withStop(engine: WholeEngine, stand: Stand): Stand | null {
  return pistonBelow(engine, stand) < STOP_DEPTH ? null : { ...stand, stop: STOP_DEPTH };
}
export const withoutStop = (stand: Stand): Stand => ({ ...stand, stop: null });

/** Travel of what the dial sits on, mm: a lifter up from its base circle, or the piston up from the bottom of its stroke. */
export function travel(engine: WholeEngine, stand: Stand, on: DialPlace): number {
  if (on === 'piston') return engine.crank.stroke - pistonBelow(engine, stand);
  const { cylinder = 1 } = stand.dial;
  const { others } = engine;
  if (!others) return stand.lifted[on];
  // Solid lifters follow: where it fires later, its lobes come by so much later.
  const after = stand.crank - (others.fires[cylinder] ?? 0);
  return lobeLift(wornAt(engine, cylinder, on), stand.advance, on, after, stand.lag);
}

/** The cam as it is at one cylinder: the nose of a worn lobe is lower. */
function wornAt(engine: WholeEngine, cylinder: number, valve: Valve): DrivenCam {
  const worn = engine.others?.worn;
  if (worn?.cylinder !== cylinder || worn.valve !== valve) return engine;
  const lobe = engine.lobes[valve];
  return { ...engine, lobes: { ...engine.lobes, [valve]: { ...lobe, peak: lobe.peak - worn.by } } };
}

/** The dial put on the lifters of the next cylinder in number; on engines of which only the first can be measured it stays. */
export function dialMovedOn(engine: WholeEngine, stand: Stand): Stand {
  const count = Object.keys(engine.others?.fires ?? {}).length;
  if (count === 0) return stand;
  const cylinder = ((stand.dial.cylinder ?? 1) % count) + 1;
  return dialZeroed(engine, { ...stand, dial: { ...stand.dial, cylinder } });
}

/** What the dial shows, mm. */
export const dialShows = (engine: WholeEngine, stand: Stand): number =>
  travel(engine, stand, stand.dial.on) - stand.dial.zero;

export const dialZeroed = (engine: WholeEngine, stand: Stand): Stand => ({
  ...stand,
  dial: { ...stand.dial, zero: travel(engine, stand, stand.dial.on) },
});

/** The dial put elsewhere: it shows 0 there until it is zeroed where that is wanted. */
export const dialPut = (engine: WholeEngine, stand: Stand, on: DialPlace): Stand =>
  on === stand.dial.on ? stand : dialZeroed(engine, { ...stand, dial: { ...stand.dial, on, zero: 0 } });

/** The wheel turned on its hub by so many ring degrees, the crank held. */
export const wheelTurned = (stand: Stand, by: number): Stand => ({
  ...stand,
  mount: stand.mount + by,
  turned: 0,
  slipped: false,
});

/** A mark made on the rim where the pointer is: what is measured along it counts from there. */
export const markedHere = (stand: Stand): Stand => wheelTurned(stand, -underPointer(stand));

/** Lifters pushed down on their lobes by hand. */
export const lifterPushed = (engine: WholeEngine, stand: Stand): Stand => {
  const at = (valve: Valve): number => lobeLift(engine, stand.advance, valve, stand.crank, stand.lag);
  return {
    ...stand,
    lifted: { intake: at('intake'), exhaust: at('exhaust') },
    lost: { intake: 0, exhaust: 0 },
  };
};

/** The cams put further ahead by so many crank degrees, lifters following. */
export const camPut = (engine: WholeEngine, stand: Stand, advance: PerValve): Stand =>
  lifterPushed(engine, { ...stand, advance });

/** Ring position under the pointer, crank degrees, not wrapped. */
export const underPointer = (stand: Stand): number => stand.mount + stand.crank;
/** What the wheel shows, exactly. */
export const wheelShows = (engine: WholeEngine, stand: Stand): WheelReading =>
  readingAt(engine.ring, underPointer(stand));

/** Crank degrees from the nearest TDC, in [−180, 180). */
export const fromTdc = (stand: Stand): number => wrap180(stand.crank);
