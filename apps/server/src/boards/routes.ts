import { randomInt } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { type Context, Hono } from 'hono';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import type { Board } from '@yosoku/core/report/board';
import { isWellFormed } from '@yosoku/core/units/text';
import { requireBuild } from '../builds/logbook';
import { lastSeq } from '../builds/tail';
import type { Db } from '../db/database';
import { board, build, shop } from '../db/schema';
import type { Deriver } from '../derive/deriver';
import { type Sessions, type SignedIn, sha256 } from '../sign-in/session';
import { checkedJson, checkedQuery } from '../web/checked';
import { Problem } from '../web/problem';

/** Screens in one shop. */
const MOST_BOARDS = 20;
/** When a screen had its board open is written down no more often, ms. */
const SEEN_MS = 60_000;
/** Boards of builds that are kept for the next screen that asks. */
const MOST_KEPT = 50;

/** What a screen is told. */
interface Answer {
  readonly version: string;
  /** Left out where nothing has changed since the version that it has. */
  readonly screen?: { readonly name: string; readonly shopName: string; readonly board: Board | null };
}

const idSchema = z.uuid({ error: 'expected an id in UUID form' });
const newBoardSchema = z.strictObject({
  name: z
    .string({ error: 'the name must be text' })
    .trim()
    .min(1, { error: 'give it a name' })
    .max(40, { error: 'the name must be at most 40 characters' })
    .refine(isWellFormed, { error: 'the name ends in half a character' }),
});
const shownSchema = z.strictObject({ buildId: idSchema.nullable() });
const sinceSchema = z.strictObject({ version: z.string().max(80).optional() });

/** Typed with the remote of a television: small letters and digits that are not mistaken for one another. 16 of 31 are 79 bits. */
const SIGNS = 'abcdefghjkmnpqrstuvwxyz23456789';
const makeToken = (): string => Array.from({ length: 16 }, () => SIGNS[randomInt(SIGNS.length)]).join('');
/** As it is typed, with or without its hyphens. */
const plainToken = (typed: string): string => typed.replace(/[^a-z0-9]/gi, '').toLowerCase();

const noSuchBoard = (): Problem => new Problem(404, 'No such board', 'There is no such board in your shop.');
const takenBack = (): Problem =>
  new Problem(410, 'Taken back', 'This link shows nothing any more: it was taken back, or it is mistyped.');

/** Screens of a shop that show one build each, without a sign-in: by a link that opens nothing else and can be taken back. */
export function boardRoutes(db: Db, sessions: Sessions, deriver: Deriver) {
  /** Being worked out, or done: several screens on one build wait for the same. */
  const kept = new Map<string, { readonly seq: number; readonly shown: Promise<Board | null> }>();

  /** The row of the screen that asks. */
  async function screenOf(c: Context) {
    const token = plainToken(/^Bearer (.+)$/.exec(c.req.header('authorization') ?? '')?.[1] ?? '');
    const [row] = await db
      .select({ id: board.id, name: board.name, buildId: board.buildId, seenAt: board.seenAt, shopName: shop.name })
      .from(board)
      .innerJoin(shop, eq(shop.id, board.shopId))
      .where(eq(board.tokenHash, sha256(token)));
    if (!row) throw takenBack();
    return row;
  }

  function shownOf(buildId: string, seq: number): Promise<Board | null> {
    const known = kept.get(buildId);
    if (known?.seq === seq) return known.shown;
    const shown = deriver.run('board', { buildId }).then((done) => done.shown);
    kept.delete(buildId);
    kept.set(buildId, { seq, shown });
    for (const oldest of kept.keys()) if (kept.size > MOST_KEPT) kept.delete(oldest);
    // What failed is asked for again by the next.
    shown.catch(() => kept.delete(buildId));
    return shown;
  }

  async function own(c: Context<SignedIn>, id: string): Promise<void> {
    const [row] = await db
      .select({ id: board.id })
      .from(board)
      .where(and(eq(board.id, id), eq(board.shopId, c.get('account').shopId)));
    if (!row) throw noSuchBoard();
  }

  return (
    new Hono<SignedIn>()
      .use('/boards/*', sessions.required)
      .get('/boards', async (c) => {
        const boards = await db
          .select({
            id: board.id,
            name: board.name,
            buildId: board.buildId,
            buildName: build.name,
            seenAt: board.seenAt,
          })
          .from(board)
          .leftJoin(build, eq(build.id, board.buildId))
          .where(eq(board.shopId, c.get('account').shopId))
          .orderBy(board.name);
        return c.json({ boards: boards.map((each) => ({ ...each, seenAt: each.seenAt?.toISOString() ?? null })) });
      })
      .post('/boards', checkedJson(newBoardSchema), async (c) => {
        const { shopId } = c.get('account');
        const all = await db.select({ id: board.id }).from(board).where(eq(board.shopId, shopId));
        if (all.length >= MOST_BOARDS)
          throw new Problem(422, 'Too many', `A shop has at most ${MOST_BOARDS} boards. Take one back first.`);
        const [id, token] = [uuidv7(), makeToken()];
        const { name } = c.req.valid('json');
        await db.insert(board).values({ id, shopId, name, tokenHash: sha256(token), createdAt: new Date() });
        return c.json({ id, name, token: (token.match(/.{4}/g) ?? []).join('-') }, 201);
      })
      .put('/boards/:id', checkedJson(shownSchema), async (c) => {
        const id = c.req.param('id');
        await own(c, id);
        const { buildId } = c.req.valid('json');
        if (buildId !== null) await requireBuild(db, c.get('account').shopId, buildId);
        await db.update(board).set({ buildId }).where(eq(board.id, id));
        return c.json({ ok: true });
      })
      .delete('/boards/:id', async (c) => {
        const id = c.req.param('id');
        await own(c, id);
        await db.delete(board).where(eq(board.id, id));
        return c.json({ ok: true });
      })
      // What the screen itself asks, every second or so: an answer without `screen` says that nothing has changed.
      .get('/board', checkedQuery(sinceSchema), async (c) => {
        const { id, name, buildId, seenAt, shopName } = await screenOf(c);
        const now = new Date();
        if (!seenAt || now.getTime() - seenAt.getTime() > SEEN_MS)
          await db.update(board).set({ seenAt: now }).where(eq(board.id, id));
        const seq = buildId === null ? 0 : await lastSeq(db, buildId);
        const version = `${buildId ?? 'nothing'}/${seq}`;
        const same: Answer = { version };
        if (c.req.valid('query').version === version) return c.json(same);
        const shown = buildId === null ? null : await shownOf(buildId, seq);
        const changed: Answer = { version, screen: { name, shopName, board: shown } };
        return c.json(changed);
      })
  );
}
