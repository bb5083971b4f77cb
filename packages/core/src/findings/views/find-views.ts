import { VALVES, type Valve } from '../../cam/card';
import { type ReadMethod, type ReadMethodName, READ_METHOD_NAMES, readMethod } from '../../measure/read-methods';
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

/** What is shown of a lobe by the rounds of one method. */
type LobeViews = (
  context: ViewContext,
  valve: Valve,
  rounds: readonly RoundFinding[],
  method: ReadMethodName,
) => readonly View[];

/** Of flanks, by what they give. */
const OF_FLANKS: Readonly<Record<Extract<ReadMethod, { reads: 'flanks' }>['gives'], LobeViews>> = {
  centreline: centrelineViews,
  events: eventViews,
  opening: openingViews,
};

/** Of everything else, by what is read. */
const OF_OTHERS: Readonly<Record<Exclude<ReadMethod['reads'], 'flanks'>, LobeViews>> = {
  'tdc-lift': tdcLiftViews,
  'peak-lift': identityViews,
  curve: (context, valve) =>
    context.traces.filter((trace) => trace.valve === valve).flatMap((trace) => traceViews(context, trace)),
  // It is the drive's, not a lobe's.
  slack: () => [],
};

function viewsBy(method: ReadMethod): LobeViews {
  if (method.reads !== 'flanks') return OF_OTHERS[method.reads];
  return method.isFelt ? feelViews : OF_FLANKS[method.gives];
}

/** Every view of a trial's readings, valve by valve, in the order of the methods. */
export function findViews(trial: Trial, rounds: readonly RoundFinding[], context: ViewContext, bank: 1 | 2): View[] {
  const ofLobes = VALVES.flatMap((valve) => {
    const mine = rounds.filter((round) => round.valve === valve && round.problem === null);
    return READ_METHOD_NAMES.flatMap((name) =>
      viewsBy(readMethod(name))(
        context,
        valve,
        mine.filter((round) => round.method === name),
        name,
      ),
    );
  });
  return [...ofLobes, ...separationView(context, ofLobes), ...(bank === 1 ? slackViews(trial, context) : [])];
}
