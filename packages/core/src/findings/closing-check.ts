import { ringPosition } from '../crank/wheel';
import { ZERO_METHODS, type TdcSide, type ZeroMethodName } from '../tdc/zero-methods';
import { wrap180 } from '../units/angle';
import type { Ground, Trial } from '../record/parts';
import type { SettingFinding } from './readings/zero-passes';

/**
 * The closing check: after the last reading of the cam, one contact with the piston once more, wheel untouched. Nothing in the readings themselves shows a wheel
 * that had slipped before the first of them. none: there is nothing to check. due: not made since the last reading. same, moved: what it showed.
 */
export interface ClosingFinding {
  readonly state: 'none' | 'due' | 'same' | 'moved';
  /** How TDC was found; null where there is nothing to check. */
  readonly method: ZeroMethodName | null;
  /** The zero, and the setting of the wheel, that it belongs to. */
  readonly zero: string | null;
  readonly setting: string | null;
  /** The contact that is met turning the way the engine runs: no slack, no turning back. */
  readonly side: TdcSide;
  /** Of the indicator, mm, where the method goes by one. */
  readonly figure: number | null;
  /** By how much the wheel stands further on than it did, crank degrees. */
  readonly by: number | null;
}

export const NO_CLOSING_CHECK: ClosingFinding = {
  state: 'none',
  method: null,
  zero: null,
  setting: null,
  side: 'before',
  figure: null,
  by: null,
};

/** A contact that comes again within this is the same one, crank degrees, however finely it is read. Common practice, no source. */
const SAME = 0.5;

/**
 * What the closing check of a trial shows.
 * @param trial the one that is being read.
 */
export function closingCheck(
  { zeros }: Ground,
  trial: Trial | null,
  settings: ReadonlyMap<string, SettingFinding>,
): ClosingFinding {
  let [last, setting]: [string, string | null] = ['', null];
  const look = (id: string, on: string | null): void => {
    if (on !== null && id > last) [last, setting] = [id, on];
  };
  // Loops, not lists: this is asked of every trial at every key.
  for (const round of trial?.rounds ?? []) for (const { id, body } of round.readings) look(id, body.setting);
  for (const { id, body } of trial?.traces ?? []) look(id, body.setting);
  const standing = setting === null ? undefined : settings.get(setting);
  if (setting === null || !standing?.proved || standing.disturbed) return NO_CLOSING_CHECK;
  const zero = zeros.find(({ stages }) => stages.some(({ id }) => id === setting));
  const stage = zero?.stages.find(({ id }) => id === setting);
  if (!zero || !stage || ZERO_METHODS[zero.begun.method].readings !== 'pair') return NO_CLOSING_CHECK;

  const contacts = stage.passes.flatMap(({ before, after }) => [...before, ...after]);
  const known = contacts.filter(({ id }) => id < last);
  const figure = known.find(({ body }) => body.side === 'before')?.body.indicator ?? null;
  const offs = contacts.flatMap(({ id, body }) => {
    const like = known.filter((each) => each.body.side === body.side && each.body.indicator === body.indicator);
    if (id < last || like.length === 0) return [];
    const at = ringPosition(body.wheel);
    return [like.reduce((sum, each) => sum + wrap180(at - ringPosition(each.body.wheel)), 0) / like.length];
  });
  const base = { method: zero.begun.method, zero: zero.id, setting, side: 'before', figure } as const;
  if (offs.length === 0) return { ...base, state: 'due', by: null };
  const by = offs.reduce((sum, each) => sum + each, 0) / offs.length;
  return { ...base, state: Math.abs(by) <= Math.max(SAME, standing.step) + 1e-9 ? 'same' : 'moved', by };
}
