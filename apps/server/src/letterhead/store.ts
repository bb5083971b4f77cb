import { eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { letterhead } from '../db/schema';
import type { Logo } from './read-logo';

/** What stands at the head of a shop's sheets, beside its name. */
export interface Letterhead {
  readonly lines: readonly string[];
  readonly logo: Logo | null;
}

const NONE: Letterhead = { lines: [], logo: null };

export async function readLetterhead(db: Db, shopId: string): Promise<Letterhead> {
  const [row] = await db.select().from(letterhead).where(eq(letterhead.shopId, shopId));
  if (!row) return NONE;
  const { lines, logoKind: kind, logo: bytes, logoWidth: width, logoHeight: height } = row;
  const isWhole = kind !== null && bytes !== null && width !== null && height !== null;
  return {
    lines: lines === '' ? [] : lines.split('\n'),
    logo: isWhole ? { kind, bytes, width, height } : null,
  };
}

async function set(db: Db, shopId: string, part: Partial<typeof letterhead.$inferInsert>): Promise<void> {
  await db
    .insert(letterhead)
    .values({ shopId, lines: '', ...part })
    .onDuplicateKeyUpdate({ set: part });
}

/** @param words lines under the shop’s name. */
export const keepWords = (db: Db, shopId: string, words: string): Promise<void> => set(db, shopId, { lines: words });

export const keepLogo = (db: Db, shopId: string, logo: Logo | null): Promise<void> =>
  set(db, shopId, {
    logoKind: logo?.kind ?? null,
    logo: logo && Buffer.from(logo.bytes),
    logoWidth: logo?.width ?? null,
    logoHeight: logo?.height ?? null,
  });
