import { fingerprintOf } from './fingerprint-of';
import { type Drawing, type Shrunk, shrink } from './shrink';

function draw(width: number, height: number): Drawing | null {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  return context && { context, toJpeg: (quality) => canvas.convertToBlob({ type: 'image/jpeg', quality }) };
}

/** Makes a picture smaller beside the page, so that the page goes on. */
self.onmessage = ({ data }: MessageEvent<Blob>) => {
  shrink(data, draw, fingerprintOf)
    .catch((): Shrunk => ({ ok: false, trouble: 'too-much' }))
    .then((shrunk) => self.postMessage(shrunk));
};
