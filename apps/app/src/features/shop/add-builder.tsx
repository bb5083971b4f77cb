import { useState } from 'react';
import { View } from 'react-native';
import { NewPassword } from '@/forms/new-password';
import { useAppSelector } from '@/store/store';
import { api, ask } from '@/sync/api';
import { useAttempt } from '@/sync/use-attempt';
import { QuietButton } from '@/ui/buttons';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

const EMPTY = { builderName: '', signInName: '', password: '' };
const FIELDS = [
  ['builderName', 'Name'],
  ['signInName', 'Sign-in name'],
] as const;

/** The owner lets another builder in. */
export function AddBuilder({ onAdded }: { readonly onAdded: () => void }) {
  const shopName = useAppSelector((state) => state.session.account?.shopName ?? '');
  const [open, setOpen] = useState(false);
  const [values, setValues] = useState(EMPTY);
  const { trouble, attempt } = useAttempt();
  const send = async (): Promise<void> => {
    if (!(await attempt(() => ask(api.builders.$post({ json: values }))))) return;
    setValues(EMPTY);
    setOpen(false);
    onAdded();
  };
  if (!open)
    return (
      <View className="items-start">
        <QuietButton testID="add-builder" label="Add a builder" onPress={() => setOpen(true)} />
      </View>
    );
  return (
    <View className="gap-4 border-l-4 border-hairline pl-4">
      {FIELDS.map(([name, label]) => (
        <TextField
          key={name}
          testID={`builder-${name}`}
          label={label}
          value={values[name]}
          onChange={(value) => setValues({ ...values, [name]: value })}
          autoComplete="off"
          error={trouble?.fields[name]}
        />
      ))}
      <NewPassword
        testID="builder-password"
        label="First password"
        value={values.password}
        onChange={(password) => setValues({ ...values, password })}
        names={[shopName, values.builderName, values.signInName]}
        error={trouble?.fields.password}
      />
      {trouble && Object.keys(trouble.fields).length === 0 ? (
        <Words role="alert" tone="danger">
          {trouble.message}
        </Words>
      ) : null}
      <View className="flex-row gap-6">
        <QuietButton testID="builder-save" label="Add" onPress={() => void send()} />
        <QuietButton label="Cancel" onPress={() => setOpen(false)} />
      </View>
    </View>
  );
}
