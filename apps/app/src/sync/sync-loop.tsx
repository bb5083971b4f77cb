import { useEffect } from 'react';
import { useStore } from 'react-redux';
import { selectOwnPhotosWaiting, selectOwnWaiting } from '@/store/selectors';
import type { RootState, Store } from '@/store/store';
import { postPhotos } from './post-photos';
import { type Failures, type PostOutcome, postWaiting } from './post-waiting';

const FIRST_RETRY_MS = 1_000;
const LONGEST_RETRY_MS = 20_000;

/** Keeps sending what waits on this device: at once, again with growing pauses, and whenever the network comes back. */
export function SyncLoop() {
  const store = useStore<RootState>() as unknown as Store;
  useEffect(() => {
    let busy = false;
    let pause = FIRST_RETRY_MS;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const failures: Failures = new Map();
    const isWaiting = (): boolean => {
      const state = store.getState();
      const all = [...selectOwnWaiting(state), ...selectOwnPhotosWaiting(state)];
      return !state.session.lapsed && all.some((each) => each.refused === undefined);
    };
    const attempt = async (): Promise<void> => {
      if (busy || !isWaiting()) return;
      busy = true;
      clearTimeout(timer);
      timer = undefined;
      // A picture comes after the entry that names it.
      const posting = postWaiting(store, failures).then((sent) => (sent === 'done' ? postPhotos(store) : sent));
      const outcome = await posting.catch((error: unknown): PostOutcome => {
        // A mistake of this program. What waits is tried again all the same.
        console.error(error);
        return 'unreachable';
      });
      busy = false;
      if (outcome === 'unreachable') {
        timer = setTimeout(() => {
          timer = undefined;
          void attempt();
        }, pause);
        pause = Math.min(LONGEST_RETRY_MS, pause * 2);
      } else {
        pause = FIRST_RETRY_MS;
        if (isWaiting()) void attempt();
      }
    };
    const now = (): void => {
      pause = FIRST_RETRY_MS;
      void attempt();
    };
    const unsubscribe = store.subscribe(() => {
      if (timer === undefined) void attempt();
    });
    window.addEventListener('online', now);
    document.addEventListener('visibilitychange', now);
    void attempt();
    return () => {
      clearTimeout(timer);
      unsubscribe();
      window.removeEventListener('online', now);
      document.removeEventListener('visibilitychange', now);
    };
  }, [store]);
  return null;
}
