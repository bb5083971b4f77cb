import { desc, eq, max } from 'drizzle-orm';
import { listHeadline } from '@yosoku/core/logbook/list-headline';
import { derive } from '@yosoku/core/logbook/report';
import type { Db } from '../db/database';
import { build, entry, hardwareMove } from '../db/schema';
import { readEntries } from './logbook';

/** A shop's builds with the place and the time of their newest entries, the one last worked on first. */
const readBuilds = (db: Db, shopId: string) =>
  db
    .select({ build, seq: max(entry.seq), updatedAt: max(entry.receivedAt) })
    .from(build)
    .innerJoin(entry, eq(entry.buildId, build.id))
    .where(eq(build.shopId, shopId))
    .groupBy(build.id)
    .orderBy(desc(max(entry.receivedAt)));

/** What a list has room for. */
const LONGEST_HEADLINE = 255;
const cut = (headline: string): string =>
  headline.length > LONGEST_HEADLINE ? `${headline.slice(0, LONGEST_HEADLINE - 1)}…` : headline;

/** Derives one build's summary columns from its entries. */
export async function renewSummary(db: Db, buildId: string): Promise<void> {
  const entries = await readEntries(db, buildId);
  const report = derive(entries);
  const columns = report
    ? {
        name: report.build.name,
        zeroState: report.zero.state,
        verdictKind: report.verdict.kind,
        headline: cut(listHeadline(report)),
        delta: report.verdict.delta === null ? null : report.verdict.delta.toFixed(6),
      }
    : {};
  await db.transaction(async (tx) => {
    await tx.delete(hardwareMove).where(eq(hardwareMove.buildId, buildId));
    const moves = (report?.experience ?? []).map(({ library, from, to, gave, standard }, place) => ({
      buildId,
      place,
      hardwareId: library,
      settings: { from, to },
      gave: gave.toFixed(6),
      standard: standard.toFixed(6),
    }));
    if (moves.length > 0) await tx.insert(hardwareMove).values(moves);
    await tx
      .update(build)
      .set({ ...columns, summarySeq: entries.at(-1)?.seq ?? 0 })
      .where(eq(build.id, buildId));
  });
}

/** A shop's builds once nothing that was worked out lags behind its entries. */
export async function renewed(db: Db, shopId: string) {
  const rows = await readBuilds(db, shopId);
  const stale = rows.filter((row) => row.seq !== row.build.summarySeq);
  for (const row of stale) await renewSummary(db, row.build.id);
  return stale.length > 0 ? readBuilds(db, shopId) : rows;
}

/**
 * A shop's builds, the one last worked on first. Summaries that lag behind their entries are renewed first: so a list is never
 * behind, and posting a reading at the engine costs no derivation.
 */
export async function listBuilds(db: Db, shopId: string) {
  const rows = await renewed(db, shopId);
  return rows.map((row) => ({
    id: row.build.id,
    name: row.build.name,
    zeroState: row.build.zeroState,
    verdictKind: row.build.verdictKind,
    headline: row.build.headline,
    delta: row.build.delta === null ? null : Number(row.build.delta),
    updatedAt: (row.updatedAt ?? row.build.createdAt).toISOString(),
  }));
}
