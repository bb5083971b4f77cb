import { and, eq, inArray } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '@yosoku/core/record/entry';
import type { BuildFile } from '@yosoku/core/record/file';
import { readBuildFile } from '@yosoku/core/record/read-file';
import type { Db } from '../db/database';
import { build, builder, entry } from '../db/schema';
import { isDuplicate, retried } from '../db/trouble';
import type { Account } from '../sign-in/account';
import { Problem } from '../web/problem';
import { pointsIn } from './points';
import { type EntryRow, type Placed, idInUse, isSame, requireLowerCaseIds, toRow } from './posting';
import { closedAfter, closingSignature, lastSeq } from './tail';

/** Rows in one statement, and the points of traces in it: a statement of a few megabytes is the most that a database likes. */
const AT_ONCE = 500;
const POINTS_AT_ONCE = 50_000;

export interface TakenIn {
  readonly buildId: string;
  readonly name: string;
  readonly placed: readonly Placed[];
}

/**
 * Takes a build file into a shop: all of it, or nothing. What the shop has of it already is passed over; a build that belongs to another shop is taken in as
 * a copy with an id of its own. Throws a problem that names the field at fault.
 * @param mostPoints of all traces together.
 */
export async function takeIn(db: Db, account: Account, text: string, mostPoints: number): Promise<TakenIn> {
  const read = readBuildFile(text);
  if (!read.ok) {
    const where = read.field === '' ? '' : `${read.field}: `;
    throw new Problem(422, 'Not a build file', `${where}${read.message}. Nothing was imported.`);
  }
  const { entries } = read.file;
  const [first] = entries;
  if (first?.kind !== 'build.described')
    throw new Problem(422, 'Not a build file', 'It does not say what engine it is.');
  const points = pointsIn(entries);
  if (points > mostPoints)
    throw new Problem(
      422,
      'Too much',
      `The traces in this file have ${points} points in all; at most ${mostPoints} are worked through. Nothing was imported.`,
    );
  requireLowerCaseIds(entries);
  // Two imports of one build, or of builds side by side, may stand in each other's way: all of it is done again.
  return retried(
    () =>
      db.transaction(async (tx) => {
        const db_ = tx as unknown as Db;
        const [owner] = await tx
          .select({ shopId: build.shopId })
          .from(build)
          .where(eq(build.id, first.buildId))
          .for('update');
        const foreign = owner !== undefined && owner.shopId !== account.shopId;
        const buildId = foreign ? uuidv7() : first.buildId;
        const known = owner !== undefined && !foreign;
        if (!known)
          await tx.insert(build).values({
            id: buildId,
            shopId: account.shopId,
            name: first.body.name,
            createdAt: new Date(),
            builders: namesIn(read.file),
          });
        const placed = await placeAll(db_, account, buildId, entries, known);
        return { buildId, name: first.body.name, placed };
      }),
    isDuplicate,
  );
}

/**
 * Nobody can bring a signature of another builder of this shop in a file: who signs here is who is signed in. Those of other shops came with
 * their names, and stay what they were.
 */
async function checkSignatures(db: Db, account: Account, fresh: readonly Entry[]): Promise<void> {
  const signers = new Set(fresh.filter(({ kind }) => kind === 'build.signed').map(({ builderId }) => builderId));
  signers.delete(account.builderId);
  if (signers.size === 0) return;
  const [own] = await db
    .select({ name: builder.name })
    .from(builder)
    .where(and(eq(builder.shopId, account.shopId), inArray(builder.id, [...signers])));
  if (own)
    throw new Problem(
      403,
      'Not your signature',
      `The file signs in the name of ${own.name}, who belongs to this shop. Only who is signed in signs here. Nothing was imported.`,
    );
}

async function placeAll(
  db: Db,
  account: Account,
  buildId: string,
  entries: readonly Entry[],
  known: boolean,
): Promise<Placed[]> {
  const here = new Map<string, EntryRow>();
  for (let at = 0; known && at < entries.length; at += AT_ONCE) {
    const ids = entries.slice(at, at + AT_ONCE).map(({ id }) => id);
    const rows = await db
      .select()
      .from(entry)
      .where(and(inArray(entry.id, ids), eq(entry.buildId, buildId)));
    for (const row of rows) here.set(row.id, row);
  }
  for (const posted of entries) {
    const row = here.get(posted.id);
    if (row && !isSame(row, posted)) throw idInUse();
  }
  const fresh = entries.filter(({ id }) => !here.has(id));
  if (fresh.length === 0) return [];
  await checkSignatures(db, account, fresh);
  if (known && closedAfter(await closingSignature(db, buildId), fresh) === 'refused')
    throw new Problem(
      409,
      'Signed',
      'This build is here already, and signed. Reopen it before you import more. Nothing was imported.',
    );
  const last = await lastSeq(db, buildId);
  const rows = fresh.map((posted, at) => toRow({ ...posted, buildId }, last + at + 1, account));
  for (let from = 0; from < rows.length;) {
    let to = from + 1;
    let points = pointsIn(fresh.slice(from, to));
    while (to < rows.length && to - from < AT_ONCE && points + pointsIn(fresh.slice(to, to + 1)) <= POINTS_AT_ONCE) {
      points += pointsIn(fresh.slice(to, to + 1));
      to += 1;
    }
    await db.insert(entry).values(rows.slice(from, to));
    from = to;
  }
  return rows.map(({ id, seq }) => ({ id, seq }));
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
