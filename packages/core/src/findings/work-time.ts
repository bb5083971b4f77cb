import { tableOf } from '../timing-set/hardware';
import { median } from '../statistics/median';
import type { Build } from '../record/fold';
import type { Trial } from '../record/parts';

/** How long a move takes, minutes, reading the cam again included; and whether this engine has shown it already, or others of the shop. */
export interface WorkTime {
  readonly minutes: number;
  readonly from: 'usual' | 'here' | 'shop';
}

/** Steps of work, minutes. From memory. */
const USUAL = { adjust: 15, frontApart: 45, tdcAgain: 20, readAgain: 15 } as const;
/** Shorter is no work, longer was a meal or a night; minutes. */
const SHORTEST = 3;
const LONGEST = 240;

/** What it takes to move the cam once more. What it took here before is believed first, then what it took elsewhere in the shop, then what is usual. */
export function workTime(
  build: Build,
  { frontApart, wheelOff }: { readonly frontApart: boolean; readonly wheelOff: boolean },
): WorkTime {
  const before = build.trials.flatMap((trial, at) => {
    const then = build.trials[at - 1];
    return wasFrontApart(build, trial) === frontApart ? (tookFrom(then, trial) ?? []) : [];
  });
  if (before.length > 0) return { minutes: median(before), from: 'here' };
  const elsewhere = (build.trials.findLast(({ drive }) => drive !== null)?.drive?.body.parts ?? [])
    .filter(({ hardware }) => (tableOf(hardware).work === 'front-apart') === frontApart)
    .flatMap(({ experience }) => experience.flatMap(({ took }) => took ?? []));
  if (elsewhere.length > 0) return { minutes: median(elsewhere), from: 'shop' };
  const work = frontApart ? USUAL.frontApart : USUAL.adjust;
  return { minutes: work + (wheelOff ? USUAL.tdcAgain : 0) + USUAL.readAgain, from: 'usual' };
}

function wasFrontApart({ trials }: Build, { move }: Trial): boolean | null {
  if (!move) return null;
  const fitted = trials.flatMap(({ drive }) => drive?.body.parts ?? []);
  return move.parts.some(({ part }) => {
    const hardware = fitted.find((each) => each.part === part)?.hardware;
    return hardware !== undefined && tableOf(hardware).work === 'front-apart';
  });
}

/** From the last reading before a move to the last one that shows what it gave, minutes; null where that tells nothing. */
export function tookFrom(then: Trial | undefined, now: Trial): number | null {
  if (!then) return null;
  const times = (trial: Trial): number[] =>
    trial.rounds.flatMap(({ readings }) => readings.map(({ takenAt }) => Date.parse(takenAt)));
  const [start, end] = [Math.max(...times(then)), Math.max(...times(now))];
  const minutes = (end - start) / 60_000;
  return minutes >= SHORTEST && minutes <= LONGEST ? minutes : null;
}
