import { signedIn } from '@/store/session-slice';
import { useAppDispatch } from '@/store/store';
import { api, ask } from '@/sync/api';
import { useAttempt } from '@/sync/use-attempt';

/** Sends credentials, then asks who that is. `send` is the request that opens the session. */
export function useSignIn() {
  const dispatch = useAppDispatch();
  const { busy, trouble, attempt } = useAttempt();
  const open = (send: () => Promise<unknown>): Promise<boolean> =>
    attempt(async () => {
      await send();
      dispatch(signedIn(await ask(api.session.$get())));
    });
  return { busy, trouble, open };
}
