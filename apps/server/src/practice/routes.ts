import { desc, eq } from 'drizzle-orm';
import { Hono } from 'hono';
import { z } from 'zod';
import { time } from '@yosoku/core/record/entries/entry-fields';
import { EXERCISE_NAMES } from '@yosoku/core/practice/exercises';
import type { Db } from '../db/database';
import { isDuplicate } from '../db/trouble';
import { practiceScore } from '../db/schema';
import type { Sessions, SignedIn } from '../sign-in/session';
import { checkedJson } from '../web/checked';

const scoreSchema = z.strictObject({
  id: z.uuid({ error: 'expected an id in UUID form' }).refine((id) => id === id.toLowerCase(), {
    error: 'expected an id in small letters',
  }),
  exercise: z.enum(EXERCISE_NAMES, { error: 'there is no such exercise' }),
  score: z.int({ error: 'a score is a whole number' }).min(0).max(100, { error: 'a score is at most 100' }),
  hints: z.int().min(0).max(1000),
  doneAt: time,
});

/** The newest that are told: enough for every exercise many times over. */
const MOST = 500;

/** What a builder has scored. Each sees his own. */
export function practiceRoutes(db: Db, sessions: Sessions) {
  return new Hono<SignedIn>()
    .use('/practice/*', sessions.required)
    .get('/practice/scores', async (c) => {
      const rows = await db
        .select()
        .from(practiceScore)
        .where(eq(practiceScore.builderId, c.get('account').builderId))
        .orderBy(desc(practiceScore.doneAt))
        .limit(MOST);
      return c.json({
        scores: rows.map(({ id, exercise, score, hints, doneAt }) => ({
          id,
          exercise,
          score,
          hints,
          doneAt: doneAt.toISOString(),
        })),
      });
    })
    .post('/practice/scores', checkedJson(scoreSchema), async (c) => {
      const score = c.req.valid('json');
      try {
        await db
          .insert(practiceScore)
          .values({ ...score, builderId: c.get('account').builderId, doneAt: new Date(score.doneAt) });
      } catch (error) {
        // Sent twice: it is kept already.
        if (!isDuplicate(error)) throw error;
      }
      return c.json({ ok: true }, 201);
    });
}
