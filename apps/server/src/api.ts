import { sql } from 'drizzle-orm';
import { Hono, type MiddlewareHandler } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { HTTPException } from 'hono/http-exception';
import { boardRoutes } from './boards/routes';
import { documentRoutes } from './builds/http/documents';
import { buildRoutes } from './builds/http/routes';
import { makeSummaries } from './derive/summaries';
import type { OpenDatabase } from './db/database';
import { isPassing } from './db/trouble';
import { TaskFailedForNow, makeDeriver } from './derive/deriver';
import { hardwareRoutes } from './hardware/routes';
import { instrumentRoutes } from './instruments/routes';
import type { Reach } from './lan/reach';
import { LOGO_BYTES } from '@yosoku/core/paper/letterhead';
import { PHOTO_BYTES } from '@yosoku/core/photos/photo';
import { letterheadRoutes } from './shop/letterhead-routes';
import { photoRoutes } from './photos/routes';
import { practiceRoutes } from './practice/routes';
import { makeAttempts } from './sign-in/attempts';
import { pairingRoutes } from './sign-in/pairing';
import { signInRoutes } from './sign-in/routes';
import { type SignedIn, makeSessions, notSignedIn } from './sign-in/session';
import { generation } from './web/generation';
import { headers } from './web/headers';
import { type Log, openLog } from './web/log';
import { ownOriginOnly } from './web/origin';
import { Problem, answerProblem } from './web/problem';
import { type CallerOf, makeCallerOf } from './web/proxy';
import { within } from './web/within';

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

/** An answer that is not there by then is none, ms: the device goes on without it. What may take long has a limit of its own. */
const PATIENCE_MS = 8_000;
/** A body of so many bytes may still be on its way over a slow network by then. */
const LARGE = 48 * 1024;
const TAKES_LONG =
  /^\/api\/(import|builds\/[^/]+\/(stream|(sheet|pistons|paper)\.pdf|report)|board|paper\.pdf|shop\/logo)$|^\/api\/(instruments|practice\/instruments)/;

const limitTo = (maxSize: number, detail: string): MiddlewareHandler => {
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

export interface ApiSettings {
  /** `derive/worker.ts`, bundled. */
  readonly workerFile: string;
  readonly log?: Log;
  /** Where a request came from; no proxy is believed where this is left out. */
  readonly callerOf?: CallerOf;
  /** How other machines reach this one; left out: they do not. */
  readonly reach?: () => Reach;
}

/** The whole API under `/api`, on an open database. */
export function createApi(
  { db, pool, url, name }: OpenDatabase,
  {
    workerFile,
    log = openLog(undefined),
    callerOf = makeCallerOf(''),
    reach = () => ({ addresses: [], authority: null }),
  }: ApiSettings,
) {
  const sessions = makeSessions(db, callerOf);
  const attempts = makeAttempts(pool, name);
  const deriver = makeDeriver(workerFile, url);
  const summaries = makeSummaries(db, deriver, log);
  const ready = async (): Promise<boolean> =>
    within(2_000, db.execute(sql`select 1`)).then(
      () => true,
      () => false,
    );

  const api = new Hono<SignedIn>()
    .basePath('/api')
    .use(async (c, next) => {
      const began = performance.now();
      await next();
      const took = Math.round(performance.now() - began);
      const said = {
        method: c.req.method,
        path: c.req.path,
        status: c.res.status,
        ms: took,
        by: c.get('account')?.builderId,
      };
      if (c.res.status >= 500) log.error(said, 'request');
      else log.info(said, 'request');
    })
    .use(headers)
    .use(generation)
    .use(async (c, next) => {
      c.header('Cache-Control', 'no-store');
      await next();
    })
    .use(ownOriginOnly)
    .use(async (c, next) => {
      const large = Number(c.req.header('content-length') ?? 0) > LARGE;
      if (large || TAKES_LONG.test(c.req.path)) return next();
      return within(
        PATIENCE_MS,
        next(),
        () => new Problem(503, 'Busy', 'The server could not answer in time. Try again.'),
      );
    })
    // How much is listened to depends on who says it, and that is looked at before anything is read.
    .use(async (c, next) => {
      if (c.req.method === 'GET' || c.req.method === 'HEAD') return next();
      if (OPEN_TO_ALL.has(c.req.path)) return limitAnonymous(c, next);
      const account = await sessions.accountOf(c);
      if (!account) throw notSignedIn();
      c.set('account', account);
      if (c.req.path === FILE_PATH) return limitFile(c, next);
      if (c.req.path === LOGO_PATH) return limitLogo(c, next);
      return PHOTO_PATH.test(c.req.path) ? limitPhoto(c, next) : limitBody(c, next);
    })
    .get('/health/live', (c) => c.json({ ok: true }))
    .get('/health', async (c) => {
      const ok = await ready();
      return c.json({ ok, database: ok ? 'answers' : 'cannot be reached' }, ok ? 200 : 503);
    })
    .route('/', signInRoutes({ db, sessions, attempts, callerOf, log }))
    .route('/', pairingRoutes({ db, sessions, callerOf, log }))
    // Before the builds: what they require of all below them would be asked twice.
    .route('/', documentRoutes(db, sessions, deriver))
    .route('/', photoRoutes(db, sessions))
    .route('/', letterheadRoutes(db, sessions, deriver))
    .route('/', buildRoutes({ db, sessions, deriver, summaries, log }))
    .get('/reach', sessions.required, (c) => c.json(reach()))
    .route('/', boardRoutes(db, sessions, deriver))
    .route('/', hardwareRoutes(db, sessions, summaries))
    .route('/', practiceRoutes(db, sessions))
    .route('/', instrumentRoutes(db, sessions));

  api.all('/*', (c) => answerProblem(c, new Problem(404, 'Not found', 'There is nothing at this address.')));
  api.onError((error, c) => {
    if (error instanceof Problem) return answerProblem(c, error);
    if (error instanceof HTTPException)
      return answerProblem(c, new Problem(400, 'Not understood', 'The request is not the JSON that was expected.'));
    if (isPassing(error) || error instanceof TaskFailedForNow) {
      log.warn({ err: error, path: c.req.path }, 'the database is away or busy');
      return answerProblem(
        c,
        new Problem(
          503,
          'Busy',
          'The database cannot be reached just now, or is busy. Try again; nothing is written twice.',
        ),
      );
    }
    log.error({ err: error, path: c.req.path }, 'a mistake of the program');
    return answerProblem(
      c,
      new Problem(
        500,
        'Trouble in the server',
        'The server could not do that just now. Nothing was changed. Try again.',
      ),
    );
  });
  return Object.assign(api, {
    /** Ends streams and listeners, which would never come to an end by themselves. */
    endLines: (): void => sessions.endLines(),
    /** Ends what goes on beside requests. */
    close: async (): Promise<void> => {
      summaries.close();
      sessions.close();
      await deriver.close();
    },
  });
}

/** Types for the app's client. */
export type Api = ReturnType<typeof createApi>;
