import { TextLink } from '@/ui/text-link';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { type Draft, draftsForgotten } from '@/store/drafts-slice';
import { selectOwnPhotosWaiting, selectOwnWaiting } from '@/store/selectors';
import { signedOut } from '@/store/session-slice';
import { type ThemeChoice, selectSettings, settingsChanged } from '@/store/settings-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { api, ask } from '@/sync/api';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Notice } from '@/ui/notice';
import { Page } from '@/ui/page';

import { BenchBoxes } from './bench-boxes';
import { Boards } from './boards';
import { Builders } from './builders';
import { Letterhead } from './letterhead';
import { OwnAccess } from './own-access';
import { ReadRule, ZeroRule } from './shop-rules';

const THEMES: readonly { readonly value: ThemeChoice; readonly label: string }[] = [
  { value: 'system', label: 'As the device' },
  { value: 'dye', label: 'Dye (dark)' },
  { value: 'sheet', label: 'Sheet (light)' },
];

const isTyped = (draft: Draft): boolean => Object.values(draft).some((value) => value.trim() !== '');

/** The shop: its builders, one's own access, the look, and the way out. */
export function Shop() {
  const dispatch = useAppDispatch();
  const router = useRouter();
  const account = useAppSelector((state) => state.session.account);
  const theme = useAppSelector(selectSettings).theme;
  const waiting = useAppSelector(selectOwnWaiting).length;
  const photos = useAppSelector(selectOwnPhotosWaiting).length;
  const drafts = useAppSelector((state) => Object.values(state.drafts).filter(isTyped).length);
  const [asking, setAsking] = useState(false);
  const leave = async (keepDrafts: boolean): Promise<void> => {
    await ask(api.session.$delete()).catch(() => undefined);
    if (!keepDrafts) dispatch(draftsForgotten());
    dispatch(signedOut());
    router.replace('/sign-in');
  };

  return (
    <Page title={account?.shopName ?? 'The shop'} back={{ href: '/', label: 'Builds' }}>
      <Choice
        label="Look"
        options={THEMES}
        value={theme}
        onChange={(value) => dispatch(settingsChanged({ theme: value }))}
        testID="theme"
      />
      <TextLink href="/hardware" testID="to-shelf" className="self-start py-2">
        Timing hardware on the shelf
      </TextLink>
      <TextLink href="/device" testID="to-device" className="self-start py-2">
        This device at the engine: voice, pedals, from afar
      </TextLink>
      <TextLink href="/phone" testID="to-phone" className="self-start py-2">
        A phone at the engine
      </TextLink>
      <OwnAccess />
      <Builders />
      <ZeroRule />
      <ReadRule />
      <Letterhead />
      <BenchBoxes />
      <Boards />
      {waiting + photos > 0 ? (
        <Notice
          kind="warning"
          message={`Not sent yet from this device: ${waiting} entries, ${photos} photos.`}
          remedy="They stay here when you sign out, and are sent the next time that somebody of this shop signs in on it."
        />
      ) : null}
      {asking ? (
        <Notice
          kind="warning"
          testID="half-typed"
          message={
            drafts === 1 ? 'Something is half typed on this device.' : `${drafts} things are half typed on this device.`
          }
          remedy="Whoever signs in next on it would see them."
        >
          <View className="flex-row flex-wrap gap-x-6">
            <QuietButton testID="sign-out-forget" label="Delete them and sign out" onPress={() => void leave(false)} />
            <QuietButton testID="sign-out-keep" label="Keep them and sign out" onPress={() => void leave(true)} />
          </View>
        </Notice>
      ) : (
        <View className="items-start">
          <QuietButton
            testID="sign-out"
            label={`Sign out ${account?.builderName ?? ''}`}
            onPress={() => (drafts > 0 ? setAsking(true) : void leave(false))}
          />
        </View>
      )}
    </Page>
  );
}
