import { View } from 'react-native';
import { splitInProportion } from '@yosoku/core/timing-set/two-marks';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { typedFigure } from '@/forms/typed-figure';
import { useDraft } from '@/store/use-draft';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { useStation } from '@/logbook/station';

const FIELDS = [
  ['specFirst', 'First mark, specified'],
  ['specSecond', 'Second mark, specified'],
  ['foundFirst', 'First mark, found'],
  ['foundSecond', 'Second mark, found'],
] as const;
type Field = (typeof FIELDS)[number][0];

/** Old engines with one vernier wheel and two marks that cannot both be met: the error split in proportion. */
export function TwoMarks() {
  const { report } = useStation();
  const { draft, change } = useDraft<Field>(`${report.build.id}/two-marks`);
  const of = (name: Field): number => typedFigure(draft[name] ?? '');
  const whole = FIELDS.every(([name]) => Number.isFinite(of(name)));
  const split = whole
    ? splitInProportion(
        { first: of('specFirst'), second: of('specSecond') },
        { first: of('foundFirst'), second: of('foundSecond') },
      )
    : null;
  return (
    <View className="gap-3">
      <Words look="soft">
        One wheel and two marks, one that grows as the other shrinks: their sum is ground into the cam. Both are scaled
        by found over specified, so that each is off by the same share.
      </Words>
      <View className="flex-row flex-wrap gap-4">
        {FIELDS.map(([name, label]) => (
          <View key={name} className="grow basis-[150px]">
            <TextField
              testID={`two-${name}`}
              label={label}
              value={draft[name] ?? ''}
              inputMode="decimal"
              onChange={(text) => change({ [name]: text })}
            />
          </View>
        ))}
      </View>
      {whole ? (
        <Words testID="two-marks" look="sentence" aria-live="polite">
          {split
            ? `Set the first to ${computedDegrees(split.first)} and the second to ${computedDegrees(split.second)}: the first ${computedDegrees(Math.abs(split.firstBy))} ${split.firstBy < 0 ? 'less' : 'more'} than it is.`
            : 'The two marks must add up to more than 0, specified and found.'}
        </Words>
      ) : null}
    </View>
  );
}
