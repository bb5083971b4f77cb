import { derive } from '../report/report';
import type { Report } from '../report/report-schema';
import type { BodyOf, Entry, EntryKind } from '../record/entry';
import { rimDegrees } from '../crank/rim';
import { readingAt } from '../crank/wheel';
import { wrap180 } from '../units/angle';
import { MM_PER_INCH } from '../units/length';
import type { Valve } from '../cam/card';
import { type Cause } from '../practice/causes';
import { type Debrief, debrief } from '../practice/debrief';
import type { ExerciseName } from '../practice/exercises';
import { PRACTICE_LASH } from '../practice/valve-train-made';
import { openPractice } from '../practice/opening';
import type { Scenario } from '../practice/scenario';
import {
  type Stand,
  againstStop,
  dialMovedOn,
  dialPut,
  dialShows,
  dialZeroed,
  lifterPushed,
  markedHere,
  met,
  room,
  turned,
  underPointer,
  wheelTurned,
  withStop,
  withoutStop,
} from '../simulation/whole-engine';
import { BLADE_STEP, bladeSlides, bladeTaken, setToBlade } from '../simulation/valve-lash';
import { type Pull, buttonChanged, playShows, pulled } from '../simulation/play-world';
import { tipShows } from '../simulation/rocker-world';
import { id } from './book';

/** A builder at a practice engine, who turns it, looks, and writes down what he sees. */
export function practising(exercise: ExerciseName, scenario: Scenario) {
  const { engine } = scenario;
  const buildId = id();
  const quill = { newId: id, buildId, builderId: id(), now: '2026-03-14T09:26:53Z' };
  const entries: Entry[] = openPractice(exercise, scenario, quill);
  const trail: Record<string, Stand> = {};
  let stand = met(engine, scenario.advance, scenario.mount, scenario.crank);
  let answer: Cause | null = null;
  const report = (): Report => derive(entries) as Report;
  const write = <K extends EntryKind>(kind: K, body: BodyOf<K>): string => {
    const entryId = id();
    entries.push({ id: entryId, buildId, kind, body, takenAt: quill.now, builderId: quill.builderId } as Entry);
    trail[entryId] = stand;
    return entryId;
  };
  /** As an eye reads it: to the quarter of a degree, the thirty-second of an inch, the half millimetre. */
  const wheel = (ring = engine.ring) => {
    if (ring.ring !== 'rim') return readingAt(ring, Math.round(underPointer(stand) * 4) / 4);
    const step = rimDegrees(ring.unit === 'in' ? MM_PER_INCH / 32 : 0.5, ring.round);
    return readingAt(ring, Math.round(wrap180(underPointer(stand)) / step) * step);
  };
  const turn = (by: number): void => void (stand = turned(engine, stand, by));
  const until = (shown: number, moving: 'rising' | 'falling', direction: 1 | -1 = 1): boolean => {
    for (let steps = 0; steps < 720 * 8; steps += 1) {
      const before = dialShows(engine, stand);
      turn(direction / 8);
      const after = dialShows(engine, stand);
      if (moving === 'rising' ? before < shown && after >= shown : before > shown && after <= shown) return true;
    }
    return false;
  };
  const pass = (zero: string, setting: string | null): void => {
    const passId = id();
    for (const side of ['before', 'after'] as const) {
      turn(side === 'before' ? 400 : -400);
      if (againstStop(engine, stand) === null) throw new Error('it turned past the stop');
      write('zero.reading', { zero, setting, pass: passId, side, wheel: wheel() });
    }
  };
  /** A pair of one lobe’s flanks at the lifter: each is written down as the wheel stands when it is asked for. */
  const pair = (
    method: 'centreline' | 'events',
    valve: Valve,
    shows: (flank: 'opening' | 'closing') => BodyOf<'reading.taken'>['shows'],
    ring = engine.ring,
  ): ((flank: 'opening' | 'closing') => string) => {
    const round = id();
    return (flank) =>
      write('reading.taken', {
        setting: report().zero.setting,
        trial: report().read.trial ?? '',
        round,
        method,
        cylinder: 1,
        valve,
        sitsOn: 'lifter',
        shows: shows(flank),
        approach: 'forward',
        wheel: wheel(ring),
      });
  };
  return {
    entries,
    trail,
    report,
    turn,
    until,
    stand: () => stand,
    look: () => ({ ...room(engine, stand), dial: dialShows(engine, stand), wheel: wheel() }),
    put: (change: (stand: Stand) => Stand): void => void (stand = change(stand)),
    /** Sets every valve where the order says, with blades, and goes round again; `lost` turns the crank on from where it should be. */
    lash: (order: BodyOf<'lash.begun'>['order'], lost = 0): void => {
      const wanted = { kind: 'lash', intake: PRACTICE_LASH, exhaust: PRACTICE_LASH } as const;
      const job = write('lash.begun', { after: null, order, engine: 'cold', wanted });
      for (let steps = 0; steps < 60; steps += 1) {
        const { job: now } = report().lash;
        if (!now?.next) return;
        const { cylinder, valve, stop } = now.next;
        const at = now.stops[stop]?.at ?? 0;
        // Cylinder 1 fires at −360 of its cycle.
        turn((((at - 360 + lost - stand.crank) % 720) + 720) % 720);
        while ((stand.dial.cylinder ?? 1) !== cylinder) stand = dialMovedOn(engine, stand);
        stand = dialPut(engine, stand, valve);
        const own = now.valves.find((each) => each.cylinder === cylinder && each.valve === valve);
        const set = own?.state !== 'set';
        if (set) {
          stand = bladeTaken(stand, Math.round((PRACTICE_LASH - (stand.lash?.blade ?? 0)) / BLADE_STEP));
          stand = setToBlade(engine, stand);
        }
        // The thickest that slides.
        stand = bladeTaken(stand, 40);
        while (!bladeSlides(engine, stand) && (stand.lash?.blade ?? 0) > BLADE_STEP + 1e-9)
          stand = bladeTaken(stand, -1);
        write('lash.taken', {
          job,
          cylinder,
          valve,
          ...(now.stops[stop]?.ring === null ? {} : { at }),
          ...(set ? { set: PRACTICE_LASH } : { found: stand.lash?.blade ?? 0 }),
        });
      }
    },
    /** Finds TDC by the stop, sets the wheel, proves it. */
    findTdc: (): void => {
      const zero = write('zero.begun', { after: null, method: 'positive-stop', cylinder: 1 });
      stand = withStop(engine, stand) ?? stand;
      pass(zero, null);
      stand = wheelTurned(stand, -(report().zero.result?.tdc ?? 0));
      const setting = write('zero.set', { zero, after: null, moved: 'wheel' });
      pass(zero, setting);
      stand = withoutStop(stand);
    },
    /** Finds TDC with marks on the rim: the first where the stop holds it, the TDC mark half-way to the second. */
    findTdcByMarks: (): void => {
      const zero = write('zero.begun', { after: null, method: 'rim-marks', cylinder: 1, ring: scenario.base.ring });
      stand = withStop(engine, stand) ?? stand;
      const contact = (side: 'before' | 'after', passId: string, setting: string | null): void => {
        turn(side === 'before' ? 400 : -400);
        if (setting === null && side === 'before') stand = markedHere(stand);
        write('zero.reading', { zero, setting, pass: passId, side, wheel: wheel() });
      };
      const both = (setting: string | null): void => {
        const passId = id();
        for (const side of ['before', 'after'] as const) contact(side, passId, setting);
      };
      both(null);
      stand = withoutStop(stand);
      turn(wrap180((report().zero.result?.tdc ?? 0) - underPointer(stand)));
      stand = markedHere(stand);
      const setting = write('zero.set', { zero, after: null, moved: 'mark' });
      turn(180);
      stand = withStop(engine, stand) ?? stand;
      both(setting);
      stand = withoutStop(stand);
    },
    /** Both flanks at 0.050 in below the peak; `careless` comes to the first one turning back. */
    centreline: (valve: Valve, careless = false, ring = engine.ring): void => {
      stand = lifterPushed(engine, dialPut(engine, stand, valve));
      const reading = pair('centreline', valve, (flank) => ({ kind: 'below-peak', flank, drop: 1.27 }), ring);
      const nose = engine.lobes[valve].nose - stand.advance[valve];
      turn((((nose - stand.crank) % 720) + 720) % 720);
      stand = dialZeroed(engine, stand);
      turn(-90);
      if (careless) {
        turn(80);
        until(-1.27, 'falling', -1);
      } else until(-1.27, 'rising');
      reading('opening');
      turn(20);
      until(-1.27, 'falling');
      reading('closing');
    },
    /** Both events at 0.050 in above the base circle. */
    events: (valve: Valve): void => {
      const height = 1.27;
      stand = lifterPushed(engine, dialPut(engine, stand, valve));
      const reading = pair('events', valve, (flank) => ({ kind: 'above-base', flank, lift: height }));
      const nose = engine.lobes[valve].nose - stand.advance[valve];
      turn((((nose - 180 - stand.crank) % 720) + 720) % 720);
      stand = dialZeroed(engine, stand);
      until(height, 'rising');
      reading('opening');
      turn(60);
      until(height, 'falling');
      reading('closing');
    },
    /** Every lobe as Read leads to it: the dial put there, zeroed on its base circle, turned on to the peak. `sloppy` zeroes it on the flank. */
    everyLobe: (sloppy = false): void => {
      for (let next = report().read.everyLobe.next; next; next = report().read.everyLobe.next) {
        const { cylinder, valve, peak } = next;
        while ((stand.dial.cylinder ?? 1) !== cylinder) stand = dialMovedOn(engine, stand);
        stand = dialPut(engine, stand, valve);
        const to = (angle: number): void => turn((((angle - stand.crank) % 720) + 720) % 720);
        to(peak - (sloppy ? 60 : 180));
        stand = dialZeroed(engine, stand);
        to(peak);
        write('reading.taken', {
          setting: null,
          trial: report().read.trial ?? '',
          round: id(),
          method: 'identity',
          cylinder,
          valve,
          sitsOn: 'lifter',
          shows: { kind: 'peak-lift', lift: Math.round(Math.abs(dialShows(engine, stand)) * 1e3) / 1e3 },
          approach: 'forward',
          wheel: null,
        });
      }
    },
    /** Tries lengths as Rockers leads to them, reading the pattern to a tenth of a millimetre, until one is good; orders that one. @returns how many. */
    pushrod: (): number => {
      const { rockers: world } = engine;
      const { rockers: met } = stand;
      if (!world || !met) throw new Error('this engine has no rockers to try');
      const intake = () => report().rockers.valves.find(({ valve }) => valve === 'intake');
      for (let tried = 0; tried < 8; tried += 1) {
        const good = intake()?.trials.find(({ entry }) => entry === intake()?.chosen);
        if (good) {
          write('pushrod.measured', {
            replaces: null,
            valve: 'intake',
            length: good.length,
            lifter: 'own',
            preload: 0,
          });
          return tried;
        }
        const length = tried === 0 ? met.length : (intake()?.next ?? world.first);
        stand = { ...stand, rockers: { length, shows: length } };
        const { pattern, seen } = tipShows(world, length);
        const read = Math.max(0.1, Math.round(pattern * 10) / 10);
        write('rocker.tried', { valve: 'intake', cylinder: 1, length, pattern: read, seen, lift: world.rocker.lift });
      }
      return Infinity;
    },
    /** Measures the end play as it is pulled, and files or shims what Prepare says, until it is inside. @returns how often it was measured. */
    endPlay: (pull: Exclude<Pull, 'none'>): number => {
      const { endPlay: world } = engine;
      let now = stand.endPlay;
      if (!world || !now) throw new Error('this cam cannot be pushed to and fro');
      for (let measured = 1; measured < 6; measured += 1) {
        now = pulled(now, pull);
        stand = { ...stand, endPlay: now };
        const play = playShows(world, now);
        write('end-play.measured', {
          replaces: report().prepare.endPlay?.entry ?? null,
          thrust: 'button',
          play,
          gasket: true,
          returns: playShows(world, pulled(now, 'none')) < 0.01,
        });
        const said = report().prepare.endPlay;
        if (said?.state !== 'tight' && said?.state !== 'loose') return measured;
        now = buttonChanged(now, Math.round(said.takeOff / BLADE_STEP));
        stand = { ...stand, endPlay: now };
      }
      return Infinity;
    },
    say: (cause: Cause): void => void (answer = cause),
    debrief: (hints = 0): Debrief => debrief({ exercise, scenario, entries, trail, stand, hints, answer }, report()),
    write,
  };
}
