import { setTimeout as wait } from 'node:timers/promises';
import { Hono } from 'hono';
import { streamSSE } from 'hono/streaming';
import { z } from 'zod';
import { type Entry, entrySchema } from '@yosoku/core/record/entry';
import type { Report } from '@yosoku/core/report/report';
import type { Db } from '../../db/database';
import type { Deriver } from '../../derive/deriver';
import type { Sessions, SignedIn } from '../../sign-in/session';
import { answerJson, answerPackedJson } from '../../web/answer-json';
import { checkedJson, checkedQuery } from '../../web/checked';
import type { Log } from '../../web/log';
import { Problem } from '../../web/problem';
import { openBuild } from '../append';
import { namesOf } from '../take-in';
import { entriesAsJson, requireBuild } from '../logbook';
import { readShelves } from '../shelves';
import { listBuilds } from '../summary';
import type { Summaries } from '../../derive/summaries';
import { makeWatch } from '../watch';
import { makeWriter } from '../writer';

/** A sign of life on a stream that says nothing else, and how many of them before it is begun anew. */
const BEAT_MS = 15_000;
const MOST_BEATS = 20;
/** Streams that are open at the same time: a browser has no more than six lines to one server anyway. */
const MOST_STREAMS_OF_SESSION = 6;
const MOST_STREAMS_OF_SHOP = 100;

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

export interface BuildParts {
  readonly db: Db;
  readonly sessions: Sessions;
  readonly deriver: Deriver;
  readonly summaries: Summaries;
  readonly log: Log;
}

const tooManyStreams = (): Problem =>
  new Problem(429, 'Too many', 'Too many pages follow builds at once. Close some of them.');

/** The builds of a shop and their logbooks. */
export function buildRoutes({ db, sessions, deriver, summaries, log }: BuildParts) {
  const post = makeWriter(db);
  const watch = makeWatch(db, log);
  const streams = new Map<string, number>();
  return (
    new Hono<SignedIn>()
      // This pattern covers /builds itself, too.
      .use('/builds/*', sessions.required)
      .get('/shelves', sessions.required, async (c) => c.json(await readShelves(db, c.get('account').shopId)))
      .get('/builds', async (c) => {
        const builds = await listBuilds(db, c.get('account').shopId);
        for (const { id, behind } of builds) if (behind) summaries.renew(id);
        return c.json({ builds });
      })
      .post('/builds', checkedJson(openingSchema), async (c) => {
        const { entry } = c.req.valid('json');
        if (entry.kind !== 'build.described')
          throw new Problem(422, 'Not understood', 'A logbook opens with the entry that says what engine it is.');
        const placed = await openBuild(db, c.get('account'), entry);
        summaries.touched(entry.buildId);
        return c.json({ placed }, 201);
      })
      .post('/builds/:id/entries', checkedJson(postingSchema), async (c) => {
        const { entries } = c.req.valid('json');
        const buildId = c.req.param('id');
        const placed = await post({ account: c.get('account'), buildId, entries });
        summaries.touched(buildId);
        return c.json({ placed }, 201);
      })
      .get('/builds/:id/entries', checkedQuery(sinceSchema), async (c) => {
        const id = c.req.param('id');
        await requireBuild(db, c.get('account').shopId, id);
        const after = Number(c.req.valid('query').after ?? 0);
        return answerJson(c, `{"entries":${await entriesAsJson(db, id, after)}}`, {} as { entries: Entry[] });
      })
      .get('/builds/:id/stream', checkedQuery(sinceSchema), async (c) => {
        const id = c.req.param('id');
        await requireBuild(db, c.get('account').shopId, id);
        // A browser that comes back says what it had last.
        const after = Number(c.req.header('last-event-id') ?? c.req.valid('query').after ?? 0);
        const { shopId } = c.get('account');
        const open = streams.get(shopId) ?? 0;
        if (open >= MOST_STREAMS_OF_SHOP || sessions.linesOf(c) >= MOST_STREAMS_OF_SESSION) throw tooManyStreams();
        streams.set(shopId, open + 1);
        const gone = new AbortController();
        const forget = sessions.whileSignedIn(c, () => gone.abort());
        return streamSSE(c, async (stream) => {
          const over = (): boolean => stream.aborted || gone.signal.aborted;
          stream.onAbort(() => gone.abort());
          let stop = (): void => undefined;
          try {
            stop = await watch(id, Number.isSafeInteger(after) && after >= 0 ? after : 0, (entries) => {
              void stream.writeSSE({ id: String(entries.at(-1)?.seq ?? after), data: JSON.stringify(entries) });
            });
            // Ended now and then: whoever still looks asks again.
            for (let beats = 0; beats < MOST_BEATS && !over(); beats += 1) {
              await wait(BEAT_MS, undefined, { signal: gone.signal }).catch(() => undefined);
              if (!over()) await stream.writeSSE({ event: 'beat', data: '' });
            }
          } finally {
            stop();
            forget();
            streams.set(shopId, (streams.get(shopId) ?? 1) - 1);
          }
        });
      })
      .get('/builds/:id/builders', async (c) => {
        const id = c.req.param('id');
        await requireBuild(db, c.get('account').shopId, id);
        return c.json({ builders: await namesOf(db, c.get('account').shopId, id) });
      })
      .post('/import', sessions.required, async (c) => {
        const account = c.get('account');
        const { placed, buildId, name } = await deriver.run('takeIn', {
          account,
          file: new Uint8Array(await c.req.arrayBuffer()),
        });
        summaries.renew(buildId);
        return c.json({ buildId, name, placed }, 201);
      })
      .get('/builds/:id/report', async (c) => {
        const id = c.req.param('id');
        await requireBuild(db, c.get('account').shopId, id);
        const { bytes } = await deriver.run('report', { buildId: id });
        return answerPackedJson(c, bytes, {} as { report: Report | null });
      })
  );
}
