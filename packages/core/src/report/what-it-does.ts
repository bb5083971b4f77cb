import { type CylinderKnown, effectsOf, whatIf } from '../cam/what-if';
import { USUAL_HEIGHT } from '../cam/usual-height';
import { decimal } from '../units/decimal';
import { computedDegrees } from '../units/degrees';
import { lateOrEarly } from './place-words';
import type { Report } from './report-schema';

/** What the engine's description says of the cylinder. */
export function cylinderKnown({ engine }: Report['build']): CylinderKnown {
  const { stroke, rod, pinOffset, bore, compression } = engine;
  return {
    crank: stroke === null || rod === null ? null : { stroke, rod, pinOffset: pinOffset ?? 0 },
    bore,
    ratio: compression?.given === 'ratio' ? compression.ratio : null,
    chamber: compression?.given === 'chamber' ? compression.volume : null,
  };
}

/** Less than this is not worth a word, crank degrees. */
const SPEAKS = 0.5;

/**
 * What it does that the cam sits where it sits and not on its target: trapped compression from the slider-crank, the rest as common practice has it, no
 * promise. Of twin cams only what the intake does.
 * @returns sentences; none where it sits on its target, or nothing was measured.
 * @example whatItDoes(report) // ["What 2.0° late, retarded, does here, …", "The cylinder traps 8.41 to 1 …", …]
 */
export function whatItDoes({ trials, build }: Report): string[] {
  const trial = trials.at(-1);
  const cam = trial?.cams.find((each) => each.cam !== 'exhaust' && each.bank === 1);
  const delta = cam?.verdict.delta ?? null;
  if (!trial || delta === null || Math.abs(delta) < SPEAKS) return [];
  // What was measured where it stands, turned to its target; the card's lobe stands nowhere.
  const now = trial.stands.trapped?.ratio ?? null;
  const onTarget = { intake: -delta, exhaust: 0 };
  const then = whatIf(trial.lobes, onTarget, USUAL_HEIGHT.in, cylinderKnown(build)).trapped?.ratio ?? null;
  const words = [
    `What ${computedDegrees(Math.abs(delta))} ${lateOrEarly(delta)}, does here, as common practice has it:`,
  ];
  if (now !== null && then !== null)
    words.push(
      `From where the intake valve reaches its seat the cylinder traps ${decimal(now, 2)} to 1; on its target it would be ${decimal(then, 2)} to 1.`,
    );
  return [...words, ...effectsOf(delta, 0)];
}
