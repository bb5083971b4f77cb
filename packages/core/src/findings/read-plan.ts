import { followsDownOf, handOf } from './at-hand';
import { type LobePlan, planLobes } from './derive-lobes';
import type { CompletedCard } from '../cam/complete-card';
import { VALVES, type Valve } from '../cam/card';
import {
  type CamAtHand,
  READ_METHODS,
  readMethod,
  type ReadMethodName,
  type RulingMethod,
  proposeReading,
} from '../measure/read-methods';
import type { TrialFinding } from './derive-trial';
import type { Build } from '../record/fold';
import type { SitsOn } from './readings/read-rounds';

/** A round that lacks readings. */
export interface OpenRound {
  readonly round: string;
  readonly method: ReadMethodName;
  readonly bank: 1 | 2;
  readonly cylinder: number;
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
  /** Every lobe of the engine: which is read next. */
  readonly everyLobe: LobePlan;
}

const SITS_ON: Readonly<Record<CamAtHand['lifter'], SitsOn>> = {
  solid: 'lifter',
  hydraulic: 'lifter',
  roller: 'lifter',
  bucket: 'bucket',
  none: 'lobe',
};

/** What comes next at the indicator. */
export function planReading(
  build: Build,
  trial: TrialFinding | undefined,
  rule: RulingMethod | null,
  card: CompletedCard,
): ReadPlan {
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
            cylinder: finding.cylinder,
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
    sitsOn:
      trial?.rounds.findLast(({ method }) => !readMethod(method).isFelt)?.sitsOn ?? SITS_ON[at?.lifter ?? 'solid'],
    followsDown: followsDownOf(build),
    everyLobe: planLobes(trial?.rounds ?? [], build, card),
  };
}
