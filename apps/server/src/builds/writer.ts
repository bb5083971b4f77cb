import type { Db } from '../db/database';
import { entry } from '../db/schema';
import { append } from './append';
import { type EntryRow, type Placed, type Posting, checkAuthors, toRow } from './posting';
import { type Tail, closedAfter, findTail } from './tail';

interface Queued {
  readonly posting: Posting;
  readonly settle: (placed: Placed[]) => void;
  readonly fail: (error: unknown) => void;
}

/** Postings in one statement at the most, and ends of logbooks remembered at the most. */
const MOST_TOGETHER = 64;
const MOST_TAILS = 5_000;

/**
 * Writes postings into logbooks. Those that arrive while one statement is under way go together into the next: a disk keeps
 * sixteen readings as fast as one, and nobody is answered before his are kept.
 *
 * The ends of logbooks are remembered, so that the usual posting is a single INSERT. That is only a guess, which the
 * database checks: a place or an id that is taken fails the whole statement, and every posting of it then goes the
 * slow and certain way of `append.ts`. Any number of servers may do this side by side.
 */
export function makeWriter(db: Db) {
  const tails = new Map<string, Tail>();
  let queue: Queued[] = [];
  let busy = false;

  async function tailOf(buildId: string): Promise<Tail | null> {
    const known = tails.get(buildId);
    if (known) return known;
    const found = await findTail(db, buildId);
    if (tails.size >= MOST_TAILS) tails.clear();
    if (found) tails.set(buildId, found);
    return found;
  }

  /** Rows for the postings that are plainly in order, and the ends of the logbooks once they are kept. */
  async function guess(batch: readonly Queued[]) {
    const ends = new Map<string, Tail>();
    const rows: EntryRow[] = [];
    const placed = new Map<Queued, Placed[]>();
    for (const queued of batch) {
      const { account, buildId, entries } = queued.posting;
      const tail = ends.get(buildId) ?? (await tailOf(buildId));
      if (tail?.shopId !== account.shopId) continue;
      const closedBy = closedAfter(tail.closedBy, entries);
      if (closedBy === 'refused') continue;
      const own = entries.map((each, at) => toRow(each, tail.seq + at + 1, account));
      rows.push(...own);
      ends.set(buildId, { ...tail, seq: tail.seq + own.length, closedBy });
      placed.set(
        queued,
        own.map(({ id, seq }) => ({ id, seq })),
      );
    }
    return { ends, rows, placed };
  }

  async function certainly({ posting, settle, fail }: Queued): Promise<void> {
    tails.delete(posting.buildId);
    await append(db, posting).then(settle, fail);
  }

  async function write(batch: readonly Queued[]): Promise<void> {
    let settled: ReadonlyMap<Queued, Placed[]> = new Map();
    try {
      const { ends, rows, placed } = await guess(batch);
      if (rows.length > 0) await db.insert(entry).values(rows);
      for (const [buildId, tail] of ends) tails.set(buildId, tail);
      settled = placed;
    } catch {
      // A taken id or place, most likely: the certain way finds out which, and reports anything worse.
    }
    for (const queued of batch) {
      const placed = settled.get(queued);
      if (placed) queued.settle(placed);
      else await certainly(queued);
    }
  }

  async function drain(): Promise<void> {
    if (busy) return;
    busy = true;
    while (queue.length > 0) {
      const batch = queue.slice(0, MOST_TOGETHER);
      queue = queue.slice(MOST_TOGETHER);
      await write(batch);
    }
    busy = false;
  }

  /** Puts entries at the end of a build's logbook; all or none. Throws a problem when they are refused. */
  return async function post(posting: Posting): Promise<Placed[]> {
    await checkAuthors(db, posting);
    return new Promise((settle, fail) => {
      queue.push({ posting, settle, fail });
      void drain();
    });
  };
}
