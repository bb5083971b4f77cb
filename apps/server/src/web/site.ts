import { serveStatic } from '@hono/node-server/serve-static';
import { type Context, Hono, type MiddlewareHandler } from 'hono';
import { headers } from './headers';

const HASHED = /\/_expo\/static\/|\/assets\/.*\.[0-9a-f]{32}\./;
const cacheFor = (path: string): string => (HASHED.test(path) ? 'public, max-age=31536000, immutable' : 'no-cache');

/** Pages that are opened without a session, and are no sign-in. */
const OPEN_TO_ALL = new Set(['/setup', '/code', '/pair', '/board']);

/**
 * The built web app. Unknown addresses that a person visits get the app itself, which knows its own routes. Who has no session yet gets it with a
 * sign-in on the page, which can be typed into before the app has come.
 * @param mustSignIn whether whoever asks has no session, and there is a shop to sign in to.
 */
export function createSite(folder: string, mustSignIn: (c: Context) => Promise<boolean>) {
  const site = new Hono();
  const file = (path: string) =>
    serveStatic({
      root: folder,
      path,
      precompressed: true,
      onFound: (_path, context) => {
        context.header('Cache-Control', 'no-cache');
        context.header('Vary', 'Accept-Encoding, Cookie');
      },
    });
  const [app, first] = [file('index.html'), file('first.html')];
  const signsIn = async (c: Context): Promise<boolean> => !OPEN_TO_ALL.has(c.req.path) && (await mustSignIn(c));
  const page: MiddlewareHandler = async (c, next) =>
    (c.req.header('accept') ?? '').includes('text/html') ? ((await signsIn(c)) ? first : app)(c, next) : next();
  site.use(headers);
  site.get('/', page);
  site.use(
    serveStatic({
      root: folder,
      precompressed: true,
      onFound: (path, c) => c.header('Cache-Control', cacheFor(path)),
    }),
  );
  site.get('*', page);
  return site;
}
