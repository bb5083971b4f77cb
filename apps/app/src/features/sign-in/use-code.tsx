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

const EMPTY = { signInName: '', code: '', password: '' };

/** A new password against a one-time code from the owner, or from the machine that Yosoku runs on. */
export function UseCode() {
  const router = useRouter();
  const [values, setValues] = useState(EMPTY);
  const { busy, trouble, open } = useSignIn();
  const submit = async (): Promise<void> => {
    if (await open(() => ask(api.session.code.$post({ json: values })))) router.replace('/');
  };
  const field = (name: 'signInName' | 'code', label: string) => (
    <TextField
      testID={`code-${name}`}
      label={label}
      value={values[name]}
      onChange={(value) => setValues({ ...values, [name]: value })}
      autoComplete={name === 'signInName' ? 'username' : 'one-time-code'}
      error={trouble?.fields[name]}
    />
  );
  return (
    <Page title="Choose a new password" back={{ href: '/sign-in', label: 'Sign in' }}>
      <Words>
        The owner of the shop gives you a code, on the page of the shop. The owner gets one on the machine that Yosoku
        runs on: npm run let-in -- and the sign-in name.
      </Words>
      <View className="gap-4">
        {field('signInName', 'Sign-in name')}
        {field('code', 'Code')}
        <NewPassword
          testID="code-password"
          label="New password"
          value={values.password}
          onChange={(password) => setValues({ ...values, password })}
          names={[values.signInName]}
          error={trouble?.fields.password}
        />
        {trouble && Object.keys(trouble.fields).length === 0 ? (
          <Notice kind="danger" testID="code-trouble" message={trouble.message} />
        ) : null}
      </View>
      <PrimaryButton
        testID="use-code"
        label={busy ? 'Signing in' : 'Set it and sign in'}
        disabled={busy}
        onPress={() => void submit()}
      />
    </Page>
  );
}
