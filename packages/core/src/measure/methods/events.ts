import type { ReadMethod } from './read-method';
import { HAND_ONLY, BACK_UP, OPENING, CHECKING, solveEvents } from './shared';

/** Where the valve opens and closes, at a height above the base circle. Common practice, no source. */
export const EVENTS: ReadMethod = {
  name: 'Opening and closing at a height',
  tab: 'Events',
  why: 'Compares with the card’s own events, so it is right on leaning lobes too.',
  height: CHECKING,
  reads: 'flanks',
  gives: 'events',
  from: 'base',
  asked: (valve) => `opening and closing of the ${valve}`,
  short: 'the events',
  named: (valve, at) => `the ${valve} events${at === null ? '' : ` at ${at}`}`,
  followsDown: true,
  needsWheel: true,
  prepare: 'Indicator in line with the {on} of the {valve}, zeroed on the base circle.',
  cautions: [HAND_ONLY, BACK_UP],
  solve: solveEvents,
  slots: [
    OPENING,
    {
      approach: 'forward',
      shows: 'above-base',
      flank: 'closing',
      asks: 'wheel',
      turn: 'Over the nose and down, the way it runs, until {at} is left. Read the wheel.',
      label: 'closing',
      record: 'Record closing',
      again: null,
    },
  ],
};
