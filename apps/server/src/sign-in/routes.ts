import { getConnInfo } from '@hono/node-server/conninfo';
import { eq } from 'drizzle-orm';
import { type Context, Hono } from 'hono';
import type { Db } from '../db/database';
import { builder, shop } from '../db/schema';
import { z } from 'zod';
import { RULING_METHODS } from '@yosoku/core/measure/read-methods';
import { ZERO_METHOD_NAMES } from '@yosoku/core/crank/zero-methods';
import { checkedJson } from '../web/checked';
import { Problem } from '../web/problem';
import {
  addBuilder,
  credentialsSchema,
  findByCredentials,
  hasShop,
  newBuilderSchema,
  newShopSchema,
  openFirstShop,
} from './accounts';
import type { Attempts } from './attempts';
import type { Sessions, SignedIn } from './session';

const rulesSchema = z
  .strictObject({
    zeroRule: z.enum(ZERO_METHOD_NAMES).nullable().optional(),
    readRule: z.enum(RULING_METHODS).nullable().optional(),
  })
  .refine((rules) => Object.keys(rules).length > 0, { error: 'say which rule' });

/** Without a socket (in-process tests) every caller shares one address. */
function addressOf(c: Context): string {
  try {
    return getConnInfo(c).remote.address ?? 'unknown';
  } catch {
    return 'unknown';
  }
}

/** Sign-in, sign-out, the first shop, and the builders of a shop. */
export const signInRoutes = (db: Db, sessions: Sessions, attempts: Attempts) =>
  new Hono<SignedIn>()
    .get('/setup', async (c) => c.json({ needed: !(await hasShop(db)) }))
    .post('/setup', checkedJson(newShopSchema), async (c) => {
      const wanted = c.req.valid('json');
      await attempts.count('setup', addressOf(c));
      const owner = await openFirstShop(db, wanted);
      await attempts.forgive('setup', addressOf(c));
      await sessions.begin(c, owner);
      return c.json({ ok: true }, 201);
    })
    .post('/session', checkedJson(credentialsSchema), async (c) => {
      const credentials = c.req.valid('json');
      await attempts.count(credentials.signInName, addressOf(c));
      const builderId = await findByCredentials(db, credentials);
      if (!builderId)
        throw new Problem(401, 'Not signed in', 'That name and password do not belong together. Check both.');
      await attempts.forgive(credentials.signInName, addressOf(c));
      await sessions.begin(c, builderId);
      return c.json({ ok: true }, 201);
    })
    .delete('/session', async (c) => {
      await sessions.end(c);
      return c.json({ ok: true });
    })
    .get('/session', sessions.required, (c) => c.json(c.get('account')))
    .get('/builders', sessions.required, async (c) => {
      const rows = await db
        .select({ id: builder.id, name: builder.name, signInName: builder.signInName, role: builder.role })
        .from(builder)
        .where(eq(builder.shopId, c.get('account').shopId))
        .orderBy(builder.createdAt);
      return c.json({ builders: rows });
    })
    .put('/shop/rules', sessions.required, checkedJson(rulesSchema), async (c) => {
      const { role, shopId } = c.get('account');
      if (role !== 'owner') throw new Problem(403, 'Owner only', 'Only the owner of the shop sets its rules.');
      await db.update(shop).set(c.req.valid('json')).where(eq(shop.id, shopId));
      sessions.forgetShop(shopId);
      return c.json({ ok: true });
    })
    .post('/builders', sessions.required, checkedJson(newBuilderSchema), async (c) => {
      const { role, shopId } = c.get('account');
      if (role !== 'owner') throw new Problem(403, 'Owner only', 'Only the owner of the shop adds builders.');
      return c.json({ id: await addBuilder(db, shopId, 'builder', c.req.valid('json')) }, 201);
    });
