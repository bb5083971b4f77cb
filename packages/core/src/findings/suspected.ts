import type { Valve } from '../cam/card';
import { type Diagnosis, type Suspect, BELIEVED, diagnose } from '../verdict/diagnose';
import type { Evidence } from '../verdict/observations';
import type { FaultFinding } from '../verdict/verdict';
import type { Weighing } from '../verdict/weigh';
import type { ClosingFinding } from './closing-check';

/** Readings that fit together so well hide no fault: below what one must explain, with room for repeats being looked at one by one. */
const HARMLESS = 3;

/** What may be wrong with the readings of a trial. */
export interface Suspected {
  readonly faults: readonly FaultFinding[];
  readonly doubts: readonly FaultFinding[];
}

/**
 * What probably went wrong: seen by the closing check, or what the readings lead to.
 * @param whole readings of all rounds, those that make no sense together among them.
 * @param ahead how far the cam that is furthest off sits from its card, crank degrees: a cam far off is looked at though its readings agree.
 */
export function suspectedOf(
  weighing: Weighing,
  evidence: Evidence,
  whole: Evidence,
  ahead: number,
  closing: ClosingFinding,
): Suspected {
  if (closing.state === 'moved') return { faults: [hasMoved(closing)], doubts: [] };
  // Repeats that scatter have widened what is weighed: then it says nothing of whether the readings go together.
  const scattered = weighing.found.some(({ own }) => own.some(({ from }) => from === 'repeats'));
  const looked = scattered || weighing.solved.chiSquared + (ahead / BELIEVED) ** 2 >= HARMLESS;
  const { named, doubted }: Pick<Diagnosis, 'named' | 'doubted'> = looked
    ? diagnose(evidence)
    : { named: [], doubted: [] };
  const found = (suspects: readonly Suspect[]) => suspects.map((each) => faultOf(each, whole));
  return { faults: found(named), doubts: found(doubted) };
}

/** The closing check shows it: nothing has to be guessed. */
const hasMoved = ({ by }: ClosingFinding): FaultFinding => ({
  fault: 'wheel-slipped',
  seen: true,
  // Counted in the half degrees that one contact is good for.
  better: (2 * (by ?? 0)) ** 2,
  entries: [],
  valve: null,
  amount: by,
  printed: null,
});

/** A fault with the valve that its readings are of. */
export function faultOf(
  { fault, better, concerns: entries, amount, printed }: Suspect,
  { observations }: Evidence,
): FaultFinding {
  const valves = new Set(observations.filter(({ entry }) => entries.includes(entry)).map(({ valve }) => valve));
  const [valve] = valves.size === 1 ? valves : [];
  return { fault, seen: false, better, entries, valve: valve ?? null, amount, printed };
}

/** A fault of all readings speaks of each cam; one of a few readings of theirs. */
export const concerns = ({ entries }: FaultFinding, { observations }: Evidence, cam: Valve): boolean =>
  entries.length === 0 ||
  observations.some(({ entry, valve }) => valve === cam && entries.includes(entry)) ||
  !observations.some(({ entry }) => entries.includes(entry));
