import type { Checked } from '@yosoku/core/problem';
import type { Drawing, NoPhoto, Shrunk, SmallPhoto } from './shrink';

/** The bundler makes a piece of its own of a worker that is named like this. */
declare const require: { readonly unstable_resolveWorker: (path: string) => string };

/** Larger files are not opened at all: a phone would run out of memory over them. */
const LARGEST = 40 * 1024 * 1024;

/** A browser without canvases in workers has those of the page. */
function drawOnPage(width: number, height: number): Drawing | null {
  const canvas = Object.assign(document.createElement('canvas'), { width, height });
  const context = canvas.getContext('2d');
  return (
    context && {
      context,
      toJpeg: (quality) => new Promise((settle) => canvas.toBlob(settle, 'image/jpeg', quality)),
    }
  );
}

async function onPage(file: Blob): Promise<Shrunk> {
  const [{ shrink }, { fingerprintOf }] = await Promise.all([import('./shrink'), import('./fingerprint-of')]);
  return shrink(file, drawOnPage, fingerprintOf);
}

const inWorker = (file: Blob): Promise<Shrunk> =>
  new Promise((settle, fail) => {
    const worker = new Worker(require.unstable_resolveWorker('./shrink.worker'));
    const end = (): void => worker.terminate();
    worker.onmessage = ({ data }: MessageEvent<Shrunk>) => {
      end();
      settle(data);
    };
    worker.onerror = () => {
      end();
      fail(new Error('the worker broke off'));
    };
    worker.postMessage(file);
  });

const WHY: Readonly<Record<NoPhoto | 'large', string>> = {
  'no-picture': 'is no picture that this browser can open. JPEG, PNG and WebP always work.',
  'too-much': 'is more than this device can make smaller. Choose a smaller picture.',
  large: `has more than ${LARGEST / 1024 / 1024} MB. Choose a smaller picture, or take it again with less resolution.`,
};

export type MadePhoto = Checked<SmallPhoto>;

/** Makes a photo of a file that was taken or chosen. What is wrong with it comes back in words. */
export async function makePhoto(file: File): Promise<MadePhoto> {
  const not = (why: NoPhoto | 'large'): MadePhoto => ({
    ok: false,
    message: `“${file.name}” ${WHY[why]} Nothing was added.`,
  });
  if (file.size > LARGEST) return not('large');
  const able = typeof Worker !== 'undefined' && typeof OffscreenCanvas !== 'undefined';
  const shrunk = await (able ? inWorker(file) : onPage(file)).catch((): Shrunk => ({
    ok: false,
    trouble: 'too-much',
  }));
  return shrunk.ok ? shrunk : not(shrunk.trouble);
}
