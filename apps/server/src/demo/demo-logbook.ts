import type { BodyOf, Entry, EntryKind } from '@yosoku/core/record/entry';

/** What a demo logbook is written with: ids, and a clock that moves on by half a minute an entry. */
export interface Pen {
  readonly nextId: () => string;
  readonly builderId: string;
  readonly startedAt: Date;
}

const SECONDS_AN_ENTRY = 35;

/** Writes a logbook entry by entry, as the app would. Each call returns the new entry's id. */
export function openLogbook({ nextId, builderId, startedAt }: Pen) {
  const buildId = nextId();
  const entries: Entry[] = [];
  const write = <K extends EntryKind>(kind: K, body: BodyOf<K>): string => {
    const id = nextId();
    const takenAt = new Date(startedAt.getTime() + entries.length * SECONDS_AN_ENTRY * 1000).toISOString();
    entries.push({ id, buildId, kind, body, takenAt, builderId } as Entry);
    return id;
  };
  return { entries, write, nextId };
}
