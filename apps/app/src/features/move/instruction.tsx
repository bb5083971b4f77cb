import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { More } from '@/ui/more';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';

type Plan = Report['move']['plans'][number];

/** What the hands do, step by step, and what the readings should then show. */
export function Instruction({ plan }: { readonly plan: Plan }) {
  const { separation, overlap } = plan.becomes;
  const becomes = [
    separation === null ? null : `LSA ${computedDegrees(separation)} cam`,
    overlap === null ? null : `overlap ${computedDegrees(overlap)} crank at 0.050 in`,
  ].filter((each) => each !== null);
  return (
    <View className="gap-3">
      <Words look="heading" level={2}>
        Step by step
      </Words>
      <View role="list" testID="steps">
        {plan.steps.map(({ text, caution }, at) => (
          <View key={at} role="listitem" className="flex-row gap-3 border-t border-hairline py-2">
            <Words look="figure" tone="brass" className="w-[24px] shrink-0 text-right">
              {`${at + 1}`}
            </Words>
            <View className="shrink grow gap-1">
              <Words>{text}</Words>
              {caution ? <Notice kind="warning" message={caution} /> : null}
            </View>
          </View>
        ))}
      </View>
      {becomes.length > 0 ? <Words look="soft">{`As it will become: ${becomes.join(', ')}.`}</Words> : null}
      <More label="What the readings should show then" testID="predicted-more">
        <View testID="predicted">
          {plan.predicted.map(({ view, title, shows }) => (
            <View
              key={view}
              className="flex-row flex-wrap items-baseline justify-between gap-x-3 border-b border-hairline py-1"
            >
              <Words className="shrink">{title}</Words>
              <Words look="figure">{shows}</Words>
            </View>
          ))}
        </View>
      </More>
    </View>
  );
}
