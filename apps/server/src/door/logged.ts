import type { MiddlewareHandler } from 'hono';
import type { SignedIn } from '../sign-in/session';
import type { Log } from '../web/log';

/** Writes down every request: what, how it ended, how long it took, who asked. */
export const logged =
  (log: Log): MiddlewareHandler<SignedIn> =>
  async (c, next) => {
    const began = performance.now();
    await next();
    const said = {
      method: c.req.method,
      path: c.req.path,
      status: c.res.status,
      ms: Math.round(performance.now() - began),
      by: c.get('account')?.builderId,
    };
    if (c.res.status >= 500) log.error(said, 'request');
    else log.info(said, 'request');
  };
