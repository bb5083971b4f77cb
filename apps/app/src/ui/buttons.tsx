import type { ReactNode } from 'react';
import { Pressable, Text, View } from 'react-native';

interface ButtonProps {
  readonly label: string;
  readonly onPress: () => void;
  readonly disabled?: boolean;
  readonly testID?: string;
}

/** The one thing to press on a screen: full width, brass. */
export function PrimaryButton({ label, onPress, disabled = false, testID }: ButtonProps) {
  return (
    <Pressable
      role="button"
      testID={testID}
      aria-disabled={disabled}
      disabled={disabled}
      onPress={onPress}
      className={`min-h-[60px] items-center justify-center px-4 py-2 ${disabled ? 'bg-raised' : 'bg-brass active:opacity-80'}`}
    >
      <Text className={`text-center font-bold text-[20px] ${disabled ? 'text-soft' : 'text-onBrass'}`}>{label}</Text>
    </Pressable>
  );
}

/** Something else that can be done here: words in brass. */
export function QuietButton({ label, onPress, disabled = false, icon, testID }: ButtonProps & { icon?: ReactNode }) {
  return (
    <Pressable
      role="button"
      testID={testID}
      aria-disabled={disabled}
      disabled={disabled}
      onPress={onPress}
      className="min-h-[44px] max-w-full flex-row items-center justify-center gap-2 px-2 active:opacity-70"
    >
      {icon ? <View aria-hidden>{icon}</View> : null}
      <Text className={`shrink text-center font-medium text-[17px] ${disabled ? 'text-soft' : 'text-brass'}`}>
        {label}
      </Text>
    </Pressable>
  );
}
