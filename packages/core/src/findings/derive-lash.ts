import { VALVES, type Valve } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import { cylinderTrouble } from '../crank/firing-order';
import { firingTdcs } from '../crank/firing';
import { type Problem, problem } from '../problem';
import type { BodyOf } from '../record/entry';
import type { Build } from '../record/fold';
import type { LashJob } from '../record/parts';
import { type LashChange, type LashEffect, compareLash, lashEffect } from '../valve-train/lash';
import { type LashOrder, type LashStop, lashOrders, restingStops } from '../valve-train/lash-orders';
import { WANTED_CLEAR, clearOfRamp, cycleOf } from '../valve-train/resting';
import {
  ONE_OF_EACH,
  type ValveCount,
  type ValveName,
  isSameValve,
  namedValve,
  valvesOf,
  valvesOfCylinder,
} from '../valve-train/valve-name';
import type { TrialFinding } from './derive-trial';
import { type LashGrowth, lashGrowth } from './lash-growth';
import { lashHere } from './lash-here';
import { type SeatFinding, type Seats, seatEvents } from './seat-events';

/** setting: once through. checking: all set, and gone round again. off: one was found another than it was left. */
export type LashState = 'setting' | 'checking' | 'off' | 'done';

/** due: nothing was done. set: waits for the second round. good: found as it was left. */
export type ValveState = 'due' | 'set' | 'good' | 'loose' | 'tight';

/** What probably made a valve another than it was left. */
export type LashCause =
  /** It stood so near its ramp when it was set, crank degrees. */
  | { readonly code: 'set-on-ramp'; readonly clear: number }
  /** As if its lobe had stood so far up when it was set, mm; or its lock turned. */
  | { readonly code: 'set-up-or-lock'; readonly lifted: number | null }
  /** It stands so near its ramp where it is measured now. */
  | { readonly code: 'measured-on-ramp'; readonly clear: number }
  | { readonly code: 'lock-turned' };

export interface ValveLash extends ValveName {
  readonly state: ValveState;
  /** What is wanted, and what it was left at and found at last, mm; turns where the adjuster is counted in them. */
  readonly wanted: number;
  readonly left: number | null;
  readonly found: number | null;
  readonly turns: number | null;
  /** Found less left, mm. */
  readonly by: number | null;
  readonly cause: LashCause | null;
  /** How far it stood from its ramp where it was left, where that was too near: crank degrees. */
  readonly nearRamp: number | null;
}

export interface LashJobFinding {
  readonly id: string;
  readonly order: BodyOf<'lash.begun'>['order'];
  readonly engine: 'cold' | 'hot';
  readonly wanted: BodyOf<'lash.begun'>['wanted'];
  readonly count: ValveCount;
  readonly stops: readonly LashStop[];
  /** In the order in which they are set. */
  readonly valves: readonly ValveLash[];
  readonly next: (ValveName & { readonly stop: number }) | null;
  readonly state: LashState;
  /** Readings of cylinders that the engine does not have. */
  readonly astray: readonly ({ readonly entry: string } & Problem)[];
}

/** A valve over the years: what it was left at, and found at next. */
export interface LashHistory extends ValveName {
  readonly steps: readonly { readonly left: number; readonly found: number; readonly engine: 'cold' | 'hot' }[];
  /** Every time tighter, or every time looser, and more than a blade tells in all; else null. mm. */
  readonly trend: { readonly change: Exclude<LashChange, 'same'>; readonly by: number } | null;
}

export interface LashFinding {
  /** That lifts at the valve are reckoned with, mm. */
  readonly here: Readonly<Record<Valve, number>>;
  /** Where the valves leave their seats; null where nothing tells. */
  readonly seats: Seats | null;
  readonly problem: Problem | null;
  readonly orders: readonly LashOrder[];
  /** What the card wants, mm. */
  readonly card: Readonly<Record<'hot' | 'cold', Readonly<Record<Valve, number | null>>>>;
  readonly growth: Readonly<Record<Valve, LashGrowth | null>>;
  /** What 0.05 mm more of lash does at the seat, where the lobe is known. */
  readonly effects: Readonly<Record<Valve, LashEffect | null>>;
  readonly job: LashJobFinding | null;
  readonly history: readonly LashHistory[];
}

/** By so much more lash the effect on the events is told, mm: 0.002 in. */
export const EFFECT_OF = 0.0508;

/** The lash of all valves: where they may be set, how they were, and what came of it. */
export function deriveLash(build: Build, trials: readonly TrialFinding[], card: CompletedCard): LashFinding {
  const { engine } = build.description.body;
  const printed = printedLash(build);
  const last = build.lashJobs.at(-1);
  const lash = { intake: lashHere(build, 'intake'), exhaust: lashHere(build, 'exhaust') };
  const known = seatEvents(build, trials, card, lash);
  const seats = known.ok ? known.seats : null;
  const firing = { order: engine.firingOrder, angles: engine.firingAngles };
  const orders = laidOut({ firing, seats });
  return {
    here: lash,
    seats,
    problem: known.ok ? null : known.problem,
    orders,
    card: printed,
    growth: { intake: lashGrowth(build.lashJobs, 'intake'), exhaust: lashGrowth(build.lashJobs, 'exhaust') },
    effects: { intake: effectOf(seats?.intake, lash.intake), exhaust: effectOf(seats?.exhaust, lash.exhaust) },
    job: last ? findJob(last, { orders, seats, firing, cylinders: engine.cylinders }) : null,
    history: historyOf(build),
  };
}

/** Laying the orders out costs more than all else here; it changes with the cam alone. */
let lastLaid: { readonly from: string; readonly orders: readonly LashOrder[] } | null = null;
function laidOut(engine: Parameters<typeof lashOrders>[0]): readonly LashOrder[] {
  const { firing, seats } = engine;
  const places = seats && VALVES.map((valve) => [seats[valve].opens, seats[valve].closes, seats[valve].slack]);
  const from = JSON.stringify([firing, places]);
  if (lastLaid?.from !== from) lastLaid = { from, orders: lashOrders(engine) };
  return lastLaid.orders;
}

const printedLash = ({ card }: Build): LashFinding['card'] => ({
  hot: { intake: card?.body.intake?.lashHot ?? null, exhaust: card?.body.exhaust?.lashHot ?? null },
  cold: { intake: card?.body.intake?.lashCold ?? null, exhaust: card?.body.exhaust?.lashCold ?? null },
});

const effectOf = (seat: SeatFinding | undefined, lash: number): LashEffect | null =>
  seat?.lobe && seat.ratio !== null ? lashEffect(seat.lobe, seat.ratio, lash, EFFECT_OF) : null;

interface JobContext {
  readonly orders: readonly LashOrder[];
  readonly seats: Seats | null;
  readonly firing: Parameters<typeof firingTdcs>[0];
  readonly cylinders: number;
}

function findJob(job: LashJob, context: JobContext): LashJobFinding {
  const { body, id } = job.begun;
  const { orders, cylinders } = context;
  // An order that needs seat events which are no longer known: any engine can be set by its firing order.
  const order = orders.find((each) => each.order === body.order) ?? orders[0];
  const stops = restingStops(order?.stops ?? [], context);
  const count = countOf(job);
  const valves = stops.flatMap((stop, at) =>
    stop.valves.flatMap(({ cylinder, valve }) =>
      valvesOf(cylinder, valve, count).map((name) => ({ at, lash: findValve(job, name, context) })),
    ),
  );
  const undone = (state: ValveState): boolean => state === 'due' || state === 'loose' || state === 'tight';
  const next = valves.find(({ lash }) => undone(lash.state)) ?? valves.find(({ lash }) => lash.state === 'set') ?? null;
  const states = valves.map(({ lash }) => lash.state);
  return {
    id,
    order: order?.order ?? body.order,
    engine: body.engine,
    wanted: body.wanted,
    count,
    stops,
    valves: valves.map(({ lash }) => lash),
    next: next && { stop: next.at, cylinder: next.lash.cylinder, valve: next.lash.valve, which: next.lash.which },
    state: states.some((state) => state === 'loose' || state === 'tight')
      ? 'off'
      : states.includes('due')
        ? 'setting'
        : states.includes('set')
          ? 'checking'
          : 'done',
    astray: job.taken.flatMap((entry) => {
      const trouble = cylinderTrouble(entry.body.cylinder, cylinders) ?? whichTrouble(entry.body, count);
      return trouble ? [{ entry: entry.id, ...trouble }] : [];
    }),
  };
}

const countOf = ({ begun }: LashJob): ValveCount => begun.body.count ?? ONE_OF_EACH;

/** Entries of one valve of a job, as they were taken. */
const takenOf = (job: LashJob, name: ValveName): LashJob['taken'] =>
  job.taken.filter(({ body }) => isSameValve(namedValve(body, countOf(job)), name));

/** A valve that the cylinders of this engine do not have. */
function whichTrouble({ valve, which }: BodyOf<'lash.taken'>, count: ValveCount): Problem | null {
  if (which === undefined || which <= count[valve]) return null;
  return problem(
    `There is no ${valve} ${which} in a cylinder here.`,
    'Begin the setting with the right count of valves.',
  ).problem;
}

function findValve(job: LashJob, name: ValveName, context: JobContext): ValveLash {
  const { cylinder, valve } = name;
  const { wanted } = job.begun.body;
  const own = takenOf(job, name);
  const setAt = own.findLastIndex(({ body }) => body.set !== undefined || body.turns !== undefined);
  const setting = own[setAt]?.body;
  const foundLater = own.slice(setAt + 1).findLast(({ body }) => body.found !== undefined)?.body;
  const common = {
    ...name,
    wanted: wanted.kind === 'lash' ? wanted[valve] : wanted.turns,
    turns: setting?.turns ?? null,
    nearRamp: nearRamp(setting?.at, cylinder, valve, context),
  };
  const nothing = { ...common, left: setting?.set ?? null, found: null, by: null, cause: null };
  if (wanted.kind === 'preload') return { ...nothing, state: setting?.turns === undefined ? 'due' : 'good' };
  // Found and left alone: against what is wanted. Set in this job: against what it was set to.
  const against = setting?.set ?? common.wanted;
  if (!foundLater || foundLater.found === undefined)
    return { ...nothing, state: setting?.set === undefined ? 'due' : 'set' };
  const { change, by } = compareLash(foundLater.found, against);
  const finding = { ...common, left: setting?.set ?? foundLater.found, found: foundLater.found, by };
  if (change === 'same') return { ...finding, state: 'good', cause: null };
  const cause = setting ? causeOf(change, by, setting, foundLater.at, { cylinder, valve, context }) : null;
  return { ...finding, state: change === 'looser' ? 'loose' : 'tight', cause };
}

/** How far a valve stood from its ramp at a place of the crank; null where nobody knows. */
function clearAt(at: number | undefined, cylinder: number, valve: Valve, { seats, firing }: JobContext): number | null {
  const after = firingTdcs(firing).find((each) => each.cylinder === cylinder)?.after;
  return at === undefined || after === undefined || !seats ? null : clearOfRamp(seats[valve], cycleOf(at, after));
}

function nearRamp(at: number | undefined, cylinder: number, valve: Valve, context: JobContext): number | null {
  const clear = clearAt(at, cylinder, valve, context);
  return clear !== null && clear < WANTED_CLEAR ? clear : null;
}

function causeOf(
  change: LashChange,
  by: number,
  setting: BodyOf<'lash.taken'>,
  measuredAt: number | undefined,
  { cylinder, valve, context }: { readonly cylinder: number; readonly valve: Valve; readonly context: JobContext },
): LashCause {
  if (change === 'looser') {
    const clear = nearRamp(setting.at, cylinder, valve, context);
    if (clear !== null) return { code: 'set-on-ramp', clear };
    const ratio = context.seats?.[valve].ratio ?? null;
    return { code: 'set-up-or-lock', lifted: ratio === null ? null : by / ratio };
  }
  const clear = nearRamp(measuredAt, cylinder, valve, context);
  return clear === null ? { code: 'lock-turned' } : { code: 'measured-on-ramp', clear };
}

/** What each valve was left at and found at next, over all jobs; like with like, cold or hot. */
function historyOf({ lashJobs, description }: Build): readonly LashHistory[] {
  const last = lashJobs.at(-1);
  if (lashJobs.length < 2 || !last) return [];
  return description.body.engine.firingOrder.flatMap((cylinder) =>
    valvesOfCylinder(cylinder, countOf(last)).flatMap((name): LashHistory[] => {
      const steps: LashHistory['steps'][number][] = [];
      const left = new Map<'cold' | 'hot', number>();
      for (const job of lashJobs) {
        const { engine } = job.begun.body;
        const own = takenOf(job, name);
        // Of a job only its first finding tells of the years before; the later ones are its own second round.
        const found = own[0]?.body.found;
        const was = left.get(engine);
        if (found !== undefined && was !== undefined) steps.push({ left: was, found, engine });
        const leftAt = own.findLast(({ body }) => body.set !== undefined)?.body.set ?? found;
        if (leftAt !== undefined) {
          // Turned cold or hot, what the other was left at is gone.
          if (own.some(({ body }) => body.set !== undefined)) left.clear();
          left.set(engine, leftAt);
        }
      }
      return steps.length === 0 ? [] : [{ ...name, steps, trend: trendOf(steps) }];
    }),
  );
}

function trendOf(steps: LashHistory['steps']): LashHistory['trend'] {
  const changes = steps.map(({ left, found }) => found - left);
  const by = changes.reduce((sum, each) => sum + each, 0);
  const { change } = compareLash(by, 0);
  const oneWay = changes.every((each) => (by > 0 ? each > 0 : each < 0));
  return change !== 'same' && oneWay ? { change, by } : null;
}
