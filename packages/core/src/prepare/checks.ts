/** What is looked at before anything is measured. Common practice, no source; the engine maker's manual has the last word. */

export type CheckName =
  | 'made-safe'
  | 'turns-freely'
  | 'wheel-tight'
  | 'pointer-rigid'
  | 'turn-from-crank'
  | 'one-way-tensioner'
  | 'lifter-solid'
  | 'roller-follows'
  | 'checking-springs'
  | 'ratio-known'
  | 'indicator-in-line'
  | 'end-play'
  | 'straight-up'
  | 'trigger-pattern'
  | 'bolt-length';

/** How the engine stands on the stand. */
export interface AsItStands {
  readonly head: 'on' | 'off';
  readonly drive: 'chain' | 'belt' | 'gear' | 'none';
  readonly lifter: 'solid' | 'hydraulic' | 'roller' | 'bucket' | 'none';
  readonly wheel: boolean;
  readonly indicator: boolean;
}

export interface PrepareCheck {
  readonly title: string;
  readonly why: string;
  /** Set where skipping it can hurt a person or an engine. */
  readonly caution: string | null;
  readonly applies: (engine: AsItStands) => boolean;
}

const always = (): boolean => true;
const driven = ({ drive }: AsItStands): boolean => drive !== 'none';

export const PREPARE_CHECKS: Readonly<Record<CheckName, PrepareCheck>> = {
  'made-safe': {
    title: 'Battery, ignition and fuel off; out of gear',
    why: 'The crank is turned by hand with tools on it: nothing else may turn it.',
    caution:
      'A starter or a stray spark turns the handle into a club. Lifting gear and stands hold more than the engine weighs.',
    applies: always,
  },
  'turns-freely': {
    title: 'Plugs out, and it turns freely through two turns',
    why: 'Compression springs the crank back; what binds now is easier to find now.',
    caution: 'Stop at any resistance that you cannot explain and back up: a valve may be meeting a piston.',
    applies: always,
  },
  'wheel-tight': {
    title: 'Wheel tight and running true',
    why: 'A wheel that slips by a degree puts that degree into every figure, unseen. A large one reads finer.',
    caution: null,
    applies: ({ wheel }) => wheel,
  },
  'pointer-rigid': {
    title: 'Pointer rigid, close to the wheel or rim, read square on',
    why: 'A pointer that is bumped moves TDC, and nobody notices.',
    caution: null,
    applies: always,
  },
  'turn-from-crank': {
    title: 'A long handle on the crank itself, not on the wheel',
    why: 'Turning by the wheel makes it slip.',
    caution: null,
    applies: ({ wheel }) => wheel,
  },
  'one-way-tensioner': {
    title: 'The manual says whether it may be turned back',
    why: 'Cam readings are all taken coming the way it runs, so that slack does not show; overshot means back up well past and come again.',
    caution: 'A belt or chain with a one-way tensioner may not be turned back at all: it can jump.',
    applies: ({ drive }) => drive === 'chain' || drive === 'belt',
  },
  'lifter-solid': {
    title: 'A solid lifter in the place of the hydraulic one, or measured at the lobe',
    why: 'A hydraulic lifter bleeds down under a spring: it opens a little late, closes much too early, and the centre comes out early.',
    caution: null,
    applies: ({ lifter }) => lifter === 'hydraulic',
  },
  'roller-follows': {
    title: 'The roller lifter is pressed down on the lobe',
    why: 'Without its spring it stays up after the nose: then only readings on the opening side are good.',
    caution: null,
    applies: ({ lifter }) => lifter === 'roller',
  },
  'checking-springs': {
    title: 'Light checking springs on the valves that are measured',
    why: 'Full springs bend what is in between and wind up the drive.',
    caution:
      'A loaded spring let go of hurts. Use the compressor, stand clear of its line, and keep the valve from falling in.',
    applies: ({ head }) => head === 'on',
  },
  'ratio-known': {
    title: 'Rocker ratio known, and lash set, where it is measured at the valve',
    why: 'Valve lift is lobe lift times ratio less lash; the card may speak of another ratio.',
    caution: null,
    applies: ({ head, lifter }) => head === 'on' && lifter !== 'bucket',
  },
  'indicator-in-line': {
    title: 'Indicator in line with what it measures',
    why: 'Ten degrees off reads wrong by 1½ %. On a piston it sits over the pin, so that rock does not show.',
    caution: null,
    applies: ({ indicator }) => indicator,
  },
  'end-play': {
    title: 'Cam end play measured',
    why: 'A cam that walks to and fro times itself anew each turn where lobes or gears are at an angle.',
    caution: null,
    applies: driven,
  },
  'straight-up': {
    title: 'Timing set at its straight-up marks',
    why: 'The verdict is a move from where it stands now: begin where the maker meant it.',
    caution: null,
    applies: driven,
  },
  'trigger-pattern': {
    title: 'The new timing set has the trigger teeth of the old one; checked before it is ordered',
    why: 'Gears that look alike carry other teeth: with a wrong pattern it neither fires nor injects where it shall, and that shows when the front is on again.',
    caution: null,
    applies: driven,
  },
  'bolt-length': {
    title: 'Cam bolts, washer and dowel: nothing bottoms, the dowel stands below the gear',
    why: 'A bolt that bottoms, or a dowel that stands proud, holds the gear by nothing; an offset bushing is no wider than the gear.',
    caution: 'A cam gear that comes loose lets the valves meet the pistons.',
    applies: driven,
  },
};

export const CHECK_NAMES = Object.keys(PREPARE_CHECKS) as [CheckName, ...CheckName[]];

/** The checks that this engine calls for, in the order in which they are made. */
export const checksFor = (engine: AsItStands): readonly CheckName[] =>
  CHECK_NAMES.filter((name) => PREPARE_CHECKS[name].applies(engine));
