import { opensOnly } from './flank-pair';
import type { ReadMethod } from './read-method';
import { HAND_ONLY, BACK_UP, OPENING, CHECKING } from './shared';

/** Where the valve opens, alone. Common practice, no source. */
export const OPENING_ONLY: ReadMethod = {
  name: 'Opening side only',
  tab: 'Opening side',
  why: 'For lifters that do not follow the lobe down, or bleed: only the way up is read. Zero on the base circle with care: an error there looks like a retarded cam.',
  height: CHECKING,
  reads: 'flanks',
  gives: 'opening',
  from: 'base',
  asked: (valve) => `the opening of the ${valve}`,
  short: 'the opening side',
  named: (valve, at) => `the opening of the ${valve}${at === null ? '' : ` at ${at}`}`,
  followsDown: false,
  needsWheel: true,
  prepare: 'Indicator in line with the {on} of the {valve}, zeroed on the base circle, lifter held down on it.',
  cautions: [HAND_ONLY, BACK_UP],
  solve: ({ valve, flanks, zero }) => ({ ok: true, gives: { opens: opensOnly(valve, flanks.opening, zero) } }),
  slots: [OPENING],
};
