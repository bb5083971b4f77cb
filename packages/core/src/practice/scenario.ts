import { MM_PER_INCH } from '../units/length';
import { type Valve, closesAsPrinted, opensAsPrinted } from '../cam/card';
import { type Lobe, flanksAt } from '../cam/lobe';
import type { WheelRing } from '../crank/wheel';
import type { BodyOf } from '../record/entry';
import type { Report } from '../report/report-schema';
import type { Hardware, Setting } from '../timing-set/hardware';
import type { PerValve } from '../simulation/follow';
import type { WholeEngine } from '../simulation/whole-engine';
import type { Cause } from './causes';

/** The engine that a practice is made on: invented, or one of the shop's. Nothing in it is wrong yet. */
export interface PracticeBase {
  readonly name: string;
  readonly engine: BodyOf<'build.described'>['engine'];
  readonly ring: WheelRing;
  readonly units: 'in' | 'mm';
  readonly card: Omit<BodyOf<'card.entered'>, 'replaces'>;
  /** As the card has them. */
  readonly lobes: Readonly<Record<Valve, Lobe>>;
  readonly lifter: BodyOf<'engine.as-it-stands'>['lifter'];
  readonly drive: BodyOf<'engine.as-it-stands'>['drive'];
  readonly parts: readonly PracticePart[];
}

export interface PracticePart {
  readonly name: string;
  readonly hardware: Hardware;
  readonly cam: 'all' | Valve;
  readonly at: Setting;
}

/** Everything that is true of a practice, and hidden until the debrief. Plain data: kept over a reload. */
export interface Scenario {
  readonly base: PracticeBase;
  readonly engine: WholeEngine;
  /** How far each cam sits ahead of its card when the engine is met, crank degrees. */
  readonly advance: PerValve;
  readonly mount: number;
  readonly crank: number;
  readonly cause: Cause;
  /** Makes the hardware what it is. */
  readonly seed: number;
}

const CHECKING = 0.05 * MM_PER_INCH;
const STROKE = 3.42 * MM_PER_INCH;
const ROD = 5.85 * MM_PER_INCH;

const LOBES: Readonly<Record<Valve, Lobe>> = {
  intake: { peak: 0.34 * MM_PER_INCH, nose: 106, half: 148, power: 2, lean: 1 },
  exhaust: { peak: 0.335 * MM_PER_INCH, nose: -113, half: 152, power: 2, lean: -1 },
};

function printed(valve: Valve, lobe: Lobe): NonNullable<PracticeBase['card']['intake']> {
  const flanks = flanksAt(lobe, CHECKING);
  return {
    centreline: Math.round(Math.abs(lobe.nose)),
    lobeLift: Math.round((lobe.peak / MM_PER_INCH) * 1000) * (MM_PER_INCH / 1000),
    ...(flanks
      ? {
          timing: [
            {
              height: CHECKING,
              at: 'lobe' as const,
              opens: Math.round(opensAsPrinted(valve, flanks.opening)),
              closes: Math.round(closesAsPrinted(valve, flanks.closing)),
            },
          ],
        }
      : {}),
  };
}

/** A gear of our own invention, to move the cam by. */
const GEAR: PracticePart = {
  name: 'Nine-keyway gear',
  hardware: { kind: 'keyways', stamped: 'crank', marks: [-8, -6, -4, -2, 0, 2, 4, 6, 8] },
  cam: 'all',
  at: { mark: '0' },
};

/** The practice engine of everybody: a pushrod six with one cam. Invented. */
export const PRACTICE_SIX: PracticeBase = {
  name: 'Practice six',
  engine: {
    cylinders: 6,
    firingOrder: [1, 5, 3, 6, 2, 4],
    rotation: 'clockwise',
    stroke: STROKE,
    rod: ROD,
  },
  ring: { ring: '0-180' },
  units: 'in',
  card: { name: 'Practice 232', intake: printed('intake', LOBES.intake), exhaust: printed('exhaust', LOBES.exhaust) },
  lobes: LOBES,
  lifter: 'solid',
  drive: 'chain',
  parts: [GEAR],
};

/**
 * An engine of the shop to practise on: its crank, ring, rotation, lifter, cam card and hardware. What its logbook does not say is that of the
 * practice six. Its readings stay where they are.
 */
export function baseOf(report: Report): PracticeBase {
  const { build, card, prepare, drive } = report;
  const { firingAngles, cams, cylinders, firingOrder, rotation } = build.engine;
  const known = prepare.asItStands;
  const parts = drive.parts.flatMap(({ name, hardware, cam, setting, bank }): PracticePart[] =>
    bank === 2 ? [] : [{ name, hardware, cam, at: setting }],
  );
  const lobes = {
    intake: card.lobes.intake ?? PRACTICE_SIX.lobes.intake,
    exhaust: card.lobes.exhaust ?? PRACTICE_SIX.lobes.exhaust,
  };
  return {
    name: build.name,
    engine: {
      cylinders,
      firingOrder,
      rotation,
      cams,
      ...crankOf(build.engine),
      ...(firingAngles ? { firingAngles } : {}),
    },
    ring: build.wheel.ring === 'rim' ? PRACTICE_SIX.ring : build.wheel,
    units: build.units,
    card: {
      ...(card.name === null ? {} : { name: card.name }),
      intake: printed('intake', lobes.intake),
      exhaust: printed('exhaust', lobes.exhaust),
    },
    lobes,
    lifter: known && known.lifter !== 'none' ? known.lifter : PRACTICE_SIX.lifter,
    drive: known && known.drive !== 'none' ? known.drive : PRACTICE_SIX.drive,
    parts: parts.length > 0 ? parts : usualParts(cams),
  };
}

/** A stroke without its rod, or the other way round, is that of no engine that is known. */
function crankOf({
  stroke,
  rod,
  pinOffset,
}: Report['build']['engine']): Pick<PracticeBase['engine'], 'stroke' | 'rod' | 'pinOffset'> {
  if (stroke === null || rod === null) return { stroke: STROKE, rod: ROD };
  return { stroke, rod, ...(pinOffset === null ? {} : { pinOffset }) };
}

const usualParts = (cams: 'single' | 'twin'): readonly PracticePart[] =>
  cams === 'twin' ? twinParts() : PRACTICE_SIX.parts;

const twinParts = (): PracticePart[] =>
  (['intake', 'exhaust'] as const).map((cam) => ({
    name: `Slotted pulley, ${cam}`,
    hardware: { kind: 'slotted-pulley', stamped: 'cam', range: 6, scale: true },
    cam,
    at: { at: 0 },
  }));
