import { READ_METHODS, type ReadMethodName } from '../measure/read-methods';
import { VALVES, type Valve } from '../cam/card';
import { flankOf } from './flank';
import { expandedOf } from '../statistics/coverage';
import type { FlankObservation, Observation } from './observations';
import { advanceOf, placeOf } from './place-cam';
import { type Weighing, weigh } from './weigh';

/** A round of readings that could be taken next. */
export interface NextRound {
  /** Key of the view to repeat, or null where it is one that has not been taken. */
  readonly view: string | null;
  readonly method: ReadMethodName;
  readonly valve: Valve;
  /** mm; null where it has none. */
  readonly height: number | null;
  /** How well the cam's place would be known with it: half-width of 95 %, crank degrees. */
  readonly expanded: number;
}

/** What could be read besides: drop below peak and checking height, mm. */
export interface Readable {
  readonly drop: number;
  readonly checking: number;
  /** Does the lifter follow its lobe down? */
  readonly followsDown: boolean;
}

/**
 * The reading whose repeat, or whose first taking, would narrow most what is known of a cam's place; what it would come to is worked out by weighing it in
 * as if it agreed: a repeat with the round before it, a new one with the rest.
 * @returns null where nothing was read on a wheel yet.
 */
export function nextReading(weighing: Weighing, cam: Valve, readable: Readable): NextRound | null {
  const { evidence, layout } = weighing;
  const mine = evidence.observations.filter(
    (each) => each.kind !== 'peak-lift' && layout.of[each.valve].advance === layout.of[cam].advance,
  );
  const pattern = mine.find((each): each is FlankObservation => each.kind === 'flank' && each.standard === null);
  if (!pattern) return null;
  const stands = advanceOf(weighing, cam);
  const tries: { next: Omit<NextRound, 'expanded'>; more: Observation[] }[] = [];
  for (const view of new Set(mine.map((each) => each.view))) {
    const members = mine.filter((each) => each.view === view);
    const last = members.at(-1);
    if (!last || last.kind === 'peak-lift') continue;
    const height = last.kind === 'flank' ? last.figure : null;
    const more = members
      .filter(({ round }) => round === last.round)
      .map((each) => ({ ...each, round: 'next', entry: `${each.entry} next` }));
    tries.push({ next: { view, method: last.method, valve: last.valve, height }, more });
  }
  const valves = evidence.cams === 'single' ? VALVES : [cam];
  for (const valve of valves)
    for (const method of ['centreline', 'events'] as const) {
      if (!readable.followsDown || mine.some((each) => each.valve === valve && each.method === method)) continue;
      const { from } = READ_METHODS[method];
      const height = from === 'peak' ? readable.drop : readable.checking;
      const common = { ...pattern, valve, method, view: 'next', round: 'next', figure: height } as const;
      const { lobe } = evidence.lobes[valve];
      const lift = from === 'peak' ? lobe.peak - height : height;
      tries.push({
        next: { view: null, method, valve, height },
        more: (['opening', 'closing'] as const).map((flank) => ({
          ...common,
          entry: `next ${flank}`,
          flank,
          angle: flankOf(lobe, flank, lift).angle - stands,
          atValve: false,
          from: from ?? 'base',
        })),
      });
    }
  let best: NextRound | null = null;
  for (const { next, more } of tries) {
    const weighed = weigh({ ...evidence, observations: [...evidence.observations, ...more] });
    const placed = weighed && placeOf(weighed, cam);
    if (!placed) continue;
    const { expanded } = expandedOf(placed.sources);
    if (best === null || expanded < best.expanded) best = { ...next, expanded };
  }
  return best;
}
