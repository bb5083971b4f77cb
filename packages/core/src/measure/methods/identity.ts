import type { ReadMethod } from './read-method';
import { HAND_ONLY, SPRINGS } from './shared';

/** The whole lift of lobe or valve: is it the right cam? Common practice, no source. */
export const IDENTITY: ReadMethod = {
  name: 'Lift: is it the right cam?',
  tab: 'Lift',
  why: 'From the base circle to the peak: a lift that is not the card’s is another cam, or a worn lobe. At the valve it gives the real rocker ratio.',
  height: null,
  reads: 'peak-lift',
  gives: 'lift',
  from: null,
  asked: (valve) => `the ${valve} lift`,
  short: 'the lift',
  named: (valve) => `the ${valve} lift`,
  followsDown: false,
  needsWheel: false,
  prepare: 'Indicator in line with the {on} of the {valve}, zeroed on the base circle.',
  cautions: [HAND_ONLY, SPRINGS],
  solve: ({ figure }) => ({ ok: true, gives: { lift: figure } }),
  slots: [
    {
      approach: 'forward',
      shows: 'peak-lift',
      flank: null,
      asks: 'lift',
      turn: 'Zero the indicator on the base circle of the {valve}. Turn to its peak, where the indicator turns round. Read the indicator.',
      label: 'peak lift',
      record: 'Record peak lift',
      again: null,
    },
  ],
};
