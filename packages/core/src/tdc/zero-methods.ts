import type { Millimetres } from '../units/length';

/** Which side of TDC a reading lies on as the engine runs: on the way up, or past it. */
export type TdcSide = 'before' | 'after';

export type ZeroMethodName =
  | 'positive-stop'
  | 'plug-stop'
  | 'stop-zeroed'
  | 'equal-drop'
  | 'dropped-valve'
  | 'pushed-valve'
  | 'soft-stop'
  | 'rim-marks'
  | 'first-stop'
  | 'locking-pin';

/** What a method needs on the engine. */
export interface ZeroNeeds {
  readonly head: 'on' | 'off' | 'any';
  readonly plugHole: boolean;
  /** How the angle is read: off a degree wheel, or along the rim with a tape; a stop read along the rim is `rim-marks`. */
  readonly readBy: 'wheel' | 'rim' | 'either';
  readonly indicator: boolean;
}

/** What the indicator shall show on both sides. */
export interface IndicatorFigure {
  readonly label: string;
  /** What builders use most. Common practice, no source. */
  readonly usual: { readonly in: string; readonly mm: string };
  /** Is it the piston’s drop below the top? Then stroke and rod say how far from TDC it stands. */
  readonly isDrop: boolean;
}

/** One way of finding true TDC: what it needs, what the hands do, how well it can be read. */
export interface ZeroMethod {
  readonly name: string;
  readonly needs: ZeroNeeds;
  /** In one line: when it is the right one. */
  readonly why: string;
  /** pair: midpoint of two equal heights. single: one reading, corrected by its mean bias. */
  readonly readings: 'pair' | 'single';
  /** Holds a stop at the piston (contacts are felt), or lets an indicator say that the heights are equal. */
  readonly height: 'stop' | 'indicator';
  /** What the indicator's figure is called where the builder chooses it. */
  readonly figure: IndicatorFigure | null;
  /** Standard uncertainty of the piston's height at a reading, apart from the indicator's resolution, mm. From memory. */
  readonly feel: Millimetres;
  /** Where the crank is held while the wheel is set to what that reading should show. */
  readonly held: string;
  /** What is in the engine while it is turned: taken out afterwards. */
  readonly tool: string;
  readonly prepare: string;
  /** What to do for a reading on each side, and what the button says. */
  readonly turn: Readonly<Record<TdcSide, string>>;
  /** How the second side is read on an engine that must not be turned back: on over the top; null where only turning back finds it. */
  readonly onward: string | null;
  /** The valve is pushed down by its adjuster before each side, to one figure of the indicator. */
  readonly pushesValve?: true;
  /** As good as the manual says of it: its tolerance has to be given. */
  readonly bringsTolerance?: true;
  /** The lash of the valve that it is done with has to be set again. */
  readonly disturbsLash?: true;
  readonly record: Readonly<Record<TdcSide, string>>;
  readonly label: Readonly<Record<TdcSide, string>>;
  readonly cautions: readonly string[];
}

const mm = (value: number): Millimetres => value as Millimetres;

const STOP_WORDS = {
  turn: {
    before: 'Turn it the way it runs, gently, until the piston meets the stop.',
    after: 'Turn it backwards, gently, until the piston meets the stop.',
  },
  record: { before: 'Record contact turning forward', after: 'Record contact turning back' },
  label: { before: 'turning forward', after: 'turning back' },
  onward: null,
  held: 'at the contact that stopped it turning back',
} as const;
const HELD_AFTER = 'at the reading after TDC';
const HEIGHT_LABEL = { before: 'before TDC', after: 'after TDC' } as const;
const HEIGHT_RECORD = { before: 'Record before TDC', after: 'Record after TDC' } as const;

const VALVE_MOVED: IndicatorFigure = {
  label: 'How far the piston moves the valve, the same on both sides',
  usual: { in: '0.005', mm: '0.10' },
  isDrop: false,
};

const HAND_ONLY =
  'Turn by hand only, never with the starter while anything is in the cylinder. Stop at any resistance that you cannot explain and back up.';
const NO_HAMMER = 'Let the piston come to the stop; never lean on it, never hammer it.';

/** Every method of the trade. Common practice, no source, where a line does not say otherwise. */
export const ZERO_METHODS: Readonly<Record<ZeroMethodName, ZeroMethod>> = {
  'positive-stop': {
    name: 'Positive stop, bar across the bore',
    needs: { head: 'off', plugHole: false, readBy: 'wheel', indicator: false },
    why: 'The head is off: a bar across the bore stops the piston firmly, and the midpoint of the contacts is TDC.',
    readings: 'pair',
    height: 'stop',
    figure: null,
    feel: mm(0.02),
    tool: 'stop',
    prepare: 'Bolt the bar across the bore so that the piston meets it well before the top.',
    ...STOP_WORDS,
    cautions: [HAND_ONLY, NO_HAMMER],
  },
  'plug-stop': {
    name: 'Positive stop, through the plug hole',
    needs: { head: 'on', plugHole: true, readBy: 'wheel', indicator: false },
    why: 'The head is on and the plug hole is in line with the bore: a screwed stop meets the piston through it.',
    readings: 'pair',
    height: 'stop',
    figure: null,
    feel: mm(0.04),
    tool: 'stop',
    prepare:
      'Plug out, and this cylinder’s rockers backed off so that its valves stay closed. Turn the piston to the bottom: a straw in the plug hole tells, or the cylinder half a turn away that stands at its top. Screw the stop in and lock it.',
    ...STOP_WORDS,
    cautions: [HAND_ONLY, NO_HAMMER, 'A valve that is open can meet the stop: keep clear of it or slacken its rocker.'],
  },
  'stop-zeroed': {
    name: 'Stop, wheel zeroed at first contact',
    needs: { head: 'any', plugHole: true, readBy: 'wheel', indicator: false },
    why: 'The wheel slips easily on its hub: set it to 0 at the first contact and only one figure has to be read.',
    readings: 'pair',
    height: 'stop',
    figure: null,
    feel: mm(0.04),
    tool: 'stop',
    prepare: 'Put the stop in and lock it. At the first contact set the wheel to 0 under the pointer and record 0.',
    ...STOP_WORDS,
    cautions: [HAND_ONLY, NO_HAMMER],
  },
  'equal-drop': {
    name: 'Equal drop, indicator on the piston',
    needs: { head: 'off', plugHole: false, readBy: 'either', indicator: true },
    why: 'The head is off and there is an indicator: the same drop either side of the top is read without touching the piston.',
    readings: 'pair',
    height: 'indicator',
    figure: {
      label: 'Drop below the top, the same on both sides',
      usual: { in: '0.050', mm: '1.00' },
      isDrop: true,
    },
    feel: mm(0.005),
    tool: 'indicator',
    prepare: 'Stand the indicator square on the piston, over the pin axis, and zero it where the piston is highest.',
    turn: {
      before: 'Turn it the way it runs and stop at {figure} below the top, on the way up.',
      after: 'Go on over the top and stop at {figure} below it again, on the way down.',
    },
    onward: 'Go on over the top and stop at {figure} below it again, on the way down.',
    record: HEIGHT_RECORD,
    label: HEIGHT_LABEL,
    held: HELD_AFTER,
    cautions: [HAND_ONLY, 'A piston that rocks misreads: sit over the pin, and come to the drop without reversing.'],
  },
  'dropped-valve': {
    name: 'Dropped valve',
    needs: { head: 'on', plugHole: false, readBy: 'either', indicator: true },
    why: 'The head is on and no stop reaches the piston: a valve let down to one height is moved by it on both sides.',
    readings: 'pair',
    height: 'indicator',
    figure: VALVE_MOVED,
    feel: mm(0.02),
    tool: 'valve',
    prepare:
      'Piston near the top. Take this valve’s spring off, hold the stem, let the valve down on the piston, and set an indicator on the stem.',
    turn: {
      before: 'From well before the top, turn it the way it runs until the piston has moved the valve {figure}.',
      after: 'From well after the top, turn it back until the piston has moved the valve {figure}.',
    },
    onward:
      'Go on over the top, holding the valve down on the piston, until it has come back to {figure} above where you let it down.',
    disturbsLash: true,
    record: HEIGHT_RECORD,
    label: HEIGHT_LABEL,
    held: HELD_AFTER,
    cautions: [
      HAND_ONLY,
      'The valve must not be able to fall in: keep the piston high, and a band or clip on the stem.',
      'Spring compressors and loaded springs hurt: stand clear of the line of the spring.',
      'Set the lash of this valve again afterwards.',
    ],
  },
  'pushed-valve': {
    name: 'Valve pushed down by its adjuster',
    needs: { head: 'on', plugHole: false, readBy: 'either', indicator: true },
    why: 'The head is on, the springs are in and no stop reaches the piston: a valve held open by its own adjuster is moved by the piston on both sides.',
    readings: 'pair',
    height: 'indicator',
    figure: VALVE_MOVED,
    // The adjuster comes back to its figure within a thousandth of an inch.
    feel: mm(0.03),
    tool: 'valve',
    prepare:
      'Both valves closed, piston well below the top. Set an indicator on the retainer and zero it. Slacken the lock nut and turn the adjuster in, about three turns, coming down; note what the indicator shows.',
    turn: {
      before:
        'With the valve at its noted figure and the piston well before the top, turn it the way it runs, slowly, until the piston has moved the valve {figure}.',
      after:
        'Back the adjuster off, turn the piston past the top, come down with the adjuster to the same noted figure. Then turn it back, slowly, until the piston has moved the valve {figure}.',
    },
    onward: null,
    pushesValve: true,
    disturbsLash: true,
    record: HEIGHT_RECORD,
    label: HEIGHT_LABEL,
    held: HELD_AFTER,
    cautions: [
      HAND_ONLY,
      'The piston meets this valve on purpose: a few thousandths and no more, or it bends. Back the adjuster off before the piston goes over the top.',
      'Do not push it down to coil bind or onto the retainer: three turns are usually enough.',
      'Set the lash of this valve again afterwards.',
    ],
  },
  'soft-stop': {
    name: 'Soft stop: a cable tie or nylon strip',
    needs: { head: 'on', plugHole: true, readBy: 'either', indicator: false },
    why: 'A cable tie or a nylon strip through the plug hole finds TDC to a degree or two: enough to see a gross mistake, not to set a cam by.',
    readings: 'pair',
    height: 'stop',
    figure: null,
    feel: mm(0.5),
    tool: 'strip',
    prepare: 'Put the strip through the plug hole, long enough not to fall in.',
    ...STOP_WORDS,
    cautions: [HAND_ONLY, 'Keep hold of the strip: what falls into the cylinder has to come out again.'],
  },
  'rim-marks': {
    name: 'Rim marks, no wheel',
    needs: { head: 'any', plugHole: true, readBy: 'rim', indicator: false },
    why: 'There is no wheel: marks on the balancer rim and a tape do the same, half-way between the contacts.',
    readings: 'pair',
    height: 'stop',
    figure: null,
    feel: mm(0.04),
    tool: 'stop',
    prepare: 'Put the stop in and lock it. Fix a pointer at the rim of the balancer.',
    ...STOP_WORDS,
    cautions: [HAND_ONLY, NO_HAMMER],
  },
  'first-stop': {
    name: 'First stop of the indicator',
    needs: { head: 'off', plugHole: false, readBy: 'either', indicator: true },
    why: 'A quick look, or a house rule so that all builders agree: where the indicator just stops, corrected for coming early.',
    readings: 'single',
    height: 'indicator',
    figure: null,
    feel: mm(0),
    tool: 'indicator',
    prepare: 'Stand the indicator square on the piston, over the pin axis.',
    turn: {
      before: 'Turn it the way it runs, slowly, and stop where the indicator just stops moving.',
      after: '',
    },
    onward: null,
    record: { before: 'Record where it stops', after: '' },
    label: { before: 'where it stops', after: '' },
    held: 'where the indicator just stopped',
    cautions: [HAND_ONLY, 'Read late or early, nobody sees it: use a pair of readings where the cam matters.'],
  },
  'locking-pin': {
    name: 'Locking pin or pin hole of the maker',
    needs: { head: 'any', plugHole: false, readBy: 'either', indicator: false },
    why: 'The maker’s own TDC, as good as his manual says: for work in his own scale, a phaser or an electronic angle.',
    readings: 'single',
    height: 'stop',
    figure: null,
    feel: mm(0),
    bringsTolerance: true,
    tool: 'locking pin',
    prepare: 'Find the pin and its hole in the manual, and what tolerance it gives.',
    turn: {
      before: 'Turn it the way it runs, slowly, until the pin goes in by hand. Read the wheel.',
      after: '',
    },
    onward: null,
    record: { before: 'Record with the pin in', after: '' },
    label: { before: 'pin in', after: '' },
    held: 'with the pin in',
    cautions: [
      HAND_ONLY,
      'The pin holds nothing: never loosen or tighten a bolt against it, and take it out before turning on.',
    ],
  },
};

export const ZERO_METHOD_NAMES = Object.keys(ZERO_METHODS) as [ZeroMethodName, ...ZeroMethodName[]];

/** May it be found on an engine that must not be turned back? */
export const goesOnward = (method: ZeroMethodName): boolean =>
  ZERO_METHODS[method].readings === 'single' || ZERO_METHODS[method].onward !== null;

/**
 * What the hands do for a reading.
 * @param figure of the indicator, in words; null while it is not chosen.
 * @param oneWay the engine must not be turned back.
 */
export function turnWords(method: ZeroMethodName, side: TdcSide, figure: string | null, oneWay = false): string {
  const { turn, onward } = ZERO_METHODS[method];
  const words = oneWay && side === 'after' ? (onward ?? turn.after) : turn[side];
  return words.replaceAll('{figure}', figure ?? 'the figure');
}
