import { READ_METHODS } from '../measure/read-methods';
import type { Entry } from '../record/entry';
import type { Random } from '../statistics/random';
import { openBench } from './bench';
import { findTdc } from './find-tdc';
import { type Family, someGroundLobe } from './ground-lobe';
import { CHECKING, type Lobes, middleOf, printCard } from './print-card';
import { readCam } from './read-cam';
import type { Convention, Mishap, Scenario } from './scenario';

/** What a job left in the logbook, and what is true of it. */
export interface Job {
  readonly entries: readonly Entry[];
  /** How far the cam sits ahead of its target, crank degrees. */
  readonly truth: number;
  /** The same, counted as this builder measured: an equal drop against whatever is printed. */
  readonly truthOwn: number;
  /** The same by plain trade arithmetic on the same readings: the mean of what each comparison says; null without one. */
  readonly plain: number | null;
  readonly limit: number;
  /** What the wheel shows at true TDC once it was set, crank degrees. */
  readonly tdc: number;
}

/**
 * A builder does a job: mounts a wheel, finds TDC by a bar and proves it, copies the card, reads the cam. Nothing of the judgement's own model is used.
 * @param step the builder reads the wheel to this: 1, ½ or ¼.
 */
export function doJob(
  random: Random,
  scenario: Scenario,
  convention: Convention,
  step: number,
  family: Family,
  mishap: Mishap = {},
): Job {
  const bench = openBench(random, scenario, step, mishap);
  const { setting, closingCheck } = findTdc(bench);
  const tdc = bench.wheel.stands();
  if (mishap.bleeds !== undefined)
    bench.write('engine.as-it-stands', {
      replaces: null,
      head: 'on',
      plugHole: true,
      wheel: true,
      indicator: true,
      lifter: 'hydraulic',
      drive: 'chain',
    });
  const separation = 104 + 10 * random.even();
  const lobes: Lobes = {
    intake: someGroundLobe(random, family, separation - 4 * random.even(), scenario.leans),
    exhaust: someGroundLobe(random, family, -separation - 4 * random.even()),
  };
  const paper = printCard(bench, lobes, convention);
  const truth = random.normal(2.5);
  const plain = readCam(bench, lobes, paper, setting, truth);
  if (scenario.closing) closingCheck();
  const centre = paper.centreOf('intake');
  // Against a target that is wanted in whole steps.
  const really = scenario.card === 'none' ? truth + paper.wantedCentre - centre : truth;
  const dropsOnly =
    scenario.card === 'centres' && scenario.reads.every(([method]) => READ_METHODS[method].from === 'peak');
  const ofDrop = middleOf(lobes.intake, lobes.intake.peak - CHECKING);
  return {
    entries: bench.entries,
    truth: really,
    truthOwn: dropsOnly ? really + centre - ofDrop : really,
    plain: plain.length === 0 ? null : plain.reduce((sum, each) => sum + each, 0) / plain.length,
    limit: bench.limit,
    tdc,
  };
}
