import { View } from 'react-native';
import { signed } from '@yosoku/core/timing-set/kinds/kind';
import type { Report } from '@yosoku/core/report/report';
import { typedFigure } from '@/forms/typed-figure';
import { useDraft } from '@/store/use-draft';
import { QuietButton } from '@/ui/buttons';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { useStation } from '@/logbook/station';

interface PhaserAngleProps {
  readonly part: Report['drive']['parts'][number];
}

const FURTHEST = 360;
/** The fields, by what they are called in a draft. */
const DRAFTED = { nominal: 'nominal', allowed: 'allowed', shows: 'shows', 'set-to': 'setTo' } as const;

/** A nominal that the phaser has no place for. */
function outsideScale(hardware: PhaserAngleProps['part']['hardware'], typed: string): string | undefined {
  const value = typedFigure(typed);
  if (hardware.kind !== 'phaser' || Number.isNaN(value) || (value >= hardware.from && value <= hardware.to))
    return undefined;
  return `Its scale runs from ${signed(hardware.from)} to ${signed(hardware.to)}.`;
}

/** A phaser read in its maker's own scale: nominal and measured, the correction with its sign, and what to set with the drive loose. */
export function PhaserAngle({ part }: PhaserAngleProps) {
  const { report, write } = useStation();
  // Twin cams have one each on the same screen.
  const of = part.cam === 'all' ? '' : `-${part.cam}`;
  const { build, read } = report;
  const { draft, change, done } = useDraft<(typeof DRAFTED)[keyof typeof DRAFTED]>(`${build.id}/angle/${part.part}`);
  const {
    nominal = part.angle ? String(part.angle.nominal) : '',
    allowed = part.angle?.tolerance == null ? '' : String(part.angle.tolerance),
    shows = '',
    setTo = '',
  } = draft;
  const wrong = (typed: string): string | undefined =>
    typed.trim() === '' || Math.abs(typedFigure(typed)) <= FURTHEST
      ? undefined
      : 'A figure of its scale, with its sign.';
  const allowedTrouble =
    allowed.trim() === '' || (typedFigure(allowed) > 0 && typedFigure(allowed) <= 90)
      ? undefined
      : 'More than 0: how far from the nominal it may be, either way.';
  const nominalTrouble = wrong(nominal) ?? outsideScale(part.hardware, nominal);
  const ready =
    nominalTrouble === undefined &&
    allowedTrouble === undefined &&
    [nominal, shows].every((typed) => Math.abs(typedFigure(typed)) <= FURTHEST) &&
    wrong(setTo) === undefined;
  const keep = (): void => {
    if (!ready || read.trial === null) return;
    write('phaser.read', {
      trial: read.trial,
      part: part.part,
      nominal: typedFigure(nominal),
      ...(allowed.trim() === '' ? {} : { tolerance: typedFigure(allowed) }),
      shows: typedFigure(shows),
      ...(setTo.trim() === '' ? {} : { setTo: typedFigure(setTo) }),
    });
    done();
  };
  const fields = [
    { name: 'nominal', label: 'Nominal', value: nominal, error: nominalTrouble },
    { name: 'allowed', label: '± allowed', value: allowed, error: allowedTrouble },
    { name: 'shows', label: 'Measured', value: shows, error: wrong(shows) },
    { name: 'set-to', label: 'Had been set to', value: setTo, error: wrong(setTo) },
  ] as const;
  return (
    <View className="gap-2 border-t border-hairline pt-2" testID="phaser">
      <Words look="label">{`${part.name}: its own angle`}</Words>
      {part.angle ? (
        <Words testID="phaser-words" aria-live="polite">
          {part.angle.words}
        </Words>
      ) : (
        <Words look="soft">
          Turn the crank two full turns the way it runs, then read the angle in the maker’s own scale.
        </Words>
      )}
      <View className="flex-row flex-wrap gap-x-4 gap-y-2">
        {fields.map(({ name, label, value, error }) => (
          <View key={name} className="grow basis-[120px]">
            <TextField
              testID={`phaser-${name}${of}`}
              label={label}
              value={value}
              onChange={(text) => change({ [DRAFTED[name]]: text })}
              error={error}
              onSubmitEditing={keep}
            />
          </View>
        ))}
      </View>
      <Words look="soft">
        Clamped at 0 when the drive was tightened: 0. Empty where nobody knows. With what the manual allows, the cam is
        judged by its angle, crank at its locking pin.
      </Words>
      <View className="items-start">
        <QuietButton testID={`phaser-keep${of}`} label="Record this angle" disabled={!ready} onPress={keep} />
      </View>
    </View>
  );
}
