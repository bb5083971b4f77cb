import { type UseStore, createStore } from 'idb-keyval';

/**
 * A store of this device's memory, or null where the browser keeps nothing. What is written into it lasts from the moment that it was handed over: without `commit` the browser waits for the
 * page's answer first, and what a page that is just being left wrote last would be gone.
 * @example openStore('yosoku-outbox', 'entries')
 */
export function openStore(database: string, name: string): UseStore | null {
  if (typeof indexedDB === 'undefined') return null;
  const open = createStore(database, name);
  return (mode, callback) =>
    open(mode, (store) => {
      const done = callback(store);
      if (mode === 'readwrite') store.transaction.commit();
      return done;
    });
}
