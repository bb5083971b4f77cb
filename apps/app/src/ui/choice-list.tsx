import { Pressable, Text, View } from 'react-native';
import { Words } from './words';

interface ChoiceListProps<T extends string> {
  readonly label: string;
  readonly options: readonly { readonly value: T; readonly label: string }[];
  readonly value: T | undefined;
  readonly onChange: (value: T) => void;
  readonly hint?: string;
  readonly testID?: string;
}

/** One of many, or of some with long names: a line each. */
export function ChoiceList<T extends string>({ label, options, value, onChange, hint, testID }: ChoiceListProps<T>) {
  return (
    <View className="gap-1">
      <Words look="label">{label}</Words>
      <View role="radiogroup" aria-label={label} testID={testID} className="border border-line">
        {options.map((option) => {
          const chosen = option.value === value;
          return (
            <Pressable
              key={option.value}
              role="radio"
              testID={testID ? `${testID}-${option.value}` : undefined}
              aria-checked={chosen}
              onPress={() => onChange(option.value)}
              className={`min-h-[48px] justify-center px-4 py-1 ${chosen ? 'bg-ink' : ''}`}
            >
              <Text className={`font-medium text-[17px] ${chosen ? 'text-ground' : 'text-ink'}`}>{option.label}</Text>
            </Pressable>
          );
        })}
      </View>
      {hint ? <Words look="soft">{hint}</Words> : null}
    </View>
  );
}
