import { peakOf } from '../../cam/lobe-slopes';
import { EVENT_NAMES, SIDE_WORDS, type Valve } from '../../cam/card';
import type { ReadMethodName } from '../../measure/read-methods';
import { combineRounds } from '../../measure/read-uncertainty';
import { computedDegrees } from '../../units/degrees';
import { formatLength } from '../../units/length';
import type { RoundFinding } from '../readings/read-rounds';
import {
  type View,
  type ViewContext,
  knownOf,
  termsAt,
  pairsWords,
  makeView,
  viewKey,
  groups,
  plainDegrees,
} from './view';

/** Centrelines by equal drop, crank degrees, one view for each drop that was used. */
export function centrelineViews(
  context: ViewContext,
  valve: Valve,
  rounds: readonly RoundFinding[],
  method: ReadMethodName,
): View[] {
  const { units } = context.build.description.body;
  const target = context.wanted[valve];
  return groups(rounds.filter((round) => round.centreline !== null)).map((group) => {
    const drop = group[0]?.height ?? 0;
    const known = knownOf(context, valve, group[0]?.sitsOn ?? 'lifter');
    const peak = peakOf(known);
    const found = combineRounds(
      group.flatMap((round) => round.centreline ?? []),
      termsAt(context, group, Math.max(peak - drop, 0.02)).centre,
    );
    return makeView(method, valve, found, {
      key: viewKey(method, valve, drop, group[0]?.sitsOn === 'valve'),
      title: `${valve === 'intake' ? 'Intake' : 'Exhaust'} centreline, ${formatLength(drop, units)} drop`,
      shows: `${computedDegrees(found.mean, 2)} ${SIDE_WORDS[valve].centreline}`,
      detail: pairsWords(found.count, 'pair', found.spread),
      against: target === null ? null : `${EVENT_NAMES[valve].centreline} ${plainDegrees(target)}°`,
      proved: group.some((round) => round.zeroProved),
    });
  });
}
