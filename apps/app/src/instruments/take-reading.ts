import type { Result } from '@yosoku/core/problem';
import { type WheelReading, type WheelRing, readingAt } from '@yosoku/core/crank/wheel';
import { ringAt, usualSense } from '@yosoku/core/instruments/sync';
import type { Rotation } from '@yosoku/core/crank/rotation';
import type { Report } from '@yosoku/core/report/report';
import { formatComputedLength } from '@yosoku/core/units/length';
import type { Showing, WheelSync } from './instrument';

/** What a station wants of an instrument. */
export interface Wanted {
  readonly approach: 'forward' | 'backward' | 'any';
  /** Is the wheel wanted? */
  readonly wheel: boolean;
  /** What the indicator must show above its zero, mm, where it is brought to a figure; null where it is read as it is, or not at all. */
  readonly shown: number | null;
  /** Is the indicator read? */
  readonly lift: boolean;
  /** Names what is read: another is never where the crank still stands. null: it may be read again and again without turning. */
  readonly place: string | null;
}

export interface Taken {
  readonly wheel: WheelReading | null;
  /** Above its zero, mm. */
  readonly lift: number | null;
  readonly box: string;
}

export type Take = Result<{ readonly taken: Taken }, { readonly why: string }>;

/** An indicator counts as brought to its figure within this, mm: two hundredths are less than a quarter degree on any flank. From memory. */
const BROUGHT = 0.02;
/** A run of less than this says nothing of the way that it was come to, degrees. */
const SURE = 0.5;

/** Does a sync hold: the count has its origin still, and the wheel was not set since? */
export const holds = (sync: WheelSync | null, showing: Showing, setting: string | null): sync is WheelSync =>
  sync !== null && sync.origin === showing.origin && sync.setting === setting;

/** Ring position as the instrument has it, to a twentieth of a degree. */
export const ringNow = (sync: WheelSync, angle: number): number => Math.round(ringAt(sync, angle) * 20) / 20;

const no = (why: string): Take => ({ ok: false, why });

/**
 * Would a key that is pressed twice write the same place down for what comes next? Another indicator, or one that was moved to another lobe,
 * may well be read where the crank still stands.
 */
const isSameAgain = (taken: Showing['taken'], which: 0 | 1, lift: number | null, place: string | null): boolean =>
  place !== null &&
  taken !== null &&
  taken.place !== place &&
  taken.which === which &&
  Math.abs((taken.lift ?? 0) - (lift ?? 0)) <= BROUGHT;

/** A reading from an instrument, or why it cannot be had just now. */
export function takeReading(
  showing: Showing,
  which: 0 | 1,
  wanted: Wanted,
  {
    ring,
    setting,
    units,
    rotation,
  }: { ring: WheelRing; setting: string | null; units: 'in' | 'mm'; rotation: Rotation },
): Take {
  if (showing.condition === 'two-boxes') return no('Two boxes are sending at once. Unplug one of them.');
  if (showing.condition === 'behind') return no('Its readings are late. Wait a moment, and try again.');
  if (showing.condition !== 'live') return no('No signal from the instrument. Nothing was recorded.');
  const { steady, sync } = showing;
  if (!steady) return no('Hold it still: it is still turning.');
  if (wanted.wheel && !holds(sync, showing, setting)) return no('Sync it with the wheel first.');
  if (isSameAgain(showing.taken, which, steady.lifts[which], wanted.place))
    return no('The crank has not moved since the last reading, which is recorded. Turn it to the next.');
  const run = (sync?.sense ?? usualSense(rotation)) * showing.run;
  if (wanted.approach !== 'any' && Math.abs(run) > SURE && run > 0 !== (wanted.approach === 'forward'))
    return no(
      wanted.approach === 'forward'
        ? 'You came to it turning back. Go back well past it and come again the way it runs.'
        : 'You came to it turning the way it runs. This one is read turning back.',
    );
  const raw = steady.lifts[which];
  const lift = raw === null ? null : raw - showing.zero[which];
  if (wanted.lift && lift === null) return no(`Indicator ${which + 1} of the box is not plugged in.`);
  if (wanted.shown !== null && lift !== null && Math.abs(lift - wanted.shown) > BROUGHT)
    return no(
      `The indicator shows ${formatComputedLength(lift, units)}: bring it to ${formatComputedLength(wanted.shown, units)}.`,
    );
  return {
    ok: true,
    taken: {
      wheel: wanted.wheel && sync ? readingAt(ring, ringNow(sync, steady.angle)) : null,
      lift,
      box: showing.box ?? 'bench box',
    },
  };
}

/** What every reading of a build leans on. */
export const standingOf = ({ zero, build }: Report) => ({
  ring: zero.ring,
  setting: zero.setting,
  units: build.units,
  rotation: build.engine.rotation,
});
