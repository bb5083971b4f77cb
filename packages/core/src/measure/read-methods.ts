import type { Valve } from '../cam/card';

/** How the cam is measured. */
export type ReadMethodName =
  'centreline' | 'events' | 'opening-only' | 'lift-at-tdc' | 'identity' | 'trace' | 'backlash';

export type Flank = 'opening' | 'closing';

/** One reading of a method: which side, from which direction, and what has to be typed. */
export interface Slot {
  readonly shows: 'below-peak' | 'above-base' | 'peak-lift' | 'tdc-lift' | 'trace-point';
  readonly flank: Flank | null;
  readonly approach: 'forward' | 'backward';
  /** wheel: the indicator is brought to the chosen figure, the wheel is read. lift: the indicator is read. both: both are. */
  readonly asks: 'wheel' | 'lift' | 'both';
  /** What the hands do. `{at}` is the chosen height, `{valve}` the valve. */
  readonly turn: string;
  readonly label: string;
  readonly record: string;
}

export interface ReadMethod {
  readonly name: string;
  /** In one line: when it is the right one. */
  readonly why: string;
  /** The figure that the indicator is brought to, where there is one. */
  readonly height: { readonly label: string; readonly usual: { readonly in: string; readonly mm: string } } | null;
  /** Can it be done where the lifter does not follow the lobe down? */
  readonly followsDown: boolean;
  readonly needsWheel: boolean;
  readonly prepare: string;
  readonly cautions: readonly string[];
  /** The readings of one round, in their order. A trace has no end: its one slot repeats. */
  readonly slots: readonly Slot[];
}

const HAND_ONLY =
  'Turn by hand, from the crank, the way it runs. Stop at any resistance that you cannot explain and back up: a valve may have met a piston.';
const SPRINGS = 'Loaded valve springs and their compressors hurt: stand clear of the line of the spring.';
const BACK_UP =
  'Overshot? Back up well past, 20° or 0.075–0.100 in on the indicator, and come again. With a one-way tensioner never turn back: go on round.';

const forward = { approach: 'forward' } as const;

const OPENING: Slot = {
  ...forward,
  shows: 'above-base',
  flank: 'opening',
  asks: 'wheel',
  turn: 'Zero the indicator on the base circle of the {valve}. Come forward until it has risen {at}. Read the wheel.',
  label: 'opening',
  record: 'Record opening',
};
const CHECKING = { label: 'Checking height above the base circle', usual: { in: '0.050', mm: '1.00' } } as const;

/** Every way of reading the cam. Common practice, no source. */
export const READ_METHODS: Readonly<Record<ReadMethodName, ReadMethod>> = {
  centreline: {
    name: 'Centreline by equal drop',
    why: 'Quick, and an error in zeroing the indicator cancels: half-way between two equal drops either side of the nose.',
    height: { label: 'Drop below peak, the same on both sides', usual: { in: '0.050', mm: '1.00' } },
    followsDown: true,
    needsWheel: true,
    prepare: 'Indicator in line with the {on} of the {valve}, zeroed at peak lift.',
    cautions: [HAND_ONLY, BACK_UP],
    slots: [
      {
        ...forward,
        shows: 'below-peak',
        flank: 'opening',
        asks: 'wheel',
        turn: 'Zero the indicator at peak lift of the {valve}. Back up well past, come forward to {at} before peak. Read the wheel.',
        label: 'before peak',
        record: 'Record before peak',
      },
      {
        ...forward,
        shows: 'below-peak',
        flank: 'closing',
        asks: 'wheel',
        turn: 'Over the nose and down to {at} again, still turning the way it runs. Read the wheel.',
        label: 'after peak',
        record: 'Record after peak',
      },
    ],
  },
  events: {
    name: 'Opening and closing at a height',
    why: 'Compares with the card’s own events, so it is right on leaning lobes too.',
    height: CHECKING,
    followsDown: true,
    needsWheel: true,
    prepare: 'Indicator in line with the {on} of the {valve}, zeroed on the base circle.',
    cautions: [HAND_ONLY, BACK_UP],
    slots: [
      OPENING,
      {
        ...forward,
        shows: 'above-base',
        flank: 'closing',
        asks: 'wheel',
        turn: 'Over the nose and down, the way it runs, until {at} is left. Read the wheel.',
        label: 'closing',
        record: 'Record closing',
      },
    ],
  },
  'opening-only': {
    name: 'Opening side only',
    why: 'For lifters that do not follow the lobe down, or bleed: only the way up is read. Zero on the base circle with care: an error there looks like a retarded cam.',
    height: CHECKING,
    followsDown: false,
    needsWheel: true,
    prepare: 'Indicator in line with the {on} of the {valve}, zeroed on the base circle, lifter held down on it.',
    cautions: [HAND_ONLY, BACK_UP],
    slots: [OPENING],
  },
  'lift-at-tdc': {
    name: 'Lift at TDC',
    why: 'Needs no wheel, only the piston at the top between exhaust and intake. The card must give the lift at TDC.',
    height: null,
    followsDown: false,
    needsWheel: false,
    prepare: 'Indicator in line with the {on} of the {valve}, zeroed on the base circle.',
    cautions: [HAND_ONLY, 'At overlap TDC both valves are near the piston: turn slowly.'],
    slots: [
      {
        ...forward,
        shows: 'tdc-lift',
        flank: null,
        asks: 'lift',
        turn: 'Zero the indicator on the base circle of the {valve}. Come forward to TDC between exhaust and intake. Read the indicator.',
        label: 'at TDC',
        record: 'Record lift at TDC',
      },
    ],
  },
  identity: {
    name: 'Lift: is it the right cam?',
    why: 'From the base circle to the peak: a lift that is not the card’s is another cam, or a worn lobe. At the valve it gives the real rocker ratio.',
    height: null,
    followsDown: false,
    needsWheel: false,
    prepare: 'Indicator in line with the {on} of the {valve}, zeroed on the base circle.',
    cautions: [HAND_ONLY, SPRINGS],
    slots: [
      {
        ...forward,
        shows: 'peak-lift',
        flank: null,
        asks: 'lift',
        turn: 'Zero the indicator on the base circle of the {valve}. Turn to its peak, where the indicator turns round. Read the indicator.',
        label: 'peak lift',
        record: 'Record peak lift',
      },
    ],
  },
  trace: {
    name: 'Full trace',
    why: 'Lift every few degrees round the lobe: events at any height, both centres, lean, lift at TDC and the shape, all from one pass.',
    height: null,
    followsDown: true,
    needsWheel: true,
    prepare: 'Indicator in line with the {on} of the {valve}, zeroed on the base circle.',
    cautions: [HAND_ONLY, BACK_UP],
    slots: [
      {
        ...forward,
        shows: 'trace-point',
        flank: null,
        asks: 'both',
        turn: 'Begin on the base circle, before the {valve} opens. Stop every 5°, the way it runs, to the base circle behind it: read wheel and indicator.',
        label: 'point',
        record: 'Record the point',
      },
    ],
  },
  backlash: {
    name: 'Slack of the drive',
    why: 'The same lift from both directions: the difference is the play of chain, belt or gears.',
    height: { label: 'Lift above the base circle, the same from both directions', usual: { in: '0.100', mm: '2.50' } },
    followsDown: true,
    needsWheel: true,
    prepare:
      'Indicator in line with the {on} of the {valve}, zeroed on the base circle. Light checking springs: strong ones turn the cam themselves.',
    cautions: [HAND_ONLY, 'Not with a one-way tensioner: it must not be turned back.'],
    slots: [
      {
        ...forward,
        shows: 'above-base',
        flank: 'opening',
        asks: 'wheel',
        turn: 'Come forward until the {valve} has risen {at}. Read the wheel.',
        label: 'turning forward',
        record: 'Record, turning forward',
      },
      {
        approach: 'backward',
        shows: 'above-base',
        flank: 'opening',
        asks: 'wheel',
        turn: 'Go on at least 20°, then turn back, slowly, to {at} again. Read the wheel.',
        label: 'turning back',
        record: 'Record, turning back',
      },
    ],
  },
};

export const READ_METHOD_NAMES = Object.keys(READ_METHODS) as [ReadMethodName, ...ReadMethodName[]];

/** Methods that say where the cam sits; the shop may make one of them its rule. */
export const RULING_METHODS = ['centreline', 'events', 'opening-only', 'lift-at-tdc', 'trace'] as const;
export type RulingMethod = (typeof RULING_METHODS)[number];

/** What is known of the engine when a method is to be chosen. */
export interface CamAtHand {
  readonly wheel: boolean;
  readonly lifter: 'solid' | 'hydraulic' | 'roller' | 'bucket' | 'none';
  readonly springs: 'checking' | 'valve' | 'none' | null;
}

export interface ReadProposal {
  readonly method: ReadMethodName;
  readonly why: string;
}

/** Will what the indicator sits on follow the lobe down? A roller lifter without its spring stays up; a hydraulic one bleeds down. */
export const followsDown = ({ lifter, springs }: CamAtHand): boolean =>
  !(springs === 'none' && (lifter === 'roller' || lifter === 'hydraulic')) &&
  !(lifter === 'hydraulic' && springs === 'valve');

/**
 * The method that fits: what the engine forbids goes before the shop's rule.
 * @param rule the shop's own, or null.
 * @param hasLiftAtTdc does the card give the lift at TDC?
 */
export function proposeReading(at: CamAtHand | null, rule: RulingMethod | null, hasLiftAtTdc: boolean): ReadProposal {
  if (at && !at.wheel && hasLiftAtTdc)
    return { method: 'lift-at-tdc', why: 'There is no wheel, and the card gives the lift at TDC.' };
  const ruled = rule !== null && (!at || !READ_METHODS[rule].followsDown || followsDown(at)) ? rule : null;
  if (ruled && (ruled !== 'lift-at-tdc' || hasLiftAtTdc)) return { method: ruled, why: 'The rule of the shop.' };
  if (at && !followsDown(at))
    return {
      method: 'opening-only',
      why:
        at.lifter === 'hydraulic'
          ? 'A hydraulic lifter bleeds down under a valve spring: make it solid, measure at the lobe, or read the opening side only.'
          : 'Without a spring the lifter does not follow the lobe down: only the opening side can be read.',
    };
  return { method: 'centreline', why: READ_METHODS.centreline.why };
}

/** The words of a slot. `{at}` is the height in words; `{valve}` and `{on}` what the indicator is at. */
export const slotWords = (
  text: string,
  put: { readonly at: string; readonly valve: Valve; readonly on: string },
): string => text.replaceAll('{at}', put.at).replaceAll('{valve}', put.valve).replaceAll('{on}', put.on);
