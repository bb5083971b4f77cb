import { useCallback } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { BodyOf, Entry, EntryKind } from '@yosoku/core/record/entry';
import type { Report } from '@yosoku/core/report/report';
import { standingNow } from './standing-now';
import { isUndoable, troubleWith } from '@/store/arithmetic';
import { notWritten, recorded } from '@/store/outbox-slice';
import { practised } from '@/store/practice-slice';
import { selectEntries, selectReport } from '@/store/selectors';
import { useAppDispatch, useAppSelector } from '@/store/store';

/** What no logbook would take: a form has let it through, which is a mistake of the program. */
class NotWritten extends Error {}

/**
 * Writes facts into a build's logbook. They show at once and are sent when the server can be reached. What the logbook would not take is not
 * written, and said (see `unwritten.tsx`); it throws then, so that whoever was recording goes no further and clears nothing that was typed.
 */
export type Write = <K extends EntryKind>(kind: K, body: BodyOf<K>) => string;

export const newId = (): string => uuidv7();

/** Writes into any build's logbook in the name of whoever is signed in. What belongs to a practice stays on this device. */
export function useWriteTo(buildId: string): Write {
  const dispatch = useAppDispatch();
  const stand = useAppSelector((state) => state.practice.runs[buildId]?.stand);
  const account = useAppSelector((state) => state.session.account);
  return useCallback(
    (kind, body) => {
      if (!account) throw new Error('Nobody is signed in.');
      const id = newId();
      const takenAt = new Date().toISOString();
      const entry = { id, buildId, kind, body, takenAt, builderId: account.builderId } as Entry;
      const trouble = troubleWith(entry);
      if (trouble !== null) {
        dispatch(notWritten(trouble));
        throw new NotWritten(trouble);
      }
      dispatch(
        stand
          ? practised({ entry, stand: standingNow(buildId) ?? stand })
          : recorded([{ shopId: account.shopId, entry }]),
      );
      return id;
    },
    [account, buildId, dispatch, stand],
  );
}

/** The last entry that can be undone: the newest one that still counts and is part of the measuring. In a practice only what was done in it (`own`). */
function lastUndoable(
  entries: readonly Entry[],
  own: Readonly<Record<string, unknown>> | undefined,
): Entry | undefined {
  const voided = new Set(entries.flatMap((entry) => (entry.kind === 'entry.voided' ? entry.body.voids : [])));
  return entries.findLast(
    (entry, at) => (own ? entry.id in own : at > 1) && isUndoable(entry) && !voided.has(entry.id),
  );
}

/** A build's logbook on this device: what follows from it, how to write into it, how to take the last thing back. */
export function useLogbook(buildId: string): {
  readonly report: Report | null;
  readonly write: Write;
  readonly undo: (() => void) | null;
} {
  const report = useAppSelector((state) => selectReport(state, buildId));
  const entries = useAppSelector((state) => selectEntries(state, buildId));
  const write = useWriteTo(buildId);
  const trail = useAppSelector((state) => state.practice.runs[buildId]?.trail);
  const last = lastUndoable(entries, trail);
  return { report, write, undo: last ? () => void write('entry.voided', { voids: last.id }) : null };
}
