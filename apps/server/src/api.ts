import { sql } from 'drizzle-orm';
import { Hono } from 'hono';
import { boardRoutes } from './boards/routes';
import { documentRoutes } from './builds/http/documents';
import { buildRoutes } from './builds/http/routes';
import { makeSummaries } from './derive/summaries';
import type { OpenDatabase } from './db/database';
import { makeDeriver } from './derive/deriver';
import { answerError } from './door/answer-error';
import { listenTo } from './door/listen-to';
import { logged } from './door/logged';
import { hardwareRoutes } from './hardware/routes';
import { makeExchange } from './instruments/exchange';
import { boxRoutes, lineRoutes } from './instruments/routes';
import type { Reach } from './lan/reach';
import { photoRoutes } from './photos/routes';
import { practiceRoutes } from './practice/routes';
import { letterheadRoutes } from './shop/letterhead-routes';
import { shopRoutes } from './shop/routes';
import { makeAttempted } from './sign-in/attempted';
import { makeAttempts } from './sign-in/attempts';
import { pairingRoutes } from './sign-in/pairing';
import { signInRoutes } from './sign-in/routes';
import { type SignedIn, makeSessions } from './sign-in/session';
import { generation } from './web/generation';
import { headers } from './web/headers';
import { type Log, openLog } from './web/log';
import { ownOriginOnly } from './web/origin';
import { Problem, answerProblem } from './web/problem';
import { type CallerOf, makeCallerOf } from './web/proxy';
import { within } from './web/within';

/** An answer that is not there by then is none, ms: the device goes on without it. What may take long has a limit of its own. */
const PATIENCE_MS = 8_000;
/** A body of so many bytes may still be on its way over a slow network by then. */
const LARGE = 48 * 1024;
const TAKES_LONG =
  /^\/api\/(import|builds\/[^/]+\/(stream|(sheet|pistons|paper)\.pdf|report)|board|paper\.pdf|shop\/logo)$|^\/api\/(instruments|practice\/instruments)/;

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
  const attempted = makeAttempted({ sessions, attempts: makeAttempts(pool, name), callerOf, log });
  const deriver = makeDeriver(workerFile, url);
  const summaries = makeSummaries(db, deriver, log);
  const exchange = makeExchange();
  const ready = async (): Promise<boolean> =>
    within(2_000, db.execute(sql`select 1`)).then(
      () => true,
      () => false,
    );

  const api = new Hono<SignedIn>()
    .basePath('/api')
    .use(logged(log))
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
    .use(listenTo(sessions))
    .get('/health/live', (c) => c.json({ ok: true }))
    .get('/health', async (c) => {
      const ok = await ready();
      return c.json({ ok, database: ok ? 'answers' : 'cannot be reached' }, ok ? 200 : 503);
    })
    .route('/', signInRoutes({ db, sessions, attempted, callerOf }))
    .route('/', shopRoutes({ db, sessions, attempted, log }))
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
    .route('/', boxRoutes(db, sessions, exchange))
    .route('/', lineRoutes(db, sessions, exchange));

  api.all('/*', (c) => answerProblem(c, new Problem(404, 'Not found', 'There is nothing at this address.')));
  api.onError(answerError(log));
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
