import { View } from 'react-native';
import { formatComputedLength, parseLength } from '@yosoku/core/units/length';
import { useDraft } from '@/store/use-draft';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { TextField } from '@/ui/text-field';
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
  const distance = parseLength(away, { family: 'dimension', unit: build.units });
  const tooFar = distance.ok && size.round !== null && distance.mm > size.round / 2;
  const trouble =
    away === ''
      ? undefined
      : !distance.ok
        ? distance.message
        : tooFar
          ? 'That is more than half-way round. Measure the short way.'
          : undefined;
  const ready = size.round !== null && distance.ok && !tooFar;
  const keep = (): void => {
    if (size.round === null || !distance.ok || tooFar) return;
    write('mark.checked', {
      replaces: crank.mark?.entry ?? null,
      part,
      round: size.round,
      distance: distance.mm,
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
      <TextField
        testID="mark-diameter"
        label="Diameter of the rim"
        value={draft.diameter ?? ''}
        onChange={(text) => change({ diameter: text })}
        inputMode="decimal"
        error={size.trouble}
        echo={size.echo}
      />
      <TextField
        testID="mark-distance"
        label="Along the rim from mark to pointer"
        value={away}
        onChange={(text) => change({ distance: text })}
        inputMode="decimal"
        error={trouble}
        echo={distance.ok && !tooFar ? distance.understood : undefined}
      />
      <Choice
        label="As the engine runs, the mark"
        options={SIDES}
        value={stands}
        onChange={(value) => change({ stands: value })}
      />
      <View className="items-start">
        <QuietButton testID="mark-keep" label="Save this check" disabled={!ready} onPress={keep} />
      </View>
    </View>
  );
}
