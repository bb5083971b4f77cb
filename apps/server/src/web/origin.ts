import type { MiddlewareHandler } from 'hono';
import { Problem } from './problem';

const READS = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Lets another page's requests change nothing. A browser says with every such request where its page came from (Fetch Metadata, W3C; Origin,
 * RFC 6454); what says neither is no browser, and has nobody's cookie.
 */
export const ownOriginOnly: MiddlewareHandler = async (c, next) => {
  if (!READS.has(c.req.method)) {
    const site = c.req.header('sec-fetch-site');
    const origin = c.req.header('origin');
    const host = c.req.header('host') ?? new URL(c.req.url).host;
    const own =
      site !== undefined
        ? site === 'same-origin' || site === 'none'
        : origin === undefined || (URL.canParse(origin) && new URL(origin).host === host);
    if (!own) throw new Problem(403, 'Refused', 'This request did not come from Yosoku’s own page.');
  }
  await next();
};
