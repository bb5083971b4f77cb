import { problem } from '../../problem';
import { wrap180 } from '../../units/angle';
import type { ReadMethod } from './read-method';
import { HAND_ONLY } from './shared';

/** A lift at TDC is carried over a wheel that stands this far off at most, crank degrees. */
const NEAR_TDC = 5;

/** How far the valve is open with the piston at overlap TDC. Common practice, no source. */
export const LIFT_AT_TDC: ReadMethod = {
  name: 'Lift at TDC',
  tab: 'Lift at TDC',
  why: 'Needs no wheel, only the piston at the top between exhaust and intake. The card must give the lift at TDC.',
  height: null,
  reads: 'tdc-lift',
  gives: 'lift',
  from: null,
  asked: (valve) => `the ${valve} lift at TDC`,
  short: 'the lift at TDC',
  named: (valve) => `the ${valve} lift at TDC`,
  followsDown: false,
  needsWheel: false,
  prepare: 'Indicator in line with the {on} of the {valve}, zeroed on the base circle.',
  cautions: [HAND_ONLY, 'At overlap TDC both valves are near the piston: turn slowly.'],
  solve({ flanks, zero, figure, onWheel }) {
    const pastTdc = onWheel ? wrap180(flanks.opening - zero) : null;
    if (pastTdc !== null && Math.abs(pastTdc) > NEAR_TDC)
      return problem(
        `The wheel stood ${Math.round(Math.abs(pastTdc))}° from TDC.`,
        'The lift is read at TDC. Undo it, come forward to TDC and read again.',
      );
    return { ok: true, gives: { lift: figure, pastTdc } };
  },
  slots: [
    {
      approach: 'forward',
      shows: 'tdc-lift',
      flank: null,
      asks: 'lift',
      turn: 'Zero the indicator on the base circle of the {valve}. Come forward to TDC between exhaust and intake. Read the indicator.',
      otherWay: {
        back: 'Come forward to TDC between exhaust and intake, and zero the indicator on the {valve} there. Turn back until its needle rests: the base circle. Type what it has gone.',
        on: 'Come forward to TDC between exhaust and intake, and zero the indicator on the {valve} there. Go on, the way it runs, until its needle rests after the nose: the base circle. Type what it shows below zero.',
      },
      label: 'at TDC',
      record: 'Record lift at TDC',
      again: null,
    },
  ],
};
