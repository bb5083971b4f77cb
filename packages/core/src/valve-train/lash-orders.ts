import { VALVES, type Valve, noseAt } from '../cam/card';
import { wrap720 } from '../cam/lobe';
import { type Firing, firingTdcs } from '../crank/firing';
import { crankDeg } from '../units/angle';
import { fewestStops } from './fewest-stops';
import { LEAST_CLEAR, type Seat, WANTED_CLEAR, clearOfRamp, cycleOf, restOf, wrapCycle } from './resting';

/** Orders in which the valves of an engine are set. Common practice throughout, no source; the last one is ours. */
export const LASH_ORDER_NAMES = ['firing', 'partner', 'two-stops', 'fewest'] as const;
export type LashOrderName = (typeof LASH_ORDER_NAMES)[number];

/** A valve at a stop, and how far it stands from its ramp there, crank degrees: null where nobody knows its seat events. */
export interface ValveAtStop {
  readonly cylinder: number;
  readonly valve: Valve;
  readonly clear: number | null;
}

/** Where the crank is held, and which valves are set there. */
export interface LashStop {
  /** Crank degrees past cylinder 1's firing TDC, in [0, 720); null where only the valves show it. */
  readonly at: number | null;
  /** What is watched instead of a wheel. */
  readonly watched: { readonly cylinder: number; readonly seen: 'exhaust-opens' | 'intake-closes' } | null;
  /** The cylinder whose firing TDC it is. */
  readonly fires: number | null;
  readonly valves: readonly ValveAtStop[];
}

export interface LashOrder {
  readonly order: LashOrderName;
  readonly stops: readonly LashStop[];
  /** Valves that would be set on or too near their ramp. */
  readonly caught: readonly ValveAtStop[];
  /** The nearest that any valve stands to its ramp, crank degrees; null where nobody knows. */
  readonly nearest: number | null;
}

/** What the orders follow from. */
export interface LashEngine {
  readonly firing: Firing;
  readonly seats: Readonly<Record<Valve, Seat>> | null;
}

/** Where the noses of common lobes stand, °ATDC and °BTDC: what lists that are printed without a cam at hand go by. From memory. */
const COMMON_CENTRELINE = 110;
/** A common exhaust begins to open so far before its nose; of a common intake this much is left to close where it is past its peak and closing, crank degrees. From memory. */
const COMMON_OPENING = 130;
const COMMON_CLOSING = 60;
/** An eye sees a valve open when it has moved so far past its seat, crank degrees. From memory. */
const SEEN_OPENING = 5;

interface Fired {
  readonly cylinder: number;
  readonly after: number;
}

/** Each order: its stops, where it can be laid out at all. */
const LAY: Readonly<
  Record<LashOrderName, (fired: readonly Fired[], seats: LashEngine['seats']) => readonly LashStop[] | null>
> = {
  firing: (fired, seats) =>
    fired.map((own) => ({
      at: own.after,
      watched: null,
      fires: own.cylinder,
      valves: VALVES.map((valve) => atStop(own, valve, own.after, seats)),
    })),
  partner: (fired, seats) =>
    fired
      .flatMap((own) => [watch(own, 'exhaust-opens', seats), watch(own, 'intake-closes', seats)])
      // As they come up when the crank is turned: two turns, whatever the count of cylinders.
      .sort((a, b) => a.comes - b.comes)
      .map(({ comes: _comes, ...stop }) => stop),
  'two-stops': (fired, seats) =>
    seats &&
    [0, 360].map((at) => ({
      at,
      watched: null,
      fires: fired.find(({ after }) => after === at)?.cylinder ?? null,
      valves: fired.flatMap((own) =>
        VALVES.filter((valve) => firstOfTwo(own, valve) === (at === 0)).map((valve) => atStop(own, valve, at, seats)),
      ),
    })),
  fewest(fired, seats) {
    if (!seats) return null;
    const rests = fired.flatMap(({ after }) =>
      VALVES.flatMap((valve) => restOf(seats[valve], after, WANTED_CLEAR) ?? []),
    );
    if (rests.length < 2 * fired.length) return null;
    const stops = fewestStops(
      rests,
      fired.map(({ after }) => after),
    );
    return stops.map((at) => ({
      at,
      watched: null,
      fires: fired.find(({ after }) => Math.abs(after - at) < 1e-6)?.cylinder ?? null,
      valves: fired.flatMap((own) =>
        VALVES.filter((valve) => bestStop(stops, own, seats[valve]) === at).map((valve) =>
          atStop(own, valve, at, seats),
        ),
      ),
    }));
  },
};

/** The stop at which a valve stands furthest from its ramp; of two alike the first. */
function bestStop(stops: readonly number[], { after }: Fired, seat: Seat): number | undefined {
  const clears = stops.map((at) => clearOfRamp(seat, cycleOf(at, after)));
  return stops[clears.indexOf(crankDeg(Math.max(...clears)))];
}

/** Of two stops a turn apart, a valve rests at the one that is further from its nose: the printed list, whatever the cam. */
const firstOfTwo = ({ after }: Fired, valve: Valve): boolean =>
  Math.abs(wrap720(cycleOf(0, after) - noseAt(valve, COMMON_CENTRELINE))) >= 180;

const atStop = ({ cylinder, after }: Fired, valve: Valve, at: number, seats: LashEngine['seats']): ValveAtStop => ({
  cylinder,
  valve,
  clear: seats && clearOfRamp(seats[valve], cycleOf(at, after)),
});

/** By its partner: one valve of a cylinder shows when the other rests. */
function watch(
  own: Fired,
  seen: 'exhaust-opens' | 'intake-closes',
  seats: LashEngine['seats'],
): LashStop & { readonly comes: number } {
  const valve: Valve = seen === 'exhaust-opens' ? 'intake' : 'exhaust';
  const nose = noseAt('exhaust', COMMON_CENTRELINE) - COMMON_OPENING;
  const cycle =
    seen === 'exhaust-opens'
      ? (seats?.exhaust.opens ?? nose) + SEEN_OPENING
      : (seats?.intake.closes ?? noseAt('intake', COMMON_CENTRELINE) + COMMON_OPENING) - COMMON_CLOSING;
  const at = wrapCycle(cycle + own.after + 360);
  return {
    comes: at,
    at: seats ? at : null,
    watched: { cylinder: own.cylinder, seen },
    fires: null,
    valves: [atStop(own, valve, at, seats)],
  };
}

/** As they fire. */
const firedIn = (firing: Firing): readonly Fired[] => [...firingTdcs(firing)].sort((a, b) => a.after - b.after);

/**
 * The stops of an order as they are worked: a valve that would stand too near its ramp is set at its own firing TDC instead, after the others.
 */
export function restingStops(stops: readonly LashStop[], { firing, seats }: LashEngine): readonly LashStop[] {
  const isNear = ({ clear }: ValveAtStop): boolean => clear !== null && clear < WANTED_CLEAR;
  const near = stops.flatMap(({ valves }) => valves.filter(isNear));
  const kept = stops.map((stop) => ({ ...stop, valves: stop.valves.filter((each) => !isNear(each)) }));
  const moved = firedIn(firing).map((own) => ({
    at: own.after,
    watched: null,
    fires: own.cylinder,
    valves: near
      .filter(({ cylinder }) => cylinder === own.cylinder)
      .map(({ valve }) => atStop(own, valve, own.after, seats)),
  }));
  return [...kept, ...moved].filter(({ valves }) => valves.length > 0);
}

/**
 * Every order of setting the valves of an engine, with how far each valve stands from its ramp at each stop.
 * @returns in the order of `LASH_ORDER_NAMES`, without those that need seat events where nobody knows them.
 * @example lashOrders({ firing: { order: [1, 3, 4, 2] }, seats: { intake: { opens: -25, closes: 235, slack: 0 }, exhaust: { opens: -240, closes: 22, slack: 0 } } })[2].stops[0].valves // both of cylinder 1, intake of 2, exhaust of 3
 */
export function lashOrders({ firing, seats }: LashEngine): readonly LashOrder[] {
  const fired = firedIn(firing);
  return LASH_ORDER_NAMES.flatMap((order): LashOrder[] => {
    const stops = LAY[order](fired, seats);
    if (!stops) return [];
    const kept = stops.filter(({ valves }) => valves.length > 0);
    const clears = kept.flatMap(({ valves }) => valves.flatMap(({ clear }) => clear ?? []));
    return [
      {
        order,
        stops: kept,
        caught: kept.flatMap(({ valves }) => valves.filter(({ clear }) => clear !== null && clear < LEAST_CLEAR)),
        nearest: clears.length > 0 ? Math.min(...clears) : null,
      },
    ];
  });
}
