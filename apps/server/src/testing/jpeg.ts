import { encode } from 'jpeg-js';

/** A small picture, 64 × 48, another for each seed. */
export function drawnJpeg(seed: number, width = 64, height = 48): Buffer {
  const data = Buffer.alloc(width * height * 4, 255);
  for (let at = 0; at < width * height; at += 1) {
    data[4 * at] = (at * 7 * seed) % 256;
    data[4 * at + 1] = (at % width) * 3;
    data[4 * at + 2] = 40 * seed;
  }
  return encode({ data, width, height }, 80).data;
}
