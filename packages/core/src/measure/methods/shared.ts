import { events } from './flank-pair';
import type { Slot, WholeRound } from './read-method';

export const HAND_ONLY =
  'Turn by hand, from the crank, the way it runs. Stop at any resistance that you cannot explain and back up: a valve may have met a piston.';
export const SPRINGS = 'Loaded valve springs and their compressors hurt: stand clear of the line of the spring.';
export const BACK_UP =
  'Overshot? Back up well past, 20° or 0.075–0.100 in on the indicator, and come again. With a one-way tensioner never turn back: go on round.';

export const OPENING: Slot = {
  approach: 'forward',
  shows: 'above-base',
  flank: 'opening',
  asks: 'wheel',
  turn: 'Zero the indicator on the base circle of the {valve}. Come forward until it has risen {at}. Read the wheel.',
  label: 'opening',
  record: 'Record opening',
  again: 'come forward until it has risen {at}. Read the wheel.',
};
export const CHECKING = {
  noun: 'height',
  label: 'Checking height above the base circle',
  usual: { in: '0.050', mm: '1.00' },
} as const;

/** Both events of a pair at one height. */
export function solveEvents({ valve, flanks, zero }: WholeRound) {
  const found = events(valve, flanks, zero);
  return found.ok ? ({ ok: true, gives: { events: found.events } } as const) : found;
}
