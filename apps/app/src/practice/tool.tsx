import { Pressable, Text } from 'react-native';

interface ToolProps {
  readonly label: string;
  readonly says?: string;
  readonly chosen?: boolean;
  readonly testID: string;
  readonly onPress: () => void;
}

/** Something that hands can do at a practice engine. */
export function Tool({ label, says = label, chosen = false, testID, onPress }: ToolProps) {
  return (
    <Pressable
      role="button"
      testID={testID}
      aria-label={says}
      aria-pressed={chosen}
      onPress={onPress}
      className={`min-h-[46px] grow items-center justify-center px-2 active:bg-raised ${chosen ? 'bg-brass' : ''}`}
    >
      <Text className={`font-medium text-[16px] ${chosen ? 'text-onBrass' : 'text-brass'}`}>{label}</Text>
    </Pressable>
  );
}
