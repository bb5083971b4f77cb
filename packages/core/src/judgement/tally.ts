import { findAll } from '../findings/find-all';
import { fold } from '../record/fold';
import { derive } from '../report/report';
import type { FaultName } from '../verdict/faults';
import { makeRandom } from '../statistics/random';
import type { Family } from './ground-lobe';
import { type Job, doJob } from './job';
import type { Convention, Mishap, Scenario } from './scenario';

/** What came of the jobs of one cell. Shares of the jobs, angles crank degrees. */
export interface Tally {
  /** Nothing is said of where the cam sits. */
  readonly silent: number;
  readonly covered: number;
  readonly coveredOwn: number;
  readonly width: number;
  /** In how many the true TDC lies within what is stated of it, and how wide that is: crank degrees. */
  readonly tdcCovered: number;
  readonly tdcWidth: number;
  readonly rms: number;
  readonly rmsPlain: number;
  /** A fault is spoken of, or a move forbidden. */
  readonly accused: number;
  /** Sent back to the wheel; and of all jobs, those in which the figure and its interval tell already what to do. */
  readonly nagged: number;
  readonly naggedForNothing: number;
  /** A move, or "leave it", that is further from the truth than its interval and than a degree. */
  readonly wrong: number;
  /** Of all jobs: wrong so, but what would show it is asked for first. */
  readonly wrongIfAsked: number;
  /** In how many jobs one of the right faults is spoken of; in how many it is asked about, and nobody accused; and how often each is spoken of first. */
  readonly named: number;
  readonly askedAbout: number;
  readonly first: ReadonlyMap<FaultName, number>;
}

/** One cell: what is done, and on how many engines. */
export interface Cell {
  readonly scenario: Scenario;
  readonly convention: Convention;
  readonly step: number;
  readonly families: readonly Family[];
  readonly count: number;
  readonly seed: number;
  readonly mishap?: (at: number) => Mishap;
  /** What it is rightly called. */
  readonly is?: readonly FaultName[];
}

/** Does the same job on many engines and counts what the Report says of each. */
export function tally({ scenario, convention, step, families, count, seed, mishap, is = [] }: Cell): Tally {
  let [jobs, tdcCovered, tdcWidth] = [0, 0, 0];
  let [placed, covered, coveredOwn, width, square] = [0, 0, 0, 0, 0];
  let [squarePlain, plainCount, accused, nagged, wrong, wrongIfAsked] = [0, 0, 0, 0, 0, 0];
  const first = new Map<FaultName, number>();
  let [named, askedAbout, naggedForNothing] = [0, 0, 0];
  for (let at = 0; at < count; at += 1) {
    const family = families[at % families.length] ?? '3-4-5';
    const job = doJob(makeRandom(seed + 7919 * at), scenario, convention, step, family, mishap?.(at) ?? {});
    const report = derive(job.entries);
    const { result, uncertainty } = report?.zero ?? {};
    if (result && uncertainty) {
      jobs += 1;
      tdcWidth += uncertainty.expanded;
      if (Math.abs(result.tdc - job.tdc) <= uncertainty.expanded + 1e-9) tdcCovered += 1;
    }
    const trial = report?.trials.at(-1);
    const verdict = trial?.verdict;
    const faults = trial?.faults.map(({ fault }) => fault) ?? [];
    if (faults.some((fault) => is.includes(fault))) named += 1;
    else if (is.length > 0 && whatIsDoubted(job).some((fault) => is.includes(fault))) askedAbout += 1;
    const [likely] = faults;
    if (likely) first.set(likely, (first.get(likely) ?? 0) + 1);
    if (!trial || !verdict || verdict.delta === null || verdict.expanded === null) continue;
    placed += 1;
    const off = verdict.delta - job.truth;
    if (Math.abs(off) <= verdict.expanded + 1e-9) covered += 1;
    if (Math.abs(verdict.delta - job.truthOwn) <= verdict.expanded + 1e-9) coveredOwn += 1;
    width += verdict.expanded;
    square += off * off;
    if (job.plain !== null) {
      squarePlain += (job.plain - job.truth) ** 2;
      plainCount += 1;
    }
    if (likely || ['wrong-cam', 'lsa-off', 'do-not-move'].includes(verdict.kind)) accused += 1;
    if (verdict.kind === 'measure-again') {
      nagged += 1;
      if (!isOpen(verdict.delta, verdict.expanded, job.limit)) naggedForNothing += 1;
    }
    if ((verdict.kind === 'move' || verdict.kind === 'leave') && Math.abs(off) > Math.max(verdict.expanded, 1)) {
      wrong += 1;
      if (verdict.first.length > 0) wrongIfAsked += 1;
    }
  }
  return {
    silent: 1 - placed / count,
    covered: covered / placed,
    coveredOwn: coveredOwn / placed,
    width: width / placed,
    tdcCovered: tdcCovered / jobs,
    tdcWidth: tdcWidth / jobs,
    rms: Math.sqrt(square / placed),
    rmsPlain: Math.sqrt(squarePlain / plainCount),
    accused: accused / placed,
    nagged: nagged / placed,
    naggedForNothing: naggedForNothing / placed,
    wrong: wrong / placed,
    wrongIfAsked: wrongIfAsked / placed,
    named: named / count,
    askedAbout: askedAbout / count,
    first,
  };
}

/** Outside its limit, and either way; or inside, and known to no better than twice that limit: another reading is wanted. */
const isOpen = (delta: number, expanded: number, limit: number): boolean =>
  Math.abs(delta) > limit ? expanded > Math.abs(delta) : expanded > 2 * limit;

/** What a verdict asks about before anything is moved or left; empty where it asks about nothing. */
function whatIsDoubted({ entries }: Job): readonly FaultName[] {
  const build = fold(entries);
  const verdict = build && findAll(build).trial?.decision.verdict;
  return verdict?.because === 'doubted' ? verdict.judged.doubted.map(({ fault }) => fault) : [];
}
