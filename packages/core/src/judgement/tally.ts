import { derive } from '../logbook/report';
import { makeRandom } from '../virtual-engine/random';
import type { Family } from './ground-lobe';
import { type Convention, type Mishap, type Scenario, doJob } from './job';

/** What came of the jobs of one cell. Shares of the jobs, angles crank degrees. */
export interface Tally {
  readonly jobs: number;
  /** Jobs that got a verdict with a place. */
  readonly placed: number;
  readonly covered: number;
  readonly width: number;
  readonly rms: number;
  readonly rmsPlain: number;
  readonly accused: number;
  readonly nagged: number;
  /** TDC not proved where it should have been. */
  readonly tdcCovered: number;
  /** Faults named, by how often. */
  readonly named: ReadonlyMap<string, number>;
}

export const SCENARIOS: readonly Scenario[] = [
  { name: 'intake centreline, card of centres', card: 'centres', reads: [['centreline', 'intake']] },
  { name: 'intake events', card: 'events', reads: [['events', 'intake']] },
  {
    name: 'intake centreline and events',
    card: 'both',
    reads: [
      ['centreline', 'intake'],
      ['events', 'intake'],
    ],
  },
  {
    name: 'both lobes, both ways',
    card: 'both',
    reads: [
      ['centreline', 'intake'],
      ['centreline', 'exhaust'],
      ['events', 'intake'],
      ['events', 'exhaust'],
    ],
  },
  {
    name: 'opening side and lift at TDC',
    card: 'events',
    reads: [
      ['opening-only', 'intake'],
      ['opening-only', 'exhaust'],
      ['lift-at-tdc', 'intake'],
    ],
  },
  {
    name: 'events and centreline, card of centres',
    card: 'centres',
    reads: [
      ['events', 'intake'],
      ['centreline', 'intake'],
    ],
  },
  {
    name: 'no card, a target only',
    card: 'none',
    reads: [
      ['centreline', 'intake'],
      ['centreline', 'exhaust'],
      ['events', 'intake'],
      ['lift-at-tdc', 'intake'],
    ],
  },
  {
    name: 'both ways, twice, with lifts at TDC',
    card: 'both',
    catalogue: true,
    times: 2,
    reads: [
      ['centreline', 'intake'],
      ['events', 'intake'],
      ['lift-at-tdc', 'intake'],
    ],
  },
];

/** Does the same job on many engines and counts what the report says of each. */
export function tally(
  scenario: Scenario,
  convention: Convention,
  step: number,
  families: readonly Family[],
  count: number,
  seed: number,
  mishapOf: (at: number) => Mishap = () => ({}),
): Tally {
  let [placed, covered, width, square, squarePlain, plainCount, accused, nagged, unproved] = [
    0, 0, 0, 0, 0, 0, 0, 0, 0,
  ];
  const named = new Map<string, number>();
  for (let at = 0; at < count; at += 1) {
    const family = families[at % families.length] ?? '3-4-5';
    const job = doJob(makeRandom(seed + 7919 * at), scenario, convention, step, family, mishapOf(at));
    const report = derive([...job.entries]);
    const trial = report?.trials.at(-1);
    const verdict = trial?.verdict;
    if (!trial || !verdict || verdict.delta === null || verdict.expanded === null) continue;
    placed += 1;
    const off = verdict.delta - job.truth;
    if (Math.abs(off) <= verdict.expanded + 1e-9) covered += 1;
    width += verdict.expanded;
    square += off * off;
    if (job.plain !== null) {
      squarePlain += (job.plain - job.truth) ** 2;
      plainCount += 1;
    }
    if (trial.faults.length > 0 || ['wrong-cam', 'lsa-off', 'do-not-move'].includes(verdict.kind)) accused += 1;
    if (verdict.kind === 'measure-again') nagged += 1;
    if (/not proved/.test(verdict.headline)) unproved += 1;
    for (const { fault } of trial.faults.slice(0, 1)) named.set(fault, (named.get(fault) ?? 0) + 1);
  }
  return {
    jobs: count,
    placed: placed / count,
    covered: covered / placed,
    width: width / placed,
    rms: Math.sqrt(square / placed),
    rmsPlain: Math.sqrt(squarePlain / plainCount),
    accused: accused / placed,
    nagged: nagged / placed,
    tdcCovered: 1 - unproved / placed,
    named,
  };
}
