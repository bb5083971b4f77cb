import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { lateOrEarly } from '@yosoku/core/report/place-words';
import type { Report } from '@yosoku/core/report/report';
import { decimal } from '@yosoku/core/units/decimal';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';
import { ValveMark } from '@/pictures/valve-mark';

type View_ = Report['trials'][number]['views'][number];

/** How far a view has the cam from its target, in words. */
export function offWords(delta: number): string {
  const size = decimal(Math.abs(delta), 1);
  if (size === '0.0') return 'on it';
  return `${size}° ${lateOrEarly(delta)}`;
}

/** What was measured, by every method: each with its figure, what it makes of the cam, how well it knows, and its share in the verdict. */
export function ViewList({ views }: { readonly views: readonly View_[] }) {
  return (
    <View testID="views">
      {views.map((view) => (
        <Row key={view.key} view={view} />
      ))}
    </View>
  );
}

function Row({ view }: { readonly view: View_ }) {
  const [open, setOpen] = useState(false);
  return (
    <Pressable
      role="button"
      testID={`view-${view.key}`}
      aria-expanded={open}
      onPress={() => setOpen(!open)}
      className="border-b border-hairline py-2"
    >
      <View className="flex-row items-center gap-3">
        <MarkOf of={view.valve} />
        <View className="shrink grow basis-0 flex-row flex-wrap items-center justify-between gap-x-3">
          <Words>{view.title}</Words>
          <Words look="figure" tone="soft" className="grow text-right">
            {offTarget(view)}
          </Words>
        </View>
      </View>
      <View className="flex-row flex-wrap items-center gap-x-3 pl-[24px]">
        <Words look="figure">{view.shows}</Words>
        <HowWellKnown view={view} />
        {view.weight === null ? null : <Share percent={Math.max(0, Math.round(100 * view.weight))} />}
      </View>
      {view.remark ? (
        <Words look="soft" tone="ink" className="pl-[24px]">
          {view.remark}
        </Words>
      ) : null}
      {open ? (
        <Words look="soft" className="pl-[24px]">
          {detailsOf(view).join(' ')}
        </Words>
      ) : null}
    </Pressable>
  );
}

function MarkOf({ of }: { readonly of: View_['valve'] }) {
  const theme = useTheme();
  return (
    <View className="w-[12px] shrink-0">{of === 'both' ? null : <ValveMark valve={of} colour={theme[of]} />}</View>
  );
}

/** "2.1° late ±0.4°"; nothing where the view says nothing of the cam. */
function offTarget({ delta, deltaExpanded }: View_): string {
  if (delta === null) return '';
  return `${offWords(delta)}${deltaExpanded === null ? '' : ` ±${computedDegrees(deltaExpanded)}`}`;
}

function HowWellKnown({ view: { unit, expanded } }: { readonly view: View_ }) {
  if (expanded === null || (unit !== 'crank degrees' && unit !== 'cam degrees')) return null;
  return <Words look="figure" tone="soft">{`±${computedDegrees(expanded, expanded < 0.095 ? 2 : 1)}`}</Words>;
}

/** What is said of a view that is opened, in sentences. */
function detailsOf({ detail, against, budget, unit, weight, delta }: View_): string[] {
  const size = (standard: number): string =>
    unit === 'mm' ? `${standard.toFixed(3)} mm` : computedDegrees(standard, 2);
  const sentences = detail === null ? [] : [detail];
  if (against) sentences.push(`Against ${against}.`);
  if (budget.length > 0) {
    const parts = budget.map(({ from, standard }) => `${from} ${size(standard)}`);
    sentences.push(
      `How well the figure is known, by where it comes from (one standard deviation): ${parts.join(', ')}.`,
    );
  }
  if (weight === null && delta !== null) sentences.push('By the rule of the shop it has no say in the verdict.');
  return sentences;
}

/** A view's share in the verdict, as a length of rule and in figures. */
function Share({ percent }: { readonly percent: number }) {
  const theme = useTheme();
  return (
    <View className="shrink grow flex-row flex-wrap items-center justify-end gap-x-2">
      <View style={{ width: 60, height: 3, backgroundColor: theme.hairline }}>
        <View style={{ width: Math.min(60, (60 * percent) / 100), height: 3, backgroundColor: theme.brass }} />
      </View>
      <Words look="soft">{`${percent} % of the result`}</Words>
    </View>
  );
}
