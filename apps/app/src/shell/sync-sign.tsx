import { Link } from 'expo-router';
import { Pressable } from 'react-native';
import { triedAgain } from '@/store/outbox-slice';
import { photosTriedAgain } from '@/store/photos-slice';
import { selectOwnPhotosWaiting, selectOwnWaiting } from '@/store/selectors';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Words } from '@/ui/words';

/** A quiet sign: is everything kept by the server, and if not, why. */
export function SyncSign() {
  const dispatch = useAppDispatch();
  const waiting = useAppSelector(selectOwnWaiting);
  const lapsed = useAppSelector((state) => state.session.lapsed);
  const reachable = useAppSelector((state) => state.outbox.reachable);
  const isWriting = useAppSelector(({ outbox }) => outbox.unwritten.length > 0);
  const unkept = useAppSelector((state) => state.outbox.unkept);
  const photos = useAppSelector(selectOwnPhotosWaiting);
  const all = [...waiting, ...photos];
  const refused = all.filter((each) => each.refused !== undefined);
  const count = all.length - refused.length;
  const tryAgain = (): void => {
    dispatch(triedAgain());
    dispatch(photosTriedAgain());
  };
  // What is counted stands on this device. Until it does nobody should be told that the page can be left.
  const kept = isWriting ? 'Saving' : count === 0 ? 'Saved' : `${count} not sent yet`;

  if (lapsed)
    return (
      <Link href="/sign-in" testID="sync-sign" className="font-medium text-[15px] text-brass">
        {kept === 'Saved' ? 'Sign in again' : `${kept} · sign in again`}
      </Link>
    );
  if (unkept && waiting.length > 0)
    return (
      <Words look="soft" testID="sync-sign" tone="danger" role="alert">
        {`This device is full: ${waiting.length} unsent ${waiting.length === 1 ? 'entry is' : 'entries are'} kept only while this page stays open. Free some space.`}
      </Words>
    );
  if (refused.length > 0)
    return (
      <Pressable role="button" onPress={tryAgain} className="min-h-[24px] shrink">
        <Words look="soft" testID="sync-sign" tone="danger">
          {`${refused.length} refused: ${refused[0]?.refused ?? ''} Try again`}
        </Words>
      </Pressable>
    );
  return (
    <Words look="soft" testID="sync-sign" role="status" className="leading-[17px]">
      {reachable ? kept : `${kept} · working offline`}
    </Words>
  );
}
