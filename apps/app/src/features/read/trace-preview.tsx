import { View } from 'react-native';
import type { TraceCurve } from '@yosoku/core/cam/trace';
import { type LengthUnit, formatComputedLength } from '@yosoku/core/units/length';
import { useStation } from '@/logbook/station';
import { CycleRibbon } from '@/pictures/cycle-ribbon';
import { useStationWidth } from '@/shell/use-station-width';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import type { Import } from './use-trace-import';

/** What was understood of it, before anything is kept. */
export function Preview({ taken: { points, trace, lobe } }: { readonly taken: Import }) {
  const { report } = useStation();
  const { build, card } = report;
  const width = Math.min(useStationWidth() - 32, 680);
  if (!points?.ok || !trace) return null;
  const lobes = { intake: null, exhaust: null } as const;
  return (
    <View className="gap-2" testID="trace-preview">
      {points.notes.map((note) => (
        <Words key={note} look="soft">
          {note}
        </Words>
      ))}
      {trace.ok ? (
        <>
          <Words look="sentence">{`Peak lift ${formatComputedLength(trace.curve.peak, build.units)}, ${points.points.length} points.`}</Words>
          {remarksOn(trace.curve, build.units).map((remark) => (
            <Words key={remark} look="soft">
              {remark}
            </Words>
          ))}
          <CycleRibbon
            card={{ ...lobes, [lobe.valve]: lobe.counted === 'from-zero' ? card.lobes[lobe.valve] : null }}
            measured={{ ...lobes, [lobe.valve]: samples(trace.curve) }}
            units={build.units}
            width={width}
            description="The trace as it was understood."
          />
        </>
      ) : (
        <Notice
          kind="warning"
          testID="trace-problem"
          message={trace.problem.message}
          remedy={`${trace.problem.remedy} It can be kept, but nothing is worked out from it.`}
        />
      )}
    </View>
  );
}

/** A zero off the base circle by less than this is the indicator's own, mm. */
const ZERO_STANDS = 0.004;

/** What was taken off, and what was left out of the curve. */
function remarksOn({ zeroOff, strays }: TraceCurve, units: LengthUnit): string[] {
  const off = `It stood at ${formatComputedLength(Math.abs(zeroOff), units)} ${zeroOff < 0 ? 'below' : 'above'} 0 on the base circle: taken off.`;
  const lie = strays.length === 1 ? 'One point lies' : `${strays.length} points lie`;
  return [
    ...(Math.abs(zeroOff) > ZERO_STANDS ? [off] : []),
    ...(strays.length > 0
      ? [`${lie} off the neighbours: the curve goes without, and asks about it when it is kept.`]
      : []),
  ];
}

/** The curve to draw, with its nose in the cycle. */
function samples(curve: {
  readonly from: number;
  readonly to: number;
  readonly nose: number;
  readonly lift: (at: number) => number;
}) {
  const shift = -Math.round(curve.nose / 360) * 360;
  return Array.from({ length: Math.floor((curve.to - curve.from) / 4) + 1 }, (_, i): [number, number] => {
    const at = curve.from + i * 4;
    return [at + shift, Math.max(0, curve.lift(at))];
  });
}
