import { serveStatic } from '@hono/node-server/serve-static';
import { Hono } from 'hono';
import { secureHeaders } from 'hono/secure-headers';

const HASHED = /\/_expo\/static\/|\/assets\/.*\.[0-9a-f]{32}\./;
const cacheFor = (path: string): string => (HASHED.test(path) ? 'public, max-age=31536000, immutable' : 'no-cache');

/** The built web app. Unknown addresses that a person visits get the app itself, which knows its own routes. */
export function createSite(folder: string) {
  const site = new Hono();
  site.use(
    secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        // React Native for Web writes its styles into the page at run time.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        objectSrc: ["'none'"],
        frameAncestors: ["'none'"],
        baseUri: ["'none'"],
      },
    }),
  );
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
