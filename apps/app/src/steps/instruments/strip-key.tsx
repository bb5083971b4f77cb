import { Pressable, Text } from 'react-native';

interface StripKeyProps {
  readonly label: string;
  readonly says?: string;
  readonly strong?: boolean;
  readonly testID: string;
  readonly onPress: () => void;
}

/** A key in the line of an instrument. */
export function StripKey({ label, says = label, strong = false, testID, onPress }: StripKeyProps) {
  return (
    <Pressable
      role="button"
      testID={testID}
      aria-label={says}
      onPress={onPress}
      className={`min-h-[48px] justify-center px-3 active:opacity-70 ${strong ? 'bg-brass' : ''}`}
    >
      <Text className={`font-bold text-[17px] ${strong ? 'text-onBrass' : 'text-brass'}`}>{label}</Text>
    </Pressable>
  );
}
