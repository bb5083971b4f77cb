import { companion, firingTdcs, topOnWheel, whichTdc } from '../crank/firing';
import { markError, rimDistance, timingTape } from '../crank/rim';
import { formatReading, readingAt } from '../crank/wheel';
import { computedDegrees } from '../units/degrees';
import { formatComputedLength } from '../units/length';
import type { Build } from '../record/fold';

export interface CrankFinding {
  /** The cylinder whose valves rock while cylinder 1 fires; null where there is none. */
  readonly companion: number | null;
  readonly identified: {
    readonly entry: string;
    readonly stands: 'overlap' | 'firing';
    readonly words: string;
  } | null;
  /** Every cylinder's firing TDC: crank degrees after cylinder 1's, and what a wheel set to cylinder 1 shows there. */
  readonly cylinders: readonly { readonly cylinder: number; readonly after: number; readonly shows: string }[];
  readonly mark: {
    readonly entry: string;
    readonly error: number;
    readonly words: string;
    readonly cure: string;
    readonly tape: readonly { readonly degrees: number; readonly distance: number }[];
  } | null;
}

/** Which TDC it is, where every cylinder's is, and how right the engine's own mark is. */
export function deriveCrank(build: Build): CrankFinding {
  const { engine, units, wheel } = build.description.body;
  const firing = { order: engine.firingOrder, angles: engine.firingAngles };
  const other = companion(firing);
  return {
    companion: other,
    identified: identify(build, other),
    cylinders: firingTdcs(firing).map(({ cylinder, after }) => ({
      cylinder,
      after,
      shows: wheel.ring === 'rim' ? '' : formatReading(readingAt(wheel, topOnWheel(after))),
    })),
    mark: findMark(build, units),
  };
}

function identify(build: Build, other: number | null): CrankFinding['identified'] {
  const entry = build.identified;
  if (!entry || (entry.body.looked === 'companion' && other === null)) return null;
  const { looked, seen } = entry.body;
  const stands = whichTdc(looked, seen);
  const whose = looked === 'own' ? 'Cylinder 1’s valves' : `The valves of cylinder ${other ?? ''}`;
  const what = seen === 'rocking' ? 'rock' : 'are both closed';
  return { entry: entry.id, stands, words: `${whose} ${what}: cylinder 1 stands at its ${stands} TDC.` };
}

function findMark(build: Build, units: 'in' | 'mm'): CrankFinding['mark'] {
  const entry = build.mark;
  if (!entry) return null;
  const { part, round, distance, stands } = entry.body;
  const { error } = markError(entry.body);
  const size = computedDegrees(Math.abs(error));
  const along = formatComputedLength(distance, units);
  const right = Math.abs(error) < 0.05;
  return {
    entry: entry.id,
    error,
    words: right
      ? `The ${part} mark shows true TDC.`
      : `The ${part} mark comes ${size} too ${error > 0 ? 'early' : 'late'}: set by it, the ignition is ${size} ${error > 0 ? 'more advanced' : 'more retarded'} than it reads.`,
    cure: right
      ? 'Leave it.'
      : `Make the new mark ${along} along the rim from the old one, ${stands === 'after' ? 'against' : 'with'} the way it runs. 10° is ${formatComputedLength(rimDistance(10, round), units)}.`,
    tape: timingTape(round),
  };
}
