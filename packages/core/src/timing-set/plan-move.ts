import type { FittedPart } from './fitted-part';
import { type Setting, advanceOfSetting, tableOf } from './hardware';
import {
  type Marks,
  NOTHING,
  type Put,
  type Ranged,
  marksOf,
  offOf,
  putOfRange,
  putsOfMarks,
  rangedOf,
  settle,
} from './placings';

/** A cam to be moved. Crank degrees. */
export interface CamToMove {
  readonly cam: string;
  /** How far ahead of its target it sits. */
  readonly delta: number;
  /** From where to where it may be moved before a valve comes too near to its piston: advance from where it stands; null where that is not known. */
  readonly room: { readonly from: number; readonly to: number } | null;
}

export interface PlannedPart {
  readonly part: string;
  readonly from: Setting;
  readonly to: Setting;
  /** What it is expected to give, crank degrees of advance, and what it says on it. */
  readonly gives: number;
  readonly label: number;
  readonly standard: number;
}

export interface Plan {
  /** The parts that are put elsewhere. */
  readonly parts: readonly PlannedPart[];
  /** For each cam: how far it goes, how far from its target that leaves it (its δ), and how sure the hardware is of it. */
  readonly cams: readonly {
    readonly cam: string;
    readonly by: number;
    readonly leaves: number;
    readonly standard: number;
    readonly breaks: boolean;
  }[];
  /** The largest of what is left over, whichever way. */
  readonly remaining: number;
  readonly frontApart: boolean;
  readonly wheelOff: boolean;
  /** Does it bring a valve nearer to a piston than it may come? */
  readonly breaks: boolean;
}

/** What no wheel tells apart, crank degrees: plans that leave so little more than the best are as good, and rank by the work they take. */
export const ALIKE = 0.25;
/** How many are told in the end, and kept for each amount of work. */
const KEPT = 3;
/** Places of a part in a range that turns several cams which are looked at; fewer where there is more than one such part. */
const MOST_PLACES = 4000;
const FEW_PLACES = 40;
/** Sums of marks of one cam beyond which only every so many are looked at as places for such a part. */
const MOST_SUMS = 60;

/** What a way of putting the parts comes to. Crank degrees. */
interface Outcome {
  /** The largest of what it leaves, and the sum over the cams. */
  readonly max: number;
  readonly sum: number;
  readonly work: number;
  readonly off: number;
  readonly breaks: boolean;
}

interface Way extends Outcome {
  readonly puts: () => readonly Put[];
}

/**
 * The best few ways of bringing the cams to their targets. Of all that leave no more than a quarter of a degree beyond the best, which is all that a wheel tells
 * apart, the one with the least work, then the one nearest to the middle; then what leaves more. What brings a valve too near to its piston comes last. Staying is ranked with
 * the others: nothing is offered that staying is as good as.
 * @param parts what is fitted; a part that turns several cams is chosen for all of them together.
 * @param cams what is to be moved; their keys are those that the parts turn.
 * @returns at most three plans, each of which moves something; none where nothing brings the cams nearer.
 * @example planMove([keyways with marks −4, 0, 4], [{ cam: 'single', delta: -1.75, room: null }]) // []: +4 would leave 2.25
 */
export function planMove(parts: readonly FittedPart[], cams: readonly CamToMove[]): Plan[] {
  if (cams.length === 0) return [];
  const known = new Set(cams.map(({ cam }) => cam));
  const turned = parts.filter(({ turns }) => turns.some((each) => known.has(each)));
  const turnsMany = ({ turns }: FittedPart): boolean => turns.filter((each) => known.has(each)).length > 1;
  const shared = marksOf(turned.filter(turnsMany));
  const ranges = turned.filter(turnsMany).flatMap((part) => rangedOf(part) ?? []);
  const own = new Map(
    cams.map(({ cam }) => {
      const mine = turned.filter((part) => !turnsMany(part) && part.turns.includes(cam));
      return [cam, { marks: marksOf(mine), ranges: mine.flatMap((part) => rangedOf(part) ?? []) }];
    }),
  );
  const groups = groupsOf(cams, ranges);
  const ways = new Kept();
  for (let at = 0; at < shared.count; at += 1) {
    const common = putsOfMarks(shared, at);
    let together = new Kept();
    together.put({ max: 0, sum: 0, work: shared.work[at] ?? 0, off: shared.off[at] ?? 0, breaks: false }, () => common);
    for (const group of groups) {
      const base = new Map(
        group.cams.map(({ cam }) => [
          cam,
          common.reduce((sum, { part, gives }) => sum + (part.turns.includes(cam) ? gives : 0), 0),
        ]),
      );
      together = both(together, waysOf(group.cams, group.ranges, base, own));
    }
    for (const way of together.all()) ways.put(way, way.puts);
  }
  const stays = outcomeOfStaying(cams);
  const inOrder = ranked([...ways.all(), stays]);
  const nearer = inOrder.slice(0, inOrder.indexOf(stays)).filter(({ max }) => max <= stays.max + NOTHING);
  // Told last, and marked: whoever makes the clearance first may go that way.
  const tooNear = inOrder.filter(({ breaks, max }) => breaks && stays.max - max > ALIKE);
  const told = new Map<string, Plan>();
  for (const way of [...nearer, ...tooNear]) {
    const plan = planOf(way.puts(), cams);
    // A part that is asked for nothing is not moved: the same way may have been come by more than once.
    const places = JSON.stringify(plan.parts.map(({ part, to }) => [part, to]).sort());
    if (plan.parts.length > 0 && told.size < KEPT && !told.has(places)) told.set(places, plan);
  }
  return [...told.values()];
}

function outcomeOfStaying(cams: readonly CamToMove[]): Way {
  const off = cams.map(({ delta }) => Math.abs(delta));
  return {
    max: Math.max(...off),
    sum: off.reduce((sum, each) => sum + each, 0),
    work: 0,
    // Where it stands is nearer than any other place of its marks.
    off: -1,
    // Whatever the room is: that it stands there is no plan’s doing.
    breaks: false,
    puts: () => [],
  };
}

/** The few best outcomes for each amount of work, those that bring a valve too near by themselves. */
class Kept {
  private readonly byWork = new Map<number, Way[]>();

  put(outcome: Outcome, puts: () => readonly Put[]): void {
    const key = 2 * outcome.work + (outcome.breaks ? 1 : 0);
    const kept = this.byWork.get(key) ?? [];
    const at = kept.findIndex((each) => isBetter(outcome, each));
    if (at < 0 && kept.length >= KEPT) return;
    kept.splice(at < 0 ? kept.length : at, 0, { ...outcome, puts });
    if (kept.length > KEPT) kept.length = KEPT;
    this.byWork.set(key, kept);
  }

  all(): Way[] {
    return [...this.byWork.values()].flat();
  }
}

/** Hundredths, so that rounding of binary fractions decides nothing. */
const hundredths = (value: number): number => Math.round(100 * value);

/** Of outcomes with the same work: what leaves less, then what is nearer to the middle. */
const isBetter = (one: Outcome, other: Outcome): boolean =>
  (hundredths(one.max) - hundredths(other.max) || hundredths(one.sum) - hundredths(other.sum) || one.off - other.off) <
  0;

/** In the order that they are offered in: those that bring a valve too near after all others. */
const ranked = (ways: readonly Way[]): Way[] => [
  ...alikeTogether(ways.filter(({ breaks }) => !breaks)),
  ...alikeTogether(ways.filter(({ breaks }) => breaks)),
];

function alikeTogether(ways: readonly Way[]): Way[] {
  const steps = (more: number): number => Math.floor(more / ALIKE + NOTHING);
  const least = Math.min(...ways.map(({ max }) => max));
  // What is left of the others counts only where the worst is as good.
  const leastSum = new Map<number, number>();
  for (const { max, sum } of ways) {
    const step = steps(max - least);
    leastSum.set(step, Math.min(leastSum.get(step) ?? Infinity, sum));
  }
  const keyOf = ({ max, sum, work, off }: Way): readonly number[] => {
    const step = steps(max - least);
    return [step, steps(sum - (leastSum.get(step) ?? 0)), work, hundredths(off), max];
  };
  const keys = new Map(ways.map((way) => [way, keyOf(way)]));
  return [...ways].sort((a, b) => {
    const [one, other] = [keys.get(a) ?? [], keys.get(b) ?? []];
    const at = one.findIndex((value, place) => value !== other[place]);
    return at < 0 ? 0 : (one[at] ?? 0) - (other[at] ?? 0);
  });
}

/** Cams that hang together by parts in a range which turn more than one of them. */
function groupsOf(cams: readonly CamToMove[], ranges: readonly Ranged[]) {
  const groups: { cams: CamToMove[]; ranges: Ranged[] }[] = cams.map((cam) => ({ cams: [cam], ranges: [] }));
  for (const range of ranges) {
    const mine = groups.filter((group) => group.cams.some(({ cam }) => range.part.turns.includes(cam)));
    const [first, ...rest] = mine;
    if (!first) continue;
    for (const other of rest) {
      first.cams.push(...other.cams);
      first.ranges.push(...other.ranges);
      groups.splice(groups.indexOf(other), 1);
    }
    first.ranges.push(range);
  }
  return groups;
}

type Own = ReadonlyMap<string, { readonly marks: Marks; readonly ranges: readonly Ranged[] }>;
type Bases = ReadonlyMap<string, number>;

/** The best ways of a group of cams, with what the parts set so far give them. */
function waysOf(cams: readonly CamToMove[], ranges: readonly Ranged[], base: Bases, own: Own): Kept {
  const [range, ...rest] = ranges;
  if (!range) {
    const found = new Kept();
    found.put({ max: 0, sum: 0, work: 0, off: 0, breaks: false }, () => []);
    return cams.reduce((all, cam) => both(all, waysOfCam(cam, base.get(cam.cam) ?? 0, own)), found);
  }
  const found = new Kept();
  for (const gives of placesFor(range, cams, base, own, rest.length > 0 ? FEW_PLACES : MOST_PLACES)) {
    const moved = new Map(
      [...base].map(([cam, by]) => [cam, range.part.turns.includes(cam) ? by + gives : by] as const),
    );
    const isMoved = Math.abs(gives) > NOTHING;
    for (const way of waysOf(cams, rest, moved, own).all())
      found.put(
        {
          ...way,
          work: way.work + (isMoved ? range.work : 0),
          off: way.off + offOf(range, gives),
        },
        () => [...(isMoved ? [putOfRange(range, gives)] : []), ...way.puts()],
      );
  }
  return found;
}

/** Every way of one with every way of another. */
function both(one: Kept, other: Kept): Kept {
  const found = new Kept();
  for (const a of one.all())
    for (const b of other.all())
      found.put(
        {
          max: Math.max(a.max, b.max),
          sum: a.sum + b.sum,
          work: a.work + b.work,
          off: a.off + b.off,
          breaks: a.breaks || b.breaks,
        },
        () => [...a.puts(), ...b.puts()],
      );
  return found;
}

/** Where a cam is brought to as near as its valves leave room for: what goes anywhere goes no further; what has marks may only be told of it. */
const heldIn = ({ delta, room }: CamToMove): number =>
  room !== null && room.from <= room.to ? Math.min(room.to, Math.max(room.from, -delta)) : -delta;

const breaksRoom = (room: CamToMove['room'], by: number): boolean =>
  room !== null && Math.abs(by) > NOTHING && (by > room.to + NOTHING || by < room.from - NOTHING);

/** The best ways of one cam by its own parts: every combination of marks, with no, one or all of those in a range taking what is left. */
function waysOfCam(cam: CamToMove, base: number, own: Own): Kept {
  const { marks, ranges } = own.get(cam.cam) ?? { marks: marksOf([]), ranges: [] };
  const held = heldIn(cam);
  const room = cam.room !== null && cam.room.from <= cam.room.to ? cam.room : null;
  const uses: readonly (readonly Ranged[])[] = [
    [],
    ...ranges.map((each) => [each]),
    ...(ranges.length > 1 ? [[...ranges].sort((a, b) => a.work - b.work)] : []),
  ];
  const found = new Kept();
  for (let at = 0; at < marks.count; at += 1)
    for (const used of uses) {
      let by = base + (marks.by[at] ?? 0);
      let work = marks.work[at] ?? 0;
      let off = marks.off[at] ?? 0;
      const given: number[] = [];
      for (const range of used) {
        const gives = settle(range, held - by, (room?.from ?? -Infinity) - by, (room?.to ?? Infinity) - by);
        given.push(gives);
        by += gives;
        if (Math.abs(gives) < NOTHING) continue;
        work += range.work;
        off += offOf(range, gives);
      }
      const left = Math.abs(cam.delta + by);
      found.put({ max: left, sum: left, work, off, breaks: breaksRoom(cam.room, by) }, () => [
        ...putsOfMarks(marks, at),
        ...used.flatMap((range, place) => {
          const gives = given[place] ?? 0;
          return Math.abs(gives) < NOTHING ? [] : [putOfRange(range, gives)];
        }),
      ]);
    }
  return found;
}

/**
 * Where a part in a range that turns several cams is worth trying: where it stands, where it brings one of them home with each sum of its own marks (or to the end of what its own range
 * takes up, or of its room), and half-way between two of those of different cams: the largest of several distances is least at one of them.
 */
function placesFor(range: Ranged, cams: readonly CamToMove[], base: Bases, own: Own, most: number): number[] {
  const wanted = cams
    .filter(({ cam }) => range.part.turns.includes(cam))
    .map((cam) => {
      const { marks, ranges } = own.get(cam.cam) ?? { marks: marksOf([]), ranges: [] };
      const sums = [...new Set(Array.from(marks.by, (by) => Math.round(1e6 * by) / 1e6))].sort((a, b) => a - b);
      const every = Math.ceil(sums.length / MOST_SUMS);
      const least = ranges.reduce((sum, each) => sum + each.least, 0);
      const furthest = ranges.reduce((sum, each) => sum + each.most, 0);
      const ends = [
        heldIn(cam),
        ...(cam.room ? [cam.room.from, cam.room.to].filter((end) => Math.abs(end) < 1e3) : []),
      ];
      return sums
        .filter((_, at) => at % every === 0)
        .flatMap((sum) =>
          ends.flatMap((end) => {
            const home = end - (base.get(cam.cam) ?? 0) - sum;
            return ranges.length === 0 ? [home] : [home, home - furthest, home - least];
          }),
        );
    });
  const places = new Set<number>([0]);
  const add = (place: number): void => {
    if (places.size >= most) return;
    const within = Math.min(range.most, Math.max(range.least, place));
    // A scale has a tenth to either side.
    for (const [from, to] of [
      [-Infinity, within],
      [within, Infinity],
    ] as const)
      places.add(Math.round(1e9 * settle(range, within, from, to)) / 1e9);
  };
  wanted.flat().forEach(add);
  wanted.forEach((mine, at) => {
    for (const others of wanted.slice(at + 1)) for (const one of mine) for (const two of others) add((one + two) / 2);
  });
  return [...places];
}

function planOf(puts: readonly Put[], all: readonly CamToMove[]): Plan {
  const moved = puts.map(({ part, to, gives }) => {
    const label = (advanceOfSetting(part.hardware, to) ?? 0) - (advanceOfSetting(part.hardware, part.at) ?? 0);
    const { standard } = part.response.expect(part.at, to);
    return { part, planned: { part: part.part, from: part.at, to, gives, label, standard } };
  });
  const cams = all.map(({ cam, delta, room }) => {
    const mine = moved.filter(({ part }) => part.turns.includes(cam));
    const by = mine.reduce((sum, { planned }) => sum + planned.gives, 0);
    const standard = Math.sqrt(mine.reduce((sum, { planned }) => sum + planned.standard ** 2, 0));
    return { cam, by, leaves: delta + by, standard, breaks: breaksRoom(room, by) };
  });
  return {
    parts: moved.map(({ planned }) => planned),
    cams,
    remaining: Math.max(...cams.map(({ leaves }) => Math.abs(leaves)), 0),
    frontApart: moved.some(({ part }) => tableOf(part.hardware).work === 'front-apart'),
    wheelOff: moved.some(({ part }) => tableOf(part.hardware).wheelOff),
    breaks: cams.some(({ breaks }) => breaks),
  };
}
