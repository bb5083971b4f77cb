import { View } from 'react-native';
import { rimDegrees, rimDistance } from '@yosoku/core/crank/rim';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { formatComputedLength } from '@yosoku/core/units/length';
import { useDraft } from '@/store/use-draft';
import { AngleField } from '@/forms/angle-field';
import { LengthField } from '@/forms/length-field';
import { typedLengthOf } from '@/forms/typed-length';
import { Words } from '@/ui/words';
import { readDiameter } from './rim-size';
import { useStation } from '@/logbook/station';

/** Events that a card gives as a distance on the flywheel's rim, and back. */
export function RimConversion() {
  const { report } = useStation();
  const { build } = report;
  const { draft, change } = useDraft<'diameter' | 'along' | 'angle'>(`${build.id}/rim-conversion`);
  const size = readDiameter(draft.diameter ?? '', build.units);
  const { round } = size;
  const along = typedLengthOf(draft.along ?? '', {
    units: build.units,
    family: 'dimension',
    misfit: (mm) => (round !== null && mm > round ? 'That is more than once round the rim.' : null),
  });
  return (
    <View className="max-w-[640px] gap-3">
      <Words look="heading" level={2}>
        Rim distance and degrees
      </Words>
      <LengthField
        testID="conversion-diameter"
        label="Diameter of balancer or flywheel"
        text={draft.diameter ?? ''}
        typed={size.typed}
        onChange={(text) => change({ diameter: text })}
      />
      <View className="flex-row gap-4">
        <View className="grow basis-0">
          <LengthField
            testID="conversion-along"
            label="Along the rim"
            text={draft.along ?? ''}
            typed={along}
            onChange={(text) => change({ along: text })}
            says={(mm, understood) =>
              round === null ? undefined : `${understood} is ${computedDegrees(rimDegrees(mm, round), 2)}`
            }
          />
        </View>
        <View className="grow basis-0">
          <AngleField
            testID="conversion-angle"
            label="Crank degrees"
            text={draft.angle ?? ''}
            most={360}
            onChange={(text) => change({ angle: text })}
            says={(angle) =>
              round === null ? undefined : formatComputedLength(rimDistance(angle, round), build.units)
            }
          />
        </View>
      </View>
    </View>
  );
}
