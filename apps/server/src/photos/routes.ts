import { Hono } from 'hono';
import { fingerprint } from '@yosoku/core/record/entries/photo';
import { requireBuild } from '../builds/logbook';
import type { Db } from '../db/database';
import type { Sessions, SignedIn } from '../sign-in/session';
import { Problem } from '../web/problem';
import { keepPhoto, readPhoto } from './store';

const requireFingerprint = (given: string): string => {
  if (fingerprint.safeParse(given).success) return given;
  throw new Problem(404, 'No such picture', 'A picture is asked for by its fingerprint: 64 hexadecimal digits.');
};

/** The pictures of photos. What they show and belong to stands in the logbook. */
export const photoRoutes = (db: Db, sessions: Sessions) =>
  new Hono<SignedIn>()
    .put('/builds/:id/photos/:picture', sessions.required, async (c) => {
      const id = c.req.param('id');
      const picture = requireFingerprint(c.req.param('picture'));
      await requireBuild(db, c.get('account').shopId, id);
      await keepPhoto(db, id, picture, new Uint8Array(await c.req.arrayBuffer()));
      return c.body(null, 204);
    })
    .get('/builds/:id/photos/:picture', sessions.required, async (c) => {
      const id = c.req.param('id');
      const picture = requireFingerprint(c.req.param('picture'));
      await requireBuild(db, c.get('account').shopId, id);
      const bytes = await readPhoto(db, id, picture);
      if (!bytes)
        throw new Problem(404, 'Not here yet', 'This picture has not been sent yet by the device that took it.');
      return c.body(new Uint8Array(bytes), 200, { 'Content-Type': 'image/jpeg' });
    });
