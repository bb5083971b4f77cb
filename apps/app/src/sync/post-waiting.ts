import type { Entry } from '@yosoku/core/logbook/entry';
import { received } from '../store/logbook-slice';
import { delivered, reached, refused } from '../store/outbox-slice';
import { selectOwnWaiting } from '../store/selectors';
import { lapsed } from '../store/session-slice';
import type { Store } from '../store/store';
import { Refusal, Unreachable, api, ask } from './api';

const MOST_AT_ONCE = 200;

/** How a round of posting ended: nothing left, tried in vain (ask again later), or not signed in. */
export type PostOutcome = 'done' | 'unreachable' | 'signed-out';

type Placed = readonly { readonly id: string; readonly seq: number }[];

async function post(entries: readonly Entry[]): Promise<Placed> {
  const [first] = entries;
  if (!first) return [];
  if (first.kind === 'build.described' && first.body.replaces === null)
    return (await ask(api.builds.$post({ json: { entry: first } }))).placed;
  const id = first.buildId;
  return (await ask(api.builds[':id'].entries.$post({ param: { id }, json: { entries: [...entries] } }))).placed;
}

/** The next entries to send together: one build's, in order; a build's opening goes alone. */
function nextBatch(waiting: readonly Entry[]): readonly Entry[] {
  const [first] = waiting;
  if (!first) return [];
  if (first.kind === 'build.described' && first.body.replaces === null) return [first];
  return waiting.filter((entry) => entry.buildId === first.buildId).slice(0, MOST_AT_ONCE);
}

/** Sends what waits, oldest first, until nothing is left or the server cannot be reached. Sending twice is harmless. */
export async function postWaiting(store: Pick<Store, 'dispatch' | 'getState'>): Promise<PostOutcome> {
  let alone = false;
  for (;;) {
    const state = store.getState();
    if (!state.session.account || state.session.lapsed) return 'signed-out';
    const willing = selectOwnWaiting(state).filter((each) => each.refused === undefined);
    const batch = nextBatch(willing.map(({ entry }) => entry)).slice(0, alone ? 1 : MOST_AT_ONCE);
    const [first] = batch;
    if (!first) return 'done';
    try {
      const placed = new Map((await post(batch)).map(({ id, seq }) => [id, seq]));
      store.dispatch(reached(true));
      const kept = batch.map((entry): Entry => ({ ...entry, seq: placed.get(entry.id) }));
      store.dispatch(received({ buildId: first.buildId, entries: kept }));
      store.dispatch(delivered(batch.map((entry) => entry.id)));
      alone = false;
    } catch (error) {
      if (error instanceof Refusal && error.status === 401) {
        store.dispatch(lapsed());
        return 'signed-out';
      }
      const final = error instanceof Refusal && error.status >= 400 && error.status < 500 && error.status !== 429;
      if (!final) {
        store.dispatch(reached(!(error instanceof Unreachable)));
        return 'unreachable';
      }
      // One bad entry must not hold up the others: find it by sending them singly.
      if (batch.length > 1) alone = true;
      else store.dispatch(refused({ id: first.id, reason: error.detail }));
    }
  }
}
