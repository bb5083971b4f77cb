import { View } from 'react-native';
import type { Sweep } from '@yosoku/core/clearance/sweep';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { MM_PER_INCH, type LengthUnit, formatComputedLength } from '@yosoku/core/units/length';
import type { Valve } from '@yosoku/core/cam/card';
import { LineChart, SECTIONS } from '@/pictures/line-chart';
import { niceStep } from '@/pictures/nice-step';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';

interface GapPlotProps {
  readonly sweep: Sweep;
  readonly valve: Valve;
  readonly minimum: number;
  readonly units: LengthUnit;
  readonly width: number;
}

const AXIS = 64;
const HEIGHT = 150;

/** The least gap against how far the cam is moved, and the least that is wanted as a level line. */
export function GapPlot({ sweep, valve, minimum, units, width }: GapPlotProps) {
  const theme = useTheme();
  const points = sweep.overCam.filter((_, at) => at % 2 === 0);
  const inUnit = (mm: number): number => (units === 'in' ? mm / MM_PER_INCH : mm);
  const step = niceStep(inUnit(Math.max(minimum * 2, ...points.map(({ gap }) => gap))) / SECTIONS);
  const spacing = (width - AXIS - 24) / (points.length - 1);
  const worst = points.reduce((least, each) => (each.gap < least.gap ? each : least));
  const ends = [points[0], points[Math.floor(points.length / 2)], points.at(-1)];
  return (
    <View
      role="img"
      testID={`gap-plot-${valve}`}
      aria-label={`Least gap of the ${valve} valve against the place of the cam, from ${computedDegrees(points[0]?.moved ?? 0, 0)} to ${computedDegrees(points.at(-1)?.moved ?? 0, 0)} of advance. Smallest ${formatComputedLength(worst.gap, units)} at ${computedDegrees(worst.moved, 0)}.`}
    >
      <LineChart
        data={points.map(({ gap }) => ({ value: Math.max(0, inUnit(gap)) }))}
        width={width - AXIS}
        height={HEIGHT}
        spacing={spacing}
        initialSpacing={8}
        color={theme[valve]}
        thickness={2.4}
        hideDataPoints
        maxValue={SECTIONS * step}
        yAxisLabelWidth={AXIS}
        showReferenceLine1
        referenceLine1Position={inUnit(minimum)}
        referenceLine1Config={{ color: theme.danger, type: 'dashed', dashWidth: 6, dashGap: 4, thickness: 1.5 }}
        formatYLabel={(value) => (units === 'in' ? Number(value).toFixed(3) : Number(value).toFixed(1))}
      />
      <View
        aria-hidden
        className="flex-row justify-between"
        style={{ marginLeft: AXIS, width: spacing * (points.length - 1) + 24 }}
      >
        {ends.map((each, at) => (
          <Words key={at} look="soft">
            {`${(each?.moved ?? 0) > 0 ? '+' : ''}${computedDegrees(each?.moved ?? 0, 0)}`}
          </Words>
        ))}
      </View>
      <Words look="soft">{`Least gap (${units}) against the place of the cam, crank degrees of advance from where it stands; dashed: the least that is wanted.`}</Words>
    </View>
  );
}
