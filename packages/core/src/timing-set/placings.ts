import { type Setting, reachOf, tableOf } from './hardware';
import { isSame } from './learned-response';
import type { FittedPart } from './fitted-part';

/** Rounding of binary fractions, crank degrees. */
export const NOTHING = 1e-6;
/** A scale is set to a tenth at the finest. Common practice, no source. */
const SET_TO = 0.1;

const WORK = { adjust: 1, 'front-apart': 4 } as const;
const WHEEL_OFF = 3;

/** What putting this part elsewhere costs: small whole numbers. */
function workOf({ hardware }: FittedPart): number {
  const { work, wheelOff } = tableOf(hardware);
  return WORK[work] + (wheelOff ? WHEEL_OFF : 0);
}

/** One mark of a part: what it gives from where the part stands, what putting it there costs, how far from its middle it is as a share. */
interface Option {
  readonly setting: Setting;
  readonly gives: number;
  readonly work: number;
  readonly off: number;
}

function optionsOf(part: FittedPart): Option[] {
  const reach = reachOf(part.hardware);
  if (reach.kind === 'range') return [];
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

/** A part that goes anywhere in a range, and how far it still goes each way: crank degrees of advance from where it stands. */
export interface Ranged {
  readonly part: FittedPart;
  readonly stands: number;
  readonly perUnit: number;
  readonly least: number;
  readonly most: number;
  /** Has it a scale to be set by? */
  readonly scale: boolean;
  readonly work: number;
}

export function rangedOf(part: FittedPart): Ranged | null {
  const reach = reachOf(part.hardware);
  if (reach.kind !== 'range' || !('at' in part.at)) return null;
  const perUnit = part.response.expect({ at: 0 }, { at: 1 }).gives;
  const ends = [(reach.from - part.at.at) * perUnit, (reach.to - part.at.at) * perUnit];
  return {
    part,
    stands: part.at.at,
    perUnit,
    least: Math.min(0, ...ends),
    most: Math.max(0, ...ends),
    scale: reach.scale,
    work: workOf(part),
  };
}

/**
 * What a part in a range can be made to give, nearest to what is wanted and never beyond its ends or `from` and `to`: a scale has its tenths, and the one on the safe
 * side is taken.
 * @returns crank degrees of advance; 0 where there is no such place.
 */
export function settle(
  { stands, perUnit, least, most, scale }: Ranged,
  wanted: number,
  from: number,
  to: number,
): number {
  const [low, high] = [Math.max(least, from), Math.min(most, to)];
  if (low > high) return 0;
  const held = Math.min(high, Math.max(low, wanted));
  if (!scale) return held;
  const tenths = (stands + held / perUnit) / SET_TO;
  let [best, off] = [0, Infinity];
  for (const at of [Math.floor(tenths + NOTHING), Math.ceil(tenths - NOTHING)]) {
    const gives = (at * SET_TO - stands) * perUnit;
    if (gives < low - NOTHING || gives > high + NOTHING || Math.abs(gives - wanted) >= off) continue;
    best = gives;
    off = Math.abs(gives - wanted);
  }
  return best;
}

/** Parts that are chosen together: every combination of their marks laid flat, and those that go anywhere. Crank degrees of advance. */
export interface Marks {
  readonly parts: readonly FittedPart[];
  readonly options: readonly (readonly Option[])[];
  readonly count: number;
  readonly by: Float64Array;
  readonly work: Uint8Array;
  readonly off: Float64Array;
}

export function marksOf(all: readonly FittedPart[]): Marks {
  const parts = all.filter(({ hardware }) => reachOf(hardware).kind === 'marks');
  const options = parts.map(optionsOf);
  const count = options.reduce((product, each) => product * each.length, 1);
  const [by, work, off] = [new Float64Array(count), new Uint8Array(count), new Float64Array(count)];
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
  return { parts, options, count, by, work, off };
}

/** One part put somewhere. */
export interface Put {
  readonly part: FittedPart;
  readonly to: Setting;
  readonly gives: number;
}

/** The parts of one combination that are put elsewhere. */
export function putsOfMarks({ parts, options }: Marks, at: number): Put[] {
  let rest = at;
  return options.flatMap((each, place) => {
    const option = each[rest % each.length];
    rest = Math.floor(rest / each.length);
    const part = parts[place];
    return !option || !part || isSame(part.at, option.setting)
      ? []
      : [{ part, to: option.setting, gives: option.gives }];
  });
}

/** A part in a range, put so far on. */
export const putOfRange = ({ part, stands, perUnit }: Ranged, gives: number): Put => ({
  part,
  to: { at: Math.round((stands + gives / perUnit) * 1e9) / 1e9 },
  gives,
});

/** How far from the middle a part in a range is put, as a share. */
export const offOf = ({ least, most }: Ranged, gives: number): number =>
  Math.abs(gives) / Math.max(most - least, NOTHING);
