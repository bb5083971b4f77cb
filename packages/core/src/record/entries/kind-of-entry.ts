import type { z } from 'zod';
import type { Station } from './stations';

/** What there is to know of a kind of entry. */
interface KindOfEntry {
  /** What it says. An entry is a fact, never changed, at most voided by a later entry; its meaning hangs on the ids that it names. */
  readonly body: z.ZodType;
  /** Is it part of the measuring, so that Undo takes it back? */
  readonly undoable: boolean;
  /** The station at which it is written; null where it is written at several. */
  readonly station: Station | null;
  /** Was something looked at, so that a photo can show it? */
  readonly seen: boolean;
}

export type KindsOfEntry = Readonly<Record<string, KindOfEntry>>;
