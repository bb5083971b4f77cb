import { createHash, randomBytes } from 'node:crypto';
import { eq, lt } from 'drizzle-orm';
import type { Context, MiddlewareHandler } from 'hono';
import { deleteCookie, getCookie, setCookie } from 'hono/cookie';
import type { ZeroMethodName } from '@yosoku/core/crank/zero-methods';
import type { RulingMethod } from '@yosoku/core/measure/read-methods';
import type { Db } from '../db/database';
import { builder, session, shop } from '../db/schema';
import { Problem } from '../web/problem';

/** Who is asking. Every query is scoped by `shopId`. */
export interface Account {
  readonly builderId: string;
  readonly builderName: string;
  readonly role: 'owner' | 'builder';
  readonly shopId: string;
  readonly shopName: string;
  /** The shop’s own rule for finding TDC, or null. */
  readonly zeroRule: ZeroMethodName | null;
  /** The shop’s own rule for reading the cam, or null. */
  readonly readRule: RulingMethod | null;
}

export interface SignedIn {
  Variables: { account: Account };
}

const COOKIE = 'yosoku_session';
const DAYS = 30;
const LIFETIME_MS = DAYS * 24 * 3600 * 1000;
/**
 * How long a server process trusts what it last read of a session. Signing out is heeded at once by the process that
 * is asked, and by the others within this time.
 */
const TRUST_MS = 5_000;
const MOST_TRUSTED = 10_000;

export const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');

export function makeSessions(db: Db) {
  const trusted = new Map<string, { readonly account: Account; readonly until: number }>();

  async function find(tokenHash: string): Promise<Account | null> {
    const now = Date.now();
    const known = trusted.get(tokenHash);
    if (known && known.until > now) return known.account;
    trusted.delete(tokenHash);
    const [row] = await db
      .select({
        expiresAt: session.expiresAt,
        builderId: builder.id,
        builderName: builder.name,
        role: builder.role,
        shopId: shop.id,
        shopName: shop.name,
        zeroRule: shop.zeroRule,
        readRule: shop.readRule,
      })
      .from(session)
      .innerJoin(builder, eq(builder.id, session.builderId))
      .innerJoin(shop, eq(shop.id, builder.shopId))
      .where(eq(session.tokenHash, tokenHash));
    if (!row || row.expiresAt.getTime() <= now) return null;
    const { expiresAt, ...account } = row;
    if (trusted.size >= MOST_TRUSTED) trusted.clear();
    trusted.set(tokenHash, { account, until: Math.min(now + TRUST_MS, expiresAt.getTime()) });
    return account;
  }

  return {
    async begin(c: Context, builderId: string): Promise<void> {
      const token = randomBytes(32).toString('base64url');
      const now = Date.now();
      await db.delete(session).where(lt(session.expiresAt, new Date(now)));
      await db.insert(session).values({ tokenHash: sha256(token), builderId, expiresAt: new Date(now + LIFETIME_MS) });
      setCookie(c, COOKIE, token, {
        httpOnly: true,
        sameSite: 'Strict',
        path: '/',
        maxAge: LIFETIME_MS / 1000,
        secure: new URL(c.req.url).protocol === 'https:',
      });
    },

    async end(c: Context): Promise<void> {
      const token = getCookie(c, COOKIE);
      if (token) {
        trusted.delete(sha256(token));
        await db.delete(session).where(eq(session.tokenHash, sha256(token)));
      }
      deleteCookie(c, COOKIE, { path: '/' });
    },

    /** The next request of this shop reads its session anew: something about the shop has changed. */
    forgetShop(shopId: string): void {
      for (const [token, { account }] of trusted) if (account.shopId === shopId) trusted.delete(token);
    },

    /** Closes a route to everybody who has not signed in. */
    required: (async (c, next) => {
      const token = getCookie(c, COOKIE);
      const account = token ? await find(sha256(token)) : null;
      if (!account)
        throw new Problem(401, 'Not signed in', 'Sign in first. What you have typed is kept on this device.');
      c.set('account', account);
      await next();
    }) satisfies MiddlewareHandler<SignedIn>,
  };
}

export type Sessions = ReturnType<typeof makeSessions>;
