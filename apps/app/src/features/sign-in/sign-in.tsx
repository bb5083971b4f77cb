import { TextLink } from '@/ui/text-link';
import { Redirect, useRouter } from 'expo-router';
import { useEffect, useEffectEvent, useLayoutEffect, useRef, useState } from 'react';
import { type TextInput, View } from 'react-native';
import { type FirstTyped, takeOverFirstForm } from '@/shell/first-form';
import { useAppSelector } from '@/store/store';
import { api, ask } from '@/sync/api';
import { PrimaryButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { Page } from '@/ui/page';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { useSignIn } from './use-sign-in';

/** Sign-in. On a server without a shop it leads to setting one up. */
export function SignIn() {
  const router = useRouter();
  const { account, lapsed } = useAppSelector((state) => state.session);
  const [signInName, setSignInName] = useState('');
  const [password, setPassword] = useState('');
  const [setupNeeded, setSetupNeeded] = useState(false);
  const { busy, trouble, open } = useSignIn();
  const nameField = useRef<TextInput>(null);
  const passwordField = useRef<TextInput>(null);
  useEffect(() => {
    ask(api.setup.$get())
      .then(({ needed }) => setSetupNeeded(needed))
      .catch(() => setSetupNeeded(false));
  }, []);
  const submit = async (typed = { signInName, password }): Promise<void> => {
    if (await open(() => ask(api.session.$post({ json: typed })))) router.replace('/');
  };
  const goOnFrom = useEffectEvent((first: FirstTyped) => {
    setSignInName(first.signInName);
    setPassword(first.password);
    if (first.at) (first.at === 'password' ? passwordField : nameField).current?.focus();
    if (first.sent) void submit({ signInName: first.signInName, password: first.password });
  });
  // Before anything is drawn: no key falls between the two forms.
  useLayoutEffect(() => takeOverFirstForm((first) => goOnFrom(first)), []);
  if (setupNeeded) return <Redirect href="/setup" />;
  if (account && !lapsed) return <Redirect href="/" />;

  return (
    <Page title="Yosoku">
      <Words>True TDC, the cam against its card, and which way to move it.</Words>
      {lapsed ? (
        <Notice
          kind="warning"
          message="Your sign-in has expired."
          remedy="Nothing is lost: what waits on this device is sent when you have signed in again."
        />
      ) : null}
      <View className="gap-4">
        <TextField
          testID="sign-in-name"
          ref={nameField}
          label="Sign-in name"
          value={signInName}
          onChange={setSignInName}
          autoComplete="username"
          error={trouble?.fields.signInName}
        />
        <TextField
          testID="password"
          ref={passwordField}
          label="Password"
          value={password}
          onChange={setPassword}
          secureTextEntry
          autoComplete="current-password"
          onSubmitEditing={() => void submit()}
          error={trouble?.fields.password}
        />
        {trouble && Object.keys(trouble.fields).length === 0 ? (
          <Notice kind="danger" testID="sign-in-trouble" message={trouble.message} />
        ) : null}
      </View>
      <PrimaryButton
        testID="sign-in"
        label={busy ? 'Signing in' : 'Sign in'}
        disabled={busy}
        onPress={() => void submit()}
      />
      <TextLink href="/code" testID="to-code" className="self-start py-2">
        I have a code for a new password
      </TextLink>
    </Page>
  );
}
