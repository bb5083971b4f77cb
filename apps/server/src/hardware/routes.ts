import { and, eq, inArray } from 'drizzle-orm';
import { Hono } from 'hono';
import { z } from 'zod';
import { isWellFormed } from '@yosoku/core/units/text';
import { hardwareSchema } from '@yosoku/core/timing-set/hardware';
import type { Summaries } from '../derive/summaries';
import type { Db } from '../db/database';
import { hardware, hardwareMove } from '../db/schema';
import type { Sessions, SignedIn } from '../sign-in/session';
import { checkedJson } from '../web/checked';
import { Problem } from '../web/problem';

const pieceSchema = z.strictObject({
  id: z.uuid({ error: 'expected an id in UUID form' }).refine((id) => id === id.toLowerCase(), {
    error: 'expected an id in small letters',
  }),
  name: z
    .string({ error: 'the name must be text' })
    .trim()
    .min(1, { error: 'give it a name' })
    .max(80, { error: 'the name must be at most 80 characters' })
    .refine(isWellFormed, { error: 'the name ends in half a character' }),
  hardware: hardwareSchema,
});

/** Moves of one piece that a plan learns from: the newest tell most. */
const MOST_MOVES = 100;

/** The shelf of a shop: its timing hardware, with what each piece gave on every engine so far. */
export function hardwareRoutes(db: Db, sessions: Sessions, summaries: Summaries) {
  return new Hono<SignedIn>()
    .use('/hardware/*', sessions.required)
    .get('/hardware', async (c) => {
      const { shopId } = c.get('account');
      // What a piece gave is worked out beside: the shelf waits for nothing, and has it the next time.
      await summaries.renewShop(shopId);
      const pieces = await db
        .select()
        .from(hardware)
        .where(and(eq(hardware.shopId, shopId), eq(hardware.retired, false)))
        .orderBy(hardware.name);
      const ids = pieces.map(({ id }) => id);
      const moves =
        ids.length === 0 ? [] : await db.select().from(hardwareMove).where(inArray(hardwareMove.hardwareId, ids));
      return c.json({
        pieces: pieces.map(({ id, name, body }) => ({
          id,
          name,
          hardware: body,
          experience: moves
            .filter(({ hardwareId }) => hardwareId === id)
            .slice(-MOST_MOVES)
            .map(({ buildId, settings, gave, standard }) => ({
              buildId,
              ...settings,
              gave: Number(gave),
              standard: Number(standard),
            })),
        })),
      });
    })
    .put('/hardware', checkedJson(pieceSchema), async (c) => {
      const { shopId } = c.get('account');
      const { id, name, hardware: body } = c.req.valid('json');
      const [known] = await db.select({ shopId: hardware.shopId }).from(hardware).where(eq(hardware.id, id));
      if (known && known.shopId !== shopId) throw new Problem(409, 'Id in use', 'This id is in use already.');
      const row = { name, body, retired: false, changedAt: new Date() };
      if (known) await db.update(hardware).set(row).where(eq(hardware.id, id));
      else await db.insert(hardware).values({ id, shopId, ...row });
      return c.json({ id });
    })
    .delete('/hardware/:id', async (c) => {
      const [known] = await db
        .select({ shopId: hardware.shopId })
        .from(hardware)
        .where(eq(hardware.id, c.req.param('id')));
      if (known?.shopId !== c.get('account').shopId)
        throw new Problem(404, 'Not found', 'There is no such piece on your shelf.');
      await db
        .update(hardware)
        .set({ retired: true, changedAt: new Date() })
        .where(eq(hardware.id, c.req.param('id')));
      return c.json({ ok: true });
    });
}
