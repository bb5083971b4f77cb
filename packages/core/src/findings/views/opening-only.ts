import { EVENT_NAMES, type Valve } from '../../cam/card';
import type { ReadMethodName } from '../../measure/read-methods';
import { combineRounds } from '../../measure/read-uncertainty';
import { formatLength } from '../../units/length';
import type { RoundFinding } from '../readings/read-rounds';
import { eventsOfCard, eventFigure } from './card-events';
import {
  type View,
  type ViewContext,
  atLobe,
  termsAt,
  pairsWords,
  makeView,
  viewKey,
  groups,
  plainDegrees,
} from './view';

/** Where the valve opens, crank degrees, where only the way up could be read. The zero on the base circle counts fully. */
export function openingViews(
  context: ViewContext,
  valve: Valve,
  rounds: readonly RoundFinding[],
  method: ReadMethodName,
): View[] {
  const { units } = context.build.description.body;
  return groups(rounds.filter((round) => round.opens !== null)).map((group) => {
    const [first] = group;
    const height = first?.height ?? 0;
    const sitsOn = first?.sitsOn ?? 'lifter';
    const found = combineRounds(
      group.flatMap((round) => round.opens ?? []),
      termsAt(context, group, height).opening,
    );
    const card = eventsOfCard(context.card[valve], valve, height, sitsOn, atLobe(context, valve, sitsOn, height));
    const ahead = context.ahead[valve];
    const target = card && ahead !== null ? card.opens + ahead : null;
    const name = EVENT_NAMES[valve].opens;
    return makeView(method, valve, found, {
      key: viewKey(method, valve, height, sitsOn === 'valve'),
      title: `${name} at ${formatLength(height, units)}, opening side only`,
      shows: eventFigure(found.mean, valve, 'opens'),
      detail: found.count === 1 ? 'from one reading' : pairsWords(found.count, 'reading', found.spread),
      against: target === null ? null : `${name} ${plainDegrees(target)}°`,
      proved: group.some((round) => round.zeroProved),
      remark: 'An error of the zero on the base circle looks like an error of the cam here.',
    });
  });
}
