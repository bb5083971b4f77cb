import { type Hardware, advanceOfSetting, reachOf, settingLabel, tableOf } from './hardware';
import type { PlannedPart } from './plan-move';

/** One thing to do with the hands. */
export interface Step {
  readonly text: string;
  /** What can go wrong, where it can hurt a person or an engine. */
  readonly caution: string | null;
}

/** A part that is to be put elsewhere. */
export interface PartToSet {
  readonly name: string;
  readonly hardware: Hardware;
  readonly planned: PlannedPart;
  /** The cams that it turns, in words, and how the crank and the indicator say where they are: null where nothing was read that could. */
  readonly cams: string;
  readonly direct: DirectWords | null;
}

/** The crank held where the indicator shall show a drop before peak: as the wheel reads it, and as the indicator does. */
export interface DirectWords {
  /** On the wheel as it stands, and on one that has been set to true TDC since. */
  readonly crank: string;
  readonly crankAnew: string;
  readonly shows: string;
  readonly valve: string;
}

export interface DriveKnown {
  readonly drive: 'chain' | 'belt' | 'gear' | 'none' | null;
  readonly rotation: 'clockwise' | 'counter-clockwise';
  readonly camTurns: 'with-crank' | 'against-crank';
}

const OTHER = { clockwise: 'counter-clockwise', 'counter-clockwise': 'clockwise' } as const;

const runsOf = ({ rotation, camTurns }: DriveKnown) => (camTurns === 'with-crank' ? rotation : OTHER[rotation]);

/** "the way the cam runs (clockwise, seen from the wheel)", or against it. */
const along = (what: 'cam' | 'crank', runs: DriveKnown['rotation'], by: number): string =>
  by > 0
    ? `the way the ${what} runs (${runs}, seen from the wheel)`
    : `against the way the ${what} runs (${OTHER[runs]}, seen from the wheel)`;

/** Which way the cam is turned against its drive, in words: "advance it: the way the cam runs (clockwise, seen from the wheel)". */
export const wayWords = (by: number, known: DriveKnown): string =>
  `${by > 0 ? 'advance' : 'retard'} it: ${along('cam', runsOf(known), by)}`;

/**
 * What the hands do for a move, in order, with what can go wrong: first what takes the front apart, then, with the front closed and TDC found again where the wheel had to come off, what is
 * set in place. Torque, thread compound and special tools are the engine maker's to say.
 * Source: common practice, no source.
 */
export function instruct(parts: readonly PartToSet[], known: DriveKnown): Step[] {
  if (parts.length === 0) return [];
  const inFront = parts.filter(({ hardware }) => tableOf(hardware).work === 'front-apart');
  const inPlace = parts.filter(({ hardware }) => tableOf(hardware).work !== 'front-apart');
  const wheelOff = parts.some(({ hardware }) => tableOf(hardware).wheelOff);
  const steps: Step[] = [];
  // Where the indicator sets the cam, it also says where the crank is held.
  if (inFront.length > 0 || inPlace.some((part) => !isSetByIndicator(part.hardware) || !part.direct))
    steps.push(
      step(
        'Turn the crank the way it runs to a place where no valve stands far open and no piston at its top, and leave it there until a step brings it elsewhere.',
        AGAINST,
      ),
    );
  if (wheelOff)
    steps.push(step('Take the degree wheel off the crank. TDC is lost with it: you find it again afterwards.'));
  if (inFront.length > 0) {
    const slack = hasSlack(known);
    steps.push(
      step(
        `Take the front apart as the manual says${slack ? `, and hold the ${known.drive} up so that it does not jump on the gears` : ''}.`,
        slack ? 'A one-way tensioner is locked first, and never turned against.' : null,
      ),
    );
  }
  const setAll = (some: readonly PartToSet[], from: number): void =>
    some.forEach((part, at) => {
      const text = `${part.cams}: ${part.name}`;
      if (parts.length > 1)
        steps.push(step(from + at === 0 ? `First ${text}.` : `Then ${text}. What was set before stays locked.`));
      steps.push(...stepsOf(part, known, steps.at(-1)?.caution ?? null, wheelOff));
    });
  setAll(inFront, 0);
  if (inFront.length > 0 && inPlace.length > 0) {
    steps.push(...closed(known));
    // What is read off the wheel from here on counts from the new zero.
    if (wheelOff) steps.push(step('Put the wheel back, find TDC again at Zero, and prove it.'));
  }
  setAll(inPlace, inFront.length);
  const again = wheelOff && inPlace.length === 0;
  return [
    ...steps,
    ...closed(known),
    step(again ? 'Put the wheel back, find TDC again at Zero, and measure the cam.' : 'Measure the cam again.'),
  ];
}

const step = (text: string, caution: string | null = null): Step => ({ text, caution });
const hasSlack = ({ drive }: DriveKnown): boolean => drive === 'chain' || drive === 'belt';

/** The drive taut, all of it tight, and turned through by hand. */
const closed = (known: DriveKnown): Step[] => [
  ...(hasSlack(known)
    ? [
        step(
          `See that the ${known.drive} is taut on the side that the crank pulls, and let the tensioner in.`,
          'Slack on the pulling side is a cam that sits late.',
        ),
      ]
    : []),
  step(
    'Tighten and lock every fastener that was loosened.',
    'To the torque, and with the compound or new bolts, that the engine maker’s manual asks for.',
  ),
  step(
    'Turn the crank by hand two full turns the way it runs.',
    'Slowly. Any resistance that cannot be explained is a valve on a piston: stop and turn back.',
  ),
];

/** In place and by hand: then the indicator sets it finer than any scale. */
const isSetByIndicator = (hardware: Hardware): boolean =>
  tableOf(hardware).work === 'adjust' && hardware.kind !== 'phaser';

const AGAINST = 'Turned against each other, cam and crank can bring a valve onto a piston. Stop at any resistance.';

/**
 * @param said the caution just above: it is not said twice in a row.
 * @param anew the wheel was taken off, and set to a new zero since.
 */
function stepsOf(
  { name, hardware, planned, cams, direct }: PartToSet,
  known: DriveKnown,
  said: string | null,
  anew: boolean,
): Step[] {
  const table = tableOf(hardware);
  const reach = reachOf(hardware);
  const advance = (setting: PlannedPart['from']): number => advanceOfSetting(hardware, setting) ?? 0;
  const [from, to] =
    reach.kind === 'range' && 'at' in planned.from && 'at' in planned.to
      ? [planned.from.at, planned.to.at]
      : [advance(planned.from), advance(planned.to)];
  const labels = {
    from: settingLabel(hardware, planned.from),
    to: settingLabel(hardware, planned.to),
    way: wayWords(planned.gives, known),
    cam: (by: number) => along('cam', runsOf(known), by),
    crank: (by: number) => along('crank', known.rotation, by),
  };
  const loose = isSetByIndicator(hardware);
  const lines: Step[] = [];
  if (loose && direct)
    lines.push(
      step(
        `Bring the crank, coming the way it runs, to ${anew ? direct.crankAnew : direct.crank} and hold it there.`,
        said === AGAINST ? null : AGAINST,
      ),
    );
  if (loose)
    lines.push(
      step(
        `Loosen ${name}, the cam held by its own hexagon or a pin tool.`,
        'Spring load turns a freed cam: keep hands clear of gears and chain.',
      ),
    );
  lines.push(...table.put(hardware, from, to, labels).map((text) => step(text)));
  if (loose && direct)
    lines.push(
      step(
        `With the crank held there, bring ${cams} finely to where the indicator on the ${direct.valve} shows ${direct.shows} before peak. The indicator decides, whatever a scale says. Lock it, and see that the needle has not moved.`,
      ),
    );
  if (reach.kind === 'range' && !reach.scale && !direct)
    lines.push(step('There is no scale on it, and no centreline was read to set it by: read the centreline first.'));
  return lines;
}
