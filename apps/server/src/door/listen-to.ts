import type { MiddlewareHandler } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { LOGO_BYTES } from '@yosoku/core/paper/letterhead';
import { PHOTO_BYTES } from '@yosoku/core/photos/photo';
import { type Sessions, type SignedIn, notSignedIn } from '../sign-in/session';
import { Problem } from '../web/problem';

/** Whoever is not signed in has nothing to send but a name, a password and a code, and that only here. */
const OPEN_TO_ALL = new Set([
  '/api/setup',
  '/api/session',
  '/api/session/code',
  '/api/password',
  '/api/pairings/claim',
  '/api/pairings/finish',
]);
const LARGEST_ANONYMOUS = 16 * 1024;
/** A posting of 200 entries is well under this. */
const LARGEST_BODY = 512 * 1024;
/** A file of 20,000 entries is well under this. */
const LARGEST_FILE = 16 * 1024 * 1024;
const FILE_PATH = '/api/import';
const LOGO_PATH = '/api/shop/logo';
const PHOTO_PATH = /^\/api\/builds\/[^/]+\/photos\/[^/]+$/;

const limitTo = (maxSize: number, detail: string): MiddlewareHandler<SignedIn> => {
  const counted = bodyLimit({
    maxSize,
    onError: () => {
      throw new Problem(413, 'Too large', detail);
    },
  });
  // A length that was announced is kept to by the HTTP parser; only a body of unknown length has to be counted.
  return (c, next) => (Number(c.req.header('content-length') ?? Infinity) <= maxSize ? next() : counted(c, next));
};
const limitBody = limitTo(LARGEST_BODY, 'That is too much at once: at most 512 KB. Send it in smaller parts.');
const limitFile = limitTo(
  LARGEST_FILE,
  'That file is larger than 16 MB, and no build is. Nothing was imported: check that it is the right one.',
);
const limitPhoto = limitTo(PHOTO_BYTES, `A picture has at most ${PHOTO_BYTES / 1024 / 1024} MB. It was not kept.`);
const limitLogo = limitTo(LOGO_BYTES, `A logo has at most ${LOGO_BYTES / 1024 / 1024} MB. It was not kept.`);
const limitAnonymous = limitTo(LARGEST_ANONYMOUS, 'Sign in before you send that much.');

/** How much is listened to depends on who says it, and that is looked at before anything is read. */
export const listenTo =
  (sessions: Sessions): MiddlewareHandler<SignedIn> =>
  async (c, next) => {
    if (c.req.method === 'GET' || c.req.method === 'HEAD') return next();
    if (OPEN_TO_ALL.has(c.req.path)) return limitAnonymous(c, next);
    const account = await sessions.accountOf(c);
    if (!account) throw notSignedIn();
    c.set('account', account);
    if (c.req.path === FILE_PATH) return limitFile(c, next);
    if (c.req.path === LOGO_PATH) return limitLogo(c, next);
    return PHOTO_PATH.test(c.req.path) ? limitPhoto(c, next) : limitBody(c, next);
  };
