import { EVENT_NAMES, type Valve } from '../../cam/card';
import type { ReadMethodName } from '../../measure/read-methods';
import { FELT, FELT_LATE } from '../../measure/read-uncertainty';
import { NORMAL_95 } from '../../statistics/normal';
import { computedDegrees } from '../../units/degrees';
import { formatLength } from '../../units/length';
import type { RoundFinding } from '../readings/read-rounds';
import { eventFigure } from './card-events';
import { type View, type ViewContext, counting, lashOf, makeView, pairsWords, viewKey } from './view';

/** Opening and closing as fingers feel them at the spring cap, crank degrees: coarse, and honest about it. */
export function feelViews(
  context: ViewContext,
  valve: Valve,
  rounds: readonly RoundFinding[],
  method: ReadMethodName,
): View[] {
  const group = counting(rounds.filter((round) => round.events !== null));
  if (group.length === 0) return [];
  const of = (name: 'centre' | 'duration' | 'opens' | 'closes'): number[] =>
    group.flatMap((round) => round.events?.[name] ?? []);
  const mean = (values: readonly number[]): number => values.reduce((sum, each) => sum + each, 0) / values.length;
  const centres = of('centre');
  const tdc = group[0]?.zero?.standard ?? 0;
  const feel = FELT / Math.SQRT2 / Math.sqrt(group.length);
  const standard = Math.hypot(feel, FELT_LATE, tdc);
  const names = EVENT_NAMES[valve];
  const lash = lashOf(context, valve) ?? 0;
  return [
    makeView(
      method,
      valve,
      {
        mean: mean(centres),
        spread: Math.max(...centres) - Math.min(...centres),
        count: group.length,
        standard,
        expanded: NORMAL_95 * standard,
        budget: [
          { from: 'the feel', standard: Math.hypot(feel, FELT_LATE) },
          { from: 'TDC', standard: tdc },
        ],
      },
      {
        key: viewKey(method, valve, 0, true),
        title: `${valve === 'intake' ? 'Intake' : 'Exhaust'} events by feel`,
        shows: `${names.opens} ${eventFigure(mean(of('opens')), valve, 'opens')}, ${names.closes} ${eventFigure(mean(of('closes')), valve, 'closes')}`,
        detail: `${computedDegrees(mean(of('duration')))} long, each to about ${computedDegrees(NORMAL_95 * FELT, 0)}, at ${formatLength(lash, context.build.description.body.units)} lash; ${pairsWords(group.length, 'pair', Math.max(...centres) - Math.min(...centres))}`,
        proved: group.some((round) => round.zeroProved),
      },
    ),
  ];
}
