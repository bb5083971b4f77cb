import { type ComponentProps, Suspense, lazy } from 'react';
import { View } from 'react-native';
import type { LineChart as Chart } from 'react-native-gifted-charts';

/** Fetched when the first chart is drawn, once for all of them: a fifth of what the first page weighs, and not needed there. */
const Fetched = lazy(async () => ({ default: (await import('react-native-gifted-charts')).LineChart }));

type LineChartProps = ComponentProps<typeof Chart> & { readonly height: number };

/** A line chart; room is kept for it until it is there. */
export function LineChart(props: LineChartProps) {
  return (
    <Suspense fallback={<View style={{ height: props.height + 20 }} />}>
      <Fetched {...props} />
    </Suspense>
  );
}
