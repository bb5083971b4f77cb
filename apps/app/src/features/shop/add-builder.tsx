import { useState } from 'react';
import { View } from 'react-native';
import { Refusal, api, ask } from '@/sync/api';
import { QuietButton } from '@/ui/buttons';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

const EMPTY = { builderName: '', signInName: '', password: '' };
type Field = keyof typeof EMPTY;
const FIELDS: readonly (readonly [Field, string])[] = [
  ['builderName', 'Name'],
  ['signInName', 'Sign-in name'],
  ['password', 'First password, at least 10 characters'],
];

/** The owner lets another builder in. */
export function AddBuilder({ onAdded }: { readonly onAdded: () => void }) {
  const [open, setOpen] = useState(false);
  const [values, setValues] = useState(EMPTY);
  const [trouble, setTrouble] = useState<Refusal | 'unreachable' | null>(null);
  const send = async (): Promise<void> => {
    try {
      await ask(api.builders.$post({ json: values }));
      setValues(EMPTY);
      setTrouble(null);
      setOpen(false);
      onAdded();
    } catch (error) {
      setTrouble(error instanceof Refusal ? error : 'unreachable');
    }
  };
  if (!open)
    return (
      <View className="items-start">
        <QuietButton testID="add-builder" label="Add a builder" onPress={() => setOpen(true)} />
      </View>
    );
  const fieldError = (name: Field): string | undefined =>
    trouble instanceof Refusal ? trouble.fields.find(({ field }) => field === name)?.message : undefined;
  const general =
    trouble === 'unreachable'
      ? 'The server cannot be reached. Try again.'
      : trouble && trouble.fields.length === 0
        ? trouble.detail
        : null;
  return (
    <View className="gap-4 border-l-4 border-hairline pl-4">
      {FIELDS.map(([name, label]) => (
        <TextField
          key={name}
          testID={`builder-${name}`}
          label={label}
          value={values[name]}
          onChange={(value) => setValues({ ...values, [name]: value })}
          secureTextEntry={name === 'password'}
          autoComplete={name === 'password' ? 'new-password' : 'off'}
          error={fieldError(name)}
        />
      ))}
      {general ? (
        <Words role="alert" tone="danger">
          {general}
        </Words>
      ) : null}
      <View className="flex-row gap-6">
        <QuietButton testID="builder-save" label="Add" onPress={() => void send()} />
        <QuietButton label="Leave it" onPress={() => setOpen(false)} />
      </View>
    </View>
  );
}
