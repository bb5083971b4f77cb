import { del, entries, set } from 'idb-keyval';
import { openStore } from './device-store';
import type { Waiting } from './logbook-slice';

/**
 * Waiting entries on this device, a record each: two tabs can add to it without overwriting one another,
 * and a reading is on the disk before anything else happens to it. Keys grow with time, so reading gives them in order.
 */
const outbox = openStore('yosoku-outbox', 'entries');

export async function keepWaiting(waiting: readonly Waiting[]): Promise<void> {
  if (outbox) await Promise.all(waiting.map((each) => set(each.entry.id, each, outbox)));
}

let asked = false;
/** Asks the browser, once, not to clear this device's memory when space runs short. It may say no; nothing depends on its answer. */
export function askToPersist(): void {
  if (asked || typeof navigator === 'undefined' || !navigator.storage?.persist) return;
  asked = true;
  navigator.storage.persist().catch(() => undefined);
}

export async function dropWaiting(ids: readonly string[]): Promise<void> {
  if (outbox) for (const id of ids) await del(id, outbox);
}

export async function readWaiting(): Promise<Waiting[]> {
  if (!outbox) return [];
  const kept = await entries<string, Waiting>(outbox);
  return kept.sort(([a], [b]) => (a < b ? -1 : 1)).map(([, waiting]) => waiting);
}
