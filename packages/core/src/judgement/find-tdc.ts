import { crankAngleAtDrop } from '../crank/slider-crank';
import { type HeightPair, solveTdc } from '../tdc/equal-heights';
import { type Bench, EYE, freshId, printed } from './bench';

/** TDC as it was found and proved. */
export interface ProvedTdc {
  readonly setting: string;
  /** The contact is met once more, after the last reading. */
  readonly closingCheck: () => void;
}

/** Finds TDC by a bar across the bore, sets the wheel, and proves it as well as such a reader can. */
export function findTdc({ random, crank, wheel, write, look, shown }: Bench): ProvedTdc {
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
  wheel.turn(-printed(first.tdc, Math.min(wheel.readTo, 0.5)));
  // A mark is set to the pointer by eye.
  wheel.turn(random.normal(EYE));
  let setting = write('zero.set', { zero, after: null, moved: 'wheel' });
  for (let tries = 0; tries < 20; tries += 1) {
    const proof = pass(setting);
    // Apart by one mark at most; marks of a tape are no round numbers of degrees.
    if (Math.abs(proof.before + proof.after) <= Math.max(0.5, wheel.readTo) + 1e-9) break;
    wheel.turn(-(proof.before + proof.after) / 2);
    setting = write('zero.set', { zero, after: setting, moved: 'wheel' });
  }
  return {
    setting,
    closingCheck: () => {
      const at = look(contacts.before);
      write('zero.reading', { zero, setting, pass: freshId(), side: 'before', wheel: shown(at), closing: true });
    },
  };
}
