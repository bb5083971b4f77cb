import type { SliderCrank } from '../crank/slider-crank';
import type { BodyOf, Entry, EntryKind } from '../record/entry';
import type { Random } from '../statistics/random';
import { wrap180 } from '../units/angle';
import { MM_PER_INCH } from '../units/length';
import type { Mishap, Scenario } from './scenario';

/** The eye at the pointer, 1 sigma, crank degrees. From memory. */
export const EYE = 0.1;

let made = 0;
export const freshId = (): string => `${(made += 1).toString(16).padStart(8, '0')}-0000-4000-8000-00000000d0b5`;

export const printed = (value: number, step: number): number => Math.round(value / step) * step;
export const oneOf = <T>(random: Random, all: readonly T[]): T => all[Math.floor(random.even() * all.length)] as T;

/** An engine on its stand before a builder who writes down what he sees. Lengths mm, angles crank degrees. */
export interface Bench {
  readonly random: Random;
  readonly scenario: Scenario;
  readonly mishap: Mishap;
  readonly units: 'in' | 'mm';
  readonly crank: SliderCrank;
  /** How far the cam may sit from its target. */
  readonly limit: number;
  /** What the indicator is read to. */
  readonly resolution: number;
  /** What is fixed to the crank: `stands` is what it shows at true TDC, before `turn` moves it on the crank. */
  readonly wheel: { readonly readTo: number; readonly stands: () => number; readonly turn: (by: number) => void };
  readonly entries: readonly Entry[];
  /** Puts an entry into the logbook; its id. */
  readonly write: <K extends EntryKind>(kind: K, body: BodyOf<K>) => string;
  /** What is read of the wheel with the crank there; and that as it is written down. */
  readonly look: (angle: number) => number;
  readonly shown: (at: number) => Shown;
}
type Shown = BodyOf<'zero.reading'>['wheel'];

/**
 * The engine is described, and a wheel, or a tape round the rim, is mounted anyhow.
 * @param step the builder reads the wheel to this: 1, ½ or ¼.
 */
export function openBench(random: Random, scenario: Scenario, step: number, mishap: Mishap): Bench {
  const entries: Entry[] = [];
  const buildId = freshId();
  const builderId = freshId();
  const write = <K extends EntryKind>(kind: K, body: BodyOf<K>): string => {
    const id = freshId();
    entries.push({ id, buildId, kind, body, takenAt: '2026-05-09T10:00:00Z', builderId } as Entry);
    return id;
  };
  const units = oneOf(random, ['in', 'mm'] as const);
  const crank: SliderCrank = {
    stroke: 74 + 24 * random.even(),
    rod: 130 + 25 * random.even(),
    pinOffset: random.even() < 0.3 ? random.within(1) : 0,
  };
  const limit = oneOf(random, [0.5, 1, 1, 2]);
  const resolution = units === 'in' ? oneOf(random, [0.0005, 0.001]) * MM_PER_INCH : 0.01;
  // Round a damper of 150 to 200 mm, a tape is read to its sixteenths, millimetres or finer.
  const round = Math.PI * (150 + 50 * random.even());
  const tapeStep = units === 'in' ? (step * MM_PER_INCH) / 16 : Math.max(0.5, step);
  write('build.described', {
    replaces: null,
    name: 'Job',
    units,
    engine: {
      cylinders: 4,
      firingOrder: [1, 3, 4, 2],
      rotation: 'clockwise',
      ...(random.even() < 0.6 ? { stroke: crank.stroke, rod: crank.rod, pinOffset: crank.pinOffset ?? 0 } : {}),
    },
    wheel: scenario.rim ? { ring: 'rim', round, unit: units } : { ring: mishap.countedFrom90 ? '0-90' : '0-180' },
    ...(random.even() < 0.5 ? { instruments: { wheelDiameter: 300, graduation: 1, resolution } } : {}),
  });
  let mount = random.within(30);
  const readTo = scenario.rim ? (360 * tapeStep) / round : step;
  const shown = (at: number): Shown => {
    const off = Math.abs(at);
    const side = at < 0 ? 'before' : 'after';
    if (scenario.rim) return { ring: 'rim', round, unit: units, shows: (off * round) / 360, side };
    if (!mishap.countedFrom90) return { ring: '0-180', shows: off, side };
    // Numbers run from 0 at either dead centre to 90 between them: past 90 the wheel comes up to BDC, or has left it.
    if (off <= 90) return { ring: '0-90', shows: off, side: `${side}-tdc` };
    return { ring: '0-90', shows: 180 - off, side: side === 'after' ? 'before-bdc' : 'after-bdc' };
  };
  return {
    random,
    scenario,
    mishap,
    units,
    crank,
    limit,
    resolution,
    entries,
    write,
    shown,
    wheel: { readTo, stands: () => mount, turn: (by) => void (mount += by) },
    look: (angle) => printed(wrap180(angle + mount + random.normal(EYE)), readTo),
  };
}
