import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { type Draft, draftsForgotten } from '@/store/drafts-slice';
import { selectOwnPhotosWaiting, selectOwnWaiting } from '@/store/selectors';
import { signedOut } from '@/store/session-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { api, ask } from '@/sync/api';
import { QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';

const isTyped = (draft: Draft): boolean => Object.values(draft).some((value) => value.trim() !== '');

/** The way out, and what stays on this device behind it. It stands above the lists of the shop: they arrive later, and what stands below them moves. */
export function SignOut() {
  const dispatch = useAppDispatch();
  const router = useRouter();
  const account = useAppSelector((state) => state.session.account);
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
    <>
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
        <View className="-ml-2 items-start">
          <QuietButton
            testID="sign-out"
            label={`Sign out ${account?.builderName ?? ''}`}
            onPress={() => (drafts > 0 ? setAsking(true) : void leave(false))}
          />
        </View>
      )}
    </>
  );
}
