import { and, eq, inArray } from 'drizzle-orm';
import type { Entry } from '@yosoku/core/record/entry';
import type { Db } from '../db/database';
import { isDuplicate, retried } from '../db/trouble';
import { build, entry } from '../db/schema';
import type { Account } from '../sign-in/account';
import { Problem } from '../web/problem';
import {
  type EntryRow,
  type Placed,
  type Posting,
  checkAuthors,
  idInUse,
  isSame,
  noSuchBuild,
  refusePractice,
  signed,
  toRow,
} from './posting';
import { closedAfter, closingSignature, lastSeq } from './tail';

/**
 * Puts a posting at the end of its logbook in one transaction that holds the build. Slow but certain: the way for
 * everything that `writer.ts` could not settle at once. An entry that is there already keeps its place; the same id
 * with other contents is refused with a problem.
 */
export async function append(db: Db, posting: Posting): Promise<Placed[]> {
  // Another server may take the same place at the same moment; then the next one is tried.
  return retried(() => db.transaction((tx) => place(tx as unknown as Db, posting)), isDuplicate);
}

async function place(tx: Db, { account, buildId, entries }: Posting): Promise<Placed[]> {
  const [owned] = await tx
    .select({ id: build.id })
    .from(build)
    .where(and(eq(build.id, buildId), eq(build.shopId, account.shopId)))
    .for('update');
  if (!owned) throw noSuchBuild();
  const ids = entries.map(({ id }) => id);
  const rows: EntryRow[] = await tx
    .select()
    .from(entry)
    .where(and(inArray(entry.id, ids), eq(entry.buildId, buildId)));
  const fresh: EntryRow[] = [];
  const unknown = entries.filter((posted) => !rows.some(({ id }) => id === posted.id));
  if (unknown.length > 0 && closedAfter(await closingSignature(tx, buildId), unknown) === 'refused') throw signed();
  let seq = await lastSeq(tx, buildId);
  for (const posted of entries) {
    const row = rows.find(({ id }) => id === posted.id);
    if (row && !isSame(row, posted)) throw idInUse();
    if (row) continue;
    seq += 1;
    const made = toRow(posted, seq, account);
    rows.push(made);
    fresh.push(made);
  }
  if (fresh.length > 0) await tx.insert(entry).values(fresh);
  return ids.map((id) => ({ id, seq: rows.find((row) => row.id === id)?.seq ?? 0 }));
}

/**
 * Opens a logbook with its first entry. Opening the same one again is harmless.
 * Throws a 409 problem when the id belongs to a build of another shop.
 */
export async function openBuild(
  db: Db,
  account: Account,
  first: Extract<Entry, { kind: 'build.described' }>,
): Promise<Placed[]> {
  const posting: Posting = { account, buildId: first.buildId, entries: [first] };
  refusePractice(first);
  await checkAuthors(db, posting);
  await retried(() =>
    db
      .insert(build)
      .ignore()
      .values({ id: first.buildId, shopId: account.shopId, name: first.body.name, createdAt: new Date() }),
  );
  try {
    return await append(db, posting);
  } catch (error) {
    if (error instanceof Problem && error.status === 404)
      throw new Problem(409, 'Id in use', 'This build’s id is in use already.');
    throw error;
  }
}
