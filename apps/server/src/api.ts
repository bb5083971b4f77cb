import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { csrf } from 'hono/csrf';
import { HTTPException } from 'hono/http-exception';
import { buildRoutes } from './builds/routes';
import { hardwareRoutes } from './hardware/routes';
import { instrumentRoutes } from './instruments/routes';
import { practiceRoutes } from './practice/routes';
import type { OpenDatabase } from './db/database';
import { makeAttempts } from './sign-in/attempts';
import { signInRoutes } from './sign-in/routes';
import { makeSessions } from './sign-in/session';
import { Problem, answerProblem } from './web/problem';

/** A posting of 200 entries is well under this. */
const LARGEST_BODY = 512 * 1024;

/** A file of 20,000 entries is well under this. */
const LARGEST_FILE = 16 * 1024 * 1024;

const limitBody = bodyLimit({
  maxSize: LARGEST_BODY,
  onError: () => {
    throw new Problem(413, 'Too large', 'That is too much at once: at most 512 KB. Send it in smaller parts.');
  },
});
const limitFile = bodyLimit({
  maxSize: LARGEST_FILE,
  onError: () => {
    throw new Problem(
      413,
      'Too large',
      'That file is larger than 16 MB, and no build is. Nothing was taken in: look whether it is the right one.',
    );
  },
});
const FILE_PATH = '/api/import';

/** The whole API under `/api`, on an open database. */
export function createApi({ db, pool, name }: OpenDatabase) {
  const sessions = makeSessions(db);
  const attempts = makeAttempts(pool, name);
  const api = new Hono()
    .basePath('/api')
    .use(async (c, next) => {
      c.header('Cache-Control', 'no-store');
      c.header('X-Content-Type-Options', 'nosniff');
      await next();
    })
    .use(csrf())
    // A length that was announced is kept to by the HTTP parser; only a body of unknown length has to be counted.
    .use((c, next) => {
      const [largest, limit] = c.req.path === FILE_PATH ? [LARGEST_FILE, limitFile] : [LARGEST_BODY, limitBody];
      return Number(c.req.header('content-length') ?? Infinity) <= largest ? next() : limit(c, next);
    })
    .get('/health', (c) => c.json({ ok: true }))
    .route('/', signInRoutes(db, sessions, attempts))
    .route('/', buildRoutes(db, sessions))
    .route('/', hardwareRoutes(db, sessions))
    .route('/', practiceRoutes(db, sessions))
    .route('/', instrumentRoutes(db, sessions));

  api.all('/*', (c) => answerProblem(c, new Problem(404, 'Not found', 'There is nothing at this address.')));
  api.onError((error, c) => {
    if (error instanceof Problem) return answerProblem(c, error);
    if (error instanceof HTTPException)
      return answerProblem(
        c,
        error.status === 403
          ? new Problem(403, 'Refused', 'This request did not come from Yosoku’s own page.')
          : new Problem(400, 'Not understood', 'The request is not the JSON that was expected.'),
      );
    console.error(error);
    return answerProblem(
      c,
      new Problem(
        500,
        'Trouble in the server',
        'The server could not do that just now. Nothing was changed. Try again.',
      ),
    );
  });
  return api;
}

/** Types for the app's client. */
export type Api = ReturnType<typeof createApi>;
