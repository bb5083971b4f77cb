import type { Db } from '../db/database';
import { type Deriver, TaskFailedForNow } from './deriver';
import type { Log } from '../web/log';
import { Problem } from '../web/problem';
import { giveUpOnSummary, staleBuilds } from '../builds/summary';

/** A build is worked out when nothing has come into it for so long, ms: not at every reading of a row of them. */
const QUIET_MS = 1_500;

/**
 * Keeps what lists show up to date, beside everything else: one build at a time, in a process of its own. Nobody waits for it.
 */
export function makeSummaries(db: Db, deriver: Deriver, log: Log) {
  const quiet = new Map<string, NodeJS.Timeout>();
  const queue = new Set<string>();
  let busy = false;
  let closed = false;

  async function drain(): Promise<void> {
    if (busy) return;
    busy = true;
    for (const buildId of queue) {
      queue.delete(buildId);
      try {
        await deriver.run('summary', { buildId });
      } catch (error) {
        if (closed) break;
        if (error instanceof Problem) await giveUpOnSummary(db, buildId, error.detail).catch(() => undefined);
        // What failed for the moment is found again by the next list.
        else if (!(error instanceof TaskFailedForNow))
          log.error({ err: error, buildId }, 'a summary could not be made');
      }
    }
    busy = false;
  }

  const renew = (buildId: string): void => {
    if (closed) return;
    queue.add(buildId);
    void drain();
  };

  return {
    /** Something has come into a build. */
    touched(buildId: string): void {
      clearTimeout(quiet.get(buildId));
      quiet.set(
        buildId,
        setTimeout(() => {
          quiet.delete(buildId);
          renew(buildId);
        }, QUIET_MS).unref(),
      );
    },
    /** Looks which builds of a shop lag behind, and works them out. */
    async renewShop(shopId: string): Promise<void> {
      for (const id of await staleBuilds(db, shopId)) renew(id);
    },
    renew,
    close(): void {
      closed = true;
      for (const timer of quiet.values()) clearTimeout(timer);
      queue.clear();
    },
  };
}

export type Summaries = ReturnType<typeof makeSummaries>;
