import { eq, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { build, entry } from '../db/schema';

/** The end of a build's logbook: whose it is, and the place of its newest entry (0 when it has none). */
export interface Tail {
  readonly shopId: string;
  readonly seq: number;
}

/** The place of a build's newest entry; 0 when it has none. */
export async function lastSeq(db: Db, buildId: string): Promise<number> {
  const [row] = await db
    .select({ seq: sql<number>`coalesce(max(${entry.seq}), 0)` })
    .from(entry)
    .where(eq(entry.buildId, buildId));
  return Number(row?.seq ?? 0);
}

/** The end of a build's logbook, or null when there is no such build. */
export async function findTail(db: Db, buildId: string): Promise<Tail | null> {
  const [owner] = await db.select({ shopId: build.shopId }).from(build).where(eq(build.id, buildId));
  return owner ? { shopId: owner.shopId, seq: await lastSeq(db, buildId) } : null;
}
