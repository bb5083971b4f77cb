import { Pressable, Text, View } from 'react-native';
import { useRoomy } from './layout';
import { Words } from './words';

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly hideLabel?: boolean;
  readonly options: readonly { readonly value: T; readonly label: string }[];
  readonly value: T | undefined;
  readonly onChange: (value: T) => void;
  readonly hint?: string;
  readonly testID?: string;
  /** A line each: for many, or for long names. */
  readonly lines?: boolean;
}

/** Where there is little room, more than these stand under each other. */
const MOST_BESIDE = 3;

/** One of some, all in sight. */
export function Choice<T extends string>({
  label,
  hideLabel = false,
  options,
  value,
  onChange,
  hint,
  testID,
  lines: asLines = false,
}: ChoiceProps<T>) {
  const lines = (!useRoomy() && options.length > MOST_BESIDE) || asLines;
  return (
    <View className="gap-1">
      {hideLabel ? null : <Words look="label">{label}</Words>}
      <View
        role="radiogroup"
        aria-label={label}
        testID={testID}
        className={`border border-line ${lines ? '' : 'flex-row flex-wrap'}`}
      >
        {options.map((option) => {
          const chosen = option.value === value;
          return (
            <Pressable
              key={option.value}
              role="radio"
              aria-checked={chosen}
              onPress={() => onChange(option.value)}
              className={`min-h-[48px] justify-center py-1 ${lines ? 'px-4' : 'grow basis-0 items-center px-2'} ${chosen ? 'bg-ink' : ''}`}
            >
              <Text
                className={`font-medium text-[16px] ${lines ? '' : 'text-center'} ${chosen ? 'text-ground' : 'text-ink'}`}
              >
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
