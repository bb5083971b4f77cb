import { z } from 'zod';
import { SIGN_CHECK_NAMES } from '../../sign/sign-checks';
import { id, text } from './entry-fields';
import { NAME_LENGTH, SENTENCE_LENGTH } from './limits';
import type { KindsOfEntry } from './kind-of-entry';

/** Sign: the last checks, the signature, and its undoing. Its kinds of entry. */

const signChecked = z
  .strictObject({
    replaces: id.nullable(),
    check: z.enum(SIGN_CHECK_NAMES),
    result: z.enum(['done', 'skipped']),
    reason: text(SENTENCE_LENGTH, 'the reason').optional(),
  })
  .refine((body) => body.result === 'done' || body.reason !== undefined, {
    path: ['reason'],
    error: 'say why the check is skipped',
  })
  .describe('A check before the build is signed, made or skipped with a reason.');

const buildSigned = z
  .strictObject({
    after: id.nullable().describe('The reopening before it, or null.'),
    name: text(NAME_LENGTH, 'the name').describe('Who signs, as written.'),
    note: text(400, 'the note').optional(),
  })
  .describe('The build is signed: closed to new entries until it is reopened.');

const buildReopened = z
  .strictObject({ signature: id.describe('The build.signed entry.'), reason: text(SENTENCE_LENGTH, 'the reason') })
  .describe('A signed build is opened again, with a reason.');

export const SIGN_ENTRIES = {
  'sign.checked': { body: signChecked, undoable: false, station: 'sign', seen: true },
  'build.signed': { body: buildSigned, undoable: false, station: 'sign', seen: false },
  'build.reopened': { body: buildReopened, undoable: false, station: 'sign', seen: false },
} as const satisfies KindsOfEntry;
