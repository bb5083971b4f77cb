import { listed, received } from '../store/logbook-slice';
import { reached } from '../store/outbox-slice';
import { lapsed } from '../store/session-slice';
import type { Store } from '../store/store';
import { Refusal, Unreachable, api, ask } from './api';

type Dispatching = Pick<Store, 'dispatch' | 'getState'>;

/** What became of a request for news. A build that is missing is not in this shop. */
export type FetchOutcome = 'fresh' | 'missing' | 'unreachable' | 'signed-out';

async function settle({ dispatch }: Dispatching, work: () => Promise<void>): Promise<FetchOutcome> {
  try {
    await work();
    dispatch(reached(true));
    return 'fresh';
  } catch (error) {
    if (error instanceof Refusal && error.status === 401) {
      dispatch(lapsed());
      return 'signed-out';
    }
    if (error instanceof Refusal && error.status === 404) return 'missing';
    if (error instanceof Unreachable) dispatch(reached(false));
    return 'unreachable';
  }
}

/** Brings the list of the shop's builds up to date. */
export const fetchBuilds = (store: Dispatching): Promise<FetchOutcome> =>
  settle(store, async () => {
    const shopId = store.getState().session.account?.shopId;
    const { builds } = await ask(api.builds.$get());
    if (shopId) store.dispatch(listed({ shopId, builds }));
  });

/** Brings one build's logbook up to date. Only what lies after the last gapless place is asked for. */
export const fetchEntries = (store: Dispatching, buildId: string): Promise<FetchOutcome> =>
  settle(store, async () => {
    const known = store.getState().logbook.known[buildId] ?? [];
    const gap = known.findIndex((entry, at) => entry.seq !== at + 1);
    const after = String(gap < 0 ? known.length : gap);
    const { entries } = await ask(api.builds[':id'].entries.$get({ param: { id: buildId }, query: { after } }));
    store.dispatch(received({ buildId, entries }));
  });
