import { View } from 'react-native';

import type { Valve } from '@yosoku/core/cam/card';
import { decimal } from '@yosoku/core/units/decimal';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { formatComputedLength, type LengthUnit } from '@yosoku/core/units/length';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';
import { LineChart } from './line-chart';

interface LeanPlotProps {
  /** From the nose down: lift in mm, and where half-way between the flanks lies, cycle angle. */
  readonly lean: readonly { readonly lift: number; readonly centre: number; readonly standard: number }[];
  readonly valve: Valve;
  readonly units: LengthUnit;
  readonly width: number;
}

const AXIS = 52;
const HEIGHT = 150;

/** How the middle between the flanks drifts from the nose down to the foot: a straight lobe gives a level line. */
export function LeanPlot({ lean, valve, units, width }: LeanPlotProps) {
  const theme = useTheme();
  const sign = valve === 'intake' ? 1 : -1;
  const points = lean.map(({ lift, centre }) => ({ lift, centre: sign * centre }));
  const centres = points.map(({ centre }) => centre);
  const middle = (Math.max(...centres) + Math.min(...centres)) / 2;
  const reach = Math.max(0.75, (Math.max(...centres) - Math.min(...centres)) * 0.75);
  const floor = middle - reach;
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last) return null;
  const drift = last.centre - first.centre;
  const words =
    Math.abs(drift) < 0.3
      ? 'The lobe stands upright: its middle does not drift.'
      : `The lobe leans: from the nose down its middle drifts ${computedDegrees(Math.abs(drift))} ${drift * sign > 0 ? 'later' : 'earlier'}, so centreline and events differ by that much.`;
  const spacing = (width - AXIS - 20) / (points.length - 1);
  return (
    <View testID="lean-plot" role="img" aria-label={`Lean. ${words}`} className="gap-1">
      <Words look="heading" level={2}>
        Lean
      </Words>
      <LineChart
        data={points.map(({ centre }) => ({ value: centre - floor }))}
        width={width - AXIS}
        height={HEIGHT}
        spacing={spacing}
        initialSpacing={8}
        color={theme[valve]}
        thickness={2.4}
        dataPointsColor={theme[valve]}
        dataPointsRadius={4}
        maxValue={2 * reach}
        yAxisLabelWidth={AXIS}
        formatYLabel={(value) => `${decimal(Number(value) + floor, 1)}°`}
      />
      <View aria-hidden className="flex-row justify-between" style={{ marginLeft: AXIS }}>
        {[first, points[Math.floor(points.length / 2)] ?? first, last].map(({ lift }, at) => (
          <Words key={at} look="soft">
            {formatComputedLength(lift, units)}
          </Words>
        ))}
      </View>
      <Words look="soft">{`Centre against lift, from the nose down. ${words}`}</Words>
    </View>
  );
}
