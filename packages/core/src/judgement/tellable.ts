import { type Block, leastSquares } from '../statistics/least-squares';
import { makeRandom } from '../statistics/random';
import type { Family } from './ground-lobe';
import { doJob } from './job';
import type { Convention, Mishap, Scenario } from './scenario';
import { type Figures, figuresOf } from './wheel-readings';

/** Of healthy jobs, so many may be called faulty by the judges that the product is held against. */
const FALSE_ALARMS = 0.01;
/** As good as certain, and as good as unknown, of a figure in degrees. */
const CERTAIN = 1e-8;
const UNKNOWN = 1e8;
const CONVENTIONS: readonly Convention[] = ['nose', 'event'];

/** A job that something happened in, on `count` engines; `seen` healthy ones are learnt from. */
export interface ToTell {
  readonly scenario: Scenario;
  readonly step: number;
  readonly families: readonly Family[];
  readonly count: number;
  readonly seen: number;
  readonly seed: number;
  readonly mishap: (at: number) => Mishap;
}

/** What a mishap of this kind may do to the readings of the wheel, which are so many: each way one list, crank degrees. */
export type Ways = (readings: number) => readonly (readonly number[])[];

/** The same job on many engines: healthy ones of either kind of card, and those that something happened to, each beside itself without it. */
function jobsOf({ scenario, step, families, count, seen, seed, mishap }: ToTell) {
  const job = (number: number, what: Mishap, convention: Convention): Figures => {
    const family = families[number % families.length] ?? '3-4-5';
    return figuresOf(doJob(makeRandom(number), scenario, convention, step, family, what));
  };
  const healthy = Array.from({ length: seen }, (_, at) => {
    const convention = CONVENTIONS[at % 2] ?? 'nose';
    return { convention, ...job(seed + 104_729 * (at + 1), {}, convention) };
  });
  const hit = Array.from({ length: count }, (_, at) => {
    const number = seed + 7919 * at;
    return { before: job(number, {}, 'nose'), after: job(number, mishap(at), 'nose') };
  });
  return { healthy, hit };
}

/** What one healthy job in a hundred exceeds. */
const alarmOf = (healthy: readonly number[]): number =>
  [...healthy].sort((a, b) => a - b)[Math.floor((1 - FALSE_ALARMS) * healthy.length)] ?? Infinity;

/**
 * How often a mishap can be told by one who is told what to look for: what may have happened, to which reading and by how much. He has seen the same job done on
 * many healthy engines, and weighs the readings, with all that the card prints, so that healthy jobs scatter least against what the mishap does. Where the cam
 * sits he does not know. He calls faulty what one healthy job in a hundred exceeds.
 * @returns the share of the mishaps that he tells, 0 to 1.
 * Source: Neyman and Pearson 1933 for readings that scatter normally; Fisher 1936 for the weights.
 */
export function tellable(what: ToTell): number {
  const { healthy, hit } = jobsOf(what);
  const row = ({ readings, known }: Figures): Float64Array => Float64Array.from([...readings, ...known]);
  // He does not know either what a card means by a centreline that is the middle of its events.
  const learnt = new Map(
    [true, false].map((means) => [means, healthy.filter(({ mayMeanEvents }) => mayMeanEvents === means).map(row)]),
  );
  let told = 0;
  for (const { before, after } of hit) {
    const usual = learnt.get(before.mayMeanEvents) ?? [];
    const scatter: Block[] = usual.map((each) => ({ rows: [each], misses: [0], covariance: [1] }));
    const [sound, found] = [row(before), row(after)];
    // All angles later by the same: a cam that sits elsewhere.
    const place = sound.map((_, at) => (at < before.readings.length ? 1 : 0));
    const did = found.map((value, at) => value - (sound[at] ?? 0));
    // What a cam that sits elsewhere would do as well, nobody tells.
    if (did.every((value, at) => Math.abs(value - (did[0] ?? 0) * (place[at] ?? 0)) < 1e-6)) continue;
    const { unknowns: weights } = leastSquares(
      Array.from(sound, () => ({ miss: 0, variance: UNKNOWN })),
      [
        ...scatter,
        { rows: [place], misses: [0], covariance: [CERTAIN] },
        { rows: [did], misses: [1], covariance: [CERTAIN] },
      ],
    );
    const sum = (each: Float64Array): number => each.reduce((all, value, at) => all + value * (weights[at] ?? 0), 0);
    if (sum(found) > alarmOf(usual.map(sum))) told += 1;
  }
  return told / hit.length;
}

/** How healthy jobs of one kind of card come out: each reading from what is known and what was read before it, and how far it scatters about that. */
interface Likeness {
  /** Of the jobs that it stands beside, so many are of this kind. */
  readonly share: number;
  readonly readings: readonly { readonly weights: Float64Array; readonly variance: number }[];
}

/** How each reading lies from the first: where the cam sits falls out. */
const apart = (readings: readonly number[]): number[] => readings.slice(1).map((each) => each - (readings[0] ?? 0));

function learn(jobs: readonly Figures[], share: number): Likeness {
  const size = (jobs[0]?.readings.length ?? 1) - 1;
  const readings = Array.from({ length: size }, (_, at) => {
    const blocks = jobs.map(({ readings: read, known }): Block => {
      const values = apart(read);
      return {
        rows: [Float64Array.from([...known, ...values.slice(0, at)])],
        misses: [values[at] ?? 0],
        covariance: [1],
      };
    });
    const unknowns = blocks[0]?.rows[0]?.length ?? 0;
    const { unknowns: weights, chiSquared } = leastSquares(
      Array.from({ length: unknowns }, () => ({ miss: 0, variance: UNKNOWN })),
      blocks,
    );
    return { weights, variance: chiSquared / (jobs.length - unknowns) };
  });
  return { share, readings };
}

/** How probable readings are, but for a constant. @param values as `apart` gives them. */
function probability({ share, readings }: Likeness, values: readonly number[], known: readonly number[]): number {
  let exponent = 0;
  let density = share;
  readings.forEach(({ weights, variance }, at) => {
    let rest = values[at] ?? 0;
    for (let i = 0; i < weights.length; i += 1)
      rest -= (weights[i] ?? 0) * (i < known.length ? (known[i] ?? 0) : (values[i - known.length] ?? 0));
    exponent += (rest * rest) / variance;
    density /= Math.sqrt(variance);
  });
  return density * Math.exp(-exponent / 2);
}

/**
 * How often a mishap can be told by one who has to find out what happened: that a wheel may have slipped, say, but not before which reading, nor how far. He knows
 * every way that it may have taken, each as probable as the others, and how likely readings are on healthy engines, of which he has seen many; what is likelier by
 * any of the ways than one healthy job in a hundred he calls faulty. No judge who accuses as few tells more of all those ways together.
 * @returns the share of the mishaps that he tells, 0 to 1.
 * Source: Neyman and Pearson 1933, the ways mixed; readings scatter normally about what is known, by the kind of card.
 */
export function findable({ ways, ...what }: ToTell & { readonly ways: Ways }): number {
  const { healthy, hit } = jobsOf(what);
  const learnt = new Map(
    [true, false].map((means) => {
      const alike = healthy.filter(({ mayMeanEvents }) => mayMeanEvents === means);
      const kinds = CONVENTIONS.flatMap((convention) => {
        const ofKind = alike.filter((each) => each.convention === convention);
        return ofKind.length < alike.length / 20 ? [] : [learn(ofKind, ofKind.length / alike.length)];
      });
      return [means, { kinds, alike }];
    }),
  );
  const hintOf = ({ readings, known, mayMeanEvents }: Figures): number => {
    const kinds = learnt.get(mayMeanEvents)?.kinds ?? [];
    const values = apart(readings);
    const likely = (of: readonly number[]): number =>
      kinds.reduce((sum, kind) => sum + probability(kind, of, known), Number.MIN_VALUE);
    let all = 0;
    for (const way of ways(readings.length)) {
      const did = apart(way);
      all += likely(values.map((value, at) => value - (did[at] ?? 0)));
    }
    return all / likely(values);
  };
  const alarms = new Map([...learnt].map(([means, { alike }]) => [means, alarmOf(alike.map(hintOf))]));
  const told = hit.filter(({ after }) => hintOf(after) > (alarms.get(after.mayMeanEvents) ?? Infinity));
  return told.length / hit.length;
}
