import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import type { Entry } from '@yosoku/core/record/entry';
import type { Db } from '../db/database';
import { build, entry } from '../db/schema';

/** The signature that closes a build. */
export interface Signature {
  readonly id: string;
  readonly takenAt: Date;
}

/** The end of a build's logbook: whose it is, the place of its newest entry (0 when it has none), and the signature that closes it, if one does. */
export interface Tail {
  readonly shopId: string;
  readonly seq: number;
  readonly closedBy: Signature | null;
}

/** The place of a build's newest entry; 0 when it has none. */
export async function lastSeq(db: Db, buildId: string): Promise<number> {
  const [row] = await db
    .select({ seq: sql<number>`coalesce(max(${entry.seq}), 0)` })
    .from(entry)
    .where(eq(entry.buildId, buildId));
  return Number(row?.seq ?? 0);
}

/** The signature that closes a build now, or null. */
export async function closingSignature(db: Db, buildId: string): Promise<Signature | null> {
  const [last] = await db
    .select({ id: entry.id, kind: entry.kind, takenAt: entry.takenAt })
    .from(entry)
    .where(and(eq(entry.buildId, buildId), inArray(entry.kind, ['build.signed', 'build.reopened'])))
    .orderBy(desc(entry.seq))
    .limit(1);
  return last?.kind === 'build.signed' ? { id: last.id, takenAt: last.takenAt } : null;
}

/**
 * Goes through entries that are to be put at the end of a logbook.
 * @returns the signature that closes it afterwards, or the word `refused`: a signed build takes nothing but its reopening, and what had been taken before it was signed.
 */
export function closedAfter(closedBy: Signature | null, entries: readonly Entry[]): Signature | null | 'refused' {
  let now = closedBy;
  for (const { kind, id, body, takenAt } of entries) {
    if (kind === 'build.reopened' && now !== null && body.signature === now.id) now = null;
    else if (now !== null && (kind === 'build.signed' || new Date(takenAt) >= now.takenAt)) return 'refused';
    else if (kind === 'build.signed') now = { id, takenAt: new Date(takenAt) };
  }
  return now;
}

/** The end of a build's logbook, or null when there is no such build. */
export async function findTail(db: Db, buildId: string): Promise<Tail | null> {
  const [owner] = await db.select({ shopId: build.shopId }).from(build).where(eq(build.id, buildId));
  if (!owner) return null;
  return {
    shopId: owner.shopId,
    seq: await lastSeq(db, buildId),
    closedBy: await closingSignature(db, buildId),
  };
}
