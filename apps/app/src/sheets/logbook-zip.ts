import type { Checked } from '@yosoku/core/problem';
import { Zip, ZipDeflate, ZipPassThrough, strToU8, unzipSync } from 'fflate';
import { MOST_PHOTOS, PHOTO_BYTES } from '@yosoku/core/photos/photo';

/** A logbook and its photos in one file: `logbook.yosoku.json`, and `photos/<fingerprint>.jpg`. */

const LOGBOOK = 'logbook.yosoku.json';
const PHOTO = /^photos\/([0-9a-f]{64})\.jpg$/;
/** What the server takes of a logbook. */
const LARGEST_LOGBOOK = 16 * 1024 * 1024;

/**
 * Packs a logbook and its photos.
 * @param pictures gives the bytes of each, one after the other, so that only one of them is in memory twice.
 */
export async function packLogbook(
  logbook: string,
  pictures: AsyncIterable<{ readonly picture: string; readonly bytes: Uint8Array }>,
): Promise<Blob> {
  const parts: Uint8Array<ArrayBuffer>[] = [];
  const zip = new Zip((error, part) => {
    if (error) throw error;
    parts.push(new Uint8Array(part));
  });
  const text = new ZipDeflate(LOGBOOK);
  zip.add(text);
  text.push(strToU8(logbook), true);
  for await (const { picture, bytes } of pictures) {
    // A JPEG is compressed already.
    const file = new ZipPassThrough(`photos/${picture}.jpg`);
    zip.add(file);
    file.push(bytes, true);
  }
  zip.end();
  return new Blob(parts, { type: 'application/zip' });
}

export type Unpacked = Checked<{
  readonly logbook: string;
  /** By their fingerprints; those that are not what they are called are left out. */
  readonly pictures: ReadonlyMap<string, Uint8Array<ArrayBuffer>>;
}>;

/** Opens what `packLogbook` made. What else is in it is passed over; nothing is unpacked that is larger than it may be. */
export async function unpackLogbook(file: Uint8Array): Promise<Unpacked> {
  const { fingerprintOf } = await import('@/photos/fingerprint-of');
  let count = 0;
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(file, {
      filter: ({ name, originalSize }) => {
        if (name === LOGBOOK) return originalSize <= LARGEST_LOGBOOK;
        if (!PHOTO.test(name) || originalSize > PHOTO_BYTES) return false;
        count += 1;
        return count <= MOST_PHOTOS;
      },
    });
  } catch {
    return { ok: false, message: 'It is no zip file, or it is damaged.' };
  }
  const logbook = files[LOGBOOK];
  if (!logbook) return { ok: false, message: `It has no ${LOGBOOK} in it: it is not a build with photos.` };
  const pictures = new Map<string, Uint8Array<ArrayBuffer>>();
  for (const [name, bytes] of Object.entries(files)) {
    const picture = PHOTO.exec(name)?.[1];
    if (picture !== undefined && fingerprintOf(bytes) === picture) pictures.set(picture, new Uint8Array(bytes));
  }
  return { ok: true, logbook: new TextDecoder().decode(logbook), pictures };
}

/** The fingerprints of the photos that a logbook names, each once. */
export function picturesNamed(logbook: string): readonly string[] {
  const { entries = [] } = JSON.parse(logbook) as {
    entries?: readonly { kind?: string; body?: { picture?: string } }[];
  };
  return [
    ...new Set(entries.flatMap(({ kind, body }) => (kind === 'photo.taken' && body?.picture ? [body.picture] : []))),
  ];
}
