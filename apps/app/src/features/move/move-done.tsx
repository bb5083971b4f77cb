import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { BodyOf } from '@yosoku/core/record/entry';
import { placeHref } from '@/shell/station-line';
import { leaningOn } from '@/findings/leaning';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Words } from '@/ui/words';
import { useStation } from '@/logbook/station';

type Move = NonNullable<BodyOf<'trial.begun'>['move']>;

interface MoveDoneProps {
  readonly move: Move;
  readonly note: string;
  /** Does this hardware take wheel or pointer off? */
  readonly wheelOff: boolean;
  readonly onCancel: () => void;
}

/** The move is made: that ends the trial. The zero stands unless wheel or pointer was touched, which the hardware foretells and the builder confirms. */
export function MoveDone({ move, note, wheelOff, onCancel }: MoveDoneProps) {
  const { report, write } = useStation();
  const router = useRouter();
  const { build, zero, read } = report;
  const begin = (touched: boolean): void => {
    // What was read until now stands: wheel and pointer were touched only afterwards.
    const keeps = leaningOn(report, zero.setting);
    write('trial.begun', { after: read.trial, note, move });
    if (touched && zero.setting) write('zero.disturbed', { setting: zero.setting, what: 'with-drive', keeps });
    router.replace(placeHref(build.id, touched ? 'zero' : 'prove'));
  };
  const touched = { testID: 'set-touched', label: 'Touched: find TDC again', onPress: () => begin(true) };
  const untouched = { testID: 'set-untouched', label: 'Not touched: prove it', onPress: () => begin(false) };
  const [likely, other] = wheelOff ? [touched, untouched] : [untouched, touched];
  return (
    <View className="gap-2 border-t border-hairline pt-3">
      <View className="gap-2 px-4 wide:px-0">
        <Words look="label">
          {wheelOff
            ? 'The degree wheel comes off for this. Was it, or the pointer, touched?'
            : 'Was the wheel, the pointer or what they are fixed to touched?'}
        </Words>
        <View className="flex-row flex-wrap justify-between gap-x-4">
          <QuietButton {...other} />
          <QuietButton label="Not yet" onPress={onCancel} />
        </View>
      </View>
      <PrimaryButton {...likely} />
    </View>
  );
}
