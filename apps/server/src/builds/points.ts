import type { Entry } from '@yosoku/core/record/entry';

/**
 * Points of traces in one build that are worked through: some thirty-five of the longest traces, five seconds of one core. More would make
 * every device that opens the build wait for as long.
 */
export const MOST_POINTS = 250_000;

/** How many points the traces among these entries have. */
export const pointsIn = (entries: readonly Entry[]): number =>
  entries.reduce((sum, each) => sum + (each.kind === 'trace.recorded' ? each.body.points.length : 0), 0);
