import { z } from 'zod';
import { PHOTO_BYTES, PHOTO_EDGE, PHOTO_SUBJECTS } from '../../photos/photo';
import { id, text } from './entry-fields';
import { SENTENCE_LENGTH } from './limits';
import type { KindsOfEntry } from './kind-of-entry';

/** Photos: what was taken, and what it belongs to. The picture itself stands beside the logbook, under its fingerprint. Its kinds of entry. */

const pixels = (what: string) => {
  const error = `${what} must be a whole number of pixels from 1 to ${PHOTO_EDGE}`;
  return z.int({ error }).min(1, { error }).max(PHOTO_EDGE, { error });
};
const size = `a picture has at most ${PHOTO_BYTES / 1024 / 1024} MB`;

/** SHA-256 of a picture’s bytes, in small letters. */
export const fingerprint = z
  .string({ error: 'the fingerprint must be text' })
  .regex(/^[0-9a-f]{64}$/, { error: 'the fingerprint must be 64 hexadecimal digits in small letters' });

const photoTaken = z
  .strictObject({
    picture: fingerprint.describe('SHA-256 of the picture’s bytes (JPEG, without the data of the camera).'),
    width: pixels('the width'),
    height: pixels('the height'),
    bytes: z.int({ error: size }).min(1, { error: 'the picture is empty' }).max(PHOTO_BYTES, { error: size }),
    shows: z.enum(PHOTO_SUBJECTS).describe('The card, the wheel, the pattern on a valve tip, damage, something else.'),
    of: id.nullable().describe('The entry that it belongs to, such as a reading; null where it belongs to none.'),
    words: text(SENTENCE_LENGTH, 'the words').optional().describe('What the builder wrote beside it.'),
  })
  .describe('A photo. Its picture is kept under its fingerprint; voiding the entry takes it off the sheet.');

export const PHOTO_ENTRIES = {
  'photo.taken': { body: photoTaken, undoable: false, station: null, seen: false },
} as const satisfies KindsOfEntry;
