import { and, eq, inArray } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '@yosoku/core/logbook/entry';
import { type BuildFile, readBuildFile } from '@yosoku/core/logbook/file';
import type { Db } from '../db/database';
import { build, builder, entry } from '../db/schema';
import type { Account } from '../sign-in/session';
import { Problem } from '../web/problem';
import { type EntryRow, type Placed, idInUse, isSame, toRow } from './posting';
import { closedAfter, closingSignature, lastSeq } from './tail';

/** Rows in one statement. */
const AT_ONCE = 500;

/**
 * Takes a build file into a shop: all of it, or nothing. What the shop has of it already is passed over; a build that belongs to another shop is taken in as
 * a copy with an id of its own. Throws a problem that names the field at fault.
 */
export async function takeIn(
  db: Db,
  account: Account,
  text: string,
): Promise<{ readonly buildId: string; readonly name: string; readonly placed: readonly Placed[] }> {
  const read = readBuildFile(text);
  if (!read.ok) {
    const where = read.field === '' ? '' : `${read.field}: `;
    throw new Problem(422, 'Not a build file', `${where}${read.message}. Nothing was taken in.`);
  }
  const { entries } = read.file;
  const [first] = entries;
  if (first?.kind !== 'build.described')
    throw new Problem(422, 'Not a build file', 'It does not say what engine it is.');
  return db.transaction(async (tx) => {
    const db_ = tx as unknown as Db;
    const [owner] = await tx
      .select({ shopId: build.shopId })
      .from(build)
      .where(eq(build.id, first.buildId))
      .for('update');
    const foreign = owner !== undefined && owner.shopId !== account.shopId;
    const buildId = foreign ? uuidv7() : first.buildId;
    if (owner === undefined || foreign)
      await tx.insert(build).values({
        id: buildId,
        shopId: account.shopId,
        name: first.body.name,
        createdAt: new Date(),
        builders: namesIn(read.file),
      });
    const placed = await placeAll(db_, account, buildId, entries);
    return { buildId, name: first.body.name, placed };
  });
}

async function placeAll(db: Db, account: Account, buildId: string, entries: readonly Entry[]): Promise<Placed[]> {
  const here = new Map<string, EntryRow>();
  for (let at = 0; at < entries.length; at += AT_ONCE) {
    const ids = entries.slice(at, at + AT_ONCE).map(({ id }) => id);
    const rows = await db
      .select()
      .from(entry)
      .where(and(inArray(entry.id, ids), eq(entry.buildId, buildId)));
    for (const row of rows) here.set(row.id, row);
  }
  const fresh: EntryRow[] = [];
  const placed: Placed[] = [];
  let seq = await lastSeq(db, buildId);
  for (const posted of entries) {
    const known = here.get(posted.id);
    if (known && !isSame(known, posted)) throw idInUse();
    if (known) continue;
    seq += 1;
    fresh.push(toRow({ ...posted, buildId }, seq, account));
    placed.push({ id: posted.id, seq });
  }
  const partly = here.size > 0 && fresh.length > 0;
  if (
    partly &&
    closedAfter(
      await closingSignature(db, buildId),
      entries.filter(({ id }) => !here.has(id)),
    ) === 'refused'
  )
    throw new Problem(
      409,
      'Signed',
      'This build is here already, and signed. Reopen it before more is taken in. Nothing was taken in.',
    );
  for (let at = 0; at < fresh.length; at += AT_ONCE) await db.insert(entry).values(fresh.slice(at, at + AT_ONCE));
  return placed;
}

const namesIn = ({ builders = [], entries }: BuildFile) => {
  const named = new Set(entries.map(({ builderId }) => builderId));
  return builders.filter(({ id }) => named.has(id));
};

/** Who wrote in a build: builders of the shop, and those that came with a file. */
export async function namesOf(
  db: Db,
  shopId: string,
  buildId: string,
): Promise<{ readonly id: string; readonly name: string }[]> {
  const wrote = await db.selectDistinct({ id: entry.builderId }).from(entry).where(eq(entry.buildId, buildId));
  const own = await db.select({ id: builder.id, name: builder.name }).from(builder).where(eq(builder.shopId, shopId));
  const [brought] = await db.select({ builders: build.builders }).from(build).where(eq(build.id, buildId));
  const known = new Map([...(brought?.builders ?? []), ...own].map(({ id, name }) => [id, name]));
  return wrote.flatMap(({ id }) => {
    const name = known.get(id);
    return name === undefined ? [] : [{ id, name }];
  });
}
