import { wrap360, wrap180 } from '../units/angle';
import { READ_METHODS } from '../measure/read-methods';
import { MM_PER_INCH } from '../units/length';
import type { Valve } from '../cam/card';
import { type HeightPair, solveTdc } from '../tdc/equal-heights';
import { type SliderCrank, crankAngleAtDrop } from '../crank/slider-crank';
import type { Entry, BodyOf, EntryKind } from '../record/entry';
import type { Random } from '../statistics/random';
import { type Family, type GroundLobe, groundFlanks, groundLift, someGroundLobe } from './ground-lobe';

/** What the card's centreline is: the middle of an equal drop near the nose, or the middle of the events at 0.050 in. */
export type Convention = 'nose' | 'event';

export type Reading = 'centreline' | 'events' | 'opening-only' | 'lift-at-tdc' | 'identity';

/** One kind of job: what is printed, what is read. */
export interface Scenario {
  readonly name: string;
  readonly card: 'centres' | 'events' | 'both' | 'none';
  readonly reads: readonly (readonly [Reading, Valve])[];
  /** Is the contact met once more after the last reading? */
  readonly closing?: boolean;
  /** Is TDC found, and the cam read, by a tape round the rim instead of a wheel? */
  readonly rim?: boolean;
  /** Does the card print lifts at TDC? */
  readonly catalogue?: boolean;
  readonly times?: number;
  /** The intake leans by so much, crank degrees; as lobes do, where it is left out. */
  readonly leans?: number;
}

/** What goes wrong in a job; nothing where it is left out. Angles crank degrees. */
export interface Mishap {
  /** The wheel slips by so much before this reading, counted over all readings of the cam. */
  readonly slip?: { readonly before: number; readonly by: number };
  /** This reading is written down so much too high. */
  readonly misread?: { readonly at: number; readonly by: number };
  /** This reading is taken turning backwards: slack. */
  readonly backwards?: { readonly at: number; readonly slack: number };
  /** The wheel is numbered from both dead centres, and this reading is counted from its 90 mark. */
  readonly countedFrom90?: { readonly at: number };
  /** The card prints the centreline of the intake so much too high. */
  readonly misprint?: number;
  /** All lifts are written down in the other unit. */
  readonly otherUnit?: boolean;
  /** Lift that hydraulic lifters lose, mm for each crank degree off the seat. */
  readonly bleeds?: number;
}

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

const CHECKING = 0.05 * MM_PER_INCH;
/** The eye at the pointer, 1 sigma, crank degrees; the zero on the base circle, at most, mm. From memory. */
const EYE = 0.1;
const BASE_ZERO = 0.002 * MM_PER_INCH;

let made = 0;
const freshId = (): string => `${(made += 1).toString(16).padStart(8, '0')}-0000-4000-8000-00000000d0b5`;

const printed = (value: number, step: number): number => Math.round(value / step) * step;

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
  const entries: Entry[] = [];
  const buildId = freshId();
  const builderId = freshId();
  const write = <K extends EntryKind>(kind: K, body: BodyOf<K>): string => {
    const id = freshId();
    entries.push({ id, buildId, kind, body, takenAt: '2026-05-09T10:00:00Z', builderId } as Entry);
    return id;
  };
  const oneOf = <T>(all: readonly T[]): T => all[Math.floor(random.even() * all.length)] as T;
  const units = oneOf(['in', 'mm'] as const);
  const crank: SliderCrank = {
    stroke: 74 + 24 * random.even(),
    rod: 130 + 25 * random.even(),
    pinOffset: random.even() < 0.3 ? random.within(1) : 0,
  };
  const limit = oneOf([0.5, 1, 1, 2]);
  const resolution = units === 'in' ? oneOf([0.0005, 0.001]) * MM_PER_INCH : 0.01;
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

  // What stands under the pointer at true TDC, and what is read of it.
  let mount = random.within(30);
  const readTo = scenario.rim ? (360 * tapeStep) / round : step;
  const look = (angle: number): number => printed(wrap180(angle + mount + random.normal(EYE)), readTo);
  const shown = (at: number) => {
    const off = Math.abs(at);
    const side = at < 0 ? 'before' : 'after';
    if (scenario.rim) return { ring: 'rim' as const, round, unit: units, shows: (off * round) / 360, side } as const;
    if (!mishap.countedFrom90) return { ring: '0-180' as const, shows: off, side } as const;
    // Numbers run from 0 at either dead centre to 90 between them: past 90 the wheel comes up to BDC, or has left it.
    const ofBdc = side === 'after' ? 'before-bdc' : 'after-bdc';
    return off <= 90
      ? ({ ring: '0-90', shows: off, side: `${side}-tdc` } as const)
      : ({ ring: '0-90', shows: 180 - off, side: ofBdc } as const);
  };
  const zero = write('zero.begun', { after: null, method: 'positive-stop', cylinder: 1 });
  const contacts = crankAngleAtDrop(crank, 3 + 8 * random.even());
  if (!contacts) throw new Error('the stop is met');
  const pass = (setting: string | null): HeightPair => {
    const passId = freshId();
    const at = { before: look(contacts.before), after: look(contacts.after) };
    for (const side of ['before', 'after'] as const)
      write('zero.reading', { zero, setting, pass: passId, side, wheel: shown(at[side]) });
    return at;
  };
  const first = solveTdc(pass(null), null);
  if (!first.ok) throw new Error(first.problem.message);
  mount = mount - printed(first.tdc, Math.min(readTo, 0.5)) + random.normal(EYE);
  let setting = write('zero.set', { zero, after: null, moved: 'wheel' });
  for (let tries = 0; tries < 20; tries += 1) {
    const proof = pass(setting);
    // Apart by one mark at most; marks of a tape are no round numbers of degrees.
    if (Math.abs(proof.before + proof.after) <= Math.max(0.5, readTo) + 1e-9) break;
    mount -= (proof.before + proof.after) / 2;
    setting = write('zero.set', { zero, after: setting, moved: 'wheel' });
  }

  const tdc = mount;

  if (mishap.bleeds !== undefined)
    write('engine.as-it-stands', {
      replaces: null,
      head: 'on',
      plugHole: true,
      wheel: true,
      indicator: true,
      lifter: 'hydraulic',
      drive: 'chain',
    });
  const separation = 104 + 10 * random.even();
  const lobes: Record<Valve, GroundLobe> = {
    intake: someGroundLobe(random, family, separation - 4 * random.even(), scenario.leans),
    exhaust: someGroundLobe(random, family, -separation - 4 * random.even()),
  };
  const middleOf = (lobe: GroundLobe, lift: number): number => {
    const { opening, closing } = groundFlanks(lobe, lift);
    return (opening + closing) / 2;
  };
  const centreOf = (valve: Valve): number =>
    middleOf(lobes[valve], convention === 'nose' ? lobes[valve].peak - CHECKING : CHECKING);
  const cardStep = oneOf([1, 0.5]);
  const card: { [key in Valve]?: BodyOf<'card.entered'>['intake'] } = {};
  const printedCentre = (valve: Valve): number =>
    Math.abs(printed(centreOf(valve), cardStep)) + (valve === 'intake' ? (mishap.misprint ?? 0) : 0);
  const eventsOf = (valve: Valve) => {
    const { opening, closing } = groundFlanks(lobes[valve], CHECKING);
    return valve === 'intake'
      ? { opens: Math.round(-opening), closes: Math.round(closing - 180) }
      : { opens: Math.round(-180 - opening), closes: Math.round(closing) };
  };
  for (const valve of ['intake', 'exhaust'] as const) {
    const { peak } = lobes[valve];
    card[valve] = {
      lobeLift: printed(peak, 0.001 * MM_PER_INCH),
      ...(scenario.card === 'centres' || scenario.card === 'both' ? { centreline: printedCentre(valve) } : {}),
      ...(scenario.card === 'events' || scenario.card === 'both'
        ? { timing: [{ height: CHECKING, at: 'lobe', ...eventsOf(valve) }] }
        : {}),
      ...(scenario.catalogue
        ? {
            liftAtTdc: [-2, 2].map((by) => ({
              centreline: printedCentre(valve) + by,
              lift: printed(
                groundLift({ ...lobes[valve], nose: lobes[valve].nose + (valve === 'intake' ? by : -by) }, 0),
                0.001 * MM_PER_INCH,
              ),
            })),
          }
        : {}),
    };
  }
  const wantedCentre = printed(centreOf('intake'), 0.5);
  if (scenario.card === 'none') {
    write('target.set', { replaces: null, target: { kind: 'centreline', centreline: wantedCentre }, limit });
  } else {
    write('card.entered', { replaces: null, ...card });
    write('target.set', { replaces: null, target: { kind: 'card' }, limit });
  }
  const truth = random.normal(2.5);
  // Lobes are ground to within a quarter of a cam degree of each other.
  const apart = { intake: 0, exhaust: random.normal(0.4) };
  const trial = write('trial.begun', { after: null });
  const tilt = 1 - 0.008 * random.even();
  const plain: number[] = [];
  let taken = 0;

  const wheelAt = (angle: number): number => {
    if (mishap.slip?.before === taken) mount += mishap.slip.by;
    const slack = mishap.backwards?.at === taken ? -mishap.backwards.slack : 0;
    const misread = mishap.misread?.at === taken ? mishap.misread.by : 0;
    const stands = wrap180(look(angle + slack) + misread);
    const quarter = 90 * Math.floor(stands / 90);
    const from90 = mishap.countedFrom90?.at === taken;
    taken += 1;
    return from90 ? quarter + 90 - (stands - quarter) : stands;
  };
  const read = (method: Reading, valve: Valve): void => {
    const lobe = lobes[valve];
    const shift = apart[valve] - truth;
    const round = freshId();
    const take = (shows: BodyOf<'reading.taken'>['shows'], at: number | null): void => {
      write('reading.taken', {
        setting: at === null ? null : setting,
        trial,
        round,
        method,
        cylinder: 1,
        valve,
        sitsOn: 'lifter',
        shows,
        approach: 'forward',
        wheel: at === null ? null : shown(at),
      });
    };
    const dial = (): number => random.within(resolution / 4) + random.normal(resolution / 8);
    const ofCard = valve === 'intake' ? 1 : -1;
    const seat = groundFlanks(lobe, 0).opening;
    const bled = (angle: number): number => (mishap.bleeds ?? 0) * Math.max(0, angle - seat);
    const flankAt = (flank: 'opening' | 'closing', lift: number): number => {
      let at = groundFlanks(lobe, lift)[flank];
      // What has been lost by then is wanted in addition: a few rounds settle it.
      for (let again = 0; again < 12; again += 1)
        at = groundFlanks(lobe, Math.min(lobe.peak - 1e-6, lift + bled(at)))[flank];
      return at;
    };
    const written = (lift: number): number =>
      printed(lift, resolution) * (mishap.otherUnit ? (units === 'in' ? MM_PER_INCH : 1 / MM_PER_INCH) : 1);
    const { reads, gives, slots } = READ_METHODS[method];
    if (reads === 'peak-lift') {
      take({ kind: 'peak-lift', lift: written((lobe.peak - bled(lobe.nose)) * tilt + random.within(BASE_ZERO)) }, null);
      return;
    }
    if (reads === 'tdc-lift') {
      // The crank is brought to where the wheel reads 0: what is wrong with the zero is in the lift.
      wheelAt(0);
      const stands = random.normal(EYE) - mount;
      const lift = Math.max(0, groundLift(lobe, stands - shift) * tilt + random.within(BASE_ZERO));
      take({ kind: 'tdc-lift', lift: written(lift) }, 0);
      const [a, b] = card[valve]?.liftAtTdc ?? [];
      // Two lifts that are printed alike say nothing.
      if (a && b && a.lift !== b.lift) {
        const centre = a.centreline + ((lift - a.lift) / (b.lift - a.lift)) * (b.centreline - a.centreline);
        plain.push(ofCard * ((card[valve]?.centreline ?? (a.centreline + b.centreline) / 2) - centre));
      }
      return;
    }
    if (gives === 'centreline') {
      const drop = units === 'in' ? CHECKING : 1;
      const at = (['opening', 'closing'] as const).map((flank) => {
        const top = lobe.peak - bled(lobe.nose);
        const stands = wheelAt(flankAt(flank, top - drop / tilt + dial()) + shift);
        take({ kind: 'below-peak', flank, drop }, stands);
        return stands;
      });
      const centre = ((at[0] ?? 0) + (at[1] ?? 0)) / 2;
      const aim = scenario.card === 'none' ? wantedCentre : card[valve]?.centreline;
      if (aim !== undefined && (scenario.card !== 'none' || valve === 'intake')) plain.push(ofCard * aim - centre);
      return;
    }
    const off = random.within(BASE_ZERO);
    const at = slots.map(({ flank }) => {
      if (flank === null) return 0;
      const stands = wheelAt(flankAt(flank, CHECKING / tilt + off + dial()) + shift);
      take({ kind: 'above-base', flank, lift: CHECKING }, stands);
      return stands;
    });
    const lines = card[valve]?.timing;
    const [line] = lines ?? [];
    if (line?.opens !== undefined && line.closes !== undefined) {
      const opens = valve === 'intake' ? -line.opens : -180 - line.opens;
      const closes = valve === 'intake' ? 180 + line.closes : line.closes;
      plain.push(wrap180(opens - (at[0] ?? 0)));
      if (at[1] !== undefined) plain.push(wrap180(closes - at[1]));
    } else if (at[1] !== undefined) {
      const from = at[0] ?? 0;
      const centre = from + wrap360(at[1] - from) / 2;
      const aim = scenario.card === 'none' ? (valve === 'intake' ? wantedCentre : undefined) : card[valve]?.centreline;
      if (aim !== undefined) plain.push(wrap180(ofCard * aim - centre));
    }
  };
  for (const [method, valve] of scenario.reads)
    for (let time = 0; time < (scenario.times ?? 1); time += 1) read(method, valve);
  if (scenario.closing) {
    const at = look(contacts.before);
    write('zero.reading', { zero, setting, pass: freshId(), side: 'before', wheel: shown(at), closing: true });
  }
  // Against a target that is wanted in whole steps.
  const really = scenario.card === 'none' ? truth + wantedCentre - centreOf('intake') : truth;
  const dropsOnly =
    scenario.card === 'centres' && scenario.reads.every(([method]) => READ_METHODS[method].from === 'peak');
  const ofDrop = middleOf(lobes.intake, lobes.intake.peak - CHECKING);
  return {
    entries,
    truth: really,
    truthOwn: dropsOnly ? really + centreOf('intake') - ofDrop : really,
    plain: plain.length === 0 ? null : plain.reduce((sum, each) => sum + each, 0) / plain.length,
    limit,
    tdc,
  };
}
