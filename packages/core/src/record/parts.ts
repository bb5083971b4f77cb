import type { ReadTo } from '../crank/read-to';
import type { BodyOf, EntryOf } from './entry';

/** A pass over the top: the readings that were recorded under one pass id. Normally one each side. */
export interface Pass {
  readonly id: string;
  readonly before: readonly EntryOf<'zero.reading'>[];
  readonly after: readonly EntryOf<'zero.reading'>[];
}

/** The wheel left in one position, and the passes made there. `id` is null before the wheel was first set. */
export interface Stage {
  readonly id: string | null;
  readonly passes: readonly Pass[];
}

export interface Zero {
  readonly id: string;
  readonly begun: BodyOf<'zero.begun'>;
  readonly stages: readonly Stage[];
  /** The stage that no later setting has ended. */
  readonly current: Stage;
  /** How finely this builder reads, from all that he read on this build. */
  readonly readTo: ReadTo;
}

/** Readings that belong together: a pair, or all points of a trace that was typed. */
export interface Round {
  readonly id: string;
  readonly readings: readonly EntryOf<'reading.taken'>[];
}

export interface Trial {
  readonly id: string;
  readonly note: string | undefined;
  readonly begunAt: string;
  /** Was the cam moved before it, or nothing? */
  readonly why: 'moved' | 'checked';
  /** What was set on the drive before it, and what was expected of that. */
  readonly move: BodyOf<'trial.begun'>['move'];
  readonly rounds: readonly Round[];
  readonly traces: readonly EntryOf<'trace.recorded'>[];
  /** How the drive stands in it, where that was said anew. */
  readonly drive: EntryOf<'drive.fitted'> | null;
  readonly phasers: readonly EntryOf<'phaser.read'>[];
  readonly gaps: readonly EntryOf<'clearance.measured'>[];
  /** What was left as it is, knowingly. */
  readonly accepted: readonly EntryOf<'verdict.accepted'>[];
}

/** One setting of all valves, and what was found and left, in the order of the logbook. */
export interface LashJob {
  readonly begun: EntryOf<'lash.begun'>;
  readonly taken: readonly EntryOf<'lash.taken'>[];
}

/** What all trials lean on, and none of them changes. */
export interface Ground {
  readonly description: EntryOf<'build.described'>;
  readonly card: EntryOf<'card.entered'> | null;
  readonly target: EntryOf<'target.set'> | null;
  readonly asItStands: EntryOf<'engine.as-it-stands'> | null;
  readonly zeros: readonly Zero[];
  /** Positions of the wheel that were disturbed: zero.set id → what happened. */
  readonly disturbed: ReadonlyMap<string, EntryOf<'zero.disturbed'>>;
  /** Readings that count from where the wheel really stood: reading id → the re-basing. */
  readonly rebased: ReadonlyMap<string, EntryOf<'readings.rebased'>>;
  /** Points of traces that are left out: trace.recorded id → places in its list. */
  readonly voidedPoints: ReadonlyMap<string, ReadonlySet<number>>;
}
