import { companion, firingTdcs, topOnWheel, whichTdc } from '../crank/firing';
import { markError, timingTape } from '../crank/rim';
import { formatReading, readingAt } from '../crank/wheel';
import type { BodyOf } from '../record/entry';
import type { Build } from '../record/fold';

export interface CrankFinding {
  /** The cylinder whose valves rock while cylinder 1 fires; null where there is none. */
  readonly companion: number | null;
  readonly identified:
    | ({ readonly entry: string; readonly stands: 'overlap' | 'firing' } & Pick<
        BodyOf<'tdc.identified'>,
        'looked' | 'seen'
      >)
    | null;
  /** Every cylinder's firing TDC: crank degrees after cylinder 1's, and what a wheel set to cylinder 1 shows there. */
  readonly cylinders: readonly { readonly cylinder: number; readonly after: number; readonly shows: string }[];
  readonly mark: {
    readonly entry: string;
    /** How far the mark is off, crank degrees: positive shows TDC too early. */
    readonly error: number;
    readonly seen: BodyOf<'mark.checked'>;
    readonly tape: readonly { readonly degrees: number; readonly distance: number }[];
  } | null;
}

/** Which TDC it is, where every cylinder's is, and how right the engine's own mark is. */
export function deriveCrank(build: Build): CrankFinding {
  const { engine, wheel } = build.description.body;
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
    mark: findMark(build),
  };
}

function identify(build: Build, other: number | null): CrankFinding['identified'] {
  const entry = build.identified;
  if (!entry || (entry.body.looked === 'companion' && other === null)) return null;
  const { looked, seen } = entry.body;
  return { entry: entry.id, stands: whichTdc(looked, seen), looked, seen };
}

function findMark({ mark: entry }: Build): CrankFinding['mark'] {
  if (!entry) return null;
  const { error } = markError(entry.body);
  return { entry: entry.id, error, seen: entry.body, tape: timingTape(entry.body.round) };
}
