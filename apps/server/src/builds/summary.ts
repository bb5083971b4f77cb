import { desc, eq, max } from 'drizzle-orm';
import { cutText } from '@yosoku/core/units/text';
import { listHeadline, listPlace } from '@yosoku/core/report/list-headline';
import { derive } from '@yosoku/core/report/report';
import type { Db } from '../db/database';
import { build, entry, hardwareMove } from '../db/schema';
import { retried } from '../db/trouble';
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
  headline.length > LONGEST_HEADLINE ? `${cutText(headline, LONGEST_HEADLINE - 1)}…` : headline;

/** Derives one build's summary columns from its entries. */
export async function renewSummary(db: Db, buildId: string): Promise<void> {
  const entries = await readEntries(db, buildId);
  const report = derive(entries);
  const columns = report
    ? {
        name: report.build.name,
        zeroState: report.zero.state,
        verdictKind: report.verdict.kind,
        place: listPlace(report),
        headline: cut(listHeadline(report)),
        delta: report.verdict.delta === null ? null : report.verdict.delta.toFixed(6),
      }
    : {};
  await retried(() =>
    db.transaction(async (tx) => {
      await tx.delete(hardwareMove).where(eq(hardwareMove.buildId, buildId));
      const moves = (report?.experience ?? []).map(({ library, from, to, gave, standard, took }, place) => ({
        buildId,
        place,
        hardwareId: library,
        settings: { from, to, ...(took === undefined ? {} : { took }) },
        gave: gave.toFixed(6),
        standard: standard.toFixed(6),
      }));
      if (moves.length > 0) await tx.insert(hardwareMove).values(moves);
      await tx
        .update(build)
        .set({ ...columns, summarySeq: entries.at(-1)?.seq ?? 0 })
        .where(eq(build.id, buildId));
    }),
  );
}

/** The builds of a shop whose summaries lag behind their entries. */
export async function staleBuilds(db: Db, shopId: string): Promise<string[]> {
  const rows = await readBuilds(db, shopId);
  return rows.filter((row) => row.seq !== row.build.summarySeq).map((row) => row.build.id);
}

/**
 * A shop's builds, the one last worked on first. One whose summary lags behind its entries says so (`behind`): it is worked out beside, and
 * no list waits for it.
 */
export async function listBuilds(db: Db, shopId: string) {
  const rows = await readBuilds(db, shopId);
  return rows.map((row) => ({
    id: row.build.id,
    name: row.build.name,
    // An app from before `place`, which a device may still have, goes by these two.
    zeroState: row.build.zeroState,
    verdictKind: row.build.verdictKind,
    place: row.build.place,
    headline: row.build.headline,
    delta: row.build.delta === null ? null : Number(row.build.delta),
    updatedAt: (row.updatedAt ?? row.build.createdAt).toISOString(),
    behind: row.seq !== row.build.summarySeq,
  }));
}

/** Marks a summary as up to date that could not be worked out, so that it is not tried for ever. */
export async function giveUpOnSummary(db: Db, buildId: string, why: string): Promise<void> {
  const [row] = await db
    .select({ seq: max(entry.seq) })
    .from(entry)
    .where(eq(entry.buildId, buildId));
  await db
    .update(build)
    .set({ headline: cut(why), summarySeq: row?.seq ?? 0 })
    .where(eq(build.id, buildId));
}
