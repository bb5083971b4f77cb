import { eq } from 'drizzle-orm';
import { Hono } from 'hono';
import { z } from 'zod';
import { RULING_METHODS } from '@yosoku/core/measure/read-methods';
import { ZERO_METHOD_NAMES } from '@yosoku/core/tdc/zero-methods';
import type { Db } from '../db/database';
import { builder, shop } from '../db/schema';
import { addBuilder, endAccess, handOver, newBuilderSchema, requirePassword, resetBuilder } from '../sign-in/accounts';
import type { Attempted } from '../sign-in/attempted';
import { ownerOnly } from '../sign-in/owner-only';
import type { Sessions, SignedIn } from '../sign-in/session';
import { checkedJson } from '../web/checked';
import type { Log } from '../web/log';

const rulesSchema = z
  .strictObject({
    zeroRule: z.enum(ZERO_METHOD_NAMES).nullable().optional(),
    readRule: z.enum(RULING_METHODS).nullable().optional(),
  })
  .refine((rules) => Object.keys(rules).length > 0, { error: 'say which rule' });

const handOverSchema = z.strictObject({ to: z.uuid(), password: z.string().max(1000) });

interface ShopParts {
  readonly db: Db;
  readonly sessions: Sessions;
  readonly attempted: Attempted;
  readonly log: Log;
}

/** The builders of a shop, and its rules. */
export const shopRoutes = ({ db, sessions, attempted, log }: ShopParts) =>
  new Hono<SignedIn>()
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
