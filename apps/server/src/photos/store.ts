import { createHash } from 'node:crypto';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { MOST_PHOTOS } from '@yosoku/core/photos/photo';
import type { Db } from '../db/database';
import { entry, photo } from '../db/schema';
import { Problem } from '../web/problem';
import { readJpeg } from './jpeg';

/** Takes the picture of a photo that the logbook names. The same one again is harmless. Scope the build to its shop before. */
export async function keepPhoto(db: Db, buildId: string, picture: string, bytes: Uint8Array): Promise<void> {
  if (createHash('sha256').update(bytes).digest('hex') !== picture)
    throw new Problem(
      422,
      'Another picture',
      'This is not the picture that the logbook names, or a part of it is missing.',
    );
  const read = readJpeg(bytes);
  if (!read.ok) throw new Problem(422, 'No such picture', read.message);
  const named = await db
    .select({ id: entry.id })
    .from(entry)
    .where(
      and(
        eq(entry.buildId, buildId),
        eq(entry.kind, 'photo.taken'),
        eq(sql`json_value(${entry.body}, '$.picture')`, picture),
      ),
    )
    .limit(1);
  if (named.length === 0)
    throw new Problem(
      409,
      'Not in the logbook',
      'No photo in this build’s logbook has this picture. Its entry has to come first.',
    );
  const [held] = await db
    .select({ count: sql<number>`count(*)` })
    .from(photo)
    .where(eq(photo.buildId, buildId));
  if (Number(held?.count) >= MOST_PHOTOS)
    throw new Problem(
      422,
      'Too many',
      `A build has at most ${MOST_PHOTOS} photos; this one has them. The picture was not kept.`,
    );
  await db
    .insert(photo)
    .ignore()
    .values({ buildId, picture, bytes: Buffer.from(bytes), receivedAt: new Date() });
}

/** The bytes of one picture of a build, or null where they have not come yet. */
export async function readPhoto(db: Db, buildId: string, picture: string): Promise<Buffer | null> {
  return (await readPhotos(db, buildId, [picture])).get(picture) ?? null;
}

/** Those of them that are here. */
export async function readPhotos(
  db: Db,
  buildId: string,
  pictures: readonly string[],
): Promise<ReadonlyMap<string, Buffer>> {
  if (pictures.length === 0) return new Map();
  const rows = await db
    .select({ picture: photo.picture, bytes: photo.bytes })
    .from(photo)
    .where(and(eq(photo.buildId, buildId), inArray(photo.picture, [...pictures])));
  return new Map(rows.map(({ picture, bytes }) => [picture, bytes]));
}
