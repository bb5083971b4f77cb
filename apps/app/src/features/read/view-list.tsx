import { useState } from 'react';
import { Pressable, View } from 'react-native';
import type { Report } from '@yosoku/core/logbook/report';
import { decimal } from '@yosoku/core/units/decimal';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';
import { ValveMark } from './read-bar';

type View_ = Report['trials'][number]['views'][number];

/** How far a view has the cam from its target, in words. */
export function offWords(delta: number): string {
  const size = decimal(Math.abs(delta), 1);
  if (size === '0.0') return 'on it';
  return `${size}° ${delta < 0 ? 'late' : 'early'}`;
}

/** What was measured, by every method: each with its figure, how well it is known, and what it makes of the cam. */
export function ViewList({ views, speaking }: { readonly views: readonly View_[]; readonly speaking: string | null }) {
  return (
    <View testID="views">
      {views.map((view) => (
        <Row key={view.key} view={view} speaks={view.key === speaking} />
      ))}
    </View>
  );
}

function Row({ view, speaks }: { readonly view: View_; readonly speaks: boolean }) {
  const [open, setOpen] = useState(false);
  const theme = useTheme();
  const good = view.unit === 'crank degrees' || view.unit === 'cam degrees' ? view.expanded : null;
  return (
    <Pressable
      role="button"
      testID={`view-${view.key}`}
      aria-expanded={open}
      onPress={() => setOpen(!open)}
      className={`border-b border-l-4 border-b-hairline py-2 pl-3 ${speaks ? 'border-l-brass' : 'border-l-transparent'}`}
    >
      <View className="flex-row items-center gap-3">
        {view.valve === 'both' ? (
          <View className="w-[12px]" />
        ) : (
          <ValveMark valve={view.valve} colour={theme[view.valve]} />
        )}
        <Words className="shrink grow">{view.title}</Words>
        <Words look="figure" tone="soft" className="min-w-[84px] text-right">
          {view.delta === null ? '' : offWords(view.delta)}
        </Words>
      </View>
      <View className="flex-row flex-wrap gap-x-3 pl-[24px]">
        <Words look="figure">{view.shows}</Words>
        {good === null ? null : (
          <Words look="figure" tone="soft">{`±${computedDegrees(good, good < 0.095 ? 2 : 1)}`}</Words>
        )}
      </View>
      {view.remark ? (
        <Words look="soft" tone="ink" className="pl-[24px]">
          {view.remark}
        </Words>
      ) : null}
      {open ? (
        <Words look="soft" className="pl-[24px]">
          {[
            view.detail,
            view.against ? `Against ${view.against}.` : null,
            view.budget.length > 0
              ? `How well it is known, by where it comes from (one standard deviation): ${view.budget.map(({ from, standard }) => `${from} ${view.unit === 'mm' && view.method === 'identity' ? `${standard.toFixed(3)} mm` : computedDegrees(standard, 2)}`).join(', ')}.`
              : null,
            speaks ? 'The verdict speaks from it.' : null,
          ]
            .filter((each) => each !== null)
            .join(' ')}
        </Words>
      ) : null}
    </Pressable>
  );
}
