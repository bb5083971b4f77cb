import { VALVES } from '../../cam/card';
import { ringPosition } from '../../crank/wheel';
import { combineRounds } from '../../measure/read-uncertainty';
import { wrap180 } from '../../units/angle';
import { computedDegrees } from '../../units/degrees';
import type { Trial } from '../../record/parts';
import { figureOfReading } from '../readings/round-trouble';
import { wheelStepOf } from '../readings/zero-passes';
import { type View, type ViewContext, pairsWords, makeView } from './view';

/** The same figure from both directions: the play of the drive, however the readings came about. */
export function slackViews(trial: Trial, context: ViewContext): View[] {
  if (!trial.rounds.some((round) => round.readings.some(({ body }) => body.approach === 'backward'))) return [];
  const readings = trial.rounds.flatMap((round) => round.readings).filter(({ body }) => 'flank' in body.shows);
  const described = context.build.description.body;
  const step = wheelStepOf(described) / Math.sqrt(12);
  return VALVES.flatMap((valve): View[] => {
    const slacks = readings
      .filter(({ body }) => body.approach === 'backward' && body.valve === valve)
      .flatMap((back) => {
        const same = readings.filter(
          ({ body }) =>
            body.approach === 'forward' &&
            body.valve === valve &&
            body.sitsOn === back.body.sitsOn &&
            body.setting === back.body.setting &&
            body.shows.kind === back.body.shows.kind &&
            'flank' in body.shows &&
            'flank' in back.body.shows &&
            body.shows.flank === back.body.shows.flank &&
            figureOfReading(body) === figureOfReading(back.body),
        );
        const there = same.find(({ body }) => body.round === back.body.round) ?? same.at(-1);
        return there?.body.wheel && back.body.wheel
          ? [wrap180(ringPosition(there.body.wheel) - ringPosition(back.body.wheel))]
          : [];
      });
    if (slacks.length === 0) return [];
    const found = combineRounds(slacks, { wheel: step * Math.SQRT2, indicator: 0, tdc: 0 });
    return [
      makeView('backlash', valve, found, {
        key: `backlash ${valve}`,
        title: 'Slack in the timing drive',
        shows: computedDegrees(found.mean),
        detail: pairsWords(found.count, 'pair', found.spread),
        proved: true,
        remark:
          found.mean < -found.expanded
            ? 'Less than nothing: the two directions were exchanged, or the indicator moved.'
            : found.mean > MUCH_SLACK
              ? 'That is much for a drive in good order: a worn chain, belt or tensioner. Read forward only.'
              : null,
      }),
    ];
  });
}

/** Crank degrees. From memory. */
const MUCH_SLACK = 6;
