import { useState } from 'react';
import { signedIn } from '@/store/session-slice';
import { useAppDispatch } from '@/store/store';
import { Refusal, api, ask } from '@/sync/api';

/** What stands under the fields after a refusal: one sentence, and a word to each field that is wrong. */
export interface SignInTrouble {
  readonly message: string;
  readonly fields: Readonly<Record<string, string>>;
}

/** Sends credentials, then asks who that is. `send` is the request that opens the session. */
export function useSignIn() {
  const dispatch = useAppDispatch();
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<SignInTrouble | null>(null);
  const open = async (send: () => Promise<unknown>): Promise<boolean> => {
    setBusy(true);
    setTrouble(null);
    try {
      await send();
      dispatch(signedIn(await ask(api.session.$get())));
      return true;
    } catch (error) {
      const known = error instanceof Refusal;
      setTrouble({
        message: known ? error.detail : 'The server cannot be reached. Check the network and try again.',
        fields: known ? Object.fromEntries(error.fields.map(({ field, message }) => [field, message])) : {},
      });
      return false;
    } finally {
      setBusy(false);
    }
  };
  return { busy, trouble, open };
}
