import { View } from 'react-native';
import { formatComputedLength } from '@yosoku/core/units/length';
import { useDraft } from '@/store/use-draft';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { LengthField } from '@/forms/length-field';
import { lengthIn, typedLengthOf } from '@/forms/typed-length';
import { Words } from '@/ui/words';
import { readDiameter } from './rim-size';
import { useStation } from '@/logbook/station';

const PARTS = [
  { value: 'balancer', label: 'Balancer' },
  { value: 'flywheel', label: 'Flywheel' },
] as const;
const SIDES = [
  { value: 'before', label: 'Has yet to come to it' },
  { value: 'after', label: 'Has gone by' },
] as const;

/** The engine's own TDC mark against true TDC: its error, where the new mark goes, and the spacing of a timing tape. */
export function MarkCheck() {
  const { report, write } = useStation();
  const { build, crank } = report;
  const { draft, change } = useDraft<'part' | 'diameter' | 'distance' | 'stands'>(`${build.id}/mark`);
  const part = draft.part === 'flywheel' ? 'flywheel' : 'balancer';
  const stands = draft.stands === 'before' ? 'before' : 'after';
  const size = readDiameter(draft.diameter ?? '', build.units);
  const away = draft.distance ?? '';
  const typed = typedLengthOf(away, {
    units: build.units,
    family: 'dimension',
    misfit: (mm) =>
      size.round !== null && mm > size.round / 2 ? 'That is more than half-way round. Measure the short way.' : null,
  });
  const distance = lengthIn(typed);
  const keep = (): void => {
    if (size.round === null || distance === null) return;
    write('mark.checked', {
      replaces: crank.mark?.entry ?? null,
      part,
      round: size.round,
      distance,
      stands,
    });
  };
  return (
    <View className="max-w-[640px] gap-3">
      <Words look="heading" level={2}>
        The engine’s own TDC mark
      </Words>
      {crank.mark ? (
        <View className="gap-1">
          <Words look="sentence" testID="mark-words">
            {crank.mark.words}
          </Words>
          <Words>{crank.mark.cure}</Words>
          <Words look="soft">
            {`Timing tape from the TDC mark: ${crank.mark.tape.map((line) => `${line.degrees}° at ${formatComputedLength(line.distance, build.units)}`).join(', ')}.`}
          </Words>
        </View>
      ) : (
        <Words look="soft">With the piston at true TDC, measure along the rim from the mark to its pointer.</Words>
      )}
      <Choice label="Part" options={PARTS} value={part} onChange={(value) => change({ part: value })} />
      <LengthField
        testID="mark-diameter"
        label="Diameter of the rim"
        text={draft.diameter ?? ''}
        typed={size.typed}
        onChange={(text) => change({ diameter: text })}
      />
      <LengthField
        testID="mark-distance"
        label="Along the rim from mark to pointer"
        text={away}
        typed={typed}
        onChange={(text) => change({ distance: text })}
      />
      <Choice
        label="As the engine runs, the mark"
        options={SIDES}
        value={stands}
        onChange={(value) => change({ stands: value })}
      />
      <View className="items-start">
        <QuietButton
          testID="mark-keep"
          label="Save this check"
          disabled={size.round === null || distance === null}
          onPress={keep}
        />
      </View>
    </View>
  );
}
