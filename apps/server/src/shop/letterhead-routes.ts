import { Hono } from 'hono';
import { z } from 'zod';
import { letterheadText } from '@yosoku/core/paper/letterhead';
import type { Db } from '../db/database';
import type { Deriver } from '../derive/deriver';
import { ownerOnly } from '../sign-in/owner-only';
import type { Sessions, SignedIn } from '../sign-in/session';
import { checkedJson } from '../web/checked';
import { Problem } from '../web/problem';
import { keepLogo, keepWords, readLetterhead } from '../letterhead/store';

const wordsSchema = z.strictObject({ words: letterheadText });

const MIME = { svg: 'image/svg+xml', png: 'image/png' } as const;

/** The head of a shop's sheets: everybody of the shop sees it, the owner sets it. */
export const letterheadRoutes = (db: Db, sessions: Sessions, deriver: Deriver) =>
  new Hono<SignedIn>()
    .get('/shop/letterhead', sessions.required, async (c) => {
      const { lines, logo } = await readLetterhead(db, c.get('account').shopId);
      return c.json({
        words: lines.join('\n'),
        logo: logo && { kind: logo.kind, width: logo.width, height: logo.height },
      });
    })
    .put('/shop/letterhead', sessions.required, checkedJson(wordsSchema), async (c) => {
      ownerOnly(c.get('account'), 'sets its letterhead');
      await keepWords(db, c.get('account').shopId, c.req.valid('json').words);
      return c.json({ ok: true });
    })
    .get('/shop/logo', sessions.required, async (c) => {
      const { logo } = await readLetterhead(db, c.get('account').shopId);
      if (!logo) throw new Problem(404, 'No logo', 'This shop has no logo.');
      // Whoever opens it as a page gets a picture, and nothing in it is carried out.
      c.header('Content-Security-Policy', "default-src 'none'; style-src 'unsafe-inline'; sandbox");
      return c.body(new Uint8Array(logo.bytes), 200, { 'Content-Type': MIME[logo.kind] });
    })
    .put('/shop/logo', sessions.required, async (c) => {
      ownerOnly(c.get('account'), 'sets its logo');
      // Unpacked and tried on paper away from the process that answers requests.
      const logo = await deriver.run('logo', { file: new Uint8Array(await c.req.arrayBuffer()) });
      await keepLogo(db, c.get('account').shopId, logo);
      return c.json({ ok: true });
    })
    .delete('/shop/logo', sessions.required, async (c) => {
      ownerOnly(c.get('account'), 'sets its logo');
      await keepLogo(db, c.get('account').shopId, null);
      return c.json({ ok: true });
    });
