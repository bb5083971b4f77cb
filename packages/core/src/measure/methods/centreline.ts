import { centreline } from './flank-pair';
import type { ReadMethod } from './read-method';
import { HAND_ONLY, BACK_UP } from './shared';

/** Half-way between two equal drops either side of the nose. Common practice, no source. */
export const CENTRELINE: ReadMethod = {
  name: 'Centreline by equal drop',
  tab: 'Centreline',
  why: 'Quick, and an error in zeroing the indicator cancels: half-way between two equal drops either side of the nose.',
  height: { noun: 'drop', label: 'Drop below peak, the same on both sides', usual: { in: '0.050', mm: '1.00' } },
  reads: 'flanks',
  gives: 'centreline',
  from: 'peak',
  asked: (valve) => `the ${valve} centreline`,
  short: 'the centreline',
  named: (valve, at) => (at === null ? `the ${valve} centreline` : `the ${valve} centreline, ${at} drop`),
  followsDown: true,
  needsWheel: true,
  prepare: 'Indicator in line with the {on} of the {valve}, zeroed at peak lift.',
  cautions: [HAND_ONLY, BACK_UP],
  solve({ valve, flanks, zero }) {
    const found = centreline(valve, flanks, zero);
    return found.ok ? { ok: true, gives: { centreline: found.centreline } } : found;
  },
  slots: [
    {
      approach: 'forward',
      shows: 'below-peak',
      flank: 'opening',
      asks: 'wheel',
      turn: 'Zero the indicator at peak lift of the {valve}. Back up well past, come forward to {at} before peak. Read the wheel.',
      label: 'before peak',
      record: 'Record before peak',
      again: 'come forward to {at} before peak. Read the wheel.',
    },
    {
      approach: 'forward',
      shows: 'below-peak',
      flank: 'closing',
      asks: 'wheel',
      turn: 'Over the nose and down to {at} again, still turning the way it runs. Read the wheel.',
      label: 'after peak',
      record: 'Record after peak',
      again: null,
    },
  ],
};
