import type { Result } from '@yosoku/core/problem';
import { PHOTO_BYTES, PHOTO_EDGE } from '@yosoku/core/photos/photo';

/** A canvas to draw a picture on: of the page or of a worker. */
export interface Drawing {
  readonly context: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;
  readonly toJpeg: (quality: number) => Promise<Blob | null>;
}

/** Why a file was not taken for a photo: no picture that this browser opens; larger than this device can work on. */
export type NoPhoto = 'no-picture' | 'too-much';

/** A photo that is small enough to be kept. */
export interface SmallPhoto {
  readonly picture: string;
  readonly bytes: Blob;
  readonly width: number;
  readonly height: number;
}

export type Shrunk = Result<SmallPhoto, { readonly trouble: NoPhoto }>;

/** Fine enough to read a wheel by; less where a picture is so rough that it would be too large. */
const QUALITIES = [0.85, 0.7, 0.5, 0.3];
const PAPER = '#ffffff';

/** @example fitWithin(4032, 3024) // [2000, 1500] */
function fitWithin(width: number, height: number): readonly [width: number, height: number] {
  const scale = Math.min(1, PHOTO_EDGE / Math.max(width, height));
  return [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))];
}

/**
 * Makes a photo of any picture that the browser opens: upright, at most 2,000 pixels a side, JPEG. It is drawn anew, so that nothing is left of what the
 * camera wrote beside it (place, time, serial number).
 * @param canvas makes a canvas of that size, or null where there is no memory for it.
 * @param nameOf gives the fingerprint of bytes.
 */
export async function shrink(
  file: Blob,
  canvas: (width: number, height: number) => Drawing | null,
  nameOf: (bytes: Uint8Array) => string,
): Promise<Shrunk> {
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null);
  if (!picture) return { ok: false, trouble: 'no-picture' };
  const [width, height] = fitWithin(picture.width, picture.height);
  try {
    const drawing = canvas(width, height);
    if (!drawing) return { ok: false, trouble: 'too-much' };
    const { context } = drawing;
    context.fillStyle = PAPER;
    context.fillRect(0, 0, width, height);
    context.imageSmoothingQuality = 'high';
    context.drawImage(picture, 0, 0, width, height);
    for (const quality of QUALITIES) {
      const bytes = await drawing.toJpeg(quality);
      if (!bytes || bytes.type !== 'image/jpeg' || bytes.size > PHOTO_BYTES) continue;
      return { ok: true, picture: nameOf(new Uint8Array(await bytes.arrayBuffer())), bytes, width, height };
    }
    return { ok: false, trouble: 'too-much' };
  } finally {
    picture.close();
  }
}
