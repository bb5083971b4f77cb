import { isDeepStrictEqual } from 'node:util';
import { and, eq, inArray } from 'drizzle-orm';
import type { Entry } from '@yosoku/core/record/entry';
import type { Db } from '../db/database';
import { builder, type entry } from '../db/schema';
import type { Account } from '../sign-in/account';
import { Problem } from '../web/problem';

/** Entries to be put at the end of one build's logbook, all or none, by somebody who is signed in. */
export interface Posting {
  readonly account: Account;
  readonly buildId: string;
  readonly entries: readonly Entry[];
}

/** An entry's place in its build's logbook. Places are gapless and begin at 1. */
export interface Placed {
  readonly id: string;
  readonly seq: number;
}

export type EntryRow = typeof entry.$inferInsert;

export const noSuchBuild = (): Problem =>
  new Problem(
    404,
    'No such build',
    'There is no such build in your shop. It may belong to another shop, or its first entry has not arrived yet.',
  );

export const idInUse = (): Problem =>
  new Problem(409, 'Id in use', 'An entry with this id is in the logbook already, with other contents.');

export const signed = (): Problem =>
  new Problem(
    409,
    'Signed',
    'This build is signed and closed. Reopen it with a reason, then send this again; until then it waits where it was written.',
  );

/** Throws a problem for an engine that is made up to practise on. */
export function refusePractice(posted: Entry): void {
  if (posted.kind === 'build.described' && posted.body.practice)
    throw new Problem(
      422,
      'Practice',
      'This is an engine that was made up to practise on. It is never kept among the builds of a shop.',
    );
}

const isLowerCase = (id: string): boolean => id === id.toLowerCase();

/** Ids are kept in small letters: the database takes capitals for the same, and nothing else does. Throws a problem that names the field. */
export function requireLowerCaseIds(entries: readonly Entry[]): void {
  entries.forEach((each, at) => {
    for (const field of ['id', 'buildId', 'builderId'] as const)
      if (!isLowerCase(each[field]))
        throw new Problem(422, 'Not understood', `entries[${at}].${field}: expected an id in small letters.`, [
          { field: `entries[${at}].${field}`, message: 'expected an id in small letters' },
        ]);
  });
}

/** Who signs is who is signed in. Throws a problem otherwise. */
function checkSigner({ account, entries }: Posting): void {
  if (entries.some(({ kind, builderId }) => kind === 'build.signed' && builderId !== account.builderId))
    throw new Problem(
      403,
      'Not your signature',
      'Only who is signed in signs a build. Whoever wrote this signature signs in on this device and sends it again.',
    );
}

/** Does a row hold just what is posted? Then posting it again is harmless. */
export const isSame = (row: Pick<EntryRow, 'kind' | 'body' | 'builderId' | 'takenAt'>, posted: Entry): boolean =>
  row.kind === posted.kind &&
  row.builderId === posted.builderId &&
  row.takenAt.getTime() === new Date(posted.takenAt).getTime() &&
  isDeepStrictEqual(row.body, posted.body);

/** The row of an entry. Throws a problem for an engine that is made up to practise on: every way into a logbook comes through here. */
export function toRow(posted: Entry, seq: number, account: Account): EntryRow {
  refusePractice(posted);
  return {
    id: posted.id,
    buildId: posted.buildId,
    seq,
    kind: posted.kind,
    body: posted.body,
    takenAt: new Date(posted.takenAt),
    builderId: posted.builderId,
    postedBy: account.builderId,
    receivedAt: new Date(),
  };
}

/** Every entry must be of the build that is posted to, and by a builder of the shop. Throws a problem otherwise. */
export async function checkAuthors(db: Db, posting: Posting): Promise<void> {
  const { account, buildId, entries } = posting;
  requireLowerCaseIds(entries);
  checkSigner(posting);
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
