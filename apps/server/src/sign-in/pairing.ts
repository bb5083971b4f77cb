import { randomBytes, randomInt } from 'node:crypto';
import { and, eq, gt, isNotNull, isNull, lt } from 'drizzle-orm';
import { Hono } from 'hono';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import type { Db } from '../db/database';
import { builder, pairing, shop } from '../db/schema';
import { checkedJson } from '../web/checked';
import type { Log } from '../web/log';
import { Problem } from '../web/problem';
import type { CallerOf } from '../web/proxy';
import { type Sessions, type SignedIn, agentOf, sha256 } from './session';

/** A code on the bench screen, and a phone that waits to be let in, each last so long, ms. */
const LASTS_MS = 2 * 60_000;
/** Claims from one address within a minute: a phone needs one. */
const MOST_CLAIMS = 20;

const beginSchema = z.strictObject({
  at: z
    .string()
    .max(200)
    .regex(/^\/(?!\/)[\w/-]*$/, { error: 'a place is a path of this site' }),
});
const claimSchema = z.strictObject({ token: z.string().max(100) });
const finishSchema = z.strictObject({ secret: z.string().max(100) });
const confirmSchema = z.strictObject({ name: z.string().trim().max(60) });

const over = (): Problem =>
  new Problem(
    410,
    'Over',
    'This code was used already, or its two minutes are over. Make a new one on the bench screen.',
  );

type State = 'open' | 'claimed' | 'confirmed' | 'over' | 'gone';

/** gone: the phone has taken its session, or the code was taken back. */
function stateOf(row: typeof pairing.$inferSelect | undefined): State {
  if (!row) return 'gone';
  if (row.until.getTime() <= Date.now()) return 'over';
  if (row.confirmedAt) return 'confirmed';
  return row.secretHash ? 'claimed' : 'open';
}

interface PairingParts {
  readonly db: Db;
  readonly sessions: Sessions;
  readonly callerOf: CallerOf;
  readonly log: Log;
}

/**
 * Lets a phone in that its builder holds before the bench screen. The bench makes a code of one use; the phone claims it and both show the same
 * figure; the bench says that the phone is his; then the phone is signed in. No password is typed at the engine.
 */
export function pairingRoutes({ db, sessions, callerOf, log }: PairingParts) {
  const claims = new RateLimiterMemory({ points: MOST_CLAIMS, duration: 60 });
  const token = (): string => randomBytes(32).toString('base64url');
  const soon = (): Date => new Date(Date.now() + LASTS_MS);

  return new Hono<SignedIn>()
    .post('/pairings', sessions.required, checkedJson(beginSchema), async (c) => {
      const { builderId } = c.get('account');
      // One code at a time: the one before is on no screen any more.
      await db.delete(pairing).where(eq(pairing.builderId, builderId));
      await db.delete(pairing).where(lt(pairing.until, new Date()));
      const [id, opens, until] = [uuidv7(), token(), soon()];
      await db
        .insert(pairing)
        .values({ id, builderId, tokenHash: sha256(opens), place: c.req.valid('json').at, until });
      return c.json({ id, token: opens }, 201);
    })
    .get('/pairings/:id', sessions.required, async (c) => {
      const [row] = await db
        .select()
        .from(pairing)
        .where(and(eq(pairing.id, c.req.param('id')), eq(pairing.builderId, c.get('account').builderId)));
      return c.json({ state: stateOf(row), figure: row?.figure ?? null, agent: row?.agent ?? '' });
    })
    .post('/pairings/:id/confirm', sessions.required, checkedJson(confirmSchema), async (c) => {
      const { name } = c.req.valid('json');
      const { builderId } = c.get('account');
      const [done] = await db
        .update(pairing)
        .set({ confirmedAt: new Date(), until: soon(), name: name === '' ? null : name })
        .where(
          and(
            eq(pairing.id, c.req.param('id')),
            eq(pairing.builderId, builderId),
            isNotNull(pairing.secretHash),
            isNull(pairing.confirmedAt),
            gt(pairing.until, new Date()),
          ),
        );
      if (done.affectedRows !== 1) throw over();
      log.info({ by: builderId }, 'a phone was let in');
      return c.json({ ok: true });
    })
    .delete('/pairings/:id', sessions.required, async (c) => {
      await db
        .delete(pairing)
        .where(and(eq(pairing.id, c.req.param('id')), eq(pairing.builderId, c.get('account').builderId)));
      return c.json({ ok: true });
    })
    .post('/pairings/claim', checkedJson(claimSchema), async (c) => {
      await claims.consume(callerOf(c).address).catch(() => {
        throw new Problem(429, 'Too many', 'Too many codes from here. Wait a minute.');
      });
      const tokenHash = sha256(c.req.valid('json').token);
      const secret = token();
      const figure = String(randomInt(10, 100));
      const [done] = await db
        .update(pairing)
        .set({ secretHash: sha256(secret), figure, agent: agentOf(c), until: soon() })
        .where(and(eq(pairing.tokenHash, tokenHash), isNull(pairing.secretHash), gt(pairing.until, new Date())));
      if (done.affectedRows !== 1) throw over();
      const [row] = await db
        .select({ builderName: builder.name, shopName: shop.name })
        .from(pairing)
        .innerJoin(builder, eq(builder.id, pairing.builderId))
        .innerJoin(shop, eq(shop.id, builder.shopId))
        .where(eq(pairing.tokenHash, tokenHash));
      return c.json({ secret, figure, builderName: row?.builderName ?? '', shopName: row?.shopName ?? '' }, 201);
    })
    .post('/pairings/finish', checkedJson(finishSchema), async (c) => {
      const secretHash = sha256(c.req.valid('json').secret);
      const [row] = await db
        .select({ pairing, endedAt: builder.endedAt })
        .from(pairing)
        .innerJoin(builder, eq(builder.id, pairing.builderId))
        .where(and(eq(pairing.secretHash, secretHash), gt(pairing.until, new Date())));
      if (!row || row.endedAt) throw over();
      if (!row.pairing.confirmedAt) return c.json({ at: null as string | null });
      const [taken] = await db.delete(pairing).where(eq(pairing.secretHash, secretHash));
      if (taken.affectedRows !== 1) throw over();
      await sessions.begin(c, row.pairing.builderId, row.pairing.name);
      return c.json({ at: row.pairing.place as string | null });
    });
}
