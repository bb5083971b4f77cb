import ChevronDown from 'lucide-react-native/icons/chevron-down';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { type ReactNode, useState } from 'react';
import { Pressable, Text, View } from 'react-native';
import { useTheme } from './theme';

/** What most builders can pass over, folded away under its name. */
export function More({
  label,
  children,
  testID,
}: {
  readonly label: string;
  readonly children: ReactNode;
  readonly testID?: string;
}) {
  const [open, setOpen] = useState(false);
  const { brass } = useTheme();
  const Sign = open ? ChevronDown : ChevronRight;
  return (
    <View className="gap-5 border-t border-hairline pt-2">
      <Pressable
        role="button"
        testID={testID}
        aria-expanded={open}
        onPress={() => setOpen(!open)}
        className="min-h-[44px] flex-row items-center gap-2 active:opacity-70"
      >
        <Sign size={18} color={brass} />
        <Text className="shrink font-medium text-[17px] text-brass">{label}</Text>
      </Pressable>
      {open ? children : null}
    </View>
  );
}
