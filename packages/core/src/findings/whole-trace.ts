import type { Valve } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import { type Lobe, flanksAt } from '../cam/lobe';
import type { TraceCurve } from '../cam/trace';
import type { Build } from '../record/fold';
import type { TrialFinding } from './derive-trial';
import type { TraceFinding } from './readings/read-traces';
import { standingLobe } from './standing-lobe';

/** A trace from base circle to base circle. */
export interface WholeTrace {
  readonly trace: TraceFinding;
  readonly curve: TraceCurve;
  /** Place of its trial among the trials. */
  readonly trial: number;
}

/** The last trace of a lobe of the first bank from base circle to base circle, or of its valve. */
export function wholeTrace(trials: readonly TrialFinding[], valve: Valve, atValve: boolean): WholeTrace | null {
  const all = trials.flatMap(({ traces }, trial) =>
    traces.flatMap((trace): WholeTrace[] => {
      const { curve } = trace;
      const isOne = trace.valve === valve && trace.bank === 1 && (trace.sitsOn === 'valve') === atValve;
      return isOne && curve?.whole ? [{ trace, curve, trial }] : [];
    }),
  );
  return all.at(-1) ?? null;
}

/**
 * Where the nose of the likeness lies on the curve of a trace, in the curve's own angles: not where it lifts most, which on a leaning lobe is
 * another place.
 * @param now the likeness where it stands now.
 */
export function likenessNose(
  { trace, curve, trial }: WholeTrace,
  build: Build,
  trials: readonly TrialFinding[],
  card: CompletedCard,
  valve: Valve,
  now: Lobe,
): number | null {
  const then = trace.placed ? standingLobe(build, trials, trial, card, valve)?.lobe : null;
  // Nobody knows where the wheel stood: laid over the likeness half-way up, where a leaning nose says nothing.
  return then ? then.nose - trace.shift : halfWay(curve, now);
}

/** Where the nose of a likeness lies on a curve, both laid over one another half-way up. */
function halfWay(curve: TraceCurve, now: Lobe): number | null {
  const half = Math.min(curve.peak, now.peak) / 2;
  const [centre, flanks] = [curve.centre(half), flanksAt(now, half)];
  return centre && flanks && centre.angle - ((flanks.opening + flanks.closing) / 2 - now.nose);
}
