import { Pressable, Text, View } from 'react-native';
import { Words } from './words';

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly hideLabel?: boolean;
  readonly options: readonly { readonly value: T; readonly label: string }[];
  readonly value: T | undefined;
  readonly onChange: (value: T) => void;
  readonly hint?: string;
  readonly testID?: string;
}

/** One of a few, all in sight. */
export function Choice<T extends string>({
  label,
  hideLabel = false,
  options,
  value,
  onChange,
  hint,
  testID,
}: ChoiceProps<T>) {
  return (
    <View className="gap-1">
      {hideLabel ? null : <Words look="label">{label}</Words>}
      <View role="radiogroup" aria-label={label} testID={testID} className="flex-row flex-wrap border border-line">
        {options.map((option) => {
          const chosen = option.value === value;
          return (
            <Pressable
              key={option.value}
              role="radio"
              aria-checked={chosen}
              onPress={() => onChange(option.value)}
              className={`min-h-[48px] grow basis-0 items-center justify-center px-2 py-1 ${chosen ? 'bg-ink' : ''}`}
            >
              <Text className={`text-center font-medium text-[16px] ${chosen ? 'text-ground' : 'text-ink'}`}>
                {option.label}
              </Text>
            </Pressable>
          );
        })}
      </View>
      {hint ? <Words look="soft">{hint}</Words> : null}
    </View>
  );
}
