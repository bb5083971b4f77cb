import { PrecacheController, PrecacheRoute, type PrecacheEntry } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { strandedBetween } from './pieces';

/**
 * Keeps the app on the device, so that it starts without a network. A new version waits until a builder takes it, between readings; the pieces
 * of the one before stay for whoever still has it open.
 */

declare const self: ServiceWorkerGlobalScope & { readonly __WB_MANIFEST: (PrecacheEntry | string)[] };

/** Where it is written down which pieces the running version has. */
const LIST_CACHE = 'yosoku-pieces';
const LIST = '/pieces-of-this-version';
/** Their content never changes under their name. */
const HASHED = /^\/_expo\/static\/|^\/assets\/.*\.[0-9a-f]{32}\./;

const pieces = new PrecacheController();
pieces.addToCacheList(self.__WB_MANIFEST);

self.addEventListener('install', (event) => void pieces.install(event));
self.addEventListener('activate', (event) =>
  // What could not be tidied up takes room, and keeps no page from its new version.
  event.waitUntil(
    tidyUp()
      .catch(() => undefined)
      .then(() => self.clients.claim()),
  ),
);
self.addEventListener('message', ({ data }) => {
  if ((data as { type?: string } | null)?.type === 'take-over') void self.skipWaiting();
});

/** Lets go of what neither this version nor the one before needs. */
async function tidyUp(): Promise<void> {
  const list = await caches.open(LIST_CACHE);
  const kept = await list.match(LIST);
  const before = kept ? ((await kept.json()) as string[]) : [];
  const now = [...pieces.getURLsToCacheKeys().values()];
  const cache = await caches.open(pieces.strategy.cacheName);
  const there = (await cache.keys()).map(({ url }) => url);
  await Promise.all(strandedBetween(there, before, now).map((url) => cache.delete(url)));
  await list.put(LIST, Response.json(now));
}

registerRoute(new PrecacheRoute(pieces));
registerRoute(
  new NavigationRoute(pieces.createHandlerBoundToURL('/index.html'), { denylist: [/^\/api\//, /^\/authority\.crt$/] }),
);
// A page of the version before fetches a piece that this one has not.
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && HASHED.test(url.pathname),
  async ({ request }) => (await caches.match(request)) ?? fetch(request),
);
