import { Hono } from 'hono';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { z } from 'zod';
import type { Db } from '../db/database';
import { checkedJson } from '../web/checked';
import { Problem } from '../web/problem';
import type { CallerOf } from '../web/proxy';
import {
  changePassword,
  changeSchema,
  chooseByCode,
  credentialsSchema,
  findByCredentials,
  hasShop,
  newShopSchema,
  openFirstShop,
  resetSchema,
} from './accounts';
import type { Attempted } from './attempted';
import { passwordTrouble } from './password-rules';
import type { Sessions, SignedIn } from './session';

/** A password that is being typed, and the names that it must not be. */
const typedSchema = z.strictObject({
  password: z.string().max(1000),
  names: z.array(z.string().max(200)).max(5),
});

/** Passwords that are judged while they are typed, from one address within so many seconds. */
const MOST_JUDGED = 40;
const JUDGED_WITHIN_S = 20;

interface SignInParts {
  readonly db: Db;
  readonly sessions: Sessions;
  readonly attempted: Attempted;
  readonly callerOf: CallerOf;
}

/** Sign-in, sign-out, passwords and sessions, and the first shop. */
export function signInRoutes({ db, sessions, attempted, callerOf }: SignInParts) {
  // Judging a password costs some milliseconds, and anybody may ask.
  const slowly = new RateLimiterMemory({ points: MOST_JUDGED, duration: JUDGED_WITHIN_S });
  return new Hono<SignedIn>()
    .get('/setup', async (c) => c.json({ needed: !(await hasShop(db)) }))
    .post('/setup', checkedJson(newShopSchema), async (c) => {
      const owner = await attempted(c, 'setup', 'first shop', () => openFirstShop(db, c.req.valid('json')));
      await sessions.begin(c, owner);
      return c.json({ ok: true }, 201);
    })
    .post('/session', checkedJson(credentialsSchema), async (c) => {
      const credentials = c.req.valid('json');
      const builderId = await attempted(c, credentials.signInName, 'sign-in', async () => {
        const found = await findByCredentials(db, credentials);
        if (!found)
          throw new Problem(401, 'Not signed in', 'That name and password do not belong together. Check both.');
        return found;
      });
      await sessions.begin(c, builderId);
      return c.json({ ok: true }, 201);
    })
    .post('/session/code', checkedJson(resetSchema), async (c) => {
      const wanted = c.req.valid('json');
      const builderId = await attempted(c, wanted.signInName, 'new password by code', () => chooseByCode(db, wanted));
      await sessions.endAllOf(builderId);
      await sessions.begin(c, builderId);
      return c.json({ ok: true }, 201);
    })
    .post('/password', checkedJson(typedSchema), async (c) => {
      await slowly.consume(callerOf(c).address).catch(() => {
        throw new Problem(429, 'Too many', 'Type more slowly.');
      });
      const { password, names } = c.req.valid('json');
      return c.json({ trouble: passwordTrouble(password, names) });
    })
    .delete('/session', async (c) => {
      await sessions.end(c);
      return c.json({ ok: true });
    })
    .get('/session', sessions.required, (c) => c.json(c.get('account')))
    .put('/session/password', sessions.required, checkedJson(changeSchema), async (c) => {
      const account = c.get('account');
      await attempted(c, `change ${account.builderId}`, 'change of password', () =>
        changePassword(db, account, c.req.valid('json')),
      );
      await sessions.endOthers(c, account);
      return c.json({ ok: true });
    })
    .get('/sessions', sessions.required, async (c) => c.json({ sessions: await sessions.list(c, c.get('account')) }))
    .delete('/sessions', sessions.required, async (c) => {
      await sessions.endOthers(c, c.get('account'));
      return c.json({ ok: true });
    })
    .delete('/sessions/:id', sessions.required, async (c) => {
      if (!(await sessions.endOne(c.get('account'), c.req.param('id'))))
        throw new Problem(404, 'Not found', 'That session has ended already.');
      return c.json({ ok: true });
    });
}
