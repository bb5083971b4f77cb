import { isDeepStrictEqual } from 'node:util';
import { and, eq, inArray } from 'drizzle-orm';
import type { Entry } from '@yosoku/core/logbook/entry';
import type { Db } from '../db/database';
import { build, builder, entry } from '../db/schema';
import type { Account } from '../sign-in/session';
import { Problem } from '../web/problem';

export interface Placed {
  readonly id: string;
  readonly seq: number;
}

const NOT_HERE = new Problem(
  404,
  'No such build',
  'There is no such build in your shop. It may belong to another shop, or its first entry has not arrived yet.',
);

type EntryRow = typeof entry.$inferInsert;

const isSame = (row: Pick<EntryRow, 'kind' | 'body' | 'builderId' | 'takenAt'>, posted: Entry): boolean =>
  row.kind === posted.kind &&
  row.builderId === posted.builderId &&
  row.takenAt.getTime() === new Date(posted.takenAt).getTime() &&
  isDeepStrictEqual(row.body, posted.body);

/** Every entry must be of the build that is posted to, and by a builder of the shop. */
async function checkAuthors(db: Db, account: Account, buildId: string, entries: readonly Entry[]): Promise<void> {
  const foreign = entries.findIndex((each) => each.buildId !== buildId);
  if (foreign >= 0)
    throw new Problem(422, 'Wrong build', `Entry ${foreign + 1} belongs to another build than the one it was sent to.`);
  const others = [...new Set(entries.map((each) => each.builderId))].filter((id) => id !== account.builderId);
  if (others.length === 0) return;
  const known = await db
    .select({ id: builder.id })
    .from(builder)
    .where(and(eq(builder.shopId, account.shopId), inArray(builder.id, others)));
  if (known.length !== others.length)
    throw new Problem(403, 'Not your shop', 'An entry names a builder who does not belong to your shop.');
}

const toRow = (posted: Entry, seq: number, account: Account, receivedAt: Date): EntryRow => ({
  id: posted.id,
  buildId: posted.buildId,
  seq,
  kind: posted.kind,
  body: posted.body,
  takenAt: new Date(posted.takenAt),
  builderId: posted.builderId,
  postedBy: account.builderId,
  receivedAt,
});

/**
 * Puts entries at the end of a build's logbook, in one transaction; all or none.
 * Posting the same entry again is harmless: it keeps the place it has. The same id with other contents is refused.
 * @returns the place of every posted entry.
 */
export async function appendEntries(
  db: Db,
  account: Account,
  buildId: string,
  entries: readonly Entry[],
): Promise<Placed[]> {
  await checkAuthors(db, account, buildId, entries);
  return db.transaction(async (tx) => {
    const [owned] = await tx
      .select({ seq: build.seq })
      .from(build)
      .where(and(eq(build.id, buildId), eq(build.shopId, account.shopId)))
      .for('update');
    if (!owned) throw NOT_HERE;
    return place(tx as unknown as Db, account, buildId, owned.seq, entries);
  });
}

async function place(
  tx: Db,
  account: Account,
  buildId: string,
  lastSeq: number,
  entries: readonly Entry[],
): Promise<Placed[]> {
  const ids = entries.map((each) => each.id);
  const kept = await tx
    .select()
    .from(entry)
    .where(and(eq(entry.buildId, buildId), inArray(entry.id, ids)));
  const places = new Map(kept.map((row) => [row.id, row.seq]));
  const now = new Date();
  let seq = lastSeq;
  const rows: EntryRow[] = [];
  for (const posted of entries) {
    const row = kept.find(({ id }) => id === posted.id) ?? rows.find(({ id }) => id === posted.id);
    if (row && !isSame(row, posted))
      throw new Problem(409, 'Id in use', 'An entry with this id is in the logbook already, with other contents.');
    if (row) continue;
    seq += 1;
    places.set(posted.id, seq);
    rows.push(toRow(posted, seq, account, now));
  }
  if (rows.length > 0) {
    await tx.insert(entry).values(rows);
    await tx.update(build).set({ seq, updatedAt: now }).where(eq(build.id, buildId));
  }
  return ids.map((id) => ({ id, seq: places.get(id) ?? 0 }));
}

/**
 * Opens a logbook with its first entry. Opening the same one again is harmless.
 * Throws a 409 problem when the id belongs to a build of another shop.
 */
export async function openBuild(db: Db, account: Account, first: Extract<Entry, { kind: 'build.described' }>) {
  await checkAuthors(db, account, first.buildId, [first]);
  const now = new Date();
  return db.transaction(async (tx) => {
    await tx.insert(build).ignore().values({
      id: first.buildId,
      shopId: account.shopId,
      seq: 0,
      name: first.body.name,
      createdAt: now,
      updatedAt: now,
    });
    const [row] = await tx.select().from(build).where(eq(build.id, first.buildId)).for('update');
    if (row?.shopId !== account.shopId) throw new Problem(409, 'Id in use', 'This build’s id is in use already.');
    return place(tx as unknown as Db, account, first.buildId, row.seq, [first]);
  });
}
