import type { Valve } from '../cam/card';
import type { LashJob } from '../record/parts';
import { NORMAL_95 } from '../statistics/normal';
import { pooled, pooledFactor } from '../statistics/repeats';
import { FELT_TWICE } from '../valve-train/lash';

/** How much the lash of this engine changes from cold to hot, mm: positive where it is tighter hot. */
export interface LashGrowth {
  readonly mean: number;
  /** Half-width of 95 % of the mean. */
  readonly expanded: number;
  readonly count: number;
}

/**
 * What the lash of one kind of valve grows from cold to hot on this engine: every valve that was left at one and found at the other,
 * with nothing turned between.
 * @returns null where no valve was measured both ways.
 */
export function lashGrowth(jobs: readonly LashJob[], valve: Valve): LashGrowth | null {
  const seen: number[] = [];
  const last = new Map<string, { readonly engine: 'cold' | 'hot'; readonly lash: number }>();
  for (const { begun, taken } of jobs) {
    const { engine } = begun.body;
    for (const { body } of taken) {
      if (body.valve !== valve) continue;
      const name = `${body.cylinder} ${body.which ?? 1}`;
      const before = last.get(name);
      if (body.found !== undefined && before && before.engine !== engine)
        seen.push(engine === 'hot' ? before.lash - body.found : body.found - before.lash);
      const lash = body.set ?? body.found;
      if (lash !== undefined) last.set(name, { engine, lash });
    }
  }
  const count = seen.length;
  if (count === 0) return null;
  const mean = seen.reduce((sum, each) => sum + each, 0) / count;
  const freedom = count - 1;
  const scatter = freedom > 0 ? Math.sqrt(seen.reduce((sum, each) => sum + (each - mean) ** 2, 0) / freedom) : 0;
  const factor = freedom > 0 ? pooledFactor(freedom) : NORMAL_95;
  return { mean, count, expanded: (factor * pooled(scatter, freedom, FELT_TWICE)) / Math.sqrt(count) };
}
