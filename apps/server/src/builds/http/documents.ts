import { type Context, Hono } from 'hono';
import { z } from 'zod';
import { paperWish } from '@yosoku/core/paper/wish';
import { parseAngles } from '@yosoku/core/report/piston-table';
import type { Db } from '../../db/database';
import type { Deriver } from '../../derive/deriver';
import type { Sessions, SignedIn } from '../../sign-in/session';
import { checkedQuery } from '../../web/checked';
import { requireBuild } from '../logbook';

const paperSchema = z.strictObject({
  paper: z.enum(['a4', 'letter'], { error: 'expected a4 or letter' }).optional(),
});
const sheetSchema = paperSchema.extend({
  reader: z.enum(['shop', 'customer'], { error: 'expected shop or customer' }).optional(),
});

/** Angles as they are typed, "−15, 0, 15". */
const pistonSchema = paperSchema.extend({
  angles: z
    .string()
    .max(400, { error: 'too many angles' })
    .transform((typed, context) => {
      const parsed = parseAngles(typed);
      if (parsed.ok) return parsed.angles;
      context.addIssue({ code: 'custom', message: parsed.message });
      return z.NEVER;
    }),
});

/** A PDF under the name of its build, for browsers that know no more than ASCII under a plain one. */
function asPdf(c: Context, bytes: Uint8Array, plain: string, name: string): Response {
  const file = name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase();
  return c.body(new Uint8Array(bytes), 200, {
    'Content-Type': 'application/pdf',
    'Content-Disposition': `inline; filename="${plain}.pdf"; filename*=UTF-8\'\'${encodeURIComponent(file)}.pdf`,
  });
}

/** What is printed of a build. */
export const documentRoutes = (db: Db, sessions: Sessions, deriver: Deriver) =>
  new Hono<SignedIn>()
    .get('/builds/:id/sheet.pdf', sessions.required, checkedQuery(sheetSchema), async (c) => {
      const id = c.req.param('id');
      const { shopId, shopName } = c.get('account');
      await requireBuild(db, shopId, id);
      const { paper = 'a4', reader = 'shop' } = c.req.valid('query');
      const printing = { shopName, paper, reader, printedAt: new Date() } as const;
      const { name, bytes } = await deriver.run('sheet', { buildId: id, shopId, printing });
      return asPdf(c, bytes, 'build-sheet', name);
    })
    .get('/builds/:id/pistons.pdf', sessions.required, checkedQuery(pistonSchema), async (c) => {
      const id = c.req.param('id');
      const { shopId, shopName } = c.get('account');
      await requireBuild(db, shopId, id);
      const { paper = 'a4', angles } = c.req.valid('query');
      const printing = { shopName, paper, printedAt: new Date() };
      const { name, bytes } = await deriver.run('sheet', { buildId: id, shopId, printing, angles });
      return asPdf(c, bytes, 'pistons', name);
    })
    .get('/builds/:id/paper.pdf', sessions.required, checkedQuery(paperWish), async (c) => {
      const id = c.req.param('id');
      const { shopId, shopName } = c.get('account');
      await requireBuild(db, shopId, id);
      const address = `${new URL(c.req.url).origin}/builds/${id}`;
      const { name, bytes } = await deriver.run('paper', {
        buildId: id,
        wish: c.req.valid('query'),
        shopName,
        address,
      });
      return asPdf(c, bytes, 'paper', name);
    })
    .get('/paper.pdf', sessions.required, checkedQuery(paperWish), async (c) => {
      const { shopName } = c.get('account');
      const address = new URL(c.req.url).origin;
      const wish = c.req.valid('query');
      const { name, bytes } = await deriver.run('paper', { buildId: null, wish, shopName, address });
      return asPdf(c, bytes, 'paper', name);
    });
