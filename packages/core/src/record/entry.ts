import { z } from 'zod';
import { BUILD_ENTRIES } from './entries/build';
import { CARD_ENTRIES } from './entries/card';
import { CLEAR_ENTRIES } from './entries/clear';
import { DECIDE_ENTRIES } from './entries/decide';
import { LASH_ENTRIES } from './entries/lash';
import { MOVE_ENTRIES } from './entries/move';
import { PHOTO_ENTRIES } from './entries/photo';
import { PREPARE_ENTRIES } from './entries/prepare';
import { READ_ENTRIES } from './entries/read';
import { ROCKERS_ENTRIES } from './entries/rockers';
import { SIGN_ENTRIES } from './entries/sign';
import { ZERO_ENTRIES } from './entries/zero';
import { id, time } from './entries/entry-fields';

/**
 * Every kind of entry. A new one is its body and a row in `entries/<station>.ts`; `fold` then says what it does to the build, `sheet-rows` how it
 * is listed.
 */
export const ENTRIES = {
  ...BUILD_ENTRIES,
  ...PREPARE_ENTRIES,
  ...ZERO_ENTRIES,
  ...CARD_ENTRIES,
  ...READ_ENTRIES,
  ...DECIDE_ENTRIES,
  ...MOVE_ENTRIES,
  ...CLEAR_ENTRIES,
  ...ROCKERS_ENTRIES,
  ...LASH_ENTRIES,
  ...PHOTO_ENTRIES,
  ...SIGN_ENTRIES,
} as const;

export type EntryKind = keyof typeof ENTRIES;
export const ENTRY_KINDS = Object.keys(ENTRIES) as [EntryKind, ...EntryKind[]];

const envelope = {
  id,
  buildId: id,
  takenAt: time.describe('The device’s clock. For people; nothing is computed from it.'),
  builderId: id,
  seq: z.int().min(1).optional().describe('Place in the logbook, given by the server.'),
  receivedAt: time.optional().describe('The server’s clock.'),
  postedBy: id
    .optional()
    .describe(
      'Who was signed in when the server took it, where that is not the builder who is named. Given by the server.',
    ),
};

const schemaOf = <K extends EntryKind>(kind: K) =>
  z.strictObject({ ...envelope, kind: z.literal(kind), body: ENTRIES[kind].body as (typeof ENTRIES)[K]['body'] });
type EntrySchemas = { readonly [K in EntryKind]: ReturnType<typeof schemaOf<K>> };
type AnyEntrySchema = EntrySchemas[EntryKind];

export const entrySchema = z.discriminatedUnion(
  'kind',
  // A list made of a table has lost which schema belongs to which kind.
  ENTRY_KINDS.map((kind) => schemaOf(kind)) as unknown as readonly [AnyEntrySchema, ...AnyEntrySchema[]],
  {
    error: (issue) =>
      issue.code === 'invalid_union' ? `unknown kind of entry; known are ${ENTRY_KINDS.join(', ')}` : undefined,
  },
);

export type Entry = z.infer<typeof entrySchema>;
export type EntryOf<K extends EntryKind> = Extract<Entry, { kind: K }>;
export type BodyOf<K extends EntryKind> = EntryOf<K>['body'];
export type Described = BodyOf<'build.described'>;
export type FittedHardware = BodyOf<'drive.fitted'>['parts'][number];
export type PredictedView = NonNullable<BodyOf<'trial.begun'>['move']>['predicted'][number];
