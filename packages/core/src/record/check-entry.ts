import { ENTRIES, type Entry, entrySchema } from './entry';
import { firstIssue } from './issue-path';

/**
 * Why an entry can stand in no logbook, in words; null where it can. Asked before it is kept: what is kept must be taken by every server.
 * @example checkEntry({ ...reading, takenAt: 'soon' }) // "takenAt: expected a time such as 2026-03-14T09:26:53Z"
 */
export function checkEntry(entry: unknown): string | null {
  const parsed = entrySchema.safeParse(entry);
  if (parsed.success) return null;
  const { field, message } = firstIssue(parsed.error);
  return field === '' ? message : `${field}: ${message}`;
}

/** Is it part of the measuring, so that Undo takes it back? */
export const isUndoable = ({ kind }: Entry): boolean => ENTRIES[kind].undoable;
