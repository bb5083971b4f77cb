import type { MiddlewareHandler } from 'hono';

/** The oldest generation of the app that understands these answers. Its entries are taken all the same: what was recorded is never refused for its age. */
const LEAST_APP = 1;
const HEADER = 'Yosoku-Least-App';

/** Says with every answer which versions of the app it is for. */
export const generation: MiddlewareHandler = async (c, next) => {
  await next();
  c.header(HEADER, String(LEAST_APP));
};
