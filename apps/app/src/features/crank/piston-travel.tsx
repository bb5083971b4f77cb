import { useStation } from '@/logbook/station';
import { TextLink } from '@/ui/text-link';
import { View } from 'react-native';
import { LineChart, SECTIONS } from '@/pictures/line-chart';
import { niceStep } from '@/pictures/nice-step';
import {
  type SliderCrank,
  crankAngleAtDrop,
  crankZeroShift,
  dwellHalf,
  equalHeights,
  pistonDrop,
} from '@yosoku/core/crank/slider-crank';
import { USUAL_RESOLUTION } from '@yosoku/core/tdc/zero-uncertainty';
import { decimal } from '@yosoku/core/units/decimal';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { MM_PER_INCH, formatComputedLength, formatLength } from '@yosoku/core/units/length';
import { useStationWidth } from '@/shell/use-station-width';
import { useDraft } from '@/store/use-draft';
import { AngleField } from '@/forms/angle-field';
import { LengthField } from '@/forms/length-field';
import { typedLengthOf } from '@/forms/typed-length';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';

const SPAN = 30;
const STEP = 1;
const TICKS = [-30, -20, -10, 0, 10, 20, 30];
const AXIS = 46;
const HEIGHT = 190;
/** Room before the first point of the curve, and of a label under it, pixels. */
const BEFORE_FIRST = 4;
const LABEL = 34;

/** How the piston travels near the top: the curve, where an indicator sees no movement, and drop against degrees. */
export function PistonTravel() {
  const { report } = useStation();
  const { engine, units, instruments } = report.build;
  if (engine.stroke === null || engine.rod === null)
    return (
      <View className="gap-2">
        <Words look="heading" level={2}>
          Piston travel
        </Words>
        <Words look="soft">Stroke and rod are needed for it.</Words>
        <TextLink href={`/builds/${report.build.id}/engine`} className="py-2">
          Give stroke and rod
        </TextLink>
      </View>
    );
  const crank: SliderCrank = { stroke: engine.stroke, rod: engine.rod, pinOffset: engine.pinOffset ?? 0 };
  const resolution = instruments.resolution ?? USUAL_RESOLUTION[units];
  const dwell = dwellHalf(crank, resolution);
  const shift = crankZeroShift(crank);
  return (
    <View className="gap-3">
      <Words look="heading" level={2}>
        Piston travel
      </Words>
      <TravelChart crank={crank} units={units} dwell={dwell} />
      <Words look="soft" testID="dwell">
        {`An indicator of ${formatLength(resolution, units)} steps sees no movement for ${computedDegrees(dwell)} either side of the top: the bold part of the line. So the top is found half-way between two equal heights.`}
      </Words>
      {engine.pinOffset ? (
        <Words look="soft">
          {`With this pin offset the piston is highest ${computedDegrees(Math.abs(shift), 2)} ${shift > 0 ? 'after' : 'before'} the crankpin stands straight up, and at 0.050 in the middle of two equal heights is ${computedDegrees(Math.abs(equalHeights(crank, crankAngleAtDrop(crank, 1.27)?.after ?? 0).middle), 3)} off. Both are taken into account.`}
        </Words>
      ) : null}
      <DropAndDegrees crank={crank} />
    </View>
  );
}

function TravelChart({
  crank,
  units,
  dwell,
}: {
  readonly crank: SliderCrank;
  readonly units: 'in' | 'mm';
  readonly dwell: number;
}) {
  const theme = useTheme();
  const width = Math.min(useStationWidth() - 32, 640);
  const scale = units === 'in' ? MM_PER_INCH : 1;
  const places = units === 'in' ? 3 : 1;
  const angles = Array.from({ length: (2 * SPAN) / STEP + 1 }, (_, at) => at * STEP - SPAN);
  // The chart grows upward; the piston is shown as it stands, highest at the top.
  const deepest = Math.max(...angles.map((at) => pistonDrop(crank, at))) / scale;
  const bottom = SECTIONS * niceStep(deepest / SECTIONS);
  const points = angles.map((at) => ({ at, value: bottom - pistonDrop(crank, at) / scale }));
  const spacing = (width - AXIS - 16) / (points.length - 1);
  const data = points.map(({ value }) => ({ value }));
  const first = points.findIndex(({ at }) => at >= -dwell);
  const last = points.findLastIndex(({ at }) => at <= dwell);
  return (
    <View
      testID="travel-chart"
      role="img"
      aria-label={`Piston height from ${SPAN}° before to ${SPAN}° after TDC. It falls ${formatComputedLength(pistonDrop(crank, 10), units)} in the first 10° and ${formatComputedLength(pistonDrop(crank, SPAN), units)} in ${SPAN}°.`}
    >
      <LineChart
        data={data}
        data2={data}
        width={width - AXIS}
        height={HEIGHT}
        spacing={spacing}
        initialSpacing={BEFORE_FIRST}
        hideDataPoints1
        hideDataPoints2
        color1={theme.ink}
        thickness1={2}
        color2={theme.brass}
        thickness2={6}
        startIndex2={Math.max(0, first)}
        endIndex2={Math.max(0, last)}
        maxValue={bottom}
        yAxisLabelWidth={AXIS}
        formatYLabel={(value) => decimal(bottom - Number(value), places)}
      />
      <View
        aria-hidden
        className="flex-row justify-between"
        style={{ marginLeft: AXIS + BEFORE_FIRST - LABEL / 2, width: spacing * (points.length - 1) + LABEL }}
      >
        {TICKS.map((at) => (
          <Words key={at} look="soft" className="text-center" style={{ width: LABEL }}>
            {at === 0 ? 'TDC' : `${Math.abs(at)}°`}
          </Words>
        ))}
      </View>
      <Words look="soft">{`Below the top, ${units}, against crank degrees before and after TDC`}</Words>
    </View>
  );
}

function DropAndDegrees({ crank }: { readonly crank: SliderCrank }) {
  const { report } = useStation();
  const { units, id } = report.build;
  const { draft, change } = useDraft<'drop' | 'angle'>(`${id}/travel`);
  const drop = typedLengthOf(draft.drop ?? '', {
    units,
    family: 'lift',
    misfit: (mm) => (crankAngleAtDrop(crank, mm) ? null : 'That is more than the stroke.'),
  });
  return (
    <View className="max-w-[640px] flex-row gap-4">
      <View className="grow basis-0">
        <LengthField
          testID="travel-drop"
          label="Drop below the top"
          text={draft.drop ?? ''}
          typed={drop}
          onChange={(text) => change({ drop: text })}
          says={(mm, understood) => `${understood}: ${besideTop(crank, mm)}`}
        />
      </View>
      <View className="grow basis-0">
        <AngleField
          testID="travel-angle"
          label="Crank degrees from TDC"
          text={draft.angle ?? ''}
          most={180}
          onChange={(text) => change({ angle: text })}
          says={(angle) =>
            `${formatComputedLength(pistonDrop(crank, angle), units)} after, ${formatComputedLength(pistonDrop(crank, -angle), units)} before`
          }
        />
      </View>
    </View>
  );
}

/** Where the crank stands at a drop, on both sides of the top. */
function besideTop(crank: SliderCrank, drop: number): string {
  const at = crankAngleAtDrop(crank, drop);
  return at ? `${computedDegrees(-at.before, 2)} before, ${computedDegrees(at.after, 2)} after` : '';
}
