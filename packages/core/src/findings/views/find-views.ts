import { VALVES } from '../../cam/card';
import type { Trial } from '../../record/fold';
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
export function findViews(trial: Trial, rounds: readonly RoundFinding[], context: ViewContext, bank: 1 | 2): View[] {
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
  return [...ofLobes, ...separationView(context, ofLobes), ...(bank === 1 ? slackViews(trial, context) : [])];
}
