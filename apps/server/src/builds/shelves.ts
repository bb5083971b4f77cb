import { and, desc, eq, inArray } from 'drizzle-orm';
import type { BodyOf, Described } from '@yosoku/core/record/entry';
import type { Db } from '../db/database';
import { build, entry } from '../db/schema';

/** So many of the newest are looked through: cards and wheels come again and again. */
const LOOKED_THROUGH = 2000;
const MOST_CARDS = 200;
const MOST_WHEELS = 20;

/** Cards and wheels that the shop has used, each once, the newest first. */
export interface Shelves {
  readonly cards: readonly Omit<BodyOf<'card.entered'>, 'replaces'>[];
  readonly wheels: readonly Pick<Described, 'wheel' | 'rings' | 'instruments'>[];
}

/** Nobody puts them there: whatever stands in the logbooks of the shop, and was not undone. */
export async function readShelves(db: Db, shopId: string): Promise<Shelves> {
  const rows = await db
    .select({ id: entry.id, kind: entry.kind, body: entry.body })
    .from(entry)
    .innerJoin(build, eq(entry.buildId, build.id))
    .where(and(eq(build.shopId, shopId), inArray(entry.kind, ['card.entered', 'build.described', 'entry.voided'])))
    .orderBy(desc(entry.receivedAt), desc(entry.seq))
    .limit(LOOKED_THROUGH);
  const voided = new Set(
    rows.flatMap(({ kind, body }) => (kind === 'entry.voided' ? (body as BodyOf<'entry.voided'>).voids : [])),
  );
  const cards = new Map<string, Shelves['cards'][number]>();
  const wheels = new Map<string, Shelves['wheels'][number]>();
  for (const { id, kind, body } of rows) {
    if (voided.has(id)) continue;
    if (kind === 'card.entered') {
      const { replaces: _replaces, ...card } = body as BodyOf<'card.entered'>;
      if (card.name !== undefined && !cards.has(card.name)) cards.set(card.name, card);
    } else if (kind === 'build.described') {
      const { wheel, rings, instruments } = body as BodyOf<'build.described'>;
      const found = { wheel, ...(rings ? { rings } : {}), ...(instruments ? { instruments } : {}) };
      const key = JSON.stringify(found);
      if (!wheels.has(key)) wheels.set(key, found);
    }
  }
  return { cards: [...cards.values()].slice(0, MOST_CARDS), wheels: [...wheels.values()].slice(0, MOST_WHEELS) };
}
