import { type Ref, useId } from 'react';
import { TextInput, type TextInputProps, View } from 'react-native';
import { useTheme } from './theme';
import { Words } from './words';

interface TextFieldProps extends Pick<
  TextInputProps,
  'secureTextEntry' | 'autoComplete' | 'inputMode' | 'autoFocus' | 'onSubmitEditing' | 'onBlur' | 'numberOfLines'
> {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  /** What was understood, echoed back. */
  readonly echo?: string | undefined;
  readonly hint?: string | undefined;
  readonly error?: string | undefined;
  readonly testID?: string;
  /** The field itself, for whoever puts the cursor into it. */
  readonly ref?: Ref<TextInput>;
}

/** A labelled field. What is wrong stands below it, in words; what was understood, too. */
export function TextField({ label, value, onChange, echo, hint, error, testID, ...input }: TextFieldProps) {
  const { soft } = useTheme();
  const id = useId();
  const below = error ?? echo ?? hint;
  return (
    <View className="gap-1">
      <Words look="label" aria-hidden>
        {label}
      </Words>
      <TextInput
        {...input}
        testID={testID}
        value={value}
        onChangeText={onChange}
        aria-label={label}
        aria-invalid={error !== undefined}
        aria-describedby={below ? `${id}-below` : undefined}
        placeholderTextColor={soft}
        // A figure is typed anew rather than mended; a sentence is mended.
        selectTextOnFocus={input.inputMode !== undefined}
        multiline={input.numberOfLines !== undefined}
        autoCapitalize="none"
        autoCorrect={false}
        className={`min-h-[48px] border-b-2 bg-raised px-3 py-2 font-figures text-[19px] text-ink ${error ? 'border-danger' : 'border-line'}`}
        style={{ fontVariant: ['tabular-nums'] }}
      />
      {below ? (
        <Words
          id={`${id}-below`}
          look="soft"
          role={error ? 'alert' : undefined}
          tone={error ? 'danger' : echo ? 'ink' : 'soft'}
        >
          {below}
        </Words>
      ) : null}
    </View>
  );
}
