import type { Valve } from '../../cam/card';
import { READ_METHODS, type ReadMethodName, readMethod } from '../../measure/read-methods';
import type { Problem } from '../../problem';
import type { EntryOf } from '../../record/entry';
import type { Ground } from '../../record/parts';
import { formatLength } from '../../units/length';
import type { ZeroOfReading } from './zero-passes';

/** Why the readings of a round cannot be what they say, or make no whole: each with what to do about it. */

type Body = EntryOf<'reading.taken'>['body'];

/** The drop, height or lift that the indicator showed, mm. */
export const figureOfReading = ({ shows }: Body): number =>
  shows.kind === 'below-peak' ? shows.drop : shows.kind === 'by-feel' ? 0 : shows.lift;

/** What the indicator shows, named as the trade does. */
const SHOWN: Readonly<Record<Body['shows']['kind'], { readonly what: string; readonly under: ReadMethodName }>> = {
  'below-peak': { what: 'A drop below peak', under: 'centreline' },
  'above-base': { what: 'A lift above the base circle', under: 'events' },
  'peak-lift': { what: 'A peak lift', under: 'identity' },
  'tdc-lift': { what: 'A lift at TDC', under: 'lift-at-tdc' },
  'trace-point': { what: 'A point of a trace', under: 'trace' },
  'by-feel': { what: 'An opening or closing by feel', under: 'by-feel' },
};

/** A round that holds nothing of its method. */
export function otherMethodTrouble(method: ReadMethodName, { shows }: Body): Problem {
  const { what, under } = SHOWN[shows.kind];
  return {
    message: `${what} was recorded under “${READ_METHODS[method].name}”, which is not read that way.`,
    remedy: `Undo it, and read it again under “${READ_METHODS[under].name}”.`,
  };
}

const nounOf = (method: ReadMethodName): 'pair' | 'reading' =>
  READ_METHODS[method].slots.length > 1 ? 'pair' : 'reading';
const figureNounOf = (method: ReadMethodName): 'drop' | 'height' => READ_METHODS[method].height?.noun ?? 'height';

interface Read {
  readonly method: ReadMethodName;
  readonly height: number | null;
  readonly valve: Valve;
  readonly sitsOn: Body['sitsOn'];
}

/** No drop or height can be as much as the lobe lifts. */
export function heightTrouble({ method, height, valve, sitsOn }: Read, build: Ground): Problem | null {
  const lift = build.card?.body[valve]?.lobeLift;
  if (height === null || lift === undefined || sitsOn === 'valve' || height < lift) return null;
  const inUnits = (mm: number): string => formatLength(mm, build.description.body.units);
  const noun = figureNounOf(method);
  return {
    message: `A ${noun} of ${inUnits(height)} is not less than the whole lobe lift, ${inUnits(lift)} on the card.`,
    remedy: `Undo the ${nounOf(method)} and read it at a smaller ${noun}, or correct the card.`,
  };
}

/** What is felt is the lash being taken up: without it nobody knows at which lift that was. */
export function lashTrouble(method: ReadMethodName, valve: Valve, { card }: Ground): Problem | null {
  const printed = card?.body[valve];
  if (!readMethod(method).isFelt || (printed?.lashHot ?? printed?.lashCold ?? 0) > 0) return null;
  return {
    message: `What is felt at the ${valve} is its lash being taken up, and the lash is not known.`,
    remedy: 'Give the lash on the card: the reading then counts.',
  };
}

/** Readings of a round that fill the same place. */
export const twiceTrouble = (method: ReadMethodName): Problem =>
  READ_METHODS[method].from === 'peak'
    ? {
        message: 'The same side of the nose was recorded twice in one pair.',
        remedy: 'Undo the one that is wrong.',
      }
    : {
        message: `The same reading was recorded twice in one ${nounOf(method)}.`,
        remedy: 'Undo the one that is wrong.',
      };

/** Why two readings are no pair. */
export function pairTrouble(method: ReadMethodName, first: Body, second: Body): Problem | null {
  const noun = figureNounOf(method);
  if (figureOfReading(first) !== figureOfReading(second))
    return {
      message: `The two sides were read at different ${noun}s.`,
      remedy: `Undo one of them and read it at the same ${noun}.`,
    };
  if (first.cylinder !== second.cylinder)
    return {
      message: `The two sides were read at different cylinders, ${first.cylinder} and ${second.cylinder}.`,
      remedy: 'Undo the pair and read both sides at one cylinder.',
    };
  if (first.valve !== second.valve || first.sitsOn !== second.sitsOn)
    return {
      message: 'The indicator was moved between the two readings.',
      remedy: 'Undo the pair and read both again.',
    };
  if (first.setting !== second.setting)
    return {
      message: 'The wheel was set anew between the two readings.',
      remedy: 'Undo the pair and read both again.',
    };
  return null;
}

/** Why a round has no zero to lean on. */
export function zeroTrouble(
  method: ReadMethodName,
  body: Body,
  zero: ZeroOfReading | null,
  oneZero: boolean,
): Problem | null {
  if (body.setting !== null && !zero)
    return {
      message: 'The TDC that it depends on has been undone or is not in the logbook.',
      remedy: `Read the ${nounOf(method)} again.`,
    };
  if (!oneZero)
    return {
      message: 'The zero was disturbed between the two readings.',
      remedy: 'Read the pair again on a proved zero.',
    };
  return null;
}
