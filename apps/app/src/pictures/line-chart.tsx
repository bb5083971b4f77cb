import { type ComponentProps, Suspense, lazy } from 'react';
import { View } from 'react-native';
import type { LineChart as Chart } from 'react-native-gifted-charts';
import { useTheme } from '@/ui/theme';

/** Fetched when the first chart is drawn, once for all of them: a fifth of what the first page weighs, and not needed there. */
const Fetched = lazy(async () => ({ default: (await import('react-native-gifted-charts')).LineChart }));

/** Rooms between the rules. */
export const SECTIONS = 4;

type LineChartProps = ComponentProps<typeof Chart> & { readonly height: number };

/** A line chart in the look of the app; room is kept for it until it is there. */
export function LineChart(props: LineChartProps) {
  const theme = useTheme();
  return (
    <Suspense fallback={<View style={{ height: props.height + 20 }} />}>
      <Fetched
        disableScroll
        endSpacing={0}
        noOfSections={SECTIONS}
        // Without these the library cuts what stands at the rules down to whole numbers.
        showFractionalValues
        roundToDigits={3}
        yAxisTextStyle={{ color: theme.soft, fontFamily: 'Barlow_500Medium', fontSize: 13 }}
        rulesColor={theme.hairline}
        rulesType="solid"
        xAxisColor={theme.line}
        yAxisColor={theme.line}
        xAxisLabelsHeight={0}
        {...props}
      />
    </Suspense>
  );
}
