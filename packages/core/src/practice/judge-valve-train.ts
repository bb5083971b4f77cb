import type { EntryOf } from '../record/entry';
import { PLAY_STEP, playShows } from '../simulation/play-world';
import { tipShows } from '../simulation/rocker-world';
import { BLADE_STEP, gapNow, liftedNow } from '../simulation/valve-lash';
import type { Stand } from '../simulation/whole-engine';
import { formatComputedLength } from '../units/length';
import { type Found, HELPED } from './judgement';
import type { Scenario } from './scenario';

/** Readings of the valve train, judged by how the engine really stood. */

/** As good as on its lobe, mm. */
const ON_LOBE = 0.01;
/** A blade tells a lash to about this, mm. From memory. */
const BLADE_TELLS = 1.5 * BLADE_STEP;

export function judgeLash({ engine, base }: Scenario, stand: Stand, { body }: EntryOf<'lash.taken'>): Found {
  const { cylinder, valve, set, found } = body;
  const said = set ?? found;
  const lifted = liftedNow(engine, stand, cylinder, valve);
  if (lifted > ON_LOBE)
    return {
      judgement: 'spoiled',
      words: `It stood ${formatComputedLength(lifted, base.units)} up on its lobe, not on its base circle.`,
    };
  const gap = gapNow(engine, stand, cylinder, valve);
  return said !== undefined && Math.abs(gap - said) > BLADE_TELLS
    ? {
        judgement: 'misread',
        words: `Its lash was ${formatComputedLength(gap, base.units)} there, not what was written.`,
      }
    : HELPED;
}

/** A length of pushrod is set to this, and a pattern read to this, mm. From memory. */
const LENGTH_TELLS = 0.3;
const PATTERN_TELLS = 0.3;

export function judgeTried({ engine, base }: Scenario, stand: Stand, { body }: EntryOf<'rocker.tried'>): Found {
  const { rockers: world } = engine;
  const { rockers: own } = stand;
  const size = (mm: number): string => formatComputedLength(mm, base.units);
  if (!world || !own) return HELPED;
  if (own.shows === null)
    return { judgement: 'spoiled', words: 'It had not been turned over with this length: the tip showed nothing.' };
  if (Math.abs(own.shows - body.length) > LENGTH_TELLS)
    return { judgement: 'misread', words: `The pushrod was ${size(own.shows)} long, not what was written.` };
  const { pattern, seen } = tipShows(world, own.shows);
  if (body.pattern !== undefined && Math.abs(body.pattern - pattern) > PATTERN_TELLS)
    return { judgement: 'misread', words: `The pattern was ${size(pattern)} wide, not what was written.` };
  return body.seen !== undefined && body.seen !== seen && body.seen !== 'right' && seen !== 'right'
    ? { judgement: 'misread', words: `At mid-lift the roller stood ${seen} the right angle.` }
    : HELPED;
}

export function judgePlay({ engine, base }: Scenario, stand: Stand, { body }: EntryOf<'end-play.measured'>): Found {
  const { endPlay: world } = engine;
  const { endPlay: own } = stand;
  if (!world || !own) return HELPED;
  const size = (mm: number): string => formatComputedLength(mm, base.units);
  if (body.returns === false) return HELPED;
  if (Math.abs(body.play - own.play) <= 1.5 * PLAY_STEP) return HELPED;
  return Math.abs(body.play - playShows(world, { ...own, pull: 'hard' })) <= 1.5 * PLAY_STEP
    ? { judgement: 'spoiled', words: `It was pulled hard: the cover gave ${size(world.flex)} of it.` }
    : { judgement: 'misread', words: `The play was ${size(own.play)}, not what was written.` };
}
