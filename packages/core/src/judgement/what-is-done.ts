import type { FaultName } from '../verdict/faults';
import type { Mishap, Scenario } from './scenario';
import type { Ways } from './tellable';

/** What is done on the engines of the judgement, and what goes wrong there. */

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
    name: 'both ways, by a tape round the rim',
    card: 'both',
    rim: true,
    reads: [
      ['centreline', 'intake'],
      ['events', 'intake'],
    ],
  },
  {
    name: 'both lobes, both ways, with their lifts',
    card: 'both',
    reads: [
      ['identity', 'intake'],
      ['identity', 'exhaust'],
      ['centreline', 'intake'],
      ['centreline', 'exhaust'],
      ['events', 'intake'],
      ['events', 'exhaust'],
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

const named = (name: string): Scenario => {
  const found = SCENARIOS.find((each) => each.name === name);
  if (!found) throw new Error(`there is no job ${name}`);
  return found;
};
const closed = (name: string): Scenario => ({ ...named(name), closing: true });
/** To either side in turn, by 3 to 8 degrees. */
const SLIPS = [3, 4, 5, 6, 7, 8] as const;
const slips = (at: number): number => (at % 2 ? 1 : -1) * (SLIPS[at % SLIPS.length] ?? 3);
const SLACK = [3, 4, 5] as const;
const TEN = (at: number): number => (at % 2 ? 10 : -10);

/** Each of so many readings by itself is moved by each of these. */
const oneOf =
  (by: readonly number[]): Ways =>
  (readings) =>
    Array.from({ length: readings }, (_, at) =>
      by.map((each) => moved(readings, (place) => place === at, each)),
    ).flat();
const moved = (readings: number, which: (place: number) => boolean, by: number): number[] =>
  Array.from({ length: readings }, (_, place) => (which(place) ? by : 0));
/** The wheel may have slipped before each of them but the first. */
const SLIPPED: Ways = (readings) =>
  Array.from({ length: readings - 1 }, (_, at) =>
    SLIPS.flatMap((by) => [by, -by].map((each) => moved(readings, (place) => place > at, each))),
  ).flat();

const PAIR = 'intake centreline, card of centres';
const BOTH_WAYS = 'intake centreline and events';
const BOTH_LOBES = 'both lobes, both ways';
const WITH_LIFTS = 'both lobes, both ways, with their lifts';

/** An intake read by its centreline, its events, or both, against a card of both. */
export const oneWay = (reads: 'centreline' | 'events' | 'both'): Scenario => ({
  name: `intake ${reads === 'both' ? 'centreline and events' : reads}, card of both`,
  card: 'both',
  reads: reads === 'both' ? named(BOTH_WAYS).reads : [[reads, 'intake']],
});

/** One lobe in many leans so far that its card seems to contradict itself: read one way, the other, and both. */
export const FAR_LEANS = [3, 4, 5].flatMap((leans) =>
  (['centreline', 'events', 'both'] as const).map((reads) => ({
    leans,
    reads,
    scenario: { ...oneWay(reads), leans },
  })),
);

/** What goes wrong in a job, and what it is rightly called. */
export const MISHAPS: readonly {
  readonly name: string;
  readonly scenario: Scenario;
  readonly mishap: (at: number) => Mishap;
  readonly is: readonly FaultName[];
  /** Every way that it may take with the readings of the wheel; left out where it shows elsewhere too. */
  readonly ways?: Ways;
}[] = [
  ...[named(PAIR), closed(PAIR), named(BOTH_WAYS), closed(BOTH_WAYS), named(BOTH_LOBES)].map((scenario) => ({
    name: 'wheel slipped inside the first pair',
    scenario,
    mishap: (at: number): Mishap => ({ slip: { before: 1, by: slips(at) } }),
    is: ['wheel-slipped'] as const,
    ways: SLIPPED,
  })),
  ...[named(BOTH_WAYS), closed(BOTH_WAYS)].map((scenario) => ({
    name: 'wheel slipped before the first reading',
    scenario,
    mishap: (at: number): Mishap => ({ slip: { before: 0, by: slips(at) } }),
    is: ['wheel-slipped', 'tdc-not-proved', 'tooth-out'] as const,
  })),
  {
    name: 'wheel slipped between the two lobes',
    scenario: named(BOTH_LOBES),
    mishap: (at) => ({ slip: { before: 4, by: slips(at) } }),
    is: ['wheel-slipped'],
    ways: SLIPPED,
  },
  {
    name: 'wheel slipped between repeats',
    scenario: named('both ways, twice, with lifts at TDC'),
    mishap: (at) => ({ slip: { before: 2, by: slips(at) } }),
    is: ['wheel-slipped'],
    ways: SLIPPED,
  },
  ...[named(BOTH_WAYS), named(BOTH_LOBES)].map((scenario) => ({
    name: 'one reading taken backwards',
    scenario,
    mishap: (at: number): Mishap => ({
      backwards: { at: at % (2 * scenario.reads.length), slack: SLACK[at % SLACK.length] ?? 3 },
    }),
    is: ['backwards'] as const,
    ways: oneOf(SLACK.map((by) => -by)),
  })),
  ...[named(PAIR), named(BOTH_WAYS), named(BOTH_LOBES)].map((scenario) => ({
    name: '10° misread once',
    scenario,
    mishap: (at: number): Mishap => ({ misread: { at: at % (2 * scenario.reads.length), by: TEN(at >> 1) } }),
    is: ['misread', 'stray'] as const,
    ways: oneOf([10, -10]),
  })),
  ...[named(BOTH_WAYS), named(BOTH_LOBES)].map((scenario) => ({
    name: '0–90 ring counted from 90',
    scenario,
    mishap: (at: number): Mishap => ({ countedFrom90: { at: at % (2 * scenario.reads.length) } }),
    is: ['ring-backwards'] as const,
  })),
  {
    name: 'both lifts in the other unit',
    scenario: named(WITH_LIFTS),
    mishap: () => ({ otherUnit: true }),
    is: ['units'],
  },
  ...[named(BOTH_WAYS), named(WITH_LIFTS)].map((scenario) => ({
    name: 'hydraulic lifters bleed down',
    scenario,
    mishap: (at: number): Mishap => ({ bleeds: 0.003 + 0.0015 * (at % 4) }),
    is: ['bleed-down'] as const,
  })),
  ...[named(BOTH_WAYS), named(BOTH_LOBES)].map((scenario) => ({
    name: 'centreline of the card misprinted by 3°',
    scenario,
    mishap: (at: number): Mishap => ({ misprint: at % 2 ? 3 : -3 }),
    is: ['card-figure'] as const,
  })),
];
