import type { ReadMethod } from './read-method';
import { HAND_ONLY, BACK_UP } from './shared';

/** Lift every few degrees round the lobe. Common practice, no source. */
export const TRACE: ReadMethod = {
  name: 'Full trace',
  tab: 'Trace',
  why: 'Lift every few degrees round the lobe: events at any height, both centres, lean, lift at TDC and the shape, all from one pass.',
  height: null,
  reads: 'curve',
  gives: 'centreline',
  from: null,
  asked: (valve) => `a trace of the ${valve}`,
  short: 'the trace',
  named: (valve) => `the ${valve} trace`,
  followsDown: true,
  needsWheel: true,
  prepare: 'Indicator in line with the {on} of the {valve}, zeroed on the base circle.',
  cautions: [HAND_ONLY, BACK_UP],
  // The curve is one, over all rounds that go on with it.
  solve: null,
  slots: [
    {
      approach: 'forward',
      shows: 'trace-point',
      flank: null,
      asks: 'both',
      turn: 'Begin on the base circle, before the {valve} opens. Stop every 5°, the way it runs, to the base circle behind it: read wheel and indicator.',
      label: 'point',
      record: 'Record the point',
      again: null,
    },
  ],
};
