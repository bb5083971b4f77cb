import type { Valve } from '../cam/card';
import { rimDegrees } from '../crank/rim';
import { formatReading, ringPosition } from '../crank/wheel';
import type { Entry, EntryOf } from '../record/entry';
import { wrap180 } from '../units/angle';
import { computedDegrees } from '../units/degrees';
import { formatComputedLength } from '../units/length';
import { lobeLift } from '../simulation/follow';
import {
  type Stand,
  type WholeEngine,
  againstStop,
  dialShows,
  pistonBelow,
  underPointer,
  wheelShows,
} from '../simulation/whole-engine';
import { judgeLash, judgePlay, judgeTried } from './judge-valve-train';
import { type Found, HELPED, type Judgement } from './judgement';
import type { Scenario } from './scenario';

export interface JudgedReading {
  readonly entry: string;
  readonly what: string;
  readonly judgement: Judgement;
  readonly words: string;
}

/** A wheel is misread when it is off by more than the eye can tell, crank degrees; a dial, mm; a tape along a rim, mm. From memory. */
const EYE = { wheel: 0.6, dial: 0.05, tape: 1.5 } as const;
/** As good as on its lobe, mm; slack that is as good as taken up, crank degrees. */
const ON_LOBE = 0.01;
const TAKEN_UP = 0.05;
/** A dial that was zeroed higher on the lobe than this was not zeroed on its base circle, mm. */
const OFF_BASE = 0.03;

/** What the wheel really said, against what was written down. */
function misreadWheel(engine: WholeEngine, stand: Stand, written: number): Found | null {
  const { ring } = engine;
  const off = wrap180(written - underPointer(stand));
  if (Math.abs(off) <= (ring.ring === 'rim' ? rimDegrees(EYE.tape, ring.round) : EYE.wheel)) return null;
  return {
    judgement: 'misread',
    words: `${ring.ring === 'rim' ? 'The tape' : 'The wheel'} showed ${formatReading(wheelShows(engine, rounded(stand)))}: ${computedDegrees(Math.abs(off))} from what was written.`,
  };
}

/** The wheel as an eye reads it, to the quarter. */
const rounded = (stand: Stand): Stand => ({
  ...stand,
  mount: Math.round(underPointer(stand) * 4) / 4 - stand.crank,
});

function judgeContact({ engine, base }: Scenario, stand: Stand, { body }: EntryOf<'zero.reading'>): Found {
  const misread = misreadWheel(engine, stand, ringPosition(body.wheel));
  if (misread) return misread;
  if (body.indicator !== undefined) {
    const below = pistonBelow(engine, stand);
    return Math.abs(below - body.indicator) > EYE.dial
      ? {
          judgement: 'misread',
          words: `The piston stood ${formatComputedLength(below, base.units)} below the top, not ${formatComputedLength(body.indicator, base.units)}.`,
        }
      : HELPED;
  }
  const contact = againstStop(engine, stand);
  if (contact === null) return { judgement: 'misread', words: 'The piston did not stand against the stop.' };
  return (contact === 'forward') === (body.side === 'before')
    ? HELPED
    : {
        judgement: 'wrong-side',
        words: `The stop held it turning ${contact === 'forward' ? 'forward' : 'back'}; it was written down as the other side.`,
      };
}

/** What the indicator showed, counted as the entry counts it, mm. */
function figureOf({ body: { shows } }: EntryOf<'reading.taken'>): { readonly shown: number; readonly off: string } {
  switch (shows.kind) {
    case 'below-peak':
      return { shown: -shows.drop, off: 'the drop' };
    case 'above-base':
      return { shown: shows.lift, off: 'the height' };
    case 'by-feel':
      return { shown: 0, off: 'the valve’s seat' };
    default:
      return { shown: shows.lift, off: 'the lift' };
  }
}

function judgeCam(scenario: Scenario, stand: Stand, entry: EntryOf<'reading.taken'>): Found {
  const { engine } = scenario;
  const { valve, shows, approach, wheel } = entry.body;
  if (stand.dial.on !== valve)
    return { judgement: 'misread', words: `The dial stood on the ${stand.dial.on}, not on the ${valve}.` };
  const { cylinder = 1 } = stand.dial;
  if (cylinder !== entry.body.cylinder)
    return { judgement: 'misread', words: `The dial stood at cylinder ${cylinder}, not at ${entry.body.cylinder}.` };
  const { shown, off } = figureOf(entry);
  if (Math.abs(dialShows(engine, stand) - shown) > EYE.dial)
    return {
      judgement: 'misread',
      words: `The dial showed ${formatComputedLength(dialShows(engine, stand), scenario.base.units).replace('-', '−')}: not ${off} that was written.`,
    };
  const misread = wheel ? misreadWheel(engine, stand, ringPosition(wheel)) : null;
  if (misread) return misread;
  if (shows.kind === 'peak-lift' && stand.dial.zero > OFF_BASE)
    return { judgement: 'misread', words: 'The dial had not been zeroed on the base circle.' };
  if ('flank' in shows && rising(scenario, stand, valve) !== (shows.flank === 'opening'))
    return { judgement: 'wrong-side', words: 'It stood on the other flank of the lobe.' };
  if (approach === 'forward' && (stand.lag > TAKEN_UP || stand.run < 0))
    return stand.lag > TAKEN_UP
      ? {
          judgement: 'wrong-side',
          words: `The crank had been turned back, and the cam had not followed yet: ${computedDegrees(stand.lag)} of slack stand in it.`,
        }
      : { judgement: 'wrong-side', words: 'It was come to turning backwards.' };
  if (Math.abs(stand.lifted[valve] - lobeLift(engine, stand.advance, valve, stand.crank, stand.lag)) > ON_LOBE)
    return { judgement: 'spoiled', words: 'The lifter was not on its lobe.' };
  if (stand.slipped) return { judgement: 'spoiled', words: 'The wheel had slipped by then.' };
  return HELPED;
}

/** Is the lobe on its way up there? */
function rising({ engine }: Scenario, stand: Stand, valve: Valve): boolean {
  const at = (by: number): number => lobeLift(engine, stand.advance, valve, stand.crank + by, stand.lag);
  return at(0.5) > at(-0.5);
}

/**
 * Every reading that counts, judged by how the engine really stood when it was written down.
 * @param trail how it stood, by the id of the entry; what is not in it was there from the beginning and is passed over.
 */
export function judgeReadings(
  scenario: Scenario,
  entries: readonly Entry[],
  trail: Readonly<Record<string, Stand>>,
): JudgedReading[] {
  const voided = new Set(entries.flatMap((entry) => (entry.kind === 'entry.voided' ? [entry.body.voids] : [])));
  return entries.flatMap((entry): JudgedReading[] => {
    const stand = trail[entry.id];
    if (!stand || voided.has(entry.id)) return [];
    if (entry.kind === 'zero.reading')
      return [
        {
          entry: entry.id,
          what: `Contact ${entry.body.side} TDC, ${formatReading(entry.body.wheel)}`,
          ...judgeContact(scenario, stand, entry),
        },
      ];
    if (entry.kind === 'reading.taken')
      return [
        {
          entry: entry.id,
          what: `${VALVE_WORDS[entry.body.valve]}${entry.body.wheel ? `, ${formatReading(entry.body.wheel)}` : ''}`,
          ...judgeCam(scenario, stand, entry),
        },
      ];
    if (entry.kind === 'lash.taken') {
      const what = `Lash, ${entry.body.valve} of cylinder ${entry.body.cylinder}`;
      return [{ entry: entry.id, what, ...judgeLash(scenario, stand, entry) }];
    }
    if (entry.kind === 'rocker.tried')
      return [
        {
          entry: entry.id,
          what: `Pushrod, ${formatComputedLength(entry.body.length, scenario.base.units)}`,
          ...judgeTried(scenario, stand, entry),
        },
      ];
    if (entry.kind === 'end-play.measured')
      return [
        {
          entry: entry.id,
          what: `End play, ${formatComputedLength(entry.body.play, scenario.base.units)}`,
          ...judgePlay(scenario, stand, entry),
        },
      ];
    return [];
  });
}

const VALVE_WORDS: Readonly<Record<Valve, string>> = { intake: 'Intake', exhaust: 'Exhaust' };
