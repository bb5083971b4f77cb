import { eq } from 'drizzle-orm';
import { type Context, Hono } from 'hono';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import type { Db } from '../db/database';
import { builder, shop } from '../db/schema';
import { z } from 'zod';
import { RULING_METHODS } from '@yosoku/core/measure/read-methods';
import { ZERO_METHOD_NAMES } from '@yosoku/core/tdc/zero-methods';
import { checkedJson } from '../web/checked';
import type { Log } from '../web/log';
import { Problem } from '../web/problem';
import type { CallerOf } from '../web/proxy';
import {
  addBuilder,
  changePassword,
  changeSchema,
  chooseByCode,
  credentialsSchema,
  endAccess,
  findByCredentials,
  handOver,
  hasShop,
  newBuilderSchema,
  newShopSchema,
  openFirstShop,
  requirePassword,
  resetBuilder,
  resetSchema,
} from './accounts';
import type { Attempt, Attempts } from './attempts';
import { passwordTrouble } from './password-rules';
import { ownerOnly } from './owner-only';
import type { Sessions, SignedIn } from './session';

const rulesSchema = z
  .strictObject({
    zeroRule: z.enum(ZERO_METHOD_NAMES).nullable().optional(),
    readRule: z.enum(RULING_METHODS).nullable().optional(),
  })
  .refine((rules) => Object.keys(rules).length > 0, { error: 'say which rule' });

/** A password that is being typed, and the names that it must not be. */
const typedSchema = z.strictObject({
  password: z.string().max(1000),
  names: z.array(z.string().max(200)).max(5),
});
const handOverSchema = z.strictObject({ to: z.uuid(), password: z.string().max(1000) });

/** Passwords that are judged while they are typed, from one address within so many seconds. */
const MOST_JUDGED = 40;
const JUDGED_WITHIN_S = 20;

export interface SignInParts {
  readonly db: Db;
  readonly sessions: Sessions;
  readonly attempts: Attempts;
  readonly callerOf: CallerOf;
  readonly log: Log;
}

/** Sign-in, sign-out, passwords and sessions, the first shop, and the builders of a shop. */
export function signInRoutes({ db, sessions, attempts, callerOf, log }: SignInParts) {
  const attemptOf = async (c: Context, name: string): Promise<Attempt> => ({
    name,
    address: callerOf(c).address,
    device: await sessions.knownDevice(c, name),
  });

  /** Does `work` as an attempt of that name: counted before, and forgiven where it succeeds. */
  async function attempted<T>(c: Context, name: string, what: string, work: () => Promise<T>): Promise<T> {
    const attempt = await attemptOf(c, name);
    const said = { name, address: attempt.address, device: attempt.device ? 'known' : 'new' };
    try {
      await attempts.count(attempt);
      const done = await work();
      await attempts.forgive(attempt);
      log.info(said, what);
      return done;
    } catch (error) {
      if (error instanceof Problem) log.warn({ ...said, status: error.status }, `${what} refused: ${error.title}`);
      throw error;
    }
  }

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
    })
    .get('/builders', sessions.required, async (c) => {
      const rows = await db
        .select({
          id: builder.id,
          name: builder.name,
          signInName: builder.signInName,
          role: builder.role,
          endedAt: builder.endedAt,
        })
        .from(builder)
        .where(eq(builder.shopId, c.get('account').shopId))
        .orderBy(builder.createdAt);
      return c.json({
        builders: rows.map(({ endedAt, ...row }) => ({ ...row, endedAt: endedAt?.toISOString() ?? null })),
      });
    })
    .post('/builders/:id/code', sessions.required, async (c) => {
      ownerOnly(c.get('account'), 'gives such a code');
      const code = await resetBuilder(db, c.get('account').shopId, c.req.param('id'));
      log.info({ by: c.get('account').builderId, builder: c.req.param('id') }, 'code for a new password given');
      return c.json({ code }, 201);
    })
    .post('/builders/:id/end', sessions.required, async (c) => {
      ownerOnly(c.get('account'), 'ends a builder’s access');
      await endAccess(db, c.get('account').shopId, c.req.param('id'));
      await sessions.endAllOf(c.req.param('id'));
      log.info({ by: c.get('account').builderId, builder: c.req.param('id') }, 'access ended');
      return c.json({ ok: true });
    })
    .put('/shop/owner', sessions.required, checkedJson(handOverSchema), async (c) => {
      const account = c.get('account');
      ownerOnly(account, 'hands it over');
      const { to, password } = c.req.valid('json');
      await attempted(c, `change ${account.builderId}`, 'handing over', () => handOver(db, account, to, password));
      sessions.forgetShop(account.shopId);
      return c.json({ ok: true });
    })
    .put('/shop/rules', sessions.required, checkedJson(rulesSchema), async (c) => {
      const { shopId } = c.get('account');
      ownerOnly(c.get('account'), 'sets its rules');
      await db.update(shop).set(c.req.valid('json')).where(eq(shop.id, shopId));
      sessions.forgetShop(shopId);
      return c.json({ ok: true });
    })
    .post('/builders', sessions.required, checkedJson(newBuilderSchema), async (c) => {
      const { shopId, shopName } = c.get('account');
      ownerOnly(c.get('account'), 'adds builders');
      const wanted = c.req.valid('json');
      requirePassword(wanted.password, [shopName, wanted.builderName, wanted.signInName]);
      return c.json({ id: await addBuilder(db, shopId, 'builder', wanted) }, 201);
    });
}
