import { scoresHeard } from '@/store/practice-slice';
import type { Store } from '@/store/store';
import { api, ask } from '@/sync/api';

/** Tells the server the scores that it does not know, and asks for all. Without a network they wait on the device. */
export async function sendScores({ dispatch, getState }: Pick<Store, 'dispatch' | 'getState'>): Promise<boolean> {
  try {
    for (const score of getState().practice.unsent) await ask(api.practice.scores.$post({ json: score }));
    const { scores } = await ask(api.practice.scores.$get());
    dispatch(scoresHeard(scores));
    return true;
  } catch {
    // They are kept, and tried again when the exercises are looked at next.
    return false;
  }
}
