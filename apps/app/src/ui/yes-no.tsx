import { View } from 'react-native';
import { Choice } from './choice';

const ANSWERS = [
  { value: 'yes', label: 'Yes' },
  { value: 'no', label: 'No' },
] as const;

interface YesNoProps {
  readonly label: string;
  readonly value: boolean;
  readonly onChange: (value: boolean) => void;
  readonly testID?: string;
}

/** A question with two answers, as wide as its row has room. */
export const YesNo = ({ label, value, onChange, testID }: YesNoProps) => (
  <View className="grow basis-[150px]">
    <Choice
      label={label}
      options={ANSWERS}
      value={value ? 'yes' : 'no'}
      onChange={(answer) => onChange(answer === 'yes')}
      {...(testID ? { testID } : {})}
    />
  </View>
);
