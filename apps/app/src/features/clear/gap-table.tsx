import { View } from 'react-native';
import type { Valve } from '@yosoku/core/cam/card';
import { LengthField } from '@/forms/length-field';
import { typedLengthOf } from '@/forms/typed-length';
import { useDraft } from '@/store/use-draft';
import { QuietButton } from '@/ui/buttons';
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
  const places = PLACES.map((at) => {
    const text = draft[String(at)] ?? '';
    const typed = typedLengthOf(text, {
      units: build.units,
      family: 'lift',
      misfit: (mm, understood) => (mm > CLEARANCE.gap ? `${understood} is no clearance. Check the unit.` : null),
    });
    return { at, text, typed };
  });
  const gaps = places.flatMap(({ at, typed }) => (typed.state === 'good' ? [{ at, gap: typed.mm }] : []));
  const ready = gaps.length > 0 && places.every(({ typed }) => typed.state !== 'wrong');
  const record = (): void => {
    if (!ready) return;
    const trial = read.trial ?? write('trial.begun', { after: null });
    write('clearance.measured', { trial, cylinder: 1, valve, gaps });
    done();
  };
  return (
    <View className="gap-2">
      <Words look="soft">
        Turn to each place the way it runs and push the valve to its piston, or read the clay: type what is left. One
        place is enough; several show more. Cylinder 1.
      </Words>
      <View className="flex-row flex-wrap gap-x-4 gap-y-2">
        {places.map(({ at, text, typed }) => (
          <View key={at} className="grow basis-[96px]">
            <LengthField
              testID={`gap-${valve}-${at}`}
              label={placeWords(at)}
              text={text}
              typed={typed}
              onChange={(next) => change({ [String(at)]: next })}
              onSubmit={record}
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
