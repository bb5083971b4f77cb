import type { Valve } from '../cam/card';
import { type Flank, READ_METHODS, type ReadMethodName, type Slot, slotWords } from '../measure/read-methods';
import { type LengthUnit, formatComputedLength, formatLength } from '../units/length';
import { liftForCentreline } from '../cam/lift-at-tdc';
import type { Report } from './report-schema';
import type { ReadPlan } from '../findings/read-plan';
import type { ReadingFinding, SitsOn } from '../findings/readings/read-rounds';
import type { BodyOf } from '../record/entry';

type Reading = BodyOf<'reading.taken'>;

const SIDES: Readonly<Record<Reading['shows']['kind'], Readonly<Record<Flank | 'none', string>>>> = {
  'below-peak': { opening: 'before peak', closing: 'after peak', none: '' },
  'above-base': { opening: 'opening', closing: 'closing', none: '' },
  'peak-lift': { opening: '', closing: '', none: 'peak lift' },
  'tdc-lift': { opening: '', closing: '', none: 'lift at TDC' },
  'trace-point': { opening: '', closing: '', none: 'trace' },
  'by-feel': { opening: 'opening by feel', closing: 'closing by feel', none: '' },
};

/** A reading in words: "before peak", "opening, turning back", "peak lift". */
export function readingLabel({ shows, approach }: Reading): string {
  const side = SIDES[shows.kind]['flank' in shows ? shows.flank : 'none'];
  return approach === 'backward' ? `${side}, turning back` : side;
}

/** Why a reading is kept but left out of its round. */
export const LEFT_OUT: Readonly<Record<NonNullable<ReadingFinding['aside']>, string>> = {
  backward: 'Read turning backwards, so the slack in the timing drive is in it: used for the slack only.',
  'other-method': 'It belongs to another method.',
};

export interface NextReading {
  readonly slot: Slot;
  /** The round that it joins; null opens a new one. */
  readonly round: string | null;
  readonly height: number | null;
  /** What to do with the hands now. */
  readonly sentence: string;
  /** What stands to be read, in short: "0.050 in before peak". */
  readonly short: string;
}

/**
 * The next reading of a method on a valve.
 * @param height the figure chosen for a new round, mm; an open round keeps its own.
 */
export function nextReading(
  plan: Pick<ReadPlan, 'open'>,
  choice: {
    readonly method: ReadMethodName;
    readonly valve: Valve;
    readonly cylinder: number;
    readonly sitsOn: SitsOn;
    readonly height: number | null;
    /** Zeroed where it is read otherwise, and turned back from there, or on. */
    readonly otherWay?: 'back' | 'on' | null;
  },
  units: LengthUnit,
): NextReading {
  const { method, valve, cylinder, sitsOn } = choice;
  const table = READ_METHODS[method];
  const open = plan.open.find(
    (each) => each.method === method && each.valve === valve && each.cylinder === cylinder && each.sitsOn === sitsOn,
  );
  const slot = table.slots[open?.slot ?? 0] ?? table.slots[0];
  if (!slot) throw new Error('every method has a reading');
  const height = open ? open.height : choice.height;
  const at = height === null ? `the ${table.height?.noun ?? 'height'}` : formatLength(height, units);
  const put = { at, valve, on: sitsOn };
  const turn = (choice.otherWay && slot.otherWay?.[choice.otherWay]) || slot.turn;
  return {
    slot,
    round: open?.round ?? null,
    height,
    sentence:
      open?.slot === 0 && slot.again !== null
        ? `The other side: back up well past, ${slotWords(slot.again, put)}`
        : slotWords(turn, put),
    short: table.height ? `${at} ${slot.label}` : slot.label,
  };
}

/**
 * What the card's lifts at TDC mean for the target, and for a degree of advance: "The target means 0.107 in here, at the lobe. 1° of advance is 0.004 in more."
 * @returns null where the card prints fewer than two.
 */
export function tdcLiftWords(
  { card, target, build }: Pick<Report, 'card' | 'target' | 'build'>,
  valve: Valve,
): string | null {
  const wanted = valve === 'intake' ? target.intakeCentreline : target.exhaustCentreline;
  const printed = card.printed?.[valve]?.liftAtTdc ?? [];
  const found = wanted === null ? null : liftForCentreline(valve, printed, wanted);
  if (!found || found.perAdvance === 0) return null;
  const length = (mm: number): string => formatComputedLength(mm, build.units);
  return `The target means ${length(found.lift)} here, at the lobe. 1° of advance is ${length(Math.abs(found.perAdvance))} ${found.perAdvance > 0 ? 'more' : 'less'}.`;
}
