import { and, asc, eq, getTableColumns, gt, sql } from 'drizzle-orm';
import type { Entry } from '@yosoku/core/record/entry';
import type { Db } from '../db/database';
import { build, entry } from '../db/schema';
import { Problem } from '../web/problem';

/** The entries of a build after a place in it, oldest first. Scope the build to its shop before asking. */
export async function readEntries(db: Db, buildId: string, after = 0): Promise<Entry[]> {
  const rows = await db
    .select()
    .from(entry)
    .where(and(eq(entry.buildId, buildId), gt(entry.seq, after)))
    .orderBy(asc(entry.seq));
  // Rows were checked by entrySchema when they came; checking 10,000 again would only cost time.
  return rows.map(
    (row) =>
      ({
        id: row.id,
        buildId: row.buildId,
        kind: row.kind,
        body: row.body,
        takenAt: row.takenAt.toISOString(),
        builderId: row.builderId,
        seq: row.seq,
        receivedAt: row.receivedAt.toISOString(),
        ...(row.postedBy === row.builderId ? {} : { postedBy: row.postedBy }),
      }) as Entry,
  );
}

/** The same as the text of a JSON list: bodies are passed on as the database has them. */
export async function entriesAsJson(db: Db, buildId: string, after = 0): Promise<string> {
  const rows = await db
    .select({ ...getTableColumns(entry), body: sql<string>`cast(${entry.body} as char)` })
    .from(entry)
    .where(and(eq(entry.buildId, buildId), gt(entry.seq, after)))
    .orderBy(asc(entry.seq));
  const texts = rows.map(({ body, takenAt, receivedAt, postedBy, ...row }) => {
    const fact = JSON.stringify({
      ...row,
      takenAt: takenAt.toISOString(),
      receivedAt: receivedAt.toISOString(),
      ...(postedBy === row.builderId ? {} : { postedBy }),
    });
    return `${fact.slice(0, -1)},"body":${body}}`;
  });
  return `[${texts.join(',')}]`;
}

/** Throws a 404 problem unless the build is one of the shop's. */
export async function requireBuild(db: Db, shopId: string, buildId: string): Promise<void> {
  const [row] = await db
    .select({ id: build.id })
    .from(build)
    .where(and(eq(build.id, buildId), eq(build.shopId, shopId)));
  if (!row) throw new Problem(404, 'No such build', 'There is no such build in your shop.');
}
