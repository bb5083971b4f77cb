import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { api, ask } from '@/sync/api';
import { PrimaryButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { Page } from '@/ui/page';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { NewPassword } from '@/forms/new-password';
import { useSignIn } from './use-sign-in';

const EMPTY = { code: '', shopName: '', builderName: '', signInName: '', password: '' };
type Field = keyof typeof EMPTY;

/** The first visit: the owner opens the shop against the one-time code in the terminal. */
export function SetUp() {
  const router = useRouter();
  const [values, setValues] = useState(EMPTY);
  const { busy, trouble, open } = useSignIn();
  const submit = async (): Promise<void> => {
    if (await open(() => ask(api.setup.$post({ json: values })))) router.replace('/');
  };
  const field = (name: Field, label: string, hint?: string) => (
    <TextField
      testID={`setup-${name}`}
      label={label}
      value={values[name]}
      onChange={(value) => setValues({ ...values, [name]: value })}
      autoComplete={name === 'signInName' ? 'username' : 'off'}
      hint={hint}
      error={trouble?.fields[name]}
    />
  );
  return (
    <Page title="Set up the shop">
      <Words>This is the first visit. The code stands in the terminal where Yosoku was started.</Words>
      <View className="gap-4">
        {field('code', 'Code from the terminal')}
        {field('shopName', 'Name of the shop')}
        {field('builderName', 'Your name')}
        {field('signInName', 'Sign-in name', 'Small letters and digits, like “mara”.')}
        <NewPassword
          testID="setup-password"
          label="Password"
          value={values.password}
          onChange={(password) => setValues({ ...values, password })}
          names={[values.shopName, values.builderName, values.signInName]}
          error={trouble?.fields.password}
        />
        {trouble && Object.keys(trouble.fields).length === 0 ? (
          <Notice kind="danger" message={trouble.message} />
        ) : null}
      </View>
      <PrimaryButton
        testID="setup"
        label={busy ? 'Opening the shop' : 'Open the shop'}
        disabled={busy}
        onPress={() => void submit()}
      />
    </Page>
  );
}
