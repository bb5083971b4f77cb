import { z } from 'zod';
import { PHOTO_SUBJECTS } from '../photos/photo';

/** A photo as the Report has it. Its picture is fetched by its fingerprint. */
export const photoSchema = z.strictObject({
  entry: z.string(),
  picture: z.string().describe('SHA-256 of the picture’s bytes.'),
  width: z.number().describe('Pixels.'),
  height: z.number().describe('Pixels.'),
  bytes: z.number(),
  shows: z.enum(PHOTO_SUBJECTS),
  of: z.string().nullable().describe('The entry that it belongs to.'),
  title: z.string(),
  beside: z.string().nullable().describe('The line of the sheet that it belongs to.'),
  words: z.string().nullable(),
  takenAt: z.string(),
});
