import { Hono } from 'hono';
import { z } from 'zod';
import { entrySchema } from '@yosoku/core/logbook/entry';
import { derive } from '@yosoku/core/logbook/report';
import type { Db } from '../db/database';
import type { Sessions, SignedIn } from '../sign-in/session';
import { checkedJson, checkedQuery } from '../web/checked';
import { Problem } from '../web/problem';
import { printSheet } from '../documents/build-sheet';
import { openBuild } from './append';
import { namesOf, takeIn } from './take-in';
import { readEntries, requireBuild } from './logbook';
import { listBuilds } from './summary';
import { makeWriter } from './writer';

/** Entries in one posting. An outbox that has waited longer sends several. */
const MOST_AT_ONCE = 200;

const openingSchema = z.strictObject({ entry: entrySchema });
const postingSchema = z.strictObject({
  entries: z
    .array(entrySchema)
    .min(1, { error: 'nothing to keep: the list of entries is empty' })
    .max(MOST_AT_ONCE, { error: `at most ${MOST_AT_ONCE} entries at once` }),
});

const sinceSchema = z.strictObject({
  after: z
    .string()
    .regex(/^\d{1,9}$/, { error: 'expected a place in the logbook, such as 12' })
    .optional(),
});

const paperSchema = z.strictObject({
  paper: z.enum(['a4', 'letter'], { error: 'expected a4 or letter' }).optional(),
});

/** The builds of a shop and their logbooks. */
export function buildRoutes(db: Db, sessions: Sessions) {
  const post = makeWriter(db);
  return (
    new Hono<SignedIn>()
      // This pattern covers /builds itself, too.
      .use('/builds/*', sessions.required)
      .get('/builds', async (c) => c.json({ builds: await listBuilds(db, c.get('account').shopId) }))
      .post('/builds', checkedJson(openingSchema), async (c) => {
        const { entry } = c.req.valid('json');
        if (entry.kind !== 'build.described')
          throw new Problem(422, 'Not understood', 'A logbook opens with the entry that says what engine it is.');
        return c.json({ placed: await openBuild(db, c.get('account'), entry) }, 201);
      })
      .post('/builds/:id/entries', checkedJson(postingSchema), async (c) => {
        const { entries } = c.req.valid('json');
        return c.json({ placed: await post({ account: c.get('account'), buildId: c.req.param('id'), entries }) }, 201);
      })
      .get('/builds/:id/entries', checkedQuery(sinceSchema), async (c) => {
        const id = c.req.param('id');
        await requireBuild(db, c.get('account').shopId, id);
        const after = Number(c.req.valid('query').after ?? 0);
        return c.json({ entries: await readEntries(db, id, after) });
      })
      .get('/builds/:id/builders', async (c) => {
        const id = c.req.param('id');
        await requireBuild(db, c.get('account').shopId, id);
        return c.json({ builders: await namesOf(db, c.get('account').shopId, id) });
      })
      .post('/import', sessions.required, async (c) => {
        const { placed, buildId, name } = await takeIn(db, c.get('account'), await c.req.text());
        return c.json({ buildId, name, placed }, 201);
      })
      .get('/builds/:id/sheet.pdf', checkedQuery(paperSchema), async (c) => {
        const id = c.req.param('id');
        const { shopId, shopName } = c.get('account');
        await requireBuild(db, shopId, id);
        const report = derive(await readEntries(db, id));
        if (!report) throw new Problem(422, 'Nothing to print', 'This logbook does not say what engine it is.');
        const pdf = await printSheet(report, {
          shopName,
          paper: c.req.valid('query').paper ?? 'a4',
          printedAt: new Date(),
        });
        const name = report.build.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase();
        return c.body(new Uint8Array(pdf), 200, {
          'Content-Type': 'application/pdf',
          'Content-Disposition': `inline; filename="build-sheet.pdf"; filename*=UTF-8\'\'${encodeURIComponent(name)}.pdf`,
        });
      })
      .get('/builds/:id/report', async (c) => {
        const id = c.req.param('id');
        await requireBuild(db, c.get('account').shopId, id);
        return c.json({ report: derive(await readEntries(db, id)) });
      })
  );
}
