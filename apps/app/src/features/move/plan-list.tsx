import { Pressable, View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';

type Plan = Report['move']['plans'][number];

interface PlanListProps {
  readonly plans: readonly Plan[];
  readonly chosen: number;
  readonly onChoose: (at: number) => void;
}

/** The best few ways: what goes where, what that leaves, what it takes. */
export function PlanList({ plans, chosen, onChoose }: PlanListProps) {
  return (
    <View role="radiogroup" aria-label="Ways to set it" testID="plans">
      {plans.map((plan, at) => (
        <Pressable
          key={at}
          role="radio"
          testID={`plan-${at}`}
          aria-checked={at === chosen}
          onPress={() => onChoose(at)}
          className={`min-h-[64px] gap-1 border-b border-l-4 border-b-hairline py-2 pl-3 pr-2 ${at === chosen ? 'border-l-brass bg-raised' : 'border-l-transparent'}`}
        >
          {plan.parts.map(({ part, name, from, to }) => (
            <View key={part} className="flex-row flex-wrap items-baseline justify-between gap-x-3">
              <Words look="label" className="shrink">
                {name}
              </Words>
              <Words look="figure">{from === to ? to : `${from} → ${to}`}</Words>
            </View>
          ))}
          <Words look="soft">
            {`Leaves ${computedDegrees(plan.remaining)}${plan.inside ? '' : ', outside the limit'}. ${plan.work}`}
          </Words>
          {plan.breaks.map((each) => (
            <Notice key={each} kind="danger" message="Too near" remedy={each} />
          ))}
        </Pressable>
      ))}
    </View>
  );
}
