import { VALVES, type Valve } from '../cam/card';

/** One valve of an engine. */
export interface ValveName {
  readonly cylinder: number;
  readonly valve: Valve;
  /** Of several of a kind in a cylinder, counted from the timing end; null where it is the only one. */
  readonly which: number | null;
}

/** How many of a kind a cylinder has. */
export type ValveCount = Readonly<Record<Valve, number>>;

/** What most engines have: one of each. */
export const ONE_OF_EACH: ValveCount = { intake: 1, exhaust: 1 };

/** A cylinder has no more of a kind. Common practice, no source. */
export const MOST_OF_A_KIND = 3;

export const isSameValve = (a: ValveName, b: ValveName): boolean =>
  a.cylinder === b.cylinder && a.valve === b.valve && a.which === b.which;

/**
 * The valve that an entry means: where there is one of a kind its number says nothing; where there are several and none is said, the first.
 * @example namedValve({ cylinder: 3, valve: 'intake' }, { intake: 2, exhaust: 1 }) // { cylinder: 3, valve: 'intake', which: 1 }
 */
export const namedValve = (
  { cylinder, valve, which }: { readonly cylinder: number; readonly valve: Valve; readonly which?: number | undefined },
  count: ValveCount,
): ValveName => ({ cylinder, valve, which: count[valve] > 1 ? (which ?? 1) : null });

/** All valves of one kind of a cylinder. */
export const valvesOf = (cylinder: number, valve: Valve, count: ValveCount): ValveName[] =>
  Array.from({ length: count[valve] }, (_, at) => ({ cylinder, valve, which: count[valve] > 1 ? at + 1 : null }));

/** All valves of a cylinder, the intakes first. */
export const valvesOfCylinder = (cylinder: number, count: ValveCount): ValveName[] =>
  VALVES.flatMap((valve) => valvesOf(cylinder, valve, count));

/** `valveWords({ cylinder: 3, valve: 'exhaust', which: 2 })` is "exhaust 2 of cylinder 3". */
export const valveWords = ({ cylinder, valve, which }: ValveName): string =>
  `${valve}${which === null ? '' : ` ${which}`} of cylinder ${cylinder}`;
