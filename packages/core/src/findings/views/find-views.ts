import { VALVES, type Valve } from '../../cam/card';
import type { ReadMethodName } from '../../measure/read-methods';
import type { Trial } from '../../record/parts';
import type { RoundFinding } from '../readings/read-rounds';
import { slackViews } from './backlash';
import { feelViews } from './by-feel';
import { centrelineViews } from './centreline';
import { eventViews } from './events';
import { identityViews } from './identity';
import { tdcLiftViews } from './lift-at-tdc';
import { separationView } from './lobe-separation';
import { openingViews } from './opening-only';
import { traceViews } from './trace';
import type { View, ViewContext } from './view';

type LobeMethod = Exclude<ReadMethodName, 'backlash'>;

/** What each method shows of a lobe by its own rounds, in the order of the sheet. The slack is the drive's, not a lobe's. */
const OF_LOBE: Readonly<
  Record<LobeMethod, (context: ViewContext, valve: Valve, rounds: readonly RoundFinding[]) => readonly View[]>
> = {
  centreline: centrelineViews,
  events: eventViews,
  'opening-only': openingViews,
  'by-feel': feelViews,
  'lift-at-tdc': tdcLiftViews,
  trace: (context, valve) =>
    context.traces.filter((trace) => trace.valve === valve).flatMap((trace) => traceViews(context, trace)),
  identity: identityViews,
};

/** Every view of a trial's readings. */
export function findViews(trial: Trial, rounds: readonly RoundFinding[], context: ViewContext, bank: 1 | 2): View[] {
  const ofLobes = VALVES.flatMap((valve) => {
    const mine = rounds.filter((round) => round.valve === valve && round.problem === null);
    return Object.entries(OF_LOBE).flatMap(([method, viewsOf]) =>
      viewsOf(
        context,
        valve,
        mine.filter((round) => round.method === method),
      ),
    );
  });
  return [...ofLobes, ...separationView(context, ofLobes), ...(bank === 1 ? slackViews(trial, context) : [])];
}
