import { View } from 'react-native';
import { rimDegrees, rimDistance } from '@yosoku/core/crank/rim';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { formatComputedLength, parseLength } from '@yosoku/core/units/length';
import { useDraft } from '@/store/use-draft';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { readDiameter } from './rim-size';
import { useStation } from '@/logbook/station';

/** Events that a card gives as a distance on the flywheel's rim, and back. */
export function RimConversion() {
  const { report } = useStation();
  const { build } = report;
  const { draft, change } = useDraft<'diameter' | 'along' | 'angle'>(`${build.id}/rim-conversion`);
  const size = readDiameter(draft.diameter ?? '', build.units);
  const along = parseLength(draft.along ?? '', { family: 'dimension', unit: build.units });
  const angle = Number((draft.angle ?? '').replace(',', '.'));
  const angleGiven = (draft.angle ?? '').trim() !== '';
  const tooLong = along.ok && size.round !== null && along.mm > size.round;
  return (
    <View className="max-w-[640px] gap-3">
      <Words look="heading" level={2}>
        Rim distance and degrees
      </Words>
      <TextField
        testID="conversion-diameter"
        label="Diameter of balancer or flywheel"
        value={draft.diameter ?? ''}
        onChange={(text) => change({ diameter: text })}
        inputMode="decimal"
        error={size.trouble}
        echo={size.echo}
      />
      <View className="flex-row gap-4">
        <View className="grow basis-0">
          <TextField
            testID="conversion-along"
            label="Along the rim"
            value={draft.along ?? ''}
            onChange={(text) => change({ along: text })}
            inputMode="decimal"
            error={
              (draft.along ?? '') === ''
                ? undefined
                : !along.ok
                  ? along.message
                  : tooLong
                    ? 'That is more than once round the rim.'
                    : undefined
            }
            echo={
              along.ok && size.round !== null && !tooLong
                ? `${along.understood} is ${computedDegrees(rimDegrees(along.mm, size.round), 2)}`
                : undefined
            }
          />
        </View>
        <View className="grow basis-0">
          <TextField
            testID="conversion-angle"
            label="Crank degrees"
            value={draft.angle ?? ''}
            onChange={(text) => change({ angle: text })}
            inputMode="decimal"
            error={angleGiven && !(angle >= 0 && angle <= 360) ? 'Degrees from 0 to 360.' : undefined}
            echo={
              angleGiven && angle >= 0 && angle <= 360 && size.round !== null
                ? formatComputedLength(rimDistance(angle, size.round), build.units)
                : undefined
            }
          />
        </View>
      </View>
    </View>
  );
}
