import type { ReadMethod } from './read-method';
import { HAND_ONLY, SPRINGS, solveEvents } from './shared';

/** Opening and closing felt at the spring cap: where the lash is just taken up, and where it comes back. Common practice, no source. */
export const BY_FEEL: ReadMethod = {
  name: 'Opening and closing by feel',
  tab: 'Events by feel',
  why: 'No indicator: the spring cap turns between the fingers until the valve begins to lift, and again when it is down. Good to about 2°.',
  height: null,
  reads: 'flanks',
  gives: 'events',
  from: 'base',
  isFelt: true,
  asked: (valve) => `opening and closing of the ${valve} by feel`,
  short: 'the events by feel',
  named: (valve) => `the ${valve} events by feel`,
  followsDown: true,
  needsWheel: true,
  prepare:
    'Lash of the {valve} set as its card says. Take the spring cap, or the rocker’s end, between two fingers: it grips where the valve begins to open, and turns again where it has closed.',
  cautions: [HAND_ONLY, SPRINGS],
  solve: solveEvents,
  slots: [
    {
      approach: 'forward',
      shows: 'by-feel',
      flank: 'opening',
      asks: 'wheel',
      turn: 'Come forward slowly, turning the spring cap of the {valve} to and fro. Stop where it grips. Read the wheel.',
      label: 'cap tight',
      record: 'Record opening, by feel',
      again: 'come forward slowly until the spring cap grips. Read the wheel.',
    },
    {
      approach: 'forward',
      shows: 'by-feel',
      flank: 'closing',
      asks: 'wheel',
      turn: 'Go on, the way it runs, trying the cap all the time. Stop where it turns again. Read the wheel.',
      label: 'cap loose',
      record: 'Record closing, by feel',
      again: null,
    },
  ],
};
