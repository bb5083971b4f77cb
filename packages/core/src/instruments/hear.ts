import { type Sample, counted, parseLine } from './line';

/** What has been heard of an instrument so far. Its size does not grow with the lines. */
export interface Heard {
  /** The box that is listened to; null before the first good line. */
  readonly box: string | null;
  readonly last: Sample | null;
  /** When the last good line came, by the listener's clock, ms. */
  readonly at: number;
  /** Newest samples, for the steady value: those of the last moments. */
  readonly recent: readonly Sample[];
  /** Samples that cannot follow from the last one, until it shows whether they hold. */
  readonly doubted: readonly Sample[];
  /** How long the box has spoken by its own clock, ms: its counter may begin anew in between. */
  readonly spoken: number;
  /** Listener's clock less `spoken` at the quickest line, ms: what it would be if nothing waited anywhere. */
  readonly quickest: number | null;
  /** How late the last line came against the quickest, ms. */
  readonly behind: number;
  /** When another box was heard on the same line last; null: never. */
  readonly otherAt: number | null;
  /** Each time the encoder's count lost its origin: the box began anew, or it jumped. What was synced to it before holds no longer. */
  readonly origin: number;
  readonly lostBecause: 'jumped' | 'restarted' | null;
  readonly tally: Tally;
}

export interface Tally {
  readonly good: number;
  /** Missing by their numbers. */
  readonly missing: number;
  /** Garbage, wrong checksums, impossible figures. */
  readonly damaged: number;
  /** Single samples that stood nowhere near their neighbours. */
  readonly astray: number;
}

export const SILENT: Heard = {
  box: null,
  last: null,
  at: 0,
  recent: [],
  doubted: [],
  spoken: 0,
  quickest: null,
  behind: 0,
  otherAt: null,
  origin: 0,
  lostBecause: null,
  tally: { good: 0, missing: 0, damaged: 0, astray: 0 },
};

/** Faster nobody turns an engine by hand: two turns a second. From memory. Degrees a second, and what noise adds. */
const FASTEST = 720;
const NOISE = 2;
/** A lift that changes faster than any lobe moves a lifter by hand, mm a second, and what noise adds. From memory. */
const LIFT_FASTEST = 200;
const LIFT_NOISE = 0.5;
/** So many samples in a row that agree with each other are believed, however far they are from the ones before. */
const BELIEVED = 3;
/** How long a steady value looks back, ms of the box, and at most how many samples. */
const LOOKS_BACK = 250;
const MOST_RECENT = 64;
/** Two boxes on one line are told for this long after the other was heard, ms. */
const TWO_FOR = 2_000;
/** A number that is so much lower than the last is a new count, not a line that came late. */
const LATE = 1_000;
/** Clocks drift apart by less than this, ms for each ms. From memory. */
const DRIFT = 0.0005;
/** A line that comes later than this tells of a place where the engine may not stand any more, ms. */
const TOO_LATE = 250;
/** A box says something at least this often, ms; longer silence is a lost instrument. */
export const SILENCE = 1_000;

function canFollow(from: Sample, to: Sample): boolean {
  const seconds = Math.max(0, counted(from.ms, to.ms)) / 1000;
  if (Math.abs(to.angle - from.angle) > FASTEST * seconds + NOISE) return false;
  return to.lifts.every((lift, which) => {
    const before = from.lifts[which] ?? null;
    return lift === null || before === null || Math.abs(lift - before) <= LIFT_FASTEST * seconds + LIFT_NOISE;
  });
}

/**
 * Hears one line at a time by the listener's clock (ms). A damaged line is counted and otherwise passed over; a sample that stands nowhere
 * near its neighbours is doubted until others agree with it, and then the count has lost its origin.
 */
export function hear(heard: Heard, line: string, at: number): Heard {
  const spoken = parseLine(line);
  if (!spoken.ok) return { ...heard, tally: { ...heard.tally, damaged: heard.tally.damaged + 1 } };
  const { sample } = spoken;
  if (heard.box !== null && sample.box !== heard.box) return { ...heard, otherAt: at };
  const { last } = heard;
  if (last === null) return accepted({ ...heard, box: sample.box }, sample, at, 0);
  const on = counted(last.seq, sample.seq);
  const restarted =
    on <= -LATE ||
    (on > 0 && counted(last.ms, sample.ms) < 0) ||
    (on <= 0 && sample.seq < LATE && counted(last.ms, sample.ms) < -LATE);
  if (restarted)
    return accepted(
      {
        ...heard,
        last: null,
        recent: [],
        doubted: [],
        quickest: null,
        origin: heard.origin + 1,
        lostBecause: 'restarted',
      },
      sample,
      at,
      0,
    );
  // Said twice, or come late.
  if (on <= 0) return heard;
  if (canFollow(last, sample)) {
    const astray = heard.doubted.length;
    return accepted(
      { ...heard, doubted: [], tally: { ...heard.tally, astray: heard.tally.astray + astray } },
      sample,
      at,
      on - 1 - astray,
    );
  }
  const before = heard.doubted.at(-1);
  const doubted = before && canFollow(before, sample) ? [...heard.doubted, sample] : [sample];
  if (doubted.length < BELIEVED) return { ...heard, doubted };
  return accepted(
    { ...heard, recent: doubted.slice(0, -1), doubted: [], origin: heard.origin + 1, lostBecause: 'jumped' },
    sample,
    at,
    Math.max(0, on - BELIEVED),
  );
}

function accepted(heard: Heard, sample: Sample, at: number, missing: number): Heard {
  const since = heard.last ? Math.max(0, counted(heard.last.ms, sample.ms)) : 0;
  const spoken = heard.spoken + since;
  const apart = at - spoken;
  const quickest = Math.min((heard.quickest ?? apart) + DRIFT * since, apart);
  const kept = heard.recent.filter(({ ms }) => counted(ms, sample.ms) <= LOOKS_BACK);
  return {
    ...heard,
    last: sample,
    at,
    spoken,
    quickest,
    behind: apart - quickest,
    recent: [...kept.slice(-(MOST_RECENT - 1)), sample],
    tally: {
      ...heard.tally,
      good: heard.tally.good + 1,
      missing: heard.tally.missing + Math.max(0, missing),
    },
  };
}

export type Condition = 'nothing-yet' | 'live' | 'lost' | 'two-boxes' | 'behind';

/** How it stands with the instrument at a moment of the listener's clock. */
export function conditionOf({ last, at, otherAt, behind }: Heard, now: number): Condition {
  if (last === null) return 'nothing-yet';
  if (now - at > SILENCE) return 'lost';
  if (otherAt !== null && now - otherAt < TWO_FOR) return 'two-boxes';
  return behind > TOO_LATE ? 'behind' : 'live';
}

export interface Steady {
  readonly angle: number;
  readonly lifts: readonly [number | null, number | null];
  /** How far the samples lie apart, degrees. */
  readonly spread: number;
}

/** Held still: the samples of the last moment lie within this, degrees. */
const STILL = 0.3;

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  const upper = sorted[middle] ?? NaN;
  return sorted.length % 2 ? upper : (upper + (sorted[middle - 1] ?? NaN)) / 2;
};

/** The value to be taken: medians of the last quarter second; null while the engine is being turned. */
export function steadyOf({ recent }: Heard): Steady | null {
  if (recent.length === 0) return null;
  const angles = recent.map(({ angle }) => angle);
  const spread = Math.max(...angles) - Math.min(...angles);
  if (spread > STILL) return null;
  const lift = (which: 0 | 1): number | null => {
    const all = recent.map(({ lifts }) => lifts[which]).filter((mm) => mm !== null);
    return all.length === 0 ? null : median(all);
  };
  return { angle: median(angles), lifts: [lift(0), lift(1)], spread };
}
