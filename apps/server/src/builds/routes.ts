import { setTimeout as wait } from 'node:timers/promises';
import { Hono } from 'hono';
import { streamSSE } from 'hono/streaming';
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
import { makeWatch } from './watch';
import { makeWriter } from './writer';

/** A sign of life on a stream that says nothing else, and how many of them before it is begun anew. */
const BEAT_MS = 15_000;
const MOST_BEATS = 20;

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
  const watch = makeWatch(db);
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
      .get('/builds/:id/stream', checkedQuery(sinceSchema), async (c) => {
        const id = c.req.param('id');
        await requireBuild(db, c.get('account').shopId, id);
        // A browser that comes back says what it had last.
        const after = Number(c.req.header('last-event-id') ?? c.req.valid('query').after ?? 0);
        return streamSSE(c, async (stream) => {
          const stop = await watch(id, Number.isSafeInteger(after) && after >= 0 ? after : 0, (entries) => {
            void stream.writeSSE({ id: String(entries.at(-1)?.seq ?? after), data: JSON.stringify(entries) });
          });
          const gone = new AbortController();
          stream.onAbort(() => gone.abort());
          // Ended now and then: whoever still looks asks again, and must still be signed in.
          for (let beats = 0; beats < MOST_BEATS && !stream.aborted; beats += 1) {
            await wait(BEAT_MS, undefined, { signal: gone.signal }).catch(() => undefined);
            if (!stream.aborted) await stream.writeSSE({ event: 'beat', data: '' });
          }
          stop();
        });
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
