import { PrecacheController, PrecacheRoute, type PrecacheEntry } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { strandedBetween } from './pieces';

/**
 * Keeps the app on the device, so that it starts without a network. A new version waits until a builder takes it, between readings; the pieces
 * of the one before stay for whoever still has it open.
 */

declare const self: ServiceWorkerGlobalScope & { readonly __WB_MANIFEST: (PrecacheEntry | string)[] };

/** Routes that pass the worker by: not every browser has them, and the compiler's library does not know them yet. */
type Routing = ExtendableEvent & {
  readonly addRoutes?: (route: {
    readonly condition: { readonly urlPattern: { readonly pathname: string } };
    readonly source: 'network';
  }) => Promise<void>;
};

/** Where it is written down which pieces the running version has. */
const LIST_CACHE = 'yosoku-pieces';
const LIST = '/pieces-of-this-version';
/** Their content never changes under their name. */
const HASHED = /^\/_expo\/static\/|^\/assets\/.*\.[0-9a-f]{32}\./;

const pieces = new PrecacheController();
pieces.addToCacheList(self.__WB_MANIFEST);

self.addEventListener('install', (event) => {
  void pieces.install(event);
  // What goes to the server need not wake a worker, where the browser can be told so; and a stream that is opened while the next version takes over
  // would hold that one back.
  const { addRoutes } = event as Routing;
  event.waitUntil(
    (
      addRoutes?.call(event, { condition: { urlPattern: { pathname: '/api/*' } }, source: 'network' }) ??
      Promise.resolve()
    ).catch(() => undefined),
  );
});
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
