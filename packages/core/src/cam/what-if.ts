import { type SliderCrank, pistonDrop } from '../crank/slider-crank';
import { VALVES, type Valve, closesAsPrinted, opensAsPrinted } from './card';
import { type Lobe, advanced, flanksAt, lobeAt } from './lobe';

/** Where a valve is as good as on its seat, mm at the lobe: 0.006 in. From memory. */
export const SEAT_HEIGHT = 0.1524;

/** What is known of the cylinder. Lengths mm. */
export interface CylinderKnown {
  readonly crank: SliderCrank | null;
  readonly bore: number | null;
  /** Static compression ratio; null where it is not known, or follows from the chamber. */
  readonly ratio: number | null;
  /** Volume above the piston at TDC, cm³. */
  readonly chamber: number | null;
}

/** A lobe turned so far. Angles as a card prints them; lift mm. */
export interface TriedLobe {
  readonly valve: Valve;
  readonly lobe: Lobe;
  readonly centreline: number;
  readonly opens: number;
  readonly closes: number;
  readonly liftAtTdc: number;
}

/** What is trapped when the intake closes. */
export interface Trapped {
  /** How far below the top the piston stands, mm. */
  readonly drop: number;
  /** Swept volume that is left, cm³; null without a bore. */
  readonly volume: number | null;
  /** Compression from there; null where the static ratio is not known. */
  readonly ratio: number | null;
  readonly staticRatio: number | null;
}

export interface Tried {
  readonly lobes: readonly TriedLobe[];
  /** Cam degrees between the centrelines; null without both. */
  readonly separation: number | null;
  /** Crank degrees at the height; null without both. */
  readonly overlap: number | null;
  /** null where the crank is not known, or the intake is not. */
  readonly trapped: Trapped | null;
}

/**
 * Where the events come to lie when a cam is turned, and what the cylinder then traps.
 * @param by crank degrees of advance, for each valve: the same for a single cam.
 * @param height checking height at the lobe, mm. What is trapped always counts from the seat.
 * Source: definitions; volume and compression from the slider-crank (Heywood, Internal Combustion Engine Fundamentals, ch. 2).
 * @example a lobe of IVC 55 advanced by 4 closes at 51 ABDC
 */
export function whatIf(
  lobes: Readonly<Record<Valve, Lobe | null>>,
  by: Readonly<Record<Valve, number>>,
  height: number,
  cylinder: CylinderKnown,
): Tried {
  const tried = VALVES.flatMap((valve): TriedLobe[] => {
    const known = lobes[valve];
    if (!known) return [];
    const lobe = by[valve] === 0 ? known : advanced(known, by[valve]);
    const flanks = flanksAt(lobe, Math.min(height, lobe.peak));
    if (!flanks) return [];
    return [
      {
        valve,
        lobe,
        centreline: valve === 'intake' ? lobe.nose : -lobe.nose,
        opens: opensAsPrinted(valve, flanks.opening),
        closes: closesAsPrinted(valve, flanks.closing),
        liftAtTdc: lobeAt(lobe, 0).lift,
      },
    ];
  });
  const of = (valve: Valve): TriedLobe | undefined => tried.find((each) => each.valve === valve);
  const [intake, exhaust] = [of('intake'), of('exhaust')];
  const both = intake && exhaust;
  return {
    lobes: tried,
    separation: both ? (intake.centreline + exhaust.centreline) / 2 : null,
    overlap: both ? intake.opens + exhaust.closes : null,
    trapped: intake ? trappedAt(intake.lobe, cylinder) : null,
  };
}

function trappedAt(intake: Lobe, { crank, bore, ratio, chamber }: CylinderKnown): Trapped | null {
  const seat = flanksAt(intake, Math.min(SEAT_HEIGHT, intake.peak));
  if (!crank || !seat) return null;
  const drop = pistonDrop(crank, seat.closing);
  const area = bore === null ? null : (Math.PI * bore * bore) / 4;
  const swept = area === null ? null : (area * crank.stroke) / 1000;
  const staticRatio = ratio ?? (chamber !== null && swept !== null && chamber > 0 ? (swept + chamber) / chamber : null);
  return {
    drop,
    volume: area === null ? null : (area * drop) / 1000,
    // The chamber in strokes of the piston is 1/(ratio − 1).
    ratio: staticRatio === null ? null : 1 + (staticRatio - 1) * (drop / crank.stroke),
    staticRatio,
  };
}

/** What a move does, in words: common practice, no source, and never a promise. */
export function effectsOf(by: number, separationBy: number): string[] {
  const words: string[] = [];
  if (Math.abs(by) >= 0.5)
    words.push(
      by > 0
        ? 'Advancing moves torque down the range; the intake closes earlier and traps more.'
        : 'Retarding moves torque up the range; the intake closes later and traps less at low speed.',
      by > 0
        ? 'It brings the intake valve nearer to the piston: check that clearance first.'
        : 'It brings the exhaust valve nearer to the piston: check that clearance first.',
    );
  if (Math.abs(separationBy) >= 0.25)
    words.push(
      separationBy > 0
        ? 'A wider LSA idles smoother and overlaps less.'
        : 'A narrower LSA overlaps more and idles rougher.',
    );
  return words;
}
