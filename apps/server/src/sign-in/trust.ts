import { and, eq, isNull } from 'drizzle-orm';
import type { Db } from '../db/database';
import { builder, session, shop } from '../db/schema';
import type { Account } from './account';

/** When a session was used last is kept to this, ms. */
const SEEN_MS = 5 * 60_000;
/**
 * How long a server process trusts what it last read of a session. Signing out is heeded at once by the process that
 * is asked, and by the others within this time.
 */
const TRUST_MS = 5_000;
const MOST_TRUSTED = 10_000;

interface Trusted {
  readonly account: Account;
  readonly until: number;
}

/** Who a session belongs to, as far as it still lasts; looked up at most every few seconds. Sessions go by the hash of their token. */
export function makeTrust(db: Db) {
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
    const read = await readSession(db, tokenHash);
    if (!read) return null;
    if (trusted.size >= MOST_TRUSTED) trusted.clear();
    trusted.set(tokenHash, { account: read.account, until: Math.min(now + TRUST_MS, read.expiresAt.getTime()) });
    return read.account;
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
    find,
    /** The session has ended. */
    over,
    /** The next request of this shop reads its session anew: something about the shop or its builders has changed. */
    forgetShop(shopId: string): void {
      for (const [token, { account }] of trusted) if (account.shopId === shopId) trusted.delete(token);
    },
    /** @param end is called once the session has ended. @returns how to be forgotten. */
    keepLine(tokenHash: string, end: () => void): () => void {
      const mine = lines.get(tokenHash) ?? new Set();
      lines.set(tokenHash, mine.add(end));
      return () => {
        mine.delete(end);
        if (mine.size === 0 && lines.get(tokenHash) === mine) lines.delete(tokenHash);
      };
    },
    linesOf: (tokenHash: string): number => lines.get(tokenHash)?.size ?? 0,
    /** Ends every line that is open: the server stops. */
    endLines(): void {
      for (const ends of lines.values()) for (const end of ends) end();
    },
    close: (): void => clearInterval(watch),
  };
}

/** A session that still lasts, and whose it is. Notes that it was used. */
async function readSession(
  db: Db,
  tokenHash: string,
): Promise<{ readonly account: Account; readonly expiresAt: Date } | null> {
  const now = Date.now();
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
  return { account, expiresAt };
}
