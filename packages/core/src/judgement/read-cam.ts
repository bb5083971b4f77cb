import type { Valve } from '../cam/card';
import { READ_METHODS } from '../measure/read-methods';
import type { BodyOf } from '../record/entry';
import { wrap180, wrap360 } from '../units/angle';
import { MM_PER_INCH } from '../units/length';
import { type Bench, EYE, freshId, printed } from './bench';
import { type GroundLobe, groundFlanks, groundLift } from './ground-lobe';
import { CHECKING, type Lobes, type Printed } from './print-card';
import type { Reading } from './scenario';

/** The zero on the base circle, at most, mm. From memory. */
const BASE_ZERO = 0.002 * MM_PER_INCH;

/** A lobe before the indicator: how far it is turned on its cam, and with it, crank degrees; what it lifts, as the lifter follows it, mm. */
interface Turned {
  readonly valve: Valve;
  readonly lobe: GroundLobe;
  readonly shift: number;
  readonly bled: (angle: number) => number;
  readonly flankAt: (flank: 'opening' | 'closing', lift: number) => number;
}

/**
 * Reads the cam by every method of the scenario, in its order.
 * @param truth how far the cam sits ahead of its card, crank degrees.
 * @returns what plain trade arithmetic makes of each comparison: how far the cam is ahead, crank degrees.
 */
export function readCam(bench: Bench, lobes: Lobes, paper: Printed, setting: string, truth: number): readonly number[] {
  const { random, scenario, mishap, units, resolution, wheel, write, look, shown } = bench;
  const { card, wantedCentre } = paper;
  // Lobes are ground to within a quarter of a cam degree of each other.
  const apart = { intake: 0, exhaust: random.normal(0.4) };
  const trial = write('trial.begun', { after: null });
  const tilt = 1 - 0.008 * random.even();
  const plain: number[] = [];
  let taken = 0;

  const wheelAt = (angle: number): number => {
    if (mishap.slip?.before === taken) wheel.turn(mishap.slip.by);
    const slack = mishap.backwards?.at === taken ? -mishap.backwards.slack : 0;
    const misread = mishap.misread?.at === taken ? mishap.misread.by : 0;
    const stands = wrap180(look(angle + slack) + misread);
    const quarter = 90 * Math.floor(stands / 90);
    const from90 = mishap.countedFrom90?.at === taken;
    taken += 1;
    return from90 ? quarter + 90 - (stands - quarter) : stands;
  };
  const dial = (): number => random.within(resolution / 4) + random.normal(resolution / 8);
  const written = (lift: number): number =>
    printed(lift, resolution) * (mishap.otherUnit ? (units === 'in' ? MM_PER_INCH : 1 / MM_PER_INCH) : 1);
  const turned = (valve: Valve): Turned => {
    const lobe = lobes[valve];
    const seat = groundFlanks(lobe, 0).opening;
    const bled = (angle: number): number => (mishap.bleeds ?? 0) * Math.max(0, angle - seat);
    const flankAt = (flank: 'opening' | 'closing', lift: number): number => {
      let at = groundFlanks(lobe, lift)[flank];
      // What has been lost by then is wanted in addition: a few rounds settle it.
      for (let again = 0; again < 12; again += 1)
        at = groundFlanks(lobe, Math.min(lobe.peak - 1e-6, lift + bled(at)))[flank];
      return at;
    };
    return { valve, lobe, shift: apart[valve] - truth, bled, flankAt };
  };
  type Take = (shows: BodyOf<'reading.taken'>['shows'], at: number | null) => void;
  /** The centreline that a cam is aimed at: of the card, or the builder's own. */
  const aimOf = (valve: Valve): number | undefined => {
    if (scenario.card !== 'none') return card[valve]?.centreline;
    return valve === 'intake' ? wantedCentre : undefined;
  };
  const signOf = (valve: Valve): number => (valve === 'intake' ? 1 : -1);

  const readPeak = ({ lobe, bled }: Turned, take: Take): void =>
    take({ kind: 'peak-lift', lift: written((lobe.peak - bled(lobe.nose)) * tilt + random.within(BASE_ZERO)) }, null);

  const readLiftAtTdc = ({ valve, lobe, shift }: Turned, take: Take): void => {
    // The crank is brought to where the wheel reads 0: what is wrong with the zero is in the lift.
    wheelAt(0);
    const stands = random.normal(EYE) - wheel.stands();
    const lift = Math.max(0, groundLift(lobe, stands - shift) * tilt + random.within(BASE_ZERO));
    take({ kind: 'tdc-lift', lift: written(lift) }, 0);
    const [a, b] = card[valve]?.liftAtTdc ?? [];
    // Two lifts that are printed alike say nothing.
    if (!a || !b || a.lift === b.lift) return;
    const centre = a.centreline + ((lift - a.lift) / (b.lift - a.lift)) * (b.centreline - a.centreline);
    plain.push(signOf(valve) * ((card[valve]?.centreline ?? (a.centreline + b.centreline) / 2) - centre));
  };

  const readCentreline = ({ valve, lobe, shift, bled, flankAt }: Turned, take: Take): void => {
    const drop = units === 'in' ? CHECKING : 1;
    const at = (['opening', 'closing'] as const).map((flank) => {
      const top = lobe.peak - bled(lobe.nose);
      const stands = wheelAt(flankAt(flank, top - drop / tilt + dial()) + shift);
      take({ kind: 'below-peak', flank, drop }, stands);
      return stands;
    });
    const aim = aimOf(valve);
    if (aim !== undefined) plain.push(signOf(valve) * aim - ((at[0] ?? 0) + (at[1] ?? 0)) / 2);
  };

  const readEvents = (method: Reading, { valve, shift, flankAt }: Turned, take: Take): void => {
    const off = random.within(BASE_ZERO);
    const at = READ_METHODS[method].slots.map(({ flank }) => {
      if (flank === null) return 0;
      const stands = wheelAt(flankAt(flank, CHECKING / tilt + off + dial()) + shift);
      take({ kind: 'above-base', flank, lift: CHECKING }, stands);
      return stands;
    });
    const [line] = card[valve]?.timing ?? [];
    const [from = 0, to] = at;
    if (line?.opens !== undefined && line.closes !== undefined) {
      const opens = valve === 'intake' ? -line.opens : -180 - line.opens;
      const closes = valve === 'intake' ? 180 + line.closes : line.closes;
      plain.push(wrap180(opens - from));
      if (to !== undefined) plain.push(wrap180(closes - to));
    } else if (to !== undefined) {
      const aim = aimOf(valve);
      if (aim !== undefined) plain.push(wrap180(signOf(valve) * aim - (from + wrap360(to - from) / 2)));
    }
  };

  const read = (method: Reading, valve: Valve): void => {
    const round = freshId();
    const take: Take = (shows, at) =>
      void write('reading.taken', {
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
    const { reads, gives } = READ_METHODS[method];
    if (reads === 'peak-lift') readPeak(turned(valve), take);
    else if (reads === 'tdc-lift') readLiftAtTdc(turned(valve), take);
    else if (gives === 'centreline') readCentreline(turned(valve), take);
    else readEvents(method, turned(valve), take);
  };
  for (const [method, valve] of scenario.reads)
    for (let time = 0; time < (scenario.times ?? 1); time += 1) read(method, valve);
  return plain;
}
