import { View } from 'react-native';
import type { Valve } from '@yosoku/core/cam/card';
import { parseLength } from '@yosoku/core/units/length';
import { useDraft } from '@/store/use-draft';
import { QuietButton } from '@/ui/buttons';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { useStation } from '@/logbook/station';
import { CLEARANCE } from '@yosoku/core/record/entries/limits';

/** Where it is usually measured, crank degrees past overlap TDC: it is tightest within these. Common practice, no source. */
const PLACES = [-15, -10, -5, 0, 5, 10, 15] as const;

interface GapTableProps {
  readonly valve: Valve;
}

const placeWords = (at: number): string => (at === 0 ? 'TDC' : `${Math.abs(at)}° ${at < 0 ? 'before' : 'after'}`);

/** Clearances as measured, at as many places as were; one is enough to carry it everywhere. */
export function GapTable({ valve }: GapTableProps) {
  const { report, write } = useStation();
  const { build, read } = report;
  const { draft, change, done } = useDraft(`${build.id}/gaps/${valve}`);
  const parsed = PLACES.map((at) => {
    const text = draft[String(at)] ?? '';
    const length = text.trim() === '' ? null : parseLength(text, { family: 'lift', unit: build.units });
    const trouble =
      length === null
        ? undefined
        : !length.ok
          ? length.message
          : length.mm > CLEARANCE.gap
            ? `${length.understood} is no clearance. Check the unit.`
            : undefined;
    return { at, text, length, trouble };
  });
  const good = parsed.filter(({ length, trouble }) => length?.ok && !trouble);
  const ready = good.length > 0 && parsed.every(({ trouble }) => !trouble);
  const record = (): void => {
    if (!ready) return;
    const trial = read.trial ?? write('trial.begun', { after: null });
    write('clearance.measured', {
      trial,
      cylinder: 1,
      valve,
      gaps: good.flatMap(({ at, length }) => (length?.ok ? [{ at, gap: length.mm }] : [])),
    });
    done();
  };
  return (
    <View className="gap-2">
      <Words look="soft">
        Turn to each place the way it runs and push the valve to its piston, or read the clay: type what is left. One
        place is enough; several show more. Cylinder 1.
      </Words>
      <View className="flex-row flex-wrap gap-x-4 gap-y-2">
        {parsed.map(({ at, text, length, trouble }) => (
          <View key={at} className="grow basis-[96px]">
            <TextField
              testID={`gap-${valve}-${at}`}
              label={placeWords(at)}
              value={text}
              inputMode="decimal"
              onChange={(typed) => change({ [String(at)]: typed })}
              error={trouble}
              echo={length?.ok && !trouble ? length.understood : undefined}
              onSubmitEditing={record}
            />
          </View>
        ))}
      </View>
      <View className="items-start">
        <QuietButton testID={`gaps-record-${valve}`} label="Record these" disabled={!ready} onPress={record} />
      </View>
    </View>
  );
}
