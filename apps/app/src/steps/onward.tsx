import { View } from 'react-native';
import { useStation } from '@/logbook/station';
import { PrimaryButton } from '@/ui/buttons';
import { UndoButton } from '@/ui/undo-button';
import { useShortcuts } from '@/ui/use-shortcuts';

/** Nothing is left to read here: on to the next station, or the last reading back. */
export function Onward({ label, onNext }: { readonly label: string; readonly onNext: () => void }) {
  const { undo } = useStation();
  useShortcuts({ Enter: onNext, n: onNext, u: () => undo?.() });
  return (
    <View>
      <View className="flex-row justify-end px-4 wide:px-0">
        <UndoButton undo={undo} />
      </View>
      <PrimaryButton testID="next" label={label} onPress={onNext} />
    </View>
  );
}
