import { z } from 'zod';
import { buildDescribed, entryVoided } from './entries/build';
import { cardEntered, targetSet } from './entries/card';
import { clearanceMeasured, clearanceSetUp } from './entries/clear';
import { verdictAccepted } from './entries/decide';
import { driveFitted, phaserRead } from './entries/move';
import { lashBegun, lashTaken } from './entries/lash';
import { photoTaken } from './entries/photo';
import { asItStands, checkMade, endPlayMeasured } from './entries/prepare';
import { readingTaken, tracePointsVoided, traceRecorded, trialBegun } from './entries/read';
import { pushrodMeasured, rockerTried, rockersSetUp } from './entries/rockers';
import { buildReopened, buildSigned, signChecked } from './entries/sign';
import {
  markChecked,
  readingsRebased,
  tdcIdentified,
  zeroBegun,
  zeroDisturbed,
  zeroReading,
  zeroSet,
} from './entries/zero';
import { id, time } from './entries/entry-fields';
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

/** Every kind of entry. A new one is a body in `entries/` and a line here; `fold` then says what it does to the build, `sheet-rows` how it is listed. */
export const ENTRIES = {
  'build.described': { body: buildDescribed, undoable: false, station: null, seen: false },
  'zero.begun': { body: zeroBegun, undoable: false, station: 'zero', seen: false },
  'zero.reading': { body: zeroReading, undoable: true, station: 'zero', seen: true },
  'zero.set': { body: zeroSet, undoable: true, station: 'zero', seen: false },
  'zero.disturbed': { body: zeroDisturbed, undoable: true, station: 'zero', seen: false },
  'readings.rebased': { body: readingsRebased, undoable: true, station: null, seen: false },
  'engine.as-it-stands': { body: asItStands, undoable: false, station: 'prepare', seen: false },
  'prepare.checked': { body: checkMade, undoable: false, station: 'prepare', seen: true },
  'end-play.measured': { body: endPlayMeasured, undoable: false, station: 'prepare', seen: true },
  'tdc.identified': { body: tdcIdentified, undoable: false, station: null, seen: false },
  'mark.checked': { body: markChecked, undoable: false, station: null, seen: true },
  'card.entered': { body: cardEntered, undoable: false, station: 'card', seen: false },
  'target.set': { body: targetSet, undoable: false, station: 'card', seen: false },
  'trial.begun': { body: trialBegun, undoable: true, station: 'read', seen: false },
  'reading.taken': { body: readingTaken, undoable: true, station: 'read', seen: true },
  'trace.recorded': { body: traceRecorded, undoable: true, station: 'read', seen: false },
  'trace.points-voided': { body: tracePointsVoided, undoable: true, station: null, seen: false },
  'verdict.accepted': { body: verdictAccepted, undoable: false, station: 'decide', seen: false },
  'drive.fitted': { body: driveFitted, undoable: true, station: 'move', seen: false },
  'phaser.read': { body: phaserRead, undoable: true, station: 'move', seen: false },
  'clearance.set-up': { body: clearanceSetUp, undoable: false, station: 'clear', seen: false },
  'clearance.measured': { body: clearanceMeasured, undoable: true, station: 'clear', seen: true },
  'rockers.set-up': { body: rockersSetUp, undoable: false, station: 'rockers', seen: false },
  'rocker.tried': { body: rockerTried, undoable: true, station: 'rockers', seen: true },
  'pushrod.measured': { body: pushrodMeasured, undoable: false, station: 'rockers', seen: true },
  'lash.begun': { body: lashBegun, undoable: true, station: 'lash', seen: false },
  'lash.taken': { body: lashTaken, undoable: true, station: 'lash', seen: true },
  'photo.taken': { body: photoTaken, undoable: false, station: null, seen: false },
  'sign.checked': { body: signChecked, undoable: false, station: 'sign', seen: true },
  'build.signed': { body: buildSigned, undoable: false, station: 'sign', seen: false },
  'build.reopened': { body: buildReopened, undoable: false, station: 'sign', seen: false },
  'entry.voided': { body: entryVoided, undoable: false, station: null, seen: false },
} as const satisfies Readonly<Record<string, KindOfEntry>>;

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
