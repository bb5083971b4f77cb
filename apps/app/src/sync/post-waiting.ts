import type { Entry } from '@yosoku/core/record/entry';
import { received } from '../store/logbook-slice';
import { delivered, reached, refused } from '../store/outbox-slice';
import { selectOwnWaiting } from '../store/selectors';
import { lapsed } from '../store/session-slice';
import type { Store } from '../store/store';
import { Refusal, Unreachable, api, ask } from './api';

const MOST_AT_ONCE = 200;
/** When the server has failed at a posting so often, its entries are sent singly, to find the one that it fails at. */
const MOST_FAILURES = 3;

/** How a round of posting ended: nothing left, tried in vain (ask again later), or not signed in. */
export type PostOutcome = 'done' | 'unreachable' | 'signed-out';

/** How often in a row the server has failed at a posting with this entry in it. Kept from round to round. */
export type Failures = Map<string, number>;

type Placed = readonly { readonly id: string; readonly seq: number }[];

async function post(entries: readonly Entry[]): Promise<Placed> {
  const [first] = entries;
  if (!first) return [];
  if (first.kind === 'build.described' && first.body.replaces === null)
    return (await ask(api.builds.$post({ json: { entry: first } }))).placed;
  const id = first.buildId;
  return (await ask(api.builds[':id'].entries.$post({ param: { id }, json: { entries: [...entries] } }))).placed;
}

/** What the server said against what was sent; where it said nothing of it, how the round ends. */
export function refusalIn(error: unknown, { dispatch }: Pick<Store, 'dispatch'>): Refusal | PostOutcome {
  if (!(error instanceof Refusal)) {
    // Whatever it was, a mistake of this program included: it is tried again, and holds up nothing but this round.
    dispatch(reached(!(error instanceof Unreachable)));
    return 'unreachable';
  }
  if (error.status !== 401) return error;
  dispatch(lapsed());
  return 'signed-out';
}

/** The next entries to send together: one build's, in order; a build's opening goes alone. */
function nextBatch(waiting: readonly Entry[]): readonly Entry[] {
  const [first] = waiting;
  if (!first) return [];
  if (first.kind === 'build.described' && first.body.replaces === null) return [first];
  return waiting.filter((entry) => entry.buildId === first.buildId).slice(0, MOST_AT_ONCE);
}

/**
 * Sends what waits, oldest first, until nothing is left or the server cannot be reached. Sending twice is harmless.
 * One entry holds up nobody: what the server refuses is put aside with its reason. Where it says why, at once; where it only
 * fails (5xx), after a few rounds, and only if it does not fail at another one just so: then it is the server that is in trouble.
 */
export async function postWaiting(
  store: Pick<Store, 'dispatch' | 'getState'>,
  failures: Failures = new Map(),
): Promise<PostOutcome> {
  let alone = false;
  /** The one at which the server fails again and again, until another has gone through. */
  let suspect: { readonly id: string; readonly reason: string } | null = null;
  const putAside = (): void => {
    if (suspect) store.dispatch(refused(suspect));
    suspect = null;
  };
  for (;;) {
    const state = store.getState();
    if (!state.session.account || state.session.lapsed) return 'signed-out';
    const willing = selectOwnWaiting(state).filter(
      (each) => each.refused === undefined && each.entry.id !== suspect?.id,
    );
    const all = nextBatch(willing.map(({ entry }) => entry));
    const [first] = all;
    if (!first) {
      putAside();
      return 'done';
    }
    const failed = failures.get(first.id) ?? 0;
    const batch = alone || suspect || failed >= MOST_FAILURES ? [first] : all;
    try {
      const placed = new Map((await post(batch)).map(({ id, seq }) => [id, seq]));
      store.dispatch(reached(true));
      const kept = batch.map((entry): Entry => ({ ...entry, seq: placed.get(entry.id) }));
      store.dispatch(received({ buildId: first.buildId, entries: kept }));
      store.dispatch(delivered(batch.map((entry) => entry.id)));
      for (const { id } of batch) failures.delete(id);
      putAside();
      alone = false;
    } catch (error) {
      const refusal = refusalIn(error, store);
      if (typeof refusal === 'string') return refusal;
      store.dispatch(reached(true));
      if (refusal.status === 429) return 'unreachable';
      if (refusal.status >= 500) {
        for (const { id } of batch) failures.set(id, failed + 1);
        if (batch.length > 1 || failed < MOST_FAILURES || suspect) return 'unreachable';
        suspect = { id: first.id, reason: `The server failed on this one repeatedly. ${refusal.detail}` };
        continue;
      }
      // One bad entry must not hold up the others: find it by sending them singly.
      if (batch.length > 1) alone = true;
      else store.dispatch(refused({ id: first.id, reason: refusal.detail }));
    }
  }
}
