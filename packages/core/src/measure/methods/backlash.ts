import type { ReadMethod } from './read-method';
import { HAND_ONLY } from './shared';

/** The same lift from both directions. Common practice, no source. */
export const BACKLASH: ReadMethod = {
  name: 'Slack in the timing drive',
  tab: 'Slack',
  why: 'The same lift from both directions: the difference is the play of chain, belt or gears.',
  height: {
    noun: 'height',
    label: 'Lift above the base circle, the same from both directions',
    usual: { in: '0.100', mm: '2.50' },
  },
  reads: 'slack',
  gives: 'slack',
  from: 'base',
  asked: (valve) => `the slack at the ${valve}`,
  short: 'the slack',
  named: (valve) => `the slack at the ${valve}`,
  followsDown: true,
  needsWheel: true,
  prepare:
    'Indicator in line with the {on} of the {valve}, zeroed on the base circle. Light checking springs: strong ones turn the cam themselves.',
  cautions: [HAND_ONLY, 'Not with a one-way tensioner: it must not be turned back.'],
  // The slack is found over all rounds of a trial.
  solve: null,
  slots: [
    {
      approach: 'forward',
      shows: 'above-base',
      flank: 'opening',
      asks: 'wheel',
      turn: 'Come forward until the {valve} has risen {at}. Read the wheel.',
      label: 'turning forward',
      record: 'Record, turning forward',
      again: 'come forward until the {valve} has risen {at}. Read the wheel.',
    },
    {
      approach: 'backward',
      shows: 'above-base',
      flank: 'opening',
      asks: 'wheel',
      turn: 'Go on at least 20°, then turn back, slowly, to {at} again. Read the wheel.',
      label: 'turning back',
      record: 'Record, turning back',
      again: null,
    },
  ],
};
