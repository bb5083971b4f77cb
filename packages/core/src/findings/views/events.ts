import { eventCentre, EVENT_NAMES, type Valve } from '../../cam/card';
import type { ReadMethodName } from '../../measure/read-methods';
import { type Combined, combineRounds } from '../../measure/read-uncertainty';
import { computedDegrees } from '../../units/degrees';
import { formatLength } from '../../units/length';
import type { RoundFinding } from '../readings/read-rounds';
import { eventsOfCard, FITTED, eventFigure } from './card-events';
import {
  type View,
  type ViewContext,
  atLobe,
  termsAt,
  pairsWords,
  makeView,
  viewKey,
  groups,
  sign,
  plainDegrees,
} from './view';

/** A duration this much off the card's, beyond its own uncertainty and the card's rounding, is spoken of, crank degrees. */
const DURATION_ROUNDED = 1;

/** @param longer than the card's, crank degrees. */
const longerWords = (longer: number): string =>
  `It lasts ${computedDegrees(Math.abs(longer))} ${longer > 0 ? 'more' : 'less'} than the card’s: the zero on the base circle, the height, a bleeding lifter, or another cam.`;

/** Opening and closing at a height: their centre says where the cam sits, crank degrees; a duration that is not the card’s is spoken of. */
export function eventViews(
  context: ViewContext,
  valve: Valve,
  rounds: readonly RoundFinding[],
  method: ReadMethodName,
): View[] {
  const { units } = context.build.description.body;
  return groups(rounds.filter((round) => round.events !== null)).map((group) => {
    const [first] = group;
    const height = first?.height ?? 0;
    const sitsOn = first?.sitsOn ?? 'lifter';
    const terms = termsAt(context, group, height);
    const of = (name: 'centre' | 'duration' | 'opens' | 'closes'): number[] =>
      group.flatMap((round) => round.events?.[name] ?? []);
    const centre = combineRounds(of('centre'), terms.centre);
    const duration = combineRounds(of('duration'), terms.duration);
    const opens = combineRounds(of('opens'), terms.opening);
    const closes = combineRounds(of('closes'), terms.closing);
    const card = eventsOfCard(context.card[valve], valve, height, sitsOn, atLobe(context, valve, sitsOn, height));
    const names = EVENT_NAMES[valve];
    return makeView(method, valve, centre, {
      key: viewKey(method, valve, height, sitsOn === 'valve'),
      title: `${valve === 'intake' ? 'Intake' : 'Exhaust'} events at ${formatLength(height, units)}`,
      shows: `${names.opens} ${eventFigure(opens.mean, valve, 'opens')}, ${names.closes} ${eventFigure(closes.mean, valve, 'closes')}`,
      detail: `${computedDegrees(duration.mean)} long ±${computedDegrees(duration.expanded)}, centre ${computedDegrees(centre.mean, 2)}; ${pairsWords(centre.count, 'pair', centre.spread)}`,
      proved: group.some((round) => round.zeroProved),
      ...besideCard(card, duration, valve, context.ahead[valve]),
    });
  });
}

type CardEvents = NonNullable<ReturnType<typeof eventsOfCard>>;

/** What the events are compared with on the card, and a duration that is not the card’s. @param ahead how far the cam is wanted ahead of its card */
function besideCard(
  card: CardEvents | null,
  duration: Combined,
  valve: Valve,
  ahead: number | null,
): Pick<View, 'against' | 'remark' | 'differs'> {
  if (!card) return { against: null, remark: null, differs: false };
  const longer = duration.mean - (card.opens + 180 + card.closes);
  const differs = Math.abs(longer) > duration.expanded + DURATION_ROUNDED;
  const wanted = ahead === null ? null : eventCentre(valve, card.opens, card.closes) - sign(valve) * ahead;
  const [fitted, fittedWords] = card.fitted ? [', fitted', FITTED] : ['', null];
  return {
    against: wanted === null ? null : `event centre ${plainDegrees(wanted)}°${fitted}`,
    remark: differs ? longerWords(longer) : fittedWords,
    differs,
  };
}
