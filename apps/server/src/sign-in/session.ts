import { createHash, randomBytes } from 'node:crypto';
import { and, desc, eq, lt, ne } from 'drizzle-orm';
import type { Context, MiddlewareHandler } from 'hono';
import { deleteCookie, getCookie, setCookie } from 'hono/cookie';
import { cutText } from '@yosoku/core/units/text';
import type { Db } from '../db/database';
import { builder, knownDevice, session } from '../db/schema';
import { Problem } from '../web/problem';
import type { CallerOf } from '../web/proxy';
import type { Account } from './account';
import { makeTrust } from './trust';

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
export const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');

/** What a session is called where somebody may read it: it opens nothing. */
const idOf = (tokenHash: string): string => tokenHash.slice(0, 16);

/** Whether a request brings a session along; whether that one is good is not asked. */
export const carriesSession = (c: Context): boolean => getCookie(c, COOKIE) !== undefined;

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

export const notSignedIn = (): Problem =>
  new Problem(401, 'Not signed in', 'Sign in first. What you have typed is kept on this device.');

const newToken = (): string => randomBytes(32).toString('base64url');

/** @returns its token: only the hash of it is kept. */
async function openSession(
  db: Db,
  of: Pick<typeof session.$inferInsert, 'builderId' | 'agent' | 'name'>,
): Promise<string> {
  const token = newToken();
  const now = Date.now();
  await db.delete(session).where(lt(session.expiresAt, new Date(now)));
  await db.insert(session).values({
    ...of,
    tokenHash: sha256(token),
    expiresAt: new Date(now + LIFETIME_MS),
    createdAt: new Date(now),
    seenAt: new Date(now),
  });
  return token;
}

/** This builder has signed in on this device. */
async function noteDevice(db: Db, token: string, builderId: string): Promise<void> {
  const usedAt = new Date();
  await db
    .insert(knownDevice)
    .values({ tokenHash: sha256(token), builderId, usedAt })
    .onDuplicateKeyUpdate({ set: { usedAt } });
}

/** @param here hash of the token of whoever asks. */
async function listSessions(db: Db, builderId: string, here: string | null) {
  const rows = await db.select().from(session).where(eq(session.builderId, builderId)).orderBy(desc(session.seenAt));
  const lasting = rows.filter(({ expiresAt }) => expiresAt.getTime() > Date.now());
  return lasting.map((row) => ({ ...listed(row), here: row.tokenHash === here }));
}

/** Who is signed in where: begins and ends sessions, and closes routes to everybody else. */
export function makeSessions(db: Db, callerOf: CallerOf) {
  const { find, over, forgetShop, keepLine, linesOf, endLines, close } = makeTrust(db);

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

  return {
    /** @param name what the builder calls the device. */
    async begin(c: Context, builderId: string, name: string | null = null): Promise<void> {
      const token = await openSession(db, { builderId, agent: agentOf(c), name });
      setCookie(c, COOKIE, token, cookieFor(c, LIFETIME_MS / 1000));
      const device = getCookie(c, DEVICE_COOKIE) ?? newToken();
      await noteDevice(db, device, builderId);
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
    list(c: Context, { builderId }: Account) {
      return listSessions(db, builderId, hashIn(c));
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
    whileSignedIn: (c: Context, end: () => void): (() => void) => keepLine(hashIn(c) ?? '', end),
    /** Lines that are open in the name of this session. */
    linesOf: (c: Context): number => linesOf(hashIn(c) ?? ''),
    forgetShop,
    endLines,
    close,

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
  };
}

export type Sessions = ReturnType<typeof makeSessions>;
