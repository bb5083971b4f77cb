import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { cutText } from '@yosoku/core/units/text';
import { placeHref } from '@/shell/station-line';
import { leaningOn } from '@/findings/leaning';
import { useDraft } from '@/store/use-draft';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { useStation } from '@/logbook/station';

interface NextTrialProps {
  readonly onDone: () => void;
}

const LONGEST_NOTE = 200;

/** The cam was moved: that ends the trial. The zero stands unless the wheel or the pointer was touched. */
export function NextTrial({ onDone }: NextTrialProps) {
  const { report, write } = useStation();
  const router = useRouter();
  const { build, zero, read } = report;
  const { draft, change, done } = useDraft<'text'>(`${build.id}/moved`);
  const { text: note = '' } = draft;
  const begin = (why: 'moved' | 'checked' = 'moved'): void => {
    const said = cutText(note.trim(), LONGEST_NOTE);
    write('trial.begun', { after: read.trial, ...(said ? { note: said } : {}), ...(why === 'checked' ? { why } : {}) });
    done();
    onDone();
  };
  return (
    <View className="gap-3 border-t border-hairline pt-3">
      <View className="gap-3 px-4 wide:px-0">
        <TextField
          testID="moved-note"
          label="What was changed on the drive"
          hint="For the sheet, like “crank gear on its +2 keyway”. May stay empty."
          value={note}
          onChange={(text) => change({ text })}
        />
        <Words>Was the wheel, the pointer or what they are fixed to touched?</Words>
        <View className="flex-row flex-wrap justify-between gap-x-4">
          <QuietButton
            testID="moved-touched"
            label="Touched: find TDC again"
            onPress={() => {
              // What was read until now stands: wheel and pointer were touched only afterwards.
              const keeps = leaningOn(report, zero.setting);
              begin();
              if (zero.setting) write('zero.disturbed', { setting: zero.setting, what: 'with-drive', keeps });
              router.replace(placeHref(build.id, 'zero'));
            }}
          />
          <QuietButton
            testID="moved-nothing"
            label="Nothing moved: only measure again"
            onPress={() => {
              begin('checked');
              router.replace(placeHref(build.id, 'read'));
            }}
          />
          <QuietButton label="Not yet" onPress={onDone} />
        </View>
      </View>
      <PrimaryButton
        testID="moved-untouched"
        label="Not touched: measure again"
        onPress={() => {
          begin();
          router.replace(placeHref(build.id, 'read'));
        }}
      />
    </View>
  );
}
