import { Link, useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { selectOwnWaiting } from '@/store/selectors';
import { signedOut } from '@/store/session-slice';
import { type ThemeChoice, themeChosen } from '@/store/settings-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { api, ask } from '@/sync/api';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Notice } from '@/ui/notice';
import { Page } from '@/ui/page';
import { Words } from '@/ui/words';
import { AddBuilder } from './add-builder';
import { BenchBoxes } from './bench-boxes';
import { ReadRule, ZeroRule } from './shop-rules';

const THEMES: readonly { readonly value: ThemeChoice; readonly label: string }[] = [
  { value: 'system', label: 'As the device' },
  { value: 'dye', label: 'Dye (dark)' },
  { value: 'sheet', label: 'Sheet (light)' },
];

interface Builder {
  readonly id: string;
  readonly name: string;
  readonly signInName: string;
  readonly role: string;
}

/** The shop: its builders, the look, and the way out. */
export function Shop() {
  const dispatch = useAppDispatch();
  const router = useRouter();
  const account = useAppSelector((state) => state.session.account);
  const theme = useAppSelector((state) => state.settings.theme);
  const waiting = useAppSelector(selectOwnWaiting).length;
  const [builders, setBuilders] = useState<readonly Builder[] | 'asking' | 'unreachable'>('asking');
  const [asked, setAsked] = useState(0);
  useEffect(() => {
    ask(api.builders.$get())
      .then((answer) => setBuilders(answer.builders))
      .catch(() => setBuilders('unreachable'));
  }, [asked]);
  const leave = async (): Promise<void> => {
    await ask(api.session.$delete()).catch(() => undefined);
    dispatch(signedOut());
    router.replace('/sign-in');
  };

  return (
    <Page title={account?.shopName ?? 'The shop'} back={{ href: '/', label: 'Builds' }}>
      <Choice
        label="Look"
        options={THEMES}
        value={theme}
        onChange={(value) => dispatch(themeChosen(value))}
        testID="theme"
      />
      <Link href="/hardware" testID="to-shelf" className="self-start py-2 font-medium text-[17px] text-brass">
        Timing hardware on the shelf
      </Link>
      <View>
        <Words look="heading" level={2} className="pb-1">
          Builders
        </Words>
        {builders === 'asking' ? (
          <Words look="soft">Fetching the builders.</Words>
        ) : builders === 'unreachable' ? (
          <Words look="soft">The server cannot be reached just now.</Words>
        ) : (
          builders.map((builder) => (
            <View key={builder.id} className="min-h-[44px] flex-row items-center gap-3 border-b border-hairline">
              <Words className="shrink grow">{builder.name}</Words>
              <Words look="soft">
                {builder.role === 'owner' ? `${builder.signInName} · owner` : builder.signInName}
              </Words>
            </View>
          ))
        )}
      </View>
      <ZeroRule />
      <ReadRule />
      {account?.role === 'owner' ? <AddBuilder onAdded={() => setAsked(asked + 1)} /> : null}
      <BenchBoxes />
      {waiting > 0 ? (
        <Notice
          kind="warning"
          message={`${waiting} entries wait on this device.`}
          remedy="They stay here when you sign out, and are sent the next time that somebody of this shop signs in on it."
        />
      ) : null}
      <View className="items-start">
        <QuietButton testID="sign-out" label={`Sign out ${account?.builderName ?? ''}`} onPress={() => void leave()} />
      </View>
    </Page>
  );
}
