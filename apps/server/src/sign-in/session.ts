import { createHash, randomBytes } from 'node:crypto';
import { and, desc, eq, isNull, lt, ne } from 'drizzle-orm';
import type { Context, MiddlewareHandler } from 'hono';
import { deleteCookie, getCookie, setCookie } from 'hono/cookie';
import { cutText } from '@yosoku/core/units/text';
import type { ZeroMethodName } from '@yosoku/core/tdc/zero-methods';
import type { RulingMethod } from '@yosoku/core/measure/read-methods';
import type { Db } from '../db/database';
import { builder, knownDevice, session, shop } from '../db/schema';
import { Problem } from '../web/problem';
import type { CallerOf } from '../web/proxy';

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
const DEVICE_COOKIE = 'yosoku_device';
const DAYS = 30;
const DAY_S = 24 * 3600;
const LIFETIME_MS = DAYS * DAY_S * 1000;
/** A device is known for so long after it was last signed in on. Browsers keep no cookie longer than 400 days. */
const DEVICE_DAYS = 400;
/** When a session was used last is kept to this, ms. */
const SEEN_MS = 5 * 60_000;
/**
 * How long a server process trusts what it last read of a session. Signing out is heeded at once by the process that
 * is asked, and by the others within this time.
 */
const TRUST_MS = 5_000;
const MOST_TRUSTED = 10_000;

export const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');

/** What a session is called where somebody may read it: it opens nothing. */
const idOf = (tokenHash: string): string => tokenHash.slice(0, 16);

/** What a browser says that it is, as much of it as is kept. */
export const agentOf = (c: Context): string => cutText(c.req.header('user-agent') ?? '', 200);

/** A session as its builder sees it among his own. */
const listed = ({ tokenHash, createdAt, seenAt, agent, name }: typeof session.$inferSelect) => ({
  id: idOf(tokenHash),
  begunAt: createdAt?.toISOString() ?? null,
  seenAt: seenAt?.toISOString() ?? null,
  agent: agent ?? '',
  name,
});

interface Trusted {
  readonly account: Account;
  readonly until: number;
}

export const notSignedIn = (): Problem =>
  new Problem(401, 'Not signed in', 'Sign in first. What you have typed is kept on this device.');

export function makeSessions(db: Db, callerOf: CallerOf) {
  const trusted = new Map<string, Trusted>();
  /** Told when a session has ended: by those who keep a line open in its name. */
  const lines = new Map<string, Set<() => void>>();

  const over = (tokenHash: string): void => {
    trusted.delete(tokenHash);
    for (const end of lines.get(tokenHash) ?? []) end();
    lines.delete(tokenHash);
  };

  async function find(tokenHash: string): Promise<Account | null> {
    const now = Date.now();
    const known = trusted.get(tokenHash);
    if (known && known.until > now) return known.account;
    trusted.delete(tokenHash);
    const [row] = await db
      .select({
        expiresAt: session.expiresAt,
        seenAt: session.seenAt,
        builderId: builder.id,
        builderName: builder.name,
        role: builder.role,
        shopId: shop.id,
        shopName: shop.name,
        zeroRule: shop.zeroRule,
        readRule: shop.readRule,
      })
      .from(session)
      .innerJoin(builder, and(eq(builder.id, session.builderId), isNull(builder.endedAt)))
      .innerJoin(shop, eq(shop.id, builder.shopId))
      .where(eq(session.tokenHash, tokenHash));
    if (!row || row.expiresAt.getTime() <= now) return null;
    const { expiresAt, seenAt, ...account } = row;
    if (!seenAt || now - seenAt.getTime() > SEEN_MS)
      await db
        .update(session)
        .set({ seenAt: new Date(now) })
        .where(eq(session.tokenHash, tokenHash));
    if (trusted.size >= MOST_TRUSTED) trusted.clear();
    trusted.set(tokenHash, { account, until: Math.min(now + TRUST_MS, expiresAt.getTime()) });
    return account;
  }

  const hashIn = (c: Context): string | null => {
    const token = getCookie(c, COOKIE);
    return token ? sha256(token) : null;
  };

  const cookieFor = (c: Context, seconds: number) =>
    ({ httpOnly: true, sameSite: 'Strict', path: '/', maxAge: seconds, secure: callerOf(c).secure }) as const;

  /** Ends sessions of a builder, all but one of them where that is named. */
  async function endAllOf(builderId: string, but: string | null): Promise<void> {
    const of = and(eq(session.builderId, builderId), but === null ? undefined : ne(session.tokenHash, but));
    const rows = await db.select({ tokenHash: session.tokenHash }).from(session).where(of);
    await db.delete(session).where(of);
    for (const { tokenHash } of rows) over(tokenHash);
  }

  // Whoever keeps a line open must still be signed in, by what any server has heard of.
  const watch = setInterval(() => {
    for (const tokenHash of lines.keys())
      find(tokenHash).then(
        (account) => account ?? over(tokenHash),
        () => undefined,
      );
  }, TRUST_MS);
  watch.unref();

  return {
    /** @param name what the builder calls the device. */
    async begin(c: Context, builderId: string, name: string | null = null): Promise<void> {
      const token = randomBytes(32).toString('base64url');
      const now = Date.now();
      await db.delete(session).where(lt(session.expiresAt, new Date(now)));
      await db.insert(session).values({
        tokenHash: sha256(token),
        builderId,
        expiresAt: new Date(now + LIFETIME_MS),
        createdAt: new Date(now),
        seenAt: new Date(now),
        agent: agentOf(c),
        name,
      });
      setCookie(c, COOKIE, token, cookieFor(c, LIFETIME_MS / 1000));
      const device = getCookie(c, DEVICE_COOKIE) ?? randomBytes(32).toString('base64url');
      await db
        .insert(knownDevice)
        .values({ tokenHash: sha256(device), builderId, usedAt: new Date(now) })
        .onDuplicateKeyUpdate({ set: { usedAt: new Date(now) } });
      setCookie(c, DEVICE_COOKIE, device, cookieFor(c, DEVICE_DAYS * DAY_S));
    },

    /** Hash of this device's token where the builder has signed in on it before; else null. */
    async knownDevice(c: Context, signInName: string): Promise<string | null> {
      const token = getCookie(c, DEVICE_COOKIE);
      if (!token) return null;
      const [row] = await db
        .select({ tokenHash: knownDevice.tokenHash })
        .from(knownDevice)
        .innerJoin(builder, eq(builder.id, knownDevice.builderId))
        .where(and(eq(knownDevice.tokenHash, sha256(token)), eq(builder.signInName, signInName)));
      return row?.tokenHash ?? null;
    },

    async end(c: Context): Promise<void> {
      const hash = hashIn(c);
      if (hash) {
        await db.delete(session).where(eq(session.tokenHash, hash));
        over(hash);
      }
      deleteCookie(c, COOKIE, { path: '/' });
    },

    /** The sessions of whoever asks, the one used last first. */
    async list(c: Context, { builderId }: Account) {
      const here = hashIn(c);
      const rows = await db
        .select()
        .from(session)
        .where(eq(session.builderId, builderId))
        .orderBy(desc(session.seenAt));
      const lasting = rows.filter(({ expiresAt }) => expiresAt.getTime() > Date.now());
      return lasting.map((row) => ({ ...listed(row), here: row.tokenHash === here }));
    },

    /** Ends one of the sessions of whoever asks. False when there is none of that name. */
    async endOne({ builderId }: Account, id: string): Promise<boolean> {
      const rows = await db
        .select({ tokenHash: session.tokenHash })
        .from(session)
        .where(eq(session.builderId, builderId));
      const found = rows.find(({ tokenHash }) => idOf(tokenHash) === id);
      if (!found) return false;
      await db.delete(session).where(eq(session.tokenHash, found.tokenHash));
      over(found.tokenHash);
      return true;
    },

    endOthers: (c: Context, { builderId }: Account): Promise<void> => endAllOf(builderId, hashIn(c)),
    endAllOf: (builderId: string): Promise<void> => endAllOf(builderId, null),

    /** Keeps a line open for as long as the session of whoever asks lasts. @returns how to be forgotten. */
    whileSignedIn(c: Context, end: () => void): () => void {
      const hash = hashIn(c) ?? '';
      const mine = lines.get(hash) ?? new Set();
      lines.set(hash, mine.add(end));
      return () => {
        mine.delete(end);
        if (mine.size === 0 && lines.get(hash) === mine) lines.delete(hash);
      };
    },
    /** Lines that are open in the name of this session. */
    linesOf: (c: Context): number => lines.get(hashIn(c) ?? '')?.size ?? 0,

    /** The next request of this shop reads its session anew: something about the shop or its builders has changed. */
    forgetShop(shopId: string): void {
      for (const [token, { account }] of trusted) if (account.shopId === shopId) trusted.delete(token);
    },

    /** Who asks, or null. */
    async accountOf(c: Context): Promise<Account | null> {
      const hash = hashIn(c);
      return hash ? find(hash) : null;
    },

    /** Closes a route to everybody who has not signed in. */
    required: (async (c, next) => {
      if (!c.get('account')) {
        const hash = hashIn(c);
        const account = hash ? await find(hash) : null;
        if (!account) throw notSignedIn();
        c.set('account', account);
      }
      await next();
    }) satisfies MiddlewareHandler<SignedIn>,

    /** Ends every line that is open: the server stops. */
    endLines(): void {
      for (const ends of lines.values()) for (const end of ends) end();
    },
    close: (): void => clearInterval(watch),
  };
}

export type Sessions = ReturnType<typeof makeSessions>;
