import { readEntries } from './logbook';
import { lastSeq } from './tail';
import type { Db } from '../db/database';
import type { Log } from '../web/log';
import type { Entry } from '@yosoku/core/record/entry';

/** How often the database is asked for what other servers wrote. Two devices see each other within a second. */
const EVERY_MS = 400;

type Listener = (entries: readonly Entry[]) => void;

interface Watched {
  readonly listeners: Set<Listener>;
  seq: number;
  timer: NodeJS.Timeout;
}

/**
 * Tells whoever looks at a build of the entries that come into its logbook, whichever server they were posted to. One question to the
 * database for each build that is looked at, however many look.
 */
export function makeWatch(db: Db, log: Log) {
  const builds = new Map<string, Watched>();

  async function look(buildId: string, watched: Watched): Promise<void> {
    try {
      if ((await lastSeq(db, buildId)) > watched.seq) {
        const fresh = await readEntries(db, buildId, watched.seq);
        watched.seq = fresh.at(-1)?.seq ?? watched.seq;
        if (fresh.length > 0) for (const listener of watched.listeners) listener(fresh);
      }
    } catch (error) {
      // The database is away for a moment: asked again in a moment.
      log.warn({ err: error }, 'a followed build could not be looked at');
    }
    if (builds.get(buildId) === watched) watched.timer = setTimeout(() => void look(buildId, watched), EVERY_MS);
  }

  /** @returns how to stop listening. Entries up to `after` are known to the listener; those that it lacks come first. */
  return async function watch(buildId: string, after: number, listener: Listener): Promise<() => void> {
    let known = after;
    const tell: Listener = (entries) => {
      const news = entries.filter(({ seq = 0 }) => seq > known);
      known = news.at(-1)?.seq ?? known;
      if (news.length > 0) listener(news);
    };
    let watched = builds.get(buildId);
    if (!watched) {
      watched = { listeners: new Set(), seq: await lastSeq(db, buildId), timer: setTimeout(() => undefined, 0) };
      const other = builds.get(buildId);
      if (other) watched = other;
      else {
        builds.set(buildId, watched);
        const begun = watched;
        watched.timer = setTimeout(() => void look(buildId, begun), EVERY_MS);
      }
    }
    const here = watched;
    const stop = (): void => {
      here.listeners.delete(tell);
      if (here.listeners.size > 0) return;
      clearTimeout(here.timer);
      if (builds.get(buildId) === here) builds.delete(buildId);
    };
    here.listeners.add(tell);
    try {
      tell(await readEntries(db, buildId, after));
    } catch (error) {
      stop();
      throw error;
    }
    return stop;
  };
}
