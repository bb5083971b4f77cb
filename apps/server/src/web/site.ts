import { serveStatic } from '@hono/node-server/serve-static';
import { Hono } from 'hono';
import { headers } from './headers';

const HASHED = /\/_expo\/static\/|\/assets\/.*\.[0-9a-f]{32}\./;
const cacheFor = (path: string): string => (HASHED.test(path) ? 'public, max-age=31536000, immutable' : 'no-cache');

/** The built web app. Unknown addresses that a person visits get the app itself, which knows its own routes. */
export function createSite(folder: string) {
  const site = new Hono();
  site.use(headers);
  site.use(
    serveStatic({
      root: folder,
      precompressed: true,
      onFound: (path, c) => c.header('Cache-Control', cacheFor(path)),
    }),
  );
  site.get('*', (c, next) => {
    if (!(c.req.header('accept') ?? '').includes('text/html')) return next();
    return serveStatic({
      root: folder,
      path: 'index.html',
      precompressed: true,
      onFound: (_path, context) => context.header('Cache-Control', 'no-cache'),
    })(c, next);
  });
  return site;
}
