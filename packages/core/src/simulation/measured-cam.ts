import { wrap180 } from '../units/angle';
import { READ_METHODS, type ReadMethodName } from '../measure/read-methods';
import { MM_PER_INCH } from '../units/length';
import { type CamCard, type TimingLine, type Valve, closesAsPrinted, opensAsPrinted } from '../cam/card';
import { completeCard } from '../cam/complete-card';
import { type Lobe, flanksAt } from '../cam/lobe';
import { ringPosition } from '../crank/wheel';
import { factsOfCard } from '../verdict/card-facts';
import type { CardFact, Evidence, Observation } from '../verdict/observations';
import type { Random } from '../statistics/random';
import type { VirtualLifter } from './follow';
import { makeValveTrain } from './valve-train';

/** What a made-up builder found of a made-up engine, and what is true of it. Crank degrees, mm. */
export interface MeasuredCam {
  readonly evidence: Evidence;
  readonly card: CamCard;
  /** How far each cam really sits ahead of its target. */
  readonly truth: Readonly<Record<Valve, number>>;
  readonly limit: number;
}

/** What is wrong with an engine, a cam or a builder; nothing where it is left out. */
export interface Wrong {
  readonly lifter?: VirtualLifter;
  /** Play of the drive, crank degrees. */
  readonly slack?: number;
  /** Of the cam, further ahead than any ordinary drive puts it, crank degrees. */
  readonly ahead?: number;
  /** Changes the lobes after the card was printed. */
  readonly ground?: (lobe: Lobe, valve: Valve) => Lobe;
  /** Changes what is written down of one reading. */
  readonly written?: (observation: Observation, place: number, count: number) => Observation;
  /** The readings that are taken turning backwards, by their place. */
  readonly backwards?: (place: number) => boolean;
  /** Lifts are read at the valve through this ratio, and nobody says so. */
  readonly throughRatio?: number;
  /** Changes what the card says, for whoever types it. */
  readonly printed?: (facts: readonly CardFact[]) => readonly CardFact[];
  /** So much has worn off the nose of one lobe, mm. */
  readonly worn?: { readonly valve: Valve; readonly by: number };
  /** The wheel is numbered from both dead centres. */
  readonly quadrants?: boolean;
  /** Both centrelines, the events and the lifts are measured, whatever else. */
  readonly thorough?: boolean;
  /** Nothing errs: only the card is rounded. The same random numbers make the same engine. */
  readonly exact?: boolean;
  readonly cams?: 'single' | 'twin';
}

type Plan = readonly {
  readonly method: ReadMethodName;
  readonly valve: Valve;
  readonly times: number;
}[];

/** Where events are printed and read, mm: 0.050 in. */
const CHECKING = 0.05 * MM_PER_INCH;
const SEAT = 0.006 * MM_PER_INCH;
/** How far off the base circle is taken to be at most, mm; by how much the eye errs at the pointer, crank degrees. */
const BASE_ZERO = 0.002 * MM_PER_INCH;
const EYE = 0.1;

/** One of several with the same chance. */
const oneOf = <T>(random: Random, all: readonly T[]): T =>
  all[Math.min(all.length - 1, Math.floor((random.within(0.5) + 0.5) * all.length))] as T;
const between = (random: Random, from: number, to: number): number => (from + to) / 2 + random.within((to - from) / 2);
const chance = (random: Random, share: number): boolean => random.within(0.5) + 0.5 < share;

const someLobe = (random: Random, nose: number): Lobe => ({
  peak: between(random, 6.5, 10),
  nose,
  half: between(random, 140, 165),
  power: between(random, 1.8, 2.7),
  lean: Math.max(-5, Math.min(6, 0.9 + random.normal(2.2))),
});

/** Half-way between opening and closing at a lift. */
function middleOf(lobe: Lobe, lift: number): number {
  const flanks = flanksAt(lobe, lift);
  return flanks ? (flanks.opening + flanks.closing) / 2 : lobe.nose;
}

/** What a maker prints of two lobes: whole degrees, thousandths of an inch. */
function printCard(random: Random, lobes: Readonly<Record<Valve, Lobe>>, thorough: boolean): CamCard {
  const withCentres = thorough || chance(random, 0.75);
  const withEvents = thorough || !withCentres || chance(random, 0.6);
  const withSeat = thorough || chance(random, 0.6);
  // Some cards that print events count a centreline by them; what a card of centres alone may mean is looked at in `judgement`.
  const counted = !withEvents || chance(random, 0.5) ? (peak: number) => peak - CHECKING : () => CHECKING;
  const print = (valve: Valve) => {
    const lobe = lobes[valve];
    const line = (height: number): TimingLine => {
      const flanks = flanksAt(lobe, height);
      const [opens, closes] = [flanks?.opening ?? 0, flanks?.closing ?? 0];
      return withEvents
        ? {
            height,
            at: 'lobe',
            opens: Math.round(opensAsPrinted(valve, opens)),
            closes: Math.round(closesAsPrinted(valve, closes)),
          }
        : { height, at: 'lobe', duration: Math.round(closes - opens) };
    };
    return {
      ...(withCentres ? { centreline: Math.round(Math.abs(middleOf(lobe, counted(lobe.peak)))) } : {}),
      lobeLift: Math.round((lobe.peak / MM_PER_INCH) * 1000) * (MM_PER_INCH / 1000),
      timing: [line(CHECKING), ...(withSeat ? [{ ...line(SEAT) }] : [])],
    };
  };
  return { intake: print('intake'), exhaust: print('exhaust') };
}

/** How often a builder reads a lobe so. */
const HOW_OFTEN = [
  ['centreline', 0.7],
  ['events', 0.5],
  ['opening-only', 0.2],
  ['identity', 0.2],
  ['lift-at-tdc', 0.2],
] as const;

function plan(random: Random, thorough: boolean): Plan {
  const repeats = (): number => oneOf(random, [1, 1, 2, 3]);
  const both = ['intake', 'exhaust'] as const;
  if (thorough)
    return both.flatMap((valve) =>
      (['centreline', 'events', 'identity'] as const).map((method) => ({ method, valve, times: 1 })),
    );
  const all = both.flatMap((valve) =>
    HOW_OFTEN.flatMap(([method, often]) => (chance(random, often) ? [{ method, valve, times: repeats() }] : [])),
  );
  return all.some(({ method, valve }) => READ_METHODS[method].reads !== 'peak-lift' && valve === 'intake')
    ? all
    : [{ method: 'centreline', valve: 'intake', times: repeats() }, ...all];
}

/** A made-up engine on its stand, and how its builder reads it. */
interface Bench {
  readonly random: Random;
  readonly wrong: Wrong;
  readonly engine: ReturnType<typeof makeValveTrain>;
  readonly really: Readonly<Record<Valve, Lobe>>;
  /** How wide each nose really is at the checking drop, crank degrees. */
  readonly blunt: Readonly<Record<Valve, number>>;
  /** Where on the ring TDC was found, and where it is. */
  readonly found: number;
  readonly mount: number;
  readonly step: number;
  /** By what share the indicator stands out of line. */
  readonly scale: number;
  /** 0 where nothing errs, else 1. */
  readonly errs: number;
}

/** Takes what is planned, one reading after the other. */
function takeReadings(planned: Plan, bench: Bench): Observation[] {
  const { random, wrong, engine, really, scale, found, mount, step } = bench;
  const on = wrong.throughRatio === undefined ? 'lifter' : 'valve';
  const observations: Observation[] = [];
  const total = planned.reduce((sum, { method, times }) => sum + times * READ_METHODS[method].slots.length, 0);
  const note = (observation: Observation): void => {
    const taken = observations.length;
    observations.push(wrong.written?.(observation, taken, total) ?? observation);
  };
  const onBase = (valve: Valve): void => engine.comeForwardTo(engine.noseOf(valve) - really[valve].half - 20);
  const toNose = (valve: Valve): void => engine.turn(really[valve].half + 20);
  for (const { method, valve, times } of planned)
    for (let time = 0; time < times; time += 1) {
      const round = `${method} ${valve} ${time}`;
      const { reads, from, slots } = READ_METHODS[method];
      const figure = from === 'peak' ? oneOf(random, [CHECKING, CHECKING, 1]) : CHECKING;
      const entry = `${observations.length}`;
      const common = { round, valve, atValve: false, view: `${method} ${valve} ${figure}` } as const;
      if (reads === 'peak-lift') {
        onBase(valve);
        engine.zeroIndicator(valve, on);
        toNose(valve);
        const lift = engine.indicator(valve, on) / (1 + scale) - wornOff(wrong, valve);
        note({ ...common, kind: 'peak-lift', method: null, entry, lift });
      } else if (reads === 'tdc-lift') {
        onBase(valve);
        engine.zeroIndicator(valve, on);
        engine.comeForwardTo(Math.round((found - mount) / step) * step);
        const lift = engine.indicator(valve, on) / (1 + scale);
        const past = wrap180(ringPosition(engine.wheel()) - found);
        note({ ...common, kind: 'tdc-lift', method, entry, lift, past, zero: 'zero', step });
      } else if (from !== null) {
        onBase(valve);
        if (from === 'peak') toNose(valve);
        engine.zeroIndicator(valve, on);
        if (from === 'peak') onBase(valve);
        const base = from === 'base' ? bench.errs * random.within(BASE_ZERO) : 0;
        for (const { flank } of slots) {
          if (flank === null) continue;
          const taken = observations.length;
          const { ring, angle } = flankAt(bench, { valve, flank, from, figure, base, on }, taken);
          const read = { kind: 'flank', method, entry: `${taken}`, flank, from, figure, ring, angle } as const;
          note({ ...common, ...read, zero: 'zero', step, standard: null, felt: false });
          if (wrong.backwards?.(taken)) engine.turn(15);
        }
      }
    }
  return observations;
}

const wornOff = ({ worn }: Wrong, valve: Valve): number => (worn?.valve === valve ? worn.by : 0);

/**
 * Turns to one flank and reads the wheel there.
 * @param place of the reading among all: some are taken backwards.
 */
function flankAt(
  { wrong, engine, really, blunt, found, mount, scale }: Bench,
  {
    valve,
    flank,
    from,
    figure,
    base,
    on,
  }: {
    readonly valve: Valve;
    readonly flank: 'opening' | 'closing';
    readonly from: 'peak' | 'base';
    readonly figure: number;
    /** By how much its zero on the base circle errs, mm. */
    readonly base: number;
    readonly on: 'lifter' | 'valve';
  },
  place: number,
): { readonly ring: number; readonly angle: number } {
  const shown = from === 'peak' ? -figure * (1 + scale) - wornOff(wrong, valve) : figure * (1 + scale) + base;
  const moving = flank === 'opening' ? 'rising' : 'falling';
  engine.turnUntil(valve, on, shown, 1, moving);
  if (wrong.backwards?.(place)) {
    engine.turn(15);
    engine.turnUntil(valve, on, shown, -1, moving === 'rising' ? 'falling' : 'rising');
  }
  const at = ringPosition(engine.wheel());
  // No real nose is of the family of the flanks: common ones are blunt, on both sides alike.
  const own = flanksAt(really[valve], really[valve].peak - figure);
  const wider = own ? blunt[valve] * Math.sqrt(figure / CHECKING) - (own.closing - own.opening) / 2 : 0;
  const outward = (from === 'peak' ? wider : 0) * (flank === 'opening' ? -1 : 1);
  return { ring: at - mount + outward, angle: at - found + outward };
}

/**
 * Makes up an engine and a cam with its card, puts them together somewhat off, finds TDC as well as people do, and measures.
 * The card is rounded as cards are; lobes are ground a little off each other; indicators stand a little out of line.
 */
export function measureSomeCam(random: Random, wrong: Wrong = {}): MeasuredCam {
  const { thorough = false, exact = false } = wrong;
  const errs = exact ? 0 : 1;
  const cams = wrong.cams ?? (chance(random, 0.3) ? 'twin' : 'single');
  const separation = between(random, 103, 115);
  const groundIn = between(random, -2, 6);
  const designed = {
    intake: someLobe(random, separation - groundIn),
    exhaust: someLobe(random, -(separation + groundIn)),
  };
  const card = printCard(random, designed, thorough);
  const apart = errs * (cams === 'single' ? random.normal(0.5) : 0);
  const scale = errs * random.normal(0.007);
  const lobes = { intake: designed.intake, exhaust: { ...designed.exhaust, nose: designed.exhaust.nose + apart } };
  const ground = wrong.ground ?? ((lobe: Lobe) => lobe);
  const really = { intake: ground(lobes.intake, 'intake'), exhaust: ground(lobes.exhaust, 'exhaust') };

  const ahead = oneOf(random, [0, 0, 0, 2, -2, 4]);
  const one = random.normal(2.5) + (wrong.ahead ?? 0);
  const sits = { intake: ahead + one, exhaust: ahead + (cams === 'single' ? one : random.normal(2.5)) };
  const step = oneOf(random, [0.25, 0.5, 0.5, 1]);
  const resolution = oneOf(random, [0.01, 0.0127, 0.0254]);
  const tdc = oneOf(random, [0.06, 0.12, 0.25]);
  const mount = random.within(180);
  const engine = makeValveTrain(
    {
      lobes: really,
      lifter: wrong.lifter ?? { kind: 'solid' },
      ratio: wrong.throughRatio ?? 1,
      lash: 0,
      slack: wrong.slack ?? 0,
      ring: { ring: '0-360', sense: 'rising' },
      mount,
    },
    { step: errs * step, resolution: errs * resolution, eye: errs * EYE },
    random,
  );
  engine.assemble(sits);
  const found = mount + errs * random.normal(tdc);
  const planned = plan(random, thorough);
  const blunt = { intake: between(random, 40, 48), exhaust: between(random, 40, 48) };
  const observations = takeReadings(planned, { random, wrong, engine, really, blunt, found, mount, step, scale, errs });
  const completed = completeCard(card, 'in');
  const { facts, lobes: guessed } = factsOfCard(card, completed, null);
  return {
    evidence: {
      cams,
      observations,
      card: wrong.printed?.(facts) ?? facts,
      lobes: guessed,
      zeros: new Map([['zero', tdc]]),
      resolution,
      lifter: null,
      quadrants: wrong.quadrants ?? chance(random, 0.25),
      leanUnknown: [],
      settled: 0,
      ahead: { intake: ahead, exhaust: ahead },
      centreline: { intake: null, exhaust: null },
    },
    card,
    truth: { intake: sits.intake - ahead, exhaust: sits.exhaust - ahead },
    limit: oneOf(random, [0.5, 1, 2]),
  };
}
