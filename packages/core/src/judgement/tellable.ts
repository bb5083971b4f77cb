import { type CamCard, closesAt, eventCentre, noseAt, opensAt } from '../cam/card';
import { ringPosition } from '../crank/wheel';
import type { EntryOf } from '../record/entry';
import { type Block, leastSquares } from '../statistics/least-squares';
import { makeRandom } from '../statistics/random';
import { wrap180 } from '../units/angle';
import type { Family } from './ground-lobe';
import { type Convention, type Job, type Mishap, type Scenario, doJob } from './job';

/** Of healthy jobs, so many may be called faulty by the judge that the product is held against. */
const FALSE_ALARMS = 0.01;
/** As good as certain, and as good as unknown, of a figure in degrees. */
const CERTAIN = 1e-8;
const UNKNOWN = 1e8;

/**
 * How often a mishap can be told from the readings of the wheel at all. The judge knows what may have happened, to which reading and by how much; he has seen
 * the same job done on many healthy engines, and weighs the readings, with all that the card prints, so that healthy jobs scatter least against what the mishap
 * does. Where the cam sits he does not know. He calls faulty what one healthy job in a hundred exceeds. Who has to find out what happened hardly does better.
 * @param cell the job, on `count` engines; `seen` healthy ones are learnt from.
 * @returns the share of the mishaps that he tells, 0 to 1.
 * Source: Neyman and Pearson 1933 for readings that scatter normally; Fisher 1936 for the weights.
 */
export function tellable(cell: {
  readonly scenario: Scenario;
  readonly step: number;
  readonly families: readonly Family[];
  readonly count: number;
  readonly seen: number;
  readonly seed: number;
  readonly mishap: (at: number) => Mishap;
}): number {
  const { scenario, step, families, count, seen, seed, mishap } = cell;
  const job = (number: number, what: Mishap, convention: Convention = 'nose'): Job =>
    doJob(makeRandom(number), scenario, convention, step, families[number % families.length] ?? '3-4-5', what);
  // He does not know either what a card means by a centreline that is the middle of its events.
  const all = Array.from({ length: seen }, (_, at) => job(seed + 104_729 * (at + 1), {}, at % 2 ? 'event' : 'nose'));
  const learnt = new Map(
    [true, false].map((means) => [means, all.filter((each) => meansEvents(each) === means).map(featuresOf)]),
  );
  let told = 0;
  for (let at = 0; at < count; at += 1) {
    const number = seed + 7919 * at;
    const sound = job(number, {});
    const healthy = learnt.get(meansEvents(sound)) ?? [];
    const scatter: Block[] = healthy.map((row) => ({ rows: [row], misses: [0], covariance: [1] }));
    const before = featuresOf(sound);
    const size = before.length;
    // All angles later by the same: a cam that sits elsewhere.
    const place = Float64Array.from({ length: size }, (_, i) => (i < size - KNOWN ? 1 : 0));
    const found = featuresOf(job(number, mishap(at)));
    const did = found.map((value, i) => value - (before[i] ?? 0));
    // What a cam that sits elsewhere would do as well, nobody tells.
    if (isAll(did, place)) continue;
    const { unknowns: weights } = leastSquares(
      Array.from({ length: size }, () => ({ miss: 0, variance: UNKNOWN })),
      [
        ...scatter,
        { rows: [place], misses: [0], covariance: [CERTAIN] },
        { rows: [did], misses: [1], covariance: [CERTAIN] },
      ],
    );
    const sum = (row: Float64Array): number => row.reduce((all, value, i) => all + value * (weights[i] ?? 0), 0);
    const usual = healthy.map(sum).sort((a, b) => a - b);
    if (sum(found) > (usual[Math.floor((1 - FALSE_ALARMS) * usual.length)] ?? Infinity)) told += 1;
  }
  return told / count;
}

/** Does it move all readings of the wheel alike? */
const isAll = (did: Float64Array, place: Float64Array): boolean =>
  did.every((value, at) => Math.abs(value - (did[0] ?? 0) * (place[at] ?? 0)) < 1e-6);

/** Figures beside the readings: one for what is common, units, and of each lobe its lift and its duration. */
const KNOWN = 6;

/** The readings of the wheel, each from where the card has that flank, crank degrees; and what is known beside. */
function featuresOf({ entries }: Job): Float64Array {
  const card: CamCard = entries.find((entry) => entry.kind === 'card.entered')?.body ?? {};
  const readings = entries.filter((entry): entry is EntryOf<'reading.taken'> => entry.kind === 'reading.taken');
  const from = readings.flatMap(({ body: { wheel, shows, valve } }) => {
    if (!wheel || !('flank' in shows)) return [];
    const { centreline = 108, timing = [] } = card[valve] ?? {};
    const { opens, closes } = timing[0] ?? {};
    const printed =
      shows.kind === 'below-peak' || opens === undefined || closes === undefined
        ? noseAt(valve, centreline)
        : shows.flank === 'opening'
          ? opensAt(valve, opens)
          : closesAt(valve, closes);
    return [wrap180(ringPosition(wheel) - printed)];
  });
  const inMillimetres = readings.some(({ body: { shows } }) => 'drop' in shows && shows.drop === 1);
  const known = (['intake', 'exhaust'] as const).flatMap((valve) => {
    const { lobeLift = 0, timing = [] } = card[valve] ?? {};
    const { opens = 0, closes = 0 } = timing[0] ?? {};
    return [lobeLift, (opens + closes) / 10];
  });
  return Float64Array.from([...from, 1, inMillimetres ? 1 : 0, ...known]);
}

/** Does the card print a centreline that may be the middle of its own events? */
function meansEvents({ entries }: Job): boolean {
  const { intake }: CamCard = entries.find((entry) => entry.kind === 'card.entered')?.body ?? {};
  const { opens, closes } = intake?.timing?.[0] ?? {};
  if (opens === undefined || closes === undefined || intake?.centreline === undefined) return false;
  return Math.abs(eventCentre('intake', opens, closes) - intake.centreline) <= 1;
}
