import { and, desc, eq, ne } from 'drizzle-orm';
import { derive } from '@yosoku/core/logbook/report';
import type { Db } from '../db/database';
import { build } from '../db/schema';
import { readEntries } from './logbook';

/**
 * Brings the summary columns of a shop's builds up to their newest entries. Lists do this before they answer, so that posting
 * a reading at the engine costs no derivation.
 */
async function renewSummaries(db: Db, shopId: string): Promise<void> {
  const stale = await db
    .select({ id: build.id })
    .from(build)
    .where(and(eq(build.shopId, shopId), ne(build.seq, build.summarySeq)));
  for (const { id } of stale) await renewSummary(db, id);
}

/** Derives one build's summary columns from its entries. */
export async function renewSummary(db: Db, buildId: string): Promise<void> {
  const entries = await readEntries(db, buildId);
  const summarySeq = entries.at(-1)?.seq ?? 0;
  const report = derive(entries);
  const columns = report
    ? {
        name: report.build.name,
        zeroState: report.zero.state,
        verdictKind: report.verdict.kind,
        headline: report.verdict.headline,
        delta: report.verdict.delta === null ? null : report.verdict.delta.toFixed(6),
      }
    : {};
  await db
    .update(build)
    .set({ ...columns, summarySeq })
    .where(eq(build.id, buildId));
}

/** A shop's builds, the one last worked on first. */
export async function listBuilds(db: Db, shopId: string) {
  await renewSummaries(db, shopId);
  const rows = await db.select().from(build).where(eq(build.shopId, shopId)).orderBy(desc(build.updatedAt));
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    seq: row.seq,
    zeroState: row.zeroState,
    verdictKind: row.verdictKind,
    headline: row.headline,
    delta: row.delta === null ? null : Number(row.delta),
    updatedAt: row.updatedAt.toISOString(),
  }));
}
