import { type Outcome, type Problem, problem } from '../problem';

/**
 * Checks that a firing order names every cylinder once.
 * @param order cylinder numbers in the order in which they fire.
 * @param cylinders how many the engine has.
 * @example checkFiringOrder([1, 3, 4, 2], 4) // ok
 */
export function checkFiringOrder(
  order: readonly number[],
  cylinders: number,
): Outcome<{ readonly order: readonly number[] }> {
  const stray = order.find((cylinder) => !Number.isInteger(cylinder) || cylinder < 1 || cylinder > cylinders);
  if (stray !== undefined)
    return problem(`There is no cylinder ${stray} in an engine of ${cylinders}.`, 'Name each cylinder once.');
  const repeated = order.find((cylinder, at) => order.indexOf(cylinder) !== at);
  if (repeated !== undefined)
    return problem(`Cylinder ${repeated} stands twice in the firing order.`, 'Name each cylinder once.');
  if (order.length !== cylinders)
    return problem(`The firing order names ${order.length} of ${cylinders} cylinders.`, 'Name each cylinder once.');
  return { ok: true, order };
}

/** Reads "1-3-4-2", "1 3 4 2" or "1,3,4,2". `parseFiringOrder('1-3-4-2')` is [1, 3, 4, 2]; text that is not figures gives NaN. */
export const parseFiringOrder = (typed: string): number[] =>
  typed
    .split(/[\s,;–-]+/)
    .filter((part) => part !== '')
    .map(Number);

/**
 * A cylinder that the engine does not have. Only a file can name one, or an engine that was corrected after it was read.
 * @example cylinderTrouble(9, 8) // "It was read at cylinder 9, and the engine has 8."
 */
export function cylinderTrouble(cylinder: number, cylinders: number): Problem | null {
  if (cylinder <= cylinders) return null;
  return {
    message: `It was read at cylinder ${cylinder}, and the engine has ${cylinders}.`,
    remedy: 'Correct the engine if it has more; otherwise undo it and read it again.',
  };
}
