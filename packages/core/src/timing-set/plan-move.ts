import { type Hardware, type Setting, advanceOfSetting, reachOf, tableOf } from './hardware';
import { type Response, isSame } from './learned-response';

/** A piece of hardware on a drive, and where it stands. */
export interface FittedPart {
  readonly part: string;
  readonly hardware: Hardware;
  readonly at: Setting;
  /** Keys of the cams that it turns. */
  readonly turns: readonly string[];
  readonly response: Response;
}

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

/** What no wheel tells apart, crank degrees: plans that leave as much rank by the work they take. */
const ALIKE = 0.25;
/** How many are kept of each group of parts, and told in the end. */
const KEPT = 3;
const NOTHING = 1e-6;
/** A scale is set to a tenth at the finest. Common practice, no source. */
const SET_TO = 0.1;

/** One way of putting the parts of a group. */
interface Choice {
  readonly settings: readonly Setting[];
  readonly gives: readonly number[];
  readonly by: number;
  readonly work: number;
  readonly off: number;
}

interface Option {
  readonly setting: Setting;
  readonly gives: number;
  readonly work: number;
  /** How far from the middle of its range, as a share. */
  readonly off: number;
}

/** A part that goes anywhere in a range, and how far it still goes each way, crank degrees of advance. */
interface Ranged {
  readonly place: number;
  readonly part: FittedPart;
  readonly perUnit: number;
  readonly least: number;
  readonly most: number;
  /** Has it a scale to be set by? */
  readonly scale: boolean;
  readonly work: number;
}

/** Parts that are chosen together: every combination of their marks, laid flat, and what goes anywhere. */
interface Group {
  readonly parts: readonly FittedPart[];
  readonly options: readonly (readonly Option[])[];
  readonly ranged: readonly Ranged[];
  readonly count: number;
  readonly by: Float64Array;
  readonly work: Float64Array;
  readonly off: Float64Array;
}

const WORK = { adjust: 1, 'front-apart': 4 } as const;
const WHEEL_OFF = 3;

/** What putting this part elsewhere costs. */
function workOf({ hardware }: FittedPart): number {
  const { work, wheelOff } = tableOf(hardware);
  return WORK[work] + (wheelOff ? WHEEL_OFF : 0);
}

function optionsOf(part: FittedPart): Option[] {
  const reach = reachOf(part.hardware);
  if (reach.kind === 'range') return [{ setting: part.at, gives: 0, work: 0, off: 0 }];
  const furthest = Math.max(...reach.positions.map(({ advance }) => Math.abs(advance)), NOTHING);
  return reach.positions.map(({ mark, advance }) => {
    const setting = { mark };
    const stays = isSame(part.at, setting);
    return {
      setting,
      gives: part.response.expect(part.at, setting).gives,
      work: stays ? 0 : workOf(part),
      off: Math.abs(advance) / furthest,
    };
  });
}

function rangedOf(part: FittedPart, place: number): Ranged[] {
  const reach = reachOf(part.hardware);
  if (reach.kind !== 'range' || !('at' in part.at)) return [];
  const perUnit = part.response.expect({ at: 0 }, { at: 1 }).gives;
  const ends = [(reach.from - part.at.at) * perUnit, (reach.to - part.at.at) * perUnit];
  return [
    {
      place,
      part,
      perUnit,
      least: Math.min(0, ...ends),
      most: Math.max(0, ...ends),
      scale: reach.scale,
      work: workOf(part),
    },
  ];
}

function groupOf(parts: readonly FittedPart[]): Group {
  const options = parts.map(optionsOf);
  const count = options.reduce((product, each) => product * each.length, 1);
  const [by, work, off] = [new Float64Array(count), new Float64Array(count), new Float64Array(count)];
  let stride = 1;
  for (const each of options) {
    each.forEach((option, place) => {
      for (let block = place * stride; block < count; block += stride * each.length)
        for (let at = block; at < block + stride; at += 1) {
          by[at] = (by[at] ?? 0) + option.gives;
          work[at] = (work[at] ?? 0) + option.work;
          off[at] = (off[at] ?? 0) + option.off;
        }
    });
    stride *= each.length;
  }
  const ranged = parts.flatMap(rangedOf).sort((a, b) => a.work - b.work);
  return { parts, options, ranged, count, by, work, off };
}

/**
 * One combination written out, its ranged parts taking what is left of what is wanted.
 * @param short nothing may go further than that: a scale is then set to the tenth before it.
 */
function choose(group: Group, at: number, wanted: number, short: boolean): Choice {
  const picked = pick(group, at);
  const [settings, gives] = [[...picked.settings], [...picked.gives]];
  let [by, work, off] = [group.by[at] ?? 0, group.work[at] ?? 0, group.off[at] ?? 0];
  for (const { place, part, perUnit, least, most, scale, work: own } of group.ranged) {
    const given = Math.min(most, Math.max(least, wanted - by));
    if (Math.abs(given) < NOTHING || !('at' in part.at)) continue;
    const exact = part.at.at + given / perUnit;
    const steps = (exact - part.at.at) / SET_TO;
    const near = short ? Math.trunc(steps + Math.sign(steps) * NOTHING) : Math.round(steps);
    const at = scale ? part.at.at + near * SET_TO : exact;
    const gets = (at - part.at.at) * perUnit;
    if (Math.abs(gets) < NOTHING) continue;
    settings[place] = { at: Math.round(at * 1e9) / 1e9 };
    gives[place] = gets;
    by += gets;
    work += own;
    off += Math.abs(given) / Math.max(most - least, NOTHING);
  }
  return { settings, gives, by, work, off };
}

function pick({ options }: Group, at: number): Pick<Choice, 'settings' | 'gives'> {
  let rest = at;
  const chosen = options.flatMap((each) => {
    const option = each[rest % each.length];
    rest = Math.floor(rest / each.length);
    return option ? [option] : [];
  });
  return { settings: chosen.map(({ setting }) => setting), gives: chosen.map(({ gives }) => gives) };
}

/** One figure to sort by: what is left in steps of what can be told apart, then work, then how far from the middle, then what is left. */
const rankOf = (remaining: number, work: number, off: number, breaks: boolean): number =>
  (breaks ? 1e9 : 0) + Math.round(remaining / ALIKE) * 1e5 + work * 1e3 + off * 10 + remaining / 100;

const breaksRoom = (room: CamToMove['room'], by: number): boolean =>
  room !== null && (by > room.to + NOTHING || by < room.from - NOTHING);

/** The best few of a group for what is wanted of it. */
function bestOf(group: Group, { delta, room }: CamToMove, shared: number): Choice[] {
  const wanted = -delta - shared;
  // What goes anywhere goes no further than the valves leave room; what has marks may only be told of it.
  const held = room !== null && room.from <= room.to ? Math.min(room.to, Math.max(room.from, -delta)) : -delta;
  const fillTo = held - shared;
  const { by, work, off, ranged, count } = group;
  const kept: { rank: number; at: number }[] = [];
  let worst = Infinity;
  for (let at = 0; at < count; at += 1) {
    let turned = by[at] ?? 0;
    let cost = work[at] ?? 0;
    for (const { least, most, work: own } of ranged) {
      const given = Math.min(most, Math.max(least, fillTo - turned));
      if (Math.abs(given) < NOTHING) continue;
      turned += given;
      cost += own;
    }
    const breaks = room !== null && breaksRoom(room, shared + turned);
    const rank = rankOf(Math.abs(wanted - turned), cost, off[at] ?? 0, breaks);
    // Nearly all of ten thousand are no good: they must cost nothing more.
    if (rank >= worst) continue;
    keep(kept, { rank, at }, KEPT);
    if (kept.length === KEPT) worst = kept[KEPT - 1]?.rank ?? Infinity;
  }
  return kept.map(({ at }) => choose(group, at, fillTo, held !== -delta));
}

function keep<T extends { readonly rank: number }>(kept: T[], next: T, most: number): void {
  if (kept.length === most && next.rank >= (kept[most - 1]?.rank ?? Infinity)) return;
  const at = kept.findIndex(({ rank }) => next.rank < rank);
  kept.splice(at < 0 ? kept.length : at, 0, next);
  if (kept.length > most) kept.length = most;
}

/**
 * The best few ways of bringing the cams to their targets, ranked by what they leave over (in steps of a quarter of a degree, which is all that a wheel tells apart), then by
 * work, then by how near they stay to the middle. What brings a valve too near to its piston comes after all that does not.
 * @param parts what is fitted; a part that turns several cams is chosen for all of them together.
 * @param cams what is to be moved; their keys are those that the parts turn.
 * @returns at most three plans, each of which moves something; none where nothing is fitted.
 */
export function planMove(parts: readonly FittedPart[], cams: readonly CamToMove[]): Plan[] {
  const known = new Set(cams.map(({ cam }) => cam));
  const turned = parts.map((part) => ({ part, cams: part.turns.filter((each) => known.has(each)) }));
  const shared = groupOf(turned.filter((each) => each.cams.length > 1).map(({ part }) => part));
  const own = new Map(
    cams.map(({ cam }): [string, Group] => {
      const mine = turned.filter((each) => each.cams.length === 1 && each.cams[0] === cam);
      return [cam, groupOf(mine.map(({ part }) => part))];
    }),
  );
  const kept: { rank: number; plan: Plan }[] = [];
  for (const common of commonChoices(shared, cams)) {
    const each = cams.map((cam) => {
      const group = own.get(cam.cam) ?? groupOf([]);
      return { cam, group, best: bestOf(group, cam, turnOf(shared, common, cam.cam)) };
    });
    // The best of every cam together, and with the next best of one of them in its place.
    const seats: number[][] = [each.map(() => 0)];
    each.forEach(({ best }, at) => {
      for (let place = 1; place < best.length; place += 1) seats.push(each.map((_, i) => (i === at ? place : 0)));
    });
    for (const seat of seats) {
      const plan = planOf(shared, common, each, seat);
      if (plan && plan.parts.length > 0) {
        const { work, off } = costOf(common, each, seat);
        keep(kept, { rank: rankOf(plan.remaining, work, off, plan.breaks), plan }, KEPT);
      }
    }
  }
  return kept.map(({ plan }) => plan);
}

/** Parts that turn several cams: each of their combinations; with a range, also at the middle of what the cams ask for. */
function commonChoices(shared: Group, cams: readonly CamToMove[]): Choice[] {
  const asked = cams.map(({ delta }) => -delta);
  const middle = (Math.min(...asked) + Math.max(...asked)) / 2;
  return Array.from({ length: shared.count }, (_, at) => at).flatMap((at) => {
    const plain = { ...pick(shared, at), by: shared.by[at] ?? 0, work: shared.work[at] ?? 0, off: shared.off[at] ?? 0 };
    return shared.ranged.length === 0 ? [plain] : [plain, choose(shared, at, middle, false)];
  });
}

const turnOf = ({ parts }: Group, { gives }: Choice, cam: string): number =>
  parts.reduce((sum, { turns }, at) => sum + (turns.includes(cam) ? (gives[at] ?? 0) : 0), 0);

type Each = readonly { readonly cam: CamToMove; readonly group: Group; readonly best: readonly Choice[] }[];

const costOf = (common: Choice, each: Each, seat: readonly number[]) =>
  each.reduce(
    (sum, { best }, at) => {
      const choice = best[seat[at] ?? 0];
      return { work: sum.work + (choice?.work ?? 0), off: sum.off + (choice?.off ?? 0) };
    },
    { work: common.work, off: common.off },
  );

function movesOf({ parts }: Group, { settings, gives }: Choice): { part: FittedPart; planned: PlannedPart }[] {
  return parts.flatMap((part, at) => {
    const to = settings[at];
    if (!to || isSame(part.at, to)) return [];
    const label = (advanceOfSetting(part.hardware, to) ?? 0) - (advanceOfSetting(part.hardware, part.at) ?? 0);
    const { standard } = part.response.expect(part.at, to);
    return [{ part, planned: { part: part.part, from: part.at, to, gives: gives[at] ?? 0, label, standard } }];
  });
}

function planOf(shared: Group, common: Choice, each: Each, seat: readonly number[]): Plan | null {
  const moved = [
    ...movesOf(shared, common),
    ...each.flatMap(({ group, best }, at) => {
      const choice = best[seat[at] ?? 0];
      return choice ? movesOf(group, choice) : [];
    }),
  ];
  const cams = each.map(({ cam }) => {
    const mine = moved.filter(({ part }) => part.turns.includes(cam.cam));
    const by = mine.reduce((sum, { planned }) => sum + planned.gives, 0);
    const standard = Math.sqrt(mine.reduce((sum, { planned }) => sum + planned.standard ** 2, 0));
    return { cam: cam.cam, by, leaves: cam.delta + by, standard, breaks: breaksRoom(cam.room, by) };
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
