import type { Checked } from '@yosoku/core/problem';
import { PHOTO_EDGE } from '@yosoku/core/photos/photo';

/** Segments of a JPEG, ITU-T T.81 §B. */
const START = 0xd8;
const SCAN = 0xda;
const COMMENT = 0xfe;
const FIRST_APP = 0xe0;
const LAST_APP = 0xef;
/** JFIF, the colour profile and the colour transform: what a picture needs to look right. All other APP segments are data of the camera. */
const PLAIN_APP: readonly (readonly [marker: number, name: string])[] = [
  [0xe0, 'JFIF\0'],
  [0xe2, 'ICC_PROFILE\0'],
  [0xee, 'Adobe'],
];
/** Start of frame: baseline, extended, progressive. The other ways of coding are not drawn by browsers. */
const FRAMES = new Set([0xc0, 0xc1, 0xc2]);
const END = [0xff, 0xd9] as const;

export type Jpeg = Checked<{ readonly width: number; readonly height: number }>;

const refused = (message: string): Jpeg => ({ ok: false, message });
const broken = (): Jpeg => refused('This is no JPEG picture, or it is damaged.');

/**
 * Looks through the segments of a JPEG: is it one, is it whole, how large is it, and has it been freed of what the camera wrote beside the picture (place, serial number)?
 * @example readJpeg(bytes) // { ok: true, width: 2000, height: 1500 }
 */
export function readJpeg(bytes: Uint8Array): Jpeg {
  if (bytes[0] !== 0xff || bytes[1] !== START) return broken();
  if (bytes.at(-2) !== END[0] || bytes.at(-1) !== END[1]) return broken();
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let size: { width: number; height: number } | null = null;
  let at = 2;
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) return broken();
    const marker = bytes[at + 1] ?? 0;
    // A marker may be filled up to its place.
    if (marker === 0xff) {
      at += 1;
      continue;
    }
    const length = view.getUint16(at + 2);
    if (length < 2 || at + 2 + length > bytes.length) return broken();
    const isPlain = PLAIN_APP.some(([app, name]) => app === marker && startsWith(bytes, at + 4, name));
    if (marker === COMMENT || (marker >= FIRST_APP && marker <= LAST_APP && !isPlain))
      return refused('This picture still carries data of the camera, such as the place where it was taken.');
    if (FRAMES.has(marker)) {
      if (length < 8) return broken();
      size = { height: view.getUint16(at + 5), width: view.getUint16(at + 7) };
    }
    if (marker === SCAN) break;
    at += 2 + length;
  }
  if (!size || size.width === 0 || size.height === 0) return broken();
  if (size.width > PHOTO_EDGE || size.height > PHOTO_EDGE)
    return refused(`A picture has at most ${PHOTO_EDGE} pixels a side; this one has ${size.width} × ${size.height}.`);
  return { ok: true, ...size };
}

const startsWith = (bytes: Uint8Array, at: number, name: string): boolean =>
  [...name].every((letter, place) => bytes[at + place] === letter.charCodeAt(0));
