import { VALVES } from '../../cam/card';
import type { RulingMethod } from '../../measure/read-methods';
import type { Trial } from '../fold';
import type { RoundFinding } from '../read-rounds';
import { slackViews } from './backlash';
import { centrelineViews } from './centreline';
import { eventViews } from './events';
import { identityViews } from './identity';
import { tdcLiftViews } from './lift-at-tdc';
import { separationView } from './lobe-separation';
import { openingViews } from './opening-only';
import { traceViews } from './trace';
import type { View, ViewContext } from './view';

/** Every view of a trial's readings. */
export function findViews(trial: Trial, rounds: readonly RoundFinding[], context: ViewContext): View[] {
  const ofLobes = VALVES.flatMap((valve) => {
    const mine = rounds.filter((round) => round.valve === valve && round.problem === null);
    return [
      ...centrelineViews(context, valve, mine),
      ...eventViews(context, valve, mine),
      ...openingViews(context, valve, mine),
      ...tdcLiftViews(context, valve, mine),
      ...context.traces.filter((trace) => trace.valve === valve).flatMap((trace) => traceViews(context, trace)),
      ...identityViews(context, valve, mine),
    ];
  });
  return [...ofLobes, ...separationView(context, ofLobes), ...slackViews(trial, context)];
}

/** Methods in the order in which they are believed, where the shop has no rule. */
const ORDER: readonly RulingMethod[] = ['centreline', 'trace', 'events', 'opening-only', 'lift-at-tdc'];

/**
 * The view that the verdict speaks from: of the shop's rule, else the first in the usual order; intake before exhaust (which speaks for a
 * single cam only), proved before unproved.
 */
export function speakingView(views: readonly View[], rule: RulingMethod | null, single: boolean): View | null {
  const able = views.filter(
    ({ delta, valve }) => delta !== null && (valve === 'intake' || (valve === 'exhaust' && single)),
  );
  const proved = able.filter((view) => view.proved);
  const from = proved.length > 0 ? proved : able;
  for (const method of rule ? [rule, ...ORDER] : ORDER) {
    const found =
      from.find((view) => view.method === method && view.valve === 'intake') ??
      from.find((view) => view.method === method);
    if (found) return found;
  }
  return null;
}
