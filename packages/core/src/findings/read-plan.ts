import { followsDownOf, handOf } from './at-hand';
import { VALVES, type Valve } from '../cam/card';
import {
  type CamAtHand,
  READ_METHODS,
  type ReadMethodName,
  type RulingMethod,
  type Slot,
  proposeReading,
  slotWords,
} from '../measure/read-methods';
import { type LengthUnit, formatLength } from '../units/length';
import type { TrialFinding } from './derive-trial';
import type { Build } from '../record/fold';
import type { SitsOn } from './readings/read-rounds';

/** A round that lacks readings. */
export interface OpenRound {
  readonly round: string;
  readonly method: ReadMethodName;
  readonly bank: 1 | 2;
  readonly valve: Valve;
  readonly sitsOn: SitsOn;
  /** The drop or the checking height, mm. */
  readonly height: number | null;
  /** Place of the next reading among the method's slots. */
  readonly slot: number;
}

/** What can be read now. */
export interface ReadPlan {
  readonly trial: string | null;
  readonly open: readonly OpenRound[];
  /** Method and valve that come next where nothing is open. */
  readonly proposal: { readonly method: ReadMethodName; readonly valve: Valve; readonly why: string };
  /** Last height that was used with each method, mm. */
  readonly heights: readonly { readonly method: ReadMethodName; readonly height: number }[];
  readonly sitsOn: SitsOn;
  readonly followsDown: boolean;
}

const SITS_ON: Readonly<Record<CamAtHand['lifter'], SitsOn>> = {
  solid: 'lifter',
  hydraulic: 'lifter',
  roller: 'lifter',
  bucket: 'bucket',
  none: 'lobe',
};

/** What comes next at the indicator. */
export function planReading(build: Build, trial: TrialFinding | undefined, rule: RulingMethod | null): ReadPlan {
  const at = build.asItStands?.body;
  const hand = handOf(build);
  const liftAtTdc = VALVES.some((valve) => (build.card?.body[valve]?.liftAtTdc ?? []).length > 0);
  const proposed = proposeReading(hand, rule, liftAtTdc);
  const done = (valve: Valve): boolean =>
    trial?.views.some((view) => view.valve === valve && view.method === proposed.method) ?? false;
  const rounds = build.trial?.rounds ?? [];
  const open = rounds.flatMap((round): OpenRound[] => {
    const finding = trial?.rounds.find((each) => each.id === round.id);
    if (!finding || finding.problem !== null || READ_METHODS[finding.method].reads === 'curve') return [];
    const slot = READ_METHODS[finding.method].slots.findIndex(
      (_, place) => !finding.readings.some((reading) => reading.slot === place),
    );
    return slot < 0
      ? []
      : [
          {
            round: round.id,
            method: finding.method,
            bank: finding.bank,
            valve: finding.valve,
            sitsOn: finding.sitsOn,
            height: finding.height,
            slot,
          },
        ];
  });
  const heights = new Map<ReadMethodName, number>();
  for (const { method, height } of trial?.rounds ?? []) if (height !== null) heights.set(method, height);
  return {
    trial: build.trial?.id ?? null,
    open,
    proposal: { ...proposed, valve: done('intake') && !done('exhaust') ? 'exhaust' : 'intake' },
    heights: [...heights].map(([method, height]) => ({ method, height })),
    sitsOn: trial?.rounds.at(-1)?.sitsOn ?? SITS_ON[at?.lifter ?? 'solid'],
    followsDown: followsDownOf(build),
  };
}

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

const ON_WORDS: Readonly<Record<SitsOn, string>> = {
  lobe: 'lobe',
  lifter: 'lifter',
  bucket: 'bucket',
  valve: 'valve',
};

/**
 * The next reading of a method on a valve.
 * @param height the figure chosen for a new round, mm; an open round keeps its own.
 */
export function nextReading(
  plan: ReadPlan,
  choice: {
    readonly method: ReadMethodName;
    readonly valve: Valve;
    readonly bank: 1 | 2;
    readonly sitsOn: SitsOn;
    readonly height: number | null;
  },
  units: LengthUnit,
): NextReading {
  const { method, valve, bank, sitsOn } = choice;
  const table = READ_METHODS[method];
  const open = plan.open.find(
    (each) => each.method === method && each.valve === valve && each.bank === bank && each.sitsOn === sitsOn,
  );
  const slot = table.slots[open?.slot ?? 0] ?? table.slots[0];
  if (!slot) throw new Error('every method has a reading');
  const height = open ? open.height : choice.height;
  const at = height === null ? `the ${table.height?.noun ?? 'height'}` : formatLength(height, units);
  const put = { at, valve, on: ON_WORDS[sitsOn] };
  return {
    slot,
    round: open?.round ?? null,
    height,
    sentence:
      open?.slot === 0 && slot.again !== null
        ? `The other side: back up well past, ${slotWords(slot.again, put)}`
        : slotWords(slot.turn, put),
    short: table.height ? `${at} ${slot.label}` : slot.label,
  };
}
